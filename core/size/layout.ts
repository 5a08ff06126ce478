import {
  afterReading,
  type BoundSum,
  deviates,
  figureAt,
  drawWithin,
  type JointNormal,
  normalOf,
  type Sum,
  withMoreDoubt,
} from '../numeric';
import { MISTAKES, TRIED_DEFAULTS } from './defaults';
import { grownAfter, type GrowthDefaults, type ServiceReading } from './growth';
import type { LengthWitness } from './measured';
import type { TriedEvidence } from './tried';

/*
 * What all evidence together says of the true layout: how much longer the path is than drawn along the adjuster's
 * travel, and how long each belt truly is that was tried on. By the drawing alone these are jointly normal: the ± of
 * each place and diameter, by how the path answers to it, and the makers' tolerance. A measured length, and a belt that
 * sat taut at a reading, are sums of them that were read; a belt that would not go on, or went on, bounds one. Some
 * evidence is simply wrong now and then; every such case is weighed by how well it explains all the rest. The outcome
 * is a mixture of normals where nothing is bounded, and weighed draws where something is.
 */

/** A marked length at a fraction of the travel, by the drawing, mm. */
export interface DrawnAt {
  mm: number;
  fraction: number;
}

/** What bounds the belts that fit: the shortest that goes on at all, and those that sit at either end of the window. */
export interface FitEdges {
  goesOn: DrawnAt | null;
  from: DrawnAt;
  to: DrawnAt;
}

export interface LayoutEvidence {
  /**
   * At so many fractions of the travel, evenly from 0 to `end`, or once on fixed centres: the covariance of how much
   * longer the path is than drawn, mm².
   */
  covariance: readonly (readonly number[])[];
  end: number;
  witnesses: readonly LengthWitness[];
  /** By how much witnesses that disagree widen the ±. */
  widen: number;
  tried: readonly TriedEvidence[];
  edges: FitEdges | null;
  /** What was read of the adjuster after the belt that was kept had run for a while. */
  service?: readonly ServiceReading[];
  growth?: GrowthDefaults;
}

/** What may be wrong of itself. */
export type Mistaken = { what: 'drawing' } | { what: 'measurement'; id: string } | { what: 'label'; id: string };

/** One reading of all evidence: which of it is wrong, and what the rest then makes of the figures. */
interface Case {
  figures: JointNormal;
  log: number;
  mistaken: readonly Mistaken[];
}

export interface Layout {
  /** How much longer the path is than drawn at a fraction of the travel, mm, and one standard deviation. */
  offsetAt: (fraction: number) => { mm: number; sigma: number };
  /** One figure of a draw, and one standard deviation. */
  figure: (place: number) => { mm: number; sigma: number };
  /** How much longer the path is than drawn at a fraction, as a sum of a draw's figures. */
  sumAt: (fraction: number) => Sum;
  /** By place in `tried`: the figure of a draw that is how much longer that belt is than marked, mm. */
  ownPlace: (k: number) => number;
  /** Seating and growth of the belt that was kept, thousandths, by their places in a draw; null without one. */
  growthPlaces: { seat: number; rate: number; readings: number } | null;
  /** Draws of all figures, and how much each counts; the counts add up to 1. */
  draws: readonly Float64Array[];
  counts: Float64Array;
  /** How likely each of the evidence is wrong of itself, likeliest first; and how likely none is. */
  mistaken: { mistake: Mistaken; chance: number }[];
  sound: number;
}

/** More cases than this are not kept; those that explain least go first. */
const MOST_CASES = 64;
/** A case that is this much less likely than the best, by logarithm, is left out. */
const NEGLIGIBLE = 16;
const PILOT_DRAWS = 48;

