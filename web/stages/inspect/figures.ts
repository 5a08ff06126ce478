import { useMemo } from 'react';
import { figureFrom, type Figures } from '../figures';
import type { PulleyFigure, UsePulleyFigure } from '../stage';
import { useInspection } from './sums';
import { verdictAt } from './verdict-at';
import type { Drive } from '@emery/core/drive';
import { type InspectItem, type Verdict, VERDICT_WORDS } from '@emery/core/inspect';

const MARKS: Record<Verdict, PulleyFigure['mark']> = {
  replace: 'fault',
  watch: 'watch',
  keep: 'none',
  'not looked at': 'none',
};

/** Around a shaft that is to be watched or changed, px outside its rim. */
export const RING_PX = 7;

/** The worst verdict on each shaft. */
export function figures(drive: Drive, items: readonly InspectItem[]): Figures {
  return new Map(
    drive.stations.flatMap(({ id }) => {
      const verdict = verdictAt(id, drive, items);
      if (!verdict) return [];
      const ring = verdict === 'replace' || verdict === 'watch' ? { ringPx: RING_PX } : {};
      return [[id, { text: VERDICT_WORDS[verdict].toLowerCase(), mark: MARKS[verdict], ...ring }] as const];
    }),
  );
}

export const usePulleyFigure: UsePulleyFigure = () => {
  const { drive, items } = useInspection();
  return figureFrom(useMemo(() => figures(drive, items), [drive, items]));
};
