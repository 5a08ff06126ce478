import { fractionFor, type LengthCurve, pathLength } from '../adjuster';
import { type Adjuster, type Belt, changePulley, changeStation, type Drive, type TriedBelt } from '../drive';
import type { deviates } from '../numeric';
import { commonLengths } from '../seating/lengths';
import { sizeBelt } from '../seating';
import { sectionFor } from '../section';
import {
  answerFrom,
  beltFractionOf,
  chancesOf,
  DEFAULT_UNCERTAINTY,
  drawnLayout,
  type DrawnLayout,
  type KnownLayout,
  measuredLength,
  MISTAKES,
  triedFits,
  withEvidence,
} from '../size';
import { DEMO } from './demo';
import { driveOf, type Stop } from './examples';

/*
 * Layouts whose true shape differs from the drawing by drawn errors, belts of drawn tolerance, and a mechanic who lays
 * a string and tries belts on: what Size then says is held against what is true. The errors are laid on the drive
 * itself, which is solved anew: nothing here goes by how Size thinks the path answers to them.
 */

const withAdjuster = (stops: Stop[], on: string, adjuster: Adjuster, belt: Partial<Belt> = {}): Drive =>
  changeStation(driveOf(stops, belt, { crankRotation: 'cw' }), on, { adjuster });

/** A drive of the demo with nothing that was measured: only the drawing, with its default doubt. */
function undoubted({ survey: _survey, ...drive }: Drive): Drive {
  const [belt] = drive.belts;
  return { ...drive, belts: [{ ...belt!, measurements: [], tried: [] }] };
}

/** Our own layouts, by name: an arm, a slot, a slide under a V-belt, teeth on a slide, fixed centres. */
export const TRY_IN_LAYOUTS: Readonly<Record<string, Drive>> = {
  arm: undoubted(DEMO.rescue),
  slot: withAdjuster(
    [
      ['crank', 0, 0, 150],
      ['pump', -60, 260, 120],
      ['alt', 240, 210, 62],
    ],
    'alt',
    { kind: 'slot-pivot', pivot: { x: 250, y: 110 }, inAngle: 118, outAngle: 92 },
    { ribs: 5 },
  ),
  slide: withAdjuster(
    [
      ['crank', 0, 0, 140],
      ['alt', 60, 330, 76],
    ],
    'alt',
    { kind: 'slide', direction: 80, travel: 22 },
    { section: 'AV13' },
  ),
  short: withAdjuster(
    [
      ['crank', 0, 0, 140],
      ['pump', -150, 170, 110],
      ['alt', 170, 210, 60],
    ],
    'alt',
    { kind: 'slide', direction: 55, travel: 9 },
  ),
};

type Random = ReturnType<typeof deviates>;

/** The drive as it truly is, where the drawing is `drawn`: each place and diameter is off by its default ±. */
export function trueDrive(drawn: Drive, { normal }: Random): Drive {
  const { placeMm, diameterMm } = DEFAULT_UNCERTAINTY;
  return drawn.stations.reduce((drive, { id, role, x, y, adjuster, pulleys }) => {
    const by = role === 'crankshaft' ? { x: 0, y: 0 } : { x: placeMm * normal(), y: placeMm * normal() };
    const pivot = adjuster && 'pivot' in adjuster && adjuster.pivot;
    const moved = changeStation(drive, id, {
      x: x + by.x,
      y: y + by.y,
      ...(adjuster &&
        pivot && { adjuster: { ...adjuster, pivot: { x: pivot.x + by.x, y: pivot.y + by.y } } as Adjuster }),
    });
    return pulleys.reduce(
      (now, pulley) => changePulley(now, pulley.id, { diameter: (pulley.diameter ?? 0) + diameterMm * normal() }),
      moved,
    );
  }, drawn);
}

export interface Truth {
  curve: LengthCurve;
  /** What a belt's true length must lie between to fit, and what it must be to go on, mm. */
  from: number;
  to: number;
  goesOn: number;
  drive: Drive;
}

