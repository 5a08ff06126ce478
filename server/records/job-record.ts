import type { KeptPicture } from '@emery/core/drive';

/** What a signed-off job adds to the story. */
export interface JobRecord {
  title: string;
  detail: string;
  odometer: number | null;
  pictures: readonly KeptPicture[];
  /** What came in after it was signed off. */
  late?: readonly string[];
  /** Minutes its clock ran, and of its done steps by defaults; those from before that was kept have none. */
  clock?: { planned: number; worked: number };
}

/** So much of what a job says is kept for the story, characters; all of it is in the job. */
export const MOST_DETAIL = 20_000;
