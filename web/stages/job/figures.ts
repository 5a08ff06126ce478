import { useMemo } from 'react';
import { useBench } from '../../state/bench';
import { figureFrom, type Figures } from '../figures';
import type { UsePulleyFigure } from '../stage';
import { releasesAt, type Release } from './releases';
import { useCard } from './sums';
import { type Drive, stationOf } from '@emery/core/drive';
import { beltName, type JobCard } from '@emery/core/job';

/**
 * Beside each shaft: that its rim comes last, or which way its arm is turned. Of one where both hold, the way it is
 * turned: the other stands with the step.
 */
export function figures(drive: Drive, { steps }: JobCard, releases: readonly Release[]): Figures {
  const lasts = steps.flatMap(({ code, belt, pulley }) =>
    code === 'lay' && pulley !== undefined
      ? [
          {
            station: stationOf(drive, pulley)!.id,
            text: drive.belts.length > 1 ? `${beltName(drive, belt)} last` : 'fit last',
          },
        ]
      : [],
  );
  const turns = releases.map(({ station, turn }) => ({ station, text: turn === 'ccw' ? 'turn left' : 'turn right' }));
  return new Map([...lasts, ...turns].map(({ station, text }) => [station, { text, mark: 'none' }]));
}

export const usePulleyFigure: UsePulleyFigure = () => {
  const { drive } = useBench('drive');
  const { card } = useCard();
  return figureFrom(
    useMemo((): Figures => (card ? figures(drive, card, releasesAt(drive)) : new Map()), [drive, card]),
  );
};