export function truthOf(drive: Drive): Truth | null {
  const belt = drive.belts[0]!;
  const sizing = sizeBelt(drive, belt.id, { lengths: [] });
  if (!sizing?.curve || !sizing.fits || !sizing.lastOn) return null;
  const at = (fraction: number) => pathLength(sizing.curve!.travel.at(fraction), belt);
  const [from, to] = [at(sizing.fits.from), at(sizing.fits.to)];
  if (from === null || to === null) return null;
  return { curve: sizing.curve, from: Math.max(from, sizing.lastOn.needsMm), to, goesOn: sizing.lastOn.needsMm, drive };
}

/** The true length of a belt off the shelf. */
export function shelfBelt(belt: Belt, lengthMm: number, { normal }: Random): number {
  return lengthMm * (1 + DEFAULT_UNCERTAINTY.beltFraction[sectionFor(belt.section)!.kind] * normal());
}

export const fitsIn = ({ from, to }: Truth, trueMm: number) => trueMm >= from && trueMm <= to;

/** What a mechanic writes down of a belt of a true length that is tried on. */
export function triedOn(truth: Truth, id: string, lengthMm: number, trueMm: number, random: Random): TriedBelt {
  const belt = truth.drive.belts[0]!;
  const { curve } = truth;
  const tried = { id, lengthMm };
  if (trueMm < truth.goesOn + 3 * random.normal()) return { ...tried, outcome: 'will-not-go-on' };
  const fraction = fractionFor(curve, belt, trueMm);
  // Longer than anything takes up; or so short that it goes on and stands at the very end.
  if (fraction === null)
    return trueMm > truth.to ? { ...tried, outcome: 'on', slips: true } : { ...tried, outcome: 'on', state: 'slack' };
  const read = curve.travel.readingAt(fraction);
  return curve.travel.reads === 'armAngle'
    ? { ...tried, outcome: 'on', pointerDeg: read + 1.5 * random.normal() }
    : { ...tried, outcome: 'on', travelMm: read + 2 * random.normal() };
}

/** A string laid on the true drive at its slack end, as a tape then reads it. */
export function stringOn({ drive, curve }: Truth, random: Random) {
  const belt = drive.belts[0]!;
  const said = random.uniform() < 0.5;
  const lay = random.uniform() < 0.5 ? ('groove' as const) : ('rim' as const);
  const string = { id: 'string', tool: 'string' as const, state: 'slack' as const, mm: 1000 };
  const { correctionMm } = measuredLength(drive, belt, curve, { ...string, stretch: 0, lay })!;
  const path = pathLength(curve.travel.at(0), belt)!;
  return { ...string, mm: (path - correctionMm + 3 * random.normal()) / 1.003, stretch: 0.003, ...(said && { lay }) };
}

/** The lengths that a shop has about a window. */
export function shelfOf({ drawn, belt }: DrawnLayout): number[] {
  const section = sectionFor(belt.section, belt.sectionOverrides)!;
  const { from, to } = drawn.fits!;
  const at = (fraction: number) => pathLength(drawn.curve!.travel.at(fraction), belt)!;
  const [shortest, longest] = [at(from), at(to)];
  return commonLengths(section, shortest - 20, longest + 20);
}

/** One layout with its errors, a string on it, and what is known with belts tried on; null where it has no path. */
export function sitting(layout: DrawnLayout, random: Random) {
  const truth = truthOf(trueDrive(layout.drive, random));
  if (!truth) return null;
  const string = stringOn(truth, random);
  const know = (tried: readonly TriedBelt[], withString = true): KnownLayout =>
    withEvidence(layout, { ...layout.belt, measurements: withString ? [string] : [], tried }, { draws: 2000 });
  return { truth, string, know, shelf: shelfOf(layout) };
}

/** The curve is solved once a layout, whatever is tried on. */
export function preparedLayouts(): [name: string, layout: DrawnLayout][] {
  return Object.entries(TRY_IN_LAYOUTS).map(([name, drive]) => [name, drawnLayout(drive, drive.belts[0]!.id)!]);
}

const chancesIn = ({ layout, edges, belt }: KnownLayout, shelf: readonly number[]) =>
  chancesOf(shelf, layout, edges!, beltFractionOf(belt));

/** How often something was as likely as said: by tenths of the chance, what was said on the average and what was so. */
export interface Tenth {
  count: number;
  said: number;
  so: number;
}

