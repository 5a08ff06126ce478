import { useMemo } from 'react';
import { useBench } from '../../state/bench';
import { useCoreSum } from '../../state/use-core-sum';
import { useJobStage } from './JobProvider';
import type { JobAsked } from './tasks';

/** What the card is asked for: the same object while nothing of it changes, so that it is written once. */
const asked = new WeakMap<object, JobAsked[]>();
function useAsked(): JobAsked {
  const { drive, unit } = useBench('drive', 'unit');
  const { scope } = useJobStage();
  const belt = drive.belts.some(({ id }) => id === scope) ? scope : null;
  return useMemo(() => {
    const known = asked.get(drive) ?? [];
    const found = known.find((one) => one.belt === belt && one.unit === unit);
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

export function useBring() {
  const input = useAsked();
  const { found, progress, stopped } = useCoreSum('jobBring', input, 200);
  return { bring: found?.input === input ? found.output : null, progress, stopped };
}
