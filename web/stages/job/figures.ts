import { useMemo } from 'react';
import { useBench } from '../../state/bench';
import { figureFrom, type Figures } from '../figures';
import type { DrawnMark, UsePulleyFigure } from '../stage';
import { BADGE_PX, badgePlaces } from './badges';
import { RELEASE_PX, type Release, releasesAt } from './releases';
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

/** The room that the sign over an arm's pivot takes, by its reach in mm. */
const releaseMark = ({ x, y }: Release['pivot'], reach: number): DrawnMark => ({
  start: { x: x - reach, y: y + reach / 2 },
  end: { x: x + reach, y: y + reach / 2 },
  halfPx: RELEASE_PX / 2 + 4,
});

const badgeMark = (x: number, y: number, reach: number): DrawnMark => ({
  start: { x: x - reach, y },
  end: { x: x + reach, y },
  halfPx: BADGE_PX,
});

export const usePulleyFigure: UsePulleyFigure = () => {
  const { drive, solution } = useBench('drive', 'solution');
  const { card } = useCard();
  return figureFrom(
    useMemo((): Figures => (card ? figures(drive, card, releasesAt(drive)) : new Map()), [drive, card]),
    (k) => [
      ...releasesAt(drive).map(({ pivot }) => releaseMark(pivot, RELEASE_PX / k)),
      ...badgePlaces(card?.order.off ?? [], solution, drive, k).map(({ x, y }) => badgeMark(x, y, BADGE_PX / k)),
    ],
  );
};