/** What was said against what was so, with so many belts tried on. */
export interface Coverage {
  /** Places along the travel, and of them within one and two standard deviations. */
  places: number;
  withinOne: number;
  withinTwo: number;
  /** The ± that was said on the average, and what it truly was: root of the mean square, mm. */
  said: number;
  so: number;
  /** Of a new belt of each length that it fits. */
  chances: Tenth[];
  /** Of two belts that one of them fits. */
  pairs: Tenth[];
  /** Of the very belts that were tried on that they fit. */
  own: Tenth[];
  /** Of their labels that they are wrong. */
  labels: Tenth[];
}

const tenths = (): Tenth[] => Array.from({ length: 10 }, () => ({ count: 0, said: 0, so: 0 }));
const emptyCoverage = (): Coverage => ({
  ...{ places: 0, withinOne: 0, withinTwo: 0, said: 0, so: 0 },
  ...{ chances: tenths(), pairs: tenths(), own: tenths(), labels: tenths() },
});
function counted(list: Tenth[], chance: number, so: boolean): void {
  const tenth = list[Math.min(9, Math.floor(10 * chance))]!;
  tenth.count += 1;
  tenth.said += chance;
  tenth.so += Number(so);
}

/** A belt that was tried on, as it truly is. */
interface TrueTry {
  written: TriedBelt;
  trueMm: number;
  wrong: boolean;
}

function tryOne(truth: Truth, k: number, lengthMm: number, random: Random, wrong: number): TrueTry {
  const honest = shelfBelt(truth.drive.belts[0]!, lengthMm, random);
  const isWrong = random.uniform() < wrong;
  const trueMm = honest + (isWrong ? MISTAKES.label.mm * random.normal() : 0);
  return { written: triedOn(truth, `t${k}`, lengthMm, trueMm, random), trueMm, wrong: isWrong };
}

/** So many layouts, with a string, and none, one and two belts tried on: about the likeliest, or it. */
export function coverageOf(
  layout: DrawnLayout,
  count: number,
  random: Random,
  { wrong = MISTAKES.label.chance, levels = 3 } = {},
): Coverage[] {
  const found = Array.from({ length: levels }, emptyCoverage);
  for (let n = 0; n < count; n += 1) {
    const sat = sitting(layout, random);
    if (!sat) continue;
    const { truth, know, shelf } = sat;
    const tries: TrueTry[] = [];
    found.forEach((coverage, level) => {
      const known = know(tries.map(({ written }) => written));
      const { chances, pair } = chancesIn(known, shelf);
      placesCounted(coverage, layout, known, truth);
      const bought = shelf.map((mm) => fitsIn(truth, shelfBelt(layout.belt, mm, random)));
      chances.forEach((chance, k) => counted(coverage.chances, chance, bought[k]!));
      if (pair)
        counted(
          coverage.pairs,
          pair.chance,
          pair.both.some((k) => bought[k]),
        );
      tries.forEach(({ trueMm, wrong: isWrong, written }, k) => {
        counted(coverage.own, triedFits(k, written.lengthMm!, known.layout, known.edges!), fitsIn(truth, trueMm));
        const label = known.layout.mistaken.find(
          ({ mistake }) => mistake.what === 'label' && mistake.id === written.id,
        );
        counted(coverage.labels, label?.chance ?? 0, isWrong);
      });
      const best = chances.indexOf(Math.max(...chances));
      const beside = random.uniform() < 0.5 ? 0 : Math.round(6 * (random.uniform() - 0.5));
      const next = shelf[Math.max(0, Math.min(shelf.length - 1, best + beside))]!;
      if (level + 1 < levels) tries.push(tryOne(truth, level, next, random, wrong));
    });
  }
  return found;
}

/** At both ends of the travel and in its middle. */
function placesCounted(coverage: Coverage, { drawn, belt }: DrawnLayout, { layout }: KnownLayout, truth: Truth): void {
  const curve = drawn.curve!;
  for (const fraction of [0, curve.end / 2, curve.end]) {
    const so = pathLength(truth.curve.travel.at(fraction), belt);
    const asDrawn = pathLength(curve.travel.at(fraction), belt);
    if (so === null || asDrawn === null) continue;
    const { mm, sigma } = layout.offsetAt(fraction);
    const off = mm - (so - asDrawn);
    coverage.places += 1;
    coverage.withinOne += Number(Math.abs(off) < sigma);
    coverage.withinTwo += Number(Math.abs(off) < 2 * sigma);
    coverage.said += sigma ** 2;
    coverage.so += off ** 2;
  }
}