/** Weighs all evidence of a layout. The same for the same evidence, `draws` and `seed`. */
export function layoutOf(evidence: LayoutEvidence, { draws = 4000, seed = 1 } = {}): Layout {
  const { tried, covariance, widen } = evidence;
  const stations = covariance.length;
  const sumAt = (fraction: number): Sum => sumBetween(stations, evidence.end, fraction);
  const ownPlace = (k: number) => stations + k;
  const first = stations + tried.length;
  const inService = evidence.growth !== undefined && tried.some((belt) => belt.tried.kept === true);
  const growthPlaces = inService ? { seat: first, rate: first + 1, readings: (evidence.service ?? []).length } : null;
  const places: Places = { sumAt, ownPlace, growthPlaces, stations };
  const weighed = casesOf(evidence, priorOf(evidence, growthPlaces !== null), places);
  const cases = widened(weighed, tried.length === 0 ? widen : 1);
  const bounds = boundsOf(evidence, places);
  const drawn = drawCases(cases, bounds, draws, seed);
  const best = Math.max(...cases.map(({ log }) => log));
  const moments = momentsOf(
    bounds.length === 0
      ? cases.map(({ figures, log }) => ({ ...figures, weight: Math.exp(log - best) }))
      : drawn.draws.map((row, k) => ({ mean: row, covariance: [], weight: figureAt(drawn.counts, k) })),
  );
  return {
    offsetAt: (fraction) => ofSum(moments, sumAt(fraction)),
    figure: (place) => ofSum(moments, [[place, 1]]),
    sumAt,
    ownPlace,
    growthPlaces,
    ...drawn,
    ...mistakesOf(cases, drawn.shares),
  };
}

interface Places extends Pick<Layout, 'sumAt' | 'ownPlace' | 'growthPlaces'> {
  stations: number;
}

/** Between the two stations about a fraction. */
function sumBetween(stations: number, end: number, fraction: number): Sum {
  if (stations === 1) return [[0, 1]];
  const at = Math.max(0, Math.min(stations - 1, (fraction / end) * (stations - 1)));
  const low = Math.min(stations - 2, Math.floor(at));
  return [
    [low, 1 - (at - low)],
    [low + 1, at - low],
  ];
}

/** A tape and the eye that reads it are never surer than this, whatever the drawing rests on, mm. */
const FINEST_DRAWING = 0.1;

/** By the drawing and the makers alone; seating and growth in thousandths, where they are asked for. */
function priorOf({ covariance, tried, growth }: LayoutEvidence, inService: boolean): JointNormal {
  const own = tried.map(({ sigmaMm, grownMm }) => ({ mean: grownMm, sigma: sigmaMm }));
  const grows =
    inService && growth
      ? [growth.seat, growth.rate].map(({ fraction, plusMinus }) => ({
          mean: 1000 * fraction,
          sigma: 1000 * plusMinus,
        }))
      : [];
  const path = covariance.map((row) => ({ mean: 0, row: row.map((entry) => entry + FINEST_DRAWING ** 2) }));
  const more = [...own, ...grows].map(({ mean, sigma }, k) => ({
    mean,
    row: [...new Array<number>(path.length + k).fill(0), sigma ** 2],
  }));
  const figures = [...path, ...more];
  return {
    mean: figures.map(({ mean }) => mean),
    covariance: figures.map(({ row }) => figures.map((_, j) => figureAt(row, j))),
  };
}

/** One way that a piece of evidence may be, with how often it is so and what the figures are then. */
interface Way {
  chance: number;
  mistaken: Mistaken | null;
  read: (figures: JointNormal) => JointNormal & { log?: number };
}

function casesOf(evidence: LayoutEvidence, prior: JointNormal, places: Places): Case[] {
  const { witnesses, tried, service = [] } = evidence;
  // A mistake shows only once there is a belt to show it.
  const mayErr = tried.length > 0;
  const pieces = [
    ...(mayErr ? [drawingWays(places)] : []),
    ...witnesses.map((witness) => witnessWays(witness, places, mayErr)),
    ...tried.map((belt, k) => triedWays(belt, k, places)),
    ...(places.growthPlaces ? service.map((reading) => serviceWays(reading, tried, places)) : []),
  ];
  return pieces.reduce<Case[]>(
    (cases, ways) => kept(cases.flatMap((found) => split(found, ways))),
    [{ figures: prior, log: 0, mistaken: [] }],
  );
}

function split({ figures, log, mistaken }: Case, ways: readonly Way[]): Case[] {
  return ways.map((way) => {
    const { log: likely = 0, mean, covariance } = way.read(figures);
    return {
      figures: { mean, covariance },
      log: log + Math.log(way.chance) + likely,
      mistaken: way.mistaken ? [...mistaken, way.mistaken] : mistaken,
    };
  });
}

