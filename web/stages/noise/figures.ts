import { fixed } from '@emery/core/quantity';
import { useMemo } from 'react';
import { figureFrom, type Figures } from '../figures';
import type { PulleyFigure, UsePulleyFigure } from '../stage';
import { useNoise } from './NoiseProvider';
import { useDiagnosis, useRates } from './sums';
import { type Drive, stationOf } from '@emery/core/drive';
import { chanceFigure, type Diagnosis, type ratesOf } from '@emery/core/noise';

/** Chances below this are not written beside a pulley. */
const WORTH_WRITING = 0.01;

/** How often each pulley comes round. */
export function rateFigures(drive: Drive, rates: ReturnType<typeof ratesOf>): Figures {
  return new Map(
    rates.flatMap(({ what, id, hz }): [string, PulleyFigure][] => {
      const station = what === 'pulley' ? stationOf(drive, id) : undefined;
      return station ? [[station.id, { text: `${fixed(hz, hz < 100 ? 1 : 0)} Hz`, mark: 'none' }]] : [];
    }),
  );
}

/** How likely it is that the noise is of each shaft. */
export function chanceFigures(drive: Drive, { causes }: Pick<Diagnosis, 'causes'>): Figures {
  return new Map(
    drive.stations.flatMap((station): [string, PulleyFigure][] => {
      const chance = causes
        .filter(({ id }) => stationOf(drive, id)?.id === station.id)
        .reduce((sum, { probability }) => sum + probability, 0);
      return chance >= WORTH_WRITING ? [[station.id, { text: chanceFigure(chance), mark: 'none' }]] : [];
    }),
  );
}

export const usePulleyFigure: UsePulleyFigure = () => {
  const { drive, diagnosis } = useDiagnosis();
  const { view } = useNoise();
  const rates = useRates();
  const ranked = view === 'causes' || view === 'clues';
  return figureFrom(
    useMemo(
      () => (ranked ? chanceFigures(drive, diagnosis) : rateFigures(drive, rates)),
      [ranked, drive, diagnosis, rates],
    ),
  );
};
