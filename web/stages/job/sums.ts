import { useMemo } from 'react';
import { useBench } from '../../state/bench';
import { useCoreSum } from '../../state/use-core-sum';
import { useStockFor } from '../../jobs/use-stock-for';
import { useJobStage } from './JobProvider';
import type { BringAsked, JobAsked } from './tasks';

/** What the card is asked for: the same object while nothing of it changes, so that it is written once. */
const asked = new WeakMap<object, JobAsked[]>();
function useAsked(): JobAsked {
  const { drive, unit } = useBench('drive', 'unit');
  const { scope } = useJobStage();
  const belt = drive.belts.some(({ id }) => id === scope) ? scope : null;
  return useMemo(() => {
    const known = asked.get(drive) ?? [];
    const found = known.find((entry) => entry.belt === belt && entry.unit === unit);
    if (found) return found;
    const made = { drive, belt, unit };
    asked.set(drive, [...known, made]);
    return made;
  }, [drive, belt, unit]);
}

/** The card of the drive as it is; the one before while it is being written anew. */
export function useCard() {
  const input = useAsked();
  const { found, progress, stopped } = useCoreSum('jobCard', input, 60);
  return { card: found?.output ?? null, fresh: found?.input === input, asked: input, progress, stopped };
}

/** The same with the shop's list beside it; one object for one list, so that every belt is sized once. */
const withStock = new WeakMap<JobAsked, Map<string, BringAsked>>();
function useBringAsked(): BringAsked | null {
  const input = useAsked();
  const stock = useStockFor(input.drive.belts);
  if (!stock) return null;
  const key = JSON.stringify(stock);
  const known = withStock.get(input) ?? new Map<string, BringAsked>();
  const bringAsked = known.get(key) ?? { ...input, stock };
  withStock.set(input, known.set(key, bringAsked));
  return bringAsked;
}

export function useBring() {
  const input = useBringAsked();
  const { found, progress, stopped } = useCoreSum('jobBring', input, 200);
  return { bring: input !== null && found?.input === input ? found.output : null, progress, stopped };
}
