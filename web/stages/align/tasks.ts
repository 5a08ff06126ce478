import { planFor, searchSets, type PlanSearch } from '@emery/core/align';
import type { AlignStack, Drive } from '@emery/core/drive';
import { alignmentOf } from '@emery/core/planes';

/** The long sums of Align. */
export const alignTasks = {
  /** The fewest moves; null where no belt can lie on the route. */
  alignPlan: (
    { drive, belt }: { drive: Drive; belt: string },
    onProgress: (fraction: number) => void,
  ): PlanSearch | null => {
    const alignment = alignmentOf(drive, belt);
    return alignment && planFor(drive, alignment, onProgress);
  },
  partSets: ({ stacks }: { stacks: readonly AlignStack[] }) => searchSets(stacks),
};