function kept(cases: readonly Case[]): Case[] {
  const best = Math.max(...cases.map(({ log }) => log));
  return cases
    .filter(({ log }) => log > best - NEGLIGIBLE)
    .sort((a, b) => b.log - a.log)
    .slice(0, MOST_CASES);
}

function drawingWays({ stations }: Places): Way[] {
  const { chance, mm } = MISTAKES.drawing;
  const all = Array.from({ length: stations }, (_, k) => k);
  return [
    { chance: 1 - chance, mistaken: null, read: (figures) => figures },
    { chance, mistaken: { what: 'drawing' }, read: (figures) => withMoreDoubt(figures, all, mm) },
  ];
}

function witnessWays({ id, fraction, ways }: LengthWitness, { sumAt }: Places, mayErr: boolean): Way[] {
  const { chance, mm } = MISTAKES.measurement;
  const sum = sumAt(fraction);
  return ways.flatMap(({ at, sigma }): Way[] => {
    const by = (share: number, more: number, mistaken: Mistaken | null): Way => ({
      chance: share / ways.length,
      mistaken,
      read: (figures) => afterReading(figures, { sum, value: at, variance: sigma ** 2 + more ** 2 }),
    });
    return mayErr ? [by(1 - chance, 0, null), by(chance, mm, { what: 'measurement', id })] : [by(1, 0, null)];
  });
}

/** A belt that sat taut there is as long as the path is: marked, and what it is longer, is drawn, and what that is. */
function triedWays({ tried: { id }, lengthMm, taut }: TriedEvidence, k: number, places: Places): Way[] {
  const own = places.ownPlace(k);
  const { chance, mm } = MISTAKES.label;
  const read: Way['read'] = (figures) =>
    taut
      ? afterReading(figures, {
          sum: [...places.sumAt(taut.fraction), [own, -1]],
          value: lengthMm - taut.drawnMm,
          variance: taut.sigmaMm ** 2,
        })
      : figures;
  return [
    { chance: 1 - chance, mistaken: null, read },
    { chance, mistaken: { what: 'label', id }, read: (figures) => read(withMoreDoubt(figures, [own], mm)) },
  ];
}

function serviceWays(reading: ServiceReading, tried: LayoutEvidence['tried'], places: Places): Way[] {
  const k = tried.findIndex((belt) => belt.tried.id === reading.tried);
  const belt = tried[k];
  if (!belt || !places.growthPlaces) return [{ chance: 1, mistaken: null, read: (figures) => figures }];
  const { seat, rate } = places.growthPlaces;
  const { lengthMm } = belt;
  const { seated, grown } = grownAfter(reading.km, reading.seatKm);
  const sum: Sum = [
    ...places.sumAt(reading.fraction),
    [places.ownPlace(k), -1],
    [seat, (-lengthMm * seated) / 1000],
    [rate, (-lengthMm * grown) / 1000],
  ];
  const value = lengthMm - reading.drawnMm;
  return [
    {
      chance: 1,
      mistaken: null,
      read: (figures) => afterReading(figures, { sum, value, variance: reading.sigmaMm ** 2 }),
    },
  ];
}

/** What a belt that would not go on, went on, slipped or was kept says: its length lies beside an edge. */
function boundsOf({ tried, edges }: LayoutEvidence, places: Places): BoundSum[] {
  if (!edges) return [];
  return tried.flatMap(({ tried: { outcome, slips, kept }, lengthMm, taut }, k): BoundSum[] => {
    const longerThan = ({ mm, fraction }: DrawnAt, from: number, to: number, sigma: number): BoundSum => ({
      sum: [[places.ownPlace(k), 1], ...places.sumAt(fraction).map(([place, weight]) => [place, -weight] as const)],
      from: from + mm - lengthMm,
      to: to + mm - lengthMm,
      variance: sigma ** 2,
    });
    const { goesOn, from, to } = edges;
    const hand = TRIED_DEFAULTS.goesOnMm;
    const going = {
      'will-not-go-on': [-Infinity, 0],
      forced: [-TRIED_DEFAULTS.forcedFraction * lengthMm, 0],
      on: [0, Infinity],
    }[outcome] as [number, number];
    return [
      ...(goesOn ? [longerThan(goesOn, ...going, hand)] : []),
      // Where nobody read how it sat, that it slipped, or was kept, says on which side of the window's edges it lies.
      ...(!taut && slips ? [longerThan(to, 0, Infinity, TRIED_DEFAULTS.travelMm)] : []),
      ...(!taut && kept && !slips
        ? [
            longerThan(to, -Infinity, 0, TRIED_DEFAULTS.travelMm),
            longerThan(from, 0, Infinity, TRIED_DEFAULTS.travelMm),
          ]
        : []),
    ];
  });
}

