import { useCallback } from 'react';
import { useBench } from '../../state/bench';
import { useSizing } from './SizingProvider';
import { travelFromSlack } from '@emery/core/adjuster';
import type { SizeAnswer } from '@emery/core/size';

/**
 * Points at a candidate: it is marked in chart and ledger, and the front view moves to where the adjuster would stand
 * with it.
 */
export function usePointAt(): (candidate: SizeAnswer['candidates'][number] | null) => void {
  const { drive, belt, setPose } = useBench('drive', 'belt', 'setPose');
  const { choose } = useSizing();
  const source = drive.belts.find(({ id }) => id === belt?.id);
  return useCallback(
    (candidate) => {
      choose(candidate?.lengthMm ?? null);
      const travel = candidate && source && candidate.fraction !== null ? travelFromSlack(drive, source) : null;
      setPose(travel ? travel.at(candidate!.fraction!) : null);
    },
    [choose, drive, source, setPose],
  );
}
