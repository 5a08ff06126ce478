import type { StageState } from './stage';

/** Each state as a mark: never a colour alone. */
export const STAGE_MARKS: Record<StageState, string> = {
  untouched: '○',
  'in progress': '◐',
  settled: '●',
  'needs attention': '▲',
};
