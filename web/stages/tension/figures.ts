import { figureFrom, type Figures } from '../figures';
import type { UsePulleyFigure } from '../stage';
import { tensionMarks } from './drawn';
import { useTensionSums } from './sums';
import { limitOrDefault } from '@emery/core/accessory';
import type { Drive } from '@emery/core/drive';
import { type BeltRunning, type DriveRunning, SAFE_MARGIN } from '@emery/core/loads';
import { marginFigure, shortForce } from '@emery/core/tension';
import { useMemo } from 'react';

/** More in hand than this is not worth a word on the drawing. */
const PLENTY = 2;

/** The pull on each shaft, and what the belt in hand has in hand there before it slips. */
export function figures(drive: Drive, shafts: DriveRunning['shafts'], belt: BeltRunning | null): Figures {
  return new Map(
    drive.stations.flatMap((station) => {
      const load = shafts.get(station.id);
      if (!load) return [];
      const newtons = Math.hypot(load.x, load.y);
      const limit = limitOrDefault(station);
      const margin = belt?.pulleys.find(({ contact }) => contact.station === station.id)?.margin ?? null;
      const over = limit !== undefined && newtons > limit;
      const watch = over || (margin !== null && margin < SAFE_MARGIN) ? 'watch' : 'none';
      const hand = margin === null || margin > PLENTY ? '' : ` · ${marginFigure(margin)}`;
      const mark = margin !== null && margin < 0 ? 'fault' : watch;
      return [[station.id, { text: `${shortForce(newtons)}${hand}`, mark }] as const];
    }),
  );
}

export const usePulleyFigure: UsePulleyFigure = () => {
  const { drive, run, belt, tension } = useTensionSums();
  const own = belt?.run ?? null;
  return figureFrom(
    useMemo(() => figures(drive, run.shafts, own), [drive, run, own]),
    (k) => tensionMarks({ drive, run, belt, tension }, k),
  );
};