/** How belts are chosen until one fits. */
export const WAYS_TO_BUY = ['learning', 'no-string', 'by-chance', 'by-thumb'] as const;
export type WayToBuy = (typeof WAYS_TO_BUY)[number];
/** Nobody buys more for one drive. */
const MOST_BOUGHT = 8;

/** Belts bought until one fits, by each way; layouts that no belt of the shelf fits are left out. */
export function boughtUntilOneFits(layout: DrawnLayout, count: number, random: Random): Record<WayToBuy, number[]> {
  const bought = { learning: [], 'no-string': [], 'by-chance': [], 'by-thumb': [] } as Record<WayToBuy, number[]>;
  for (let n = 0; n < count; n += 1) {
    const sat = sitting(layout, random);
    if (!sat?.shelf.some((mm) => fitsIn(sat.truth, mm))) continue;
    bought.learning.push(byLearning(layout, sat, random, true));
    bought['no-string'].push(byLearning(layout, sat, random, false));
    bought['by-chance'].push(byChance(layout, sat, random));
    bought['by-thumb'].push(byThumb(layout, sat, random));
  }
  return bought;
}

type Sat = NonNullable<ReturnType<typeof sitting>>;

/** As Size says after each try: the best by all that is known. */
function byLearning({ belt }: DrawnLayout, { truth, know, shelf }: Sat, random: Random, withString: boolean): number {
  const tries: TriedBelt[] = [];
  for (let k = 1; k < MOST_BOUGHT; k += 1) {
    const known = know(tries, withString);
    const { chances } = chancesIn(known, shelf);
    // The likeliest few: to look at all of them takes longer, and changes nothing.
    const bound = [...chances].sort((a, b) => b - a)[4] ?? 0;
    const likely = shelf.filter((_, at) => chances[at]! >= bound);
    const { best, candidates } = answerFrom(known, { lengths: likely });
    const failed = new Set(tries.map(({ lengthMm }) => lengthMm));
    const open = shelf.map((mm, at) => (failed.has(mm) ? -1 : chances[at]!));
    // Where no verdict is `fits` there is no best to follow: then by the chance.
    const next = best === null ? shelf[open.indexOf(Math.max(...open))]! : candidates[best]!.lengthMm;
    const trueMm = shelfBelt(belt, next, random);
    if (fitsIn(truth, trueMm)) return k;
    tries.push(triedOn(truth, `t${k}`, next, trueMm, random));
  }
  return MOST_BOUGHT;
}

/** By the string alone: the likeliest, then the next likeliest, whatever the last one showed. */
function byChance({ belt }: DrawnLayout, { truth, know, shelf }: Sat, random: Random): number {
  const { chances } = chancesIn(know([]), shelf);
  const order = shelf.map((mm, k) => ({ mm, chance: chances[k]! })).sort((a, b) => b.chance - a.chance);
  const at = order.slice(0, MOST_BOUGHT - 1).findIndex(({ mm }) => fitsIn(truth, shelfBelt(belt, mm, random)));
  return at < 0 ? MOST_BOUGHT : at + 1;
}

/** The length as the tape read the string; then one size up where it is too short, one down where it is too long. */
function byThumb({ belt }: DrawnLayout, { truth, string, shelf }: Sat, random: Random): number {
  const nearest = shelf.reduce((best, mm) => (Math.abs(mm - string.mm) < Math.abs(best - string.mm) ? mm : best));
  let at = shelf.indexOf(nearest);
  for (let k = 1; k < MOST_BOUGHT; k += 1) {
    const trueMm = shelfBelt(belt, shelf[at]!, random);
    if (fitsIn(truth, trueMm)) return k;
    at = Math.max(0, Math.min(shelf.length - 1, at + (trueMm < truth.from ? 1 : -1)));
  }
  return MOST_BOUGHT;
}
