import { changePulley, type Drive, findPulley, placeStations } from '../drive';
import type { SurveyFit } from './fit';

/**
 * What a fit would change in the drawing: shafts put elsewhere, in the drawing's own x and y, and diameters that only a
 * picture tells; mm.
 */
export interface LayOut {
  places: { id: string; x: number; y: number }[];
  diameters: { pulley: string; mm: number }[];
  /** The longest way any shaft moves, mm. */
  furthest: number;
  /** Every change lies within the ± of what was measured. */
  within: boolean;
}

/** Below this a drawing is where the fit has it, mm. */
const SAME = 0.05;

/** Compares the drawing with a fit. Shafts that the readings leave free stay. */
export function layOutOf(drive: Drive, fit: SurveyFit): LayOut {
  const origin = drive.stations.find(({ role }) => role === 'crankshaft') ?? drive.stations[0] ?? { x: 0, y: 0 };
  const read = new Set(drive.survey?.diameters?.map(({ pulley }) => pulley));
  const moves = fit.stations.flatMap(({ id, x, y, plusMinusX, plusMinusY }) => {
    const station = drive.stations.find((station) => station.id === id);
    if (!station || plusMinusX === null || plusMinusY === null) return [];
    const far = Math.hypot(station.x - origin.x - x, station.y - origin.y - y);
    return far > SAME
      ? [{ id, x: x + origin.x, y: y + origin.y, far, within: far <= Math.hypot(plusMinusX, plusMinusY) }]
      : [];
  });
  const seen = new Map(
    fit.pictures.flatMap(({ circles }) =>
      circles
        .filter(({ known, pulley }) => !known && !read.has(pulley))
        .map((circle) => [circle.pulley, circle] as const),
    ),
  );
  const sizes = [...seen.values()].flatMap(({ pulley, diameter, diameterPlusMinus }) => {
    const drawn = findPulley(drive, pulley);
    if (!drawn || drawn.surface === 'toothed') return [];
    const far = Math.abs((drawn.diameter ?? 0) - diameter);
    return far > SAME ? [{ pulley, mm: Math.round(diameter * 10) / 10, within: far <= diameterPlusMinus }] : [];
  });
  return {
    places: moves.map(({ id, x, y }) => ({ id, x, y })),
    diameters: sizes.map(({ pulley, mm }) => ({ pulley, mm })),
    furthest: Math.max(0, ...moves.map(({ far }) => far)),
    within: [...moves, ...sizes].every(({ within }) => within),
  };
}

/** The drawing with the changes made. */
export function laidOut(drive: Drive, { places, diameters }: LayOut): Drive {
  return placeStations(
    diameters.reduce((sized, { pulley, mm }) => changePulley(sized, pulley, { diameter: mm }), drive),
    places,
  );
}
