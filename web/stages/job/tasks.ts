import type { StockFor } from '../../jobs/use-stock-for';
import type { Drive } from '@emery/core/drive';
import { beltOrder, bringList, cardOf } from '@emery/core/job';
import type { LengthUnit } from '@emery/core/quantity';

export interface JobAsked {
  drive: Drive;
  belt: string | null;
  unit: LengthUnit;
}

/** With the lengths that can be had, by belt: what is recommended is what Size recommends. */
export interface BringAsked extends JobAsked {
  stock: StockFor;
}

/** The long sums of Job card: a plan of cures may be searched for it, and every belt is sized for the bring list. */
export const jobTasks = {
  jobCard: ({ drive, belt, unit }: JobAsked) => cardOf(drive, belt ?? undefined, unit),
  jobBring: ({ drive, belt, stock }: BringAsked) => bringList(drive, beltOrder(drive, belt ?? undefined), stock),
};
