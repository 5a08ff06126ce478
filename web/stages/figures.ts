import type { PulleyFigure, PulleyPlace } from './stage';

/** What is written beside each shaft, by its id; nothing beside one that it does not name. */
export type Figures = ReadonlyMap<string, PulleyFigure>;

/** A hook that has what is written beside a pulley. */
export type UsePulleyFigure = () => (place: PulleyPlace) => PulleyFigure;

const NOTHING: PulleyFigure = { text: '', mark: 'none' };

export const figureFrom =
  (figures: Figures) =>
  ({ station }: PulleyPlace): PulleyFigure =>
    figures.get(station.id) ?? NOTHING;

/** For a stage whose sums are not there yet. */
export const useNoFigure: UsePulleyFigure = () => () => NOTHING;