function widened(cases: readonly Case[], by: number): Case[] {
  if (by === 1) return [...cases];
  return cases.map((found) => ({
    ...found,
    figures: {
      ...found.figures,
      covariance: found.figures.covariance.map((row) => row.map((entry) => entry * by * by)),
    },
  }));
}

/** Each case drawn as often as it is likely with the bounds; what they weigh is found by a few draws first. */
function drawCases(cases: readonly Case[], bounds: readonly BoundSum[], draws: number, seed: number) {
  const random = deviates(seed);
  const best = Math.max(...cases.map(({ log }) => log));
  const size = cases[0]?.figures.mean.length ?? 0;
  const tries = cases.map(({ figures, log }) => {
    const draw = drawWithin(figures, bounds, random);
    const scratch = new Float64Array(size);
    let sum = 0;
    if (bounds.length > 0) for (let k = 0; k < PILOT_DRAWS; k += 1) sum += draw(scratch);
    return { draw, weight: Math.exp(log - best), kept: bounds.length > 0 ? sum / PILOT_DRAWS : 1 };
  });
  const total = tries.reduce((sum, { weight, kept }) => sum + weight * (kept + 1e-9), 0);
  const rows: Float64Array[] = [];
  const counts: number[] = [];
  const shares = tries.map(({ draw, weight, kept }) => {
    const times = Math.round((draws * weight * (kept + 1e-9)) / total);
    let share = 0;
    for (let k = 0; k < times; k += 1) {
      const row = new Float64Array(size);
      const count = (weight * draw(row)) / times;
      rows.push(row);
      counts.push(count);
      share += count;
    }
    return share;
  });
  const all = shares.reduce((sum, share) => sum + share, 0);
  // Nothing explains what happened: the cases by themselves.
  const norm = all > 0 ? all : 1;
  return {
    draws: rows,
    counts: Float64Array.from(counts, (count) => (all > 0 ? count / norm : 1 / Math.max(1, counts.length))),
    shares: shares.map((share) => share / norm),
  };
}

/** Mean and covariance of a mixture, or of weighed draws. */
function momentsOf(
  parts: readonly { mean: ArrayLike<number>; covariance: JointNormal['covariance']; weight: number }[],
): JointNormal {
  const size = parts[0]?.mean.length ?? 0;
  const total = parts.reduce((all, { weight }) => all + weight, 0);
  const places = Array.from({ length: size }, (_, i) => i);
  const mean = places.map((i) => parts.reduce((all, part) => all + part.weight * figureAt(part.mean, i), 0) / total);
  return {
    mean,
    covariance: places.map((i) =>
      places.map((j) => {
        const [at, beside] = [figureAt(mean, i), figureAt(mean, j)];
        let sum = 0;
        for (const part of parts) {
          const within = part.covariance[i];
          const apart = (figureAt(part.mean, i) - at) * (figureAt(part.mean, j) - beside);
          sum += part.weight * ((within ? figureAt(within, j) : 0) + apart);
        }
        return sum / total;
      }),
    ),
  };
}

function ofSum(figures: JointNormal, sum: Sum): { mm: number; sigma: number } {
  const { mean, variance } = normalOf(figures, sum);
  return { mm: mean, sigma: Math.sqrt(Math.max(0, variance)) };
}

function mistakesOf(cases: readonly Case[], shares: readonly number[]): Pick<Layout, 'mistaken' | 'sound'> {
  const found = new Map<string, Layout['mistaken'][number]>();
  let sound = 0;
  cases.forEach(({ mistaken }, k) => {
    const share = figureAt(shares, k);
    if (mistaken.length === 0) sound += share;
    for (const mistake of mistaken) {
      const key = JSON.stringify(mistake);
      found.set(key, { mistake, chance: (found.get(key)?.chance ?? 0) + share });
    }
  });
  return { mistaken: [...found.values()].sort((a, b) => b.chance - a.chance), sound };
}
