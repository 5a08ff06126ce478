import type { PulleyFigure, PulleyFigures, PulleyPlace, UsePulleyFigure } from './stage';

/** What is written beside each shaft, by its id; nothing beside one that it does not name. */
export type Figures = ReadonlyMap<string, PulleyFigure>;

const NOTHING: PulleyFigure = { text: '', mark: 'none' };

export const figureFrom = (figures: Figures, marks?: PulleyFigures['marks']): PulleyFigures =>
  Object.assign(({ station }: PulleyPlace) => figures.get(station.id) ?? NOTHING, marks && { marks });

/** For a stage whose sums are not there yet. */
export const useNoFigure: UsePulleyFigure = () => () => NOTHING;
