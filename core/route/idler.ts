import { type Drive, newStation, placeIdler, pulleysById, type RouteStop, type Station } from '../drive';
import { beltBounds, type BeltSolution, leastWrapDeg, solveBelt } from '../path';
import { bodyRadiusMm, sectionFor, type Side } from '../section';

/** A place for an idler that would raise the worst wrap. */
export interface IdlerProposal {
  station: Station;
  /** Place on the belt, and the side it rides on. */
  index: number;
  stop: RouteStop;
  lengthMm: number;
  /** The accessory with least wrap to spare as the belt runs now, and what the idler makes of it. */
  worst: { pulley: string; beforeDeg: number; afterDeg: number };
  /** The one with least to spare afterwards. */
  then: { pulley: string; wrapDeg: number };
  /** Wrap over its default least, less one, of the worst: before and after. */
  before: number;
  after: number;
}

export interface IdlerSearch {
  tried: number;
  /** How far apart places were tried at first, mm: wider where the belt reaches far. */
  stepMm: number;
  proposals: IdlerProposal[];
  cancelled: boolean;
}

export interface IdlerWish {
  /**
   * An idler already drawn, such as one that may be left out; a new one where it is missing. Its `region` bounds the
   * search.
   */
  station?: string;
  /** Diameter of a new one, mm. */
  diameter?: number;
  top?: number;
  onProgress?: (share: number) => void;
  shouldStop?: () => boolean;
}

/**
 * Between tries, mm: first over the whole region, or wider where that would be more than so many tries; then ever finer
 * about the best of each span.
 */
const STEP = 16;
const FINEST = 1.5;
const MOST_TRIES = 8000;
/** Kept clear round an idler for its bolt and the belt, mm. */
const ROOM = 12;
const NONE: IdlerSearch = { tried: 0, stepMm: STEP, proposals: [], cancelled: false };
/** A gain below this share of the default least wrap is not worth a bracket. */
const LEAST_GAIN = 0.02;
/** Spare wrap beyond this share is no gain: the shorter belt is. */
const PLENTY = 0.3;

/**
 * Where an idler would raise the worst wrap of a belt that runs: every span is tried, on a grid over the region that is
 * then made finer. Best first, one for each span and side. None for a belt that cannot run, or where nothing helps.
 */
export function proposeIdlers(drive: Drive, beltId: string, wish: IdlerWish = {}): IdlerSearch {
  const belt = drive.belts.find(({ id }) => id === beltId);
  const section = belt && sectionFor(belt.section, belt.sectionOverrides);
  const now = belt && solveBelt(drive, beltId);
  const wanted = wish.station === undefined ? undefined : drive.stations.find(({ id }) => id === wish.station);
  if (!belt || !section || !now?.closed || (wish.station !== undefined && !wanted)) return NONE;
  const made = wanted ?? newStation(drive, 'idler', 0, 0, belt.section);
  const idler: Station =
    wish.diameter === undefined || wanted
      ? made
      : { ...made, pulleys: made.pulleys.map((pulley) => ({ ...pulley, diameter: wish.diameter! })) };
  const pulley = idler.pulleys[0]!;
  const side: Side = pulley.surface === 'smooth' ? 'back' : 'drive';
  const before = worstOf(drive, now, section.kind);
  if (!before) return NONE;

  const others = [...pulleysById(drive).values()]
    .filter(({ station }) => station.id !== idler.id)
    .map((placed) => ({ ...placed.station, radius: bodyRadiusMm(placed.pulley, section) }));
  const reach = bodyRadiusMm(pulley, section);
  const { region } = idler;
  const bounds = region
    ? {
        minX: region.x - region.radius,
        maxX: region.x + region.radius,
        minY: region.y - region.radius,
        maxY: region.y + region.radius,
      }
    : beltBounds(drive, 0);
  const allowed = (x: number, y: number) =>
    (!region || Math.hypot(x - region.x, y - region.y) <= region.radius) &&
    others.every((other) => Math.hypot(x - other.x, y - other.y) >= other.radius + reach + ROOM);

  const count = belt.route.length;
  const [wide, high] = [bounds.maxX - bounds.minX, bounds.maxY - bounds.minY];
  const stepMm = Math.max(STEP, Math.sqrt((wide * high * count) / MOST_TRIES), ((wide + high) * count) / MOST_TRIES);
  let tried = 0;
  let cancelled = false;
  const trial = { drive, beltId, idler, stop: { pulley: pulley.id, side }, before, kind: section.kind };
  const tryAt = (index: number, x: number, y: number): IdlerProposal | null => {
    if (!allowed(x, y)) return null;
    tried += 1;
    return idlerAt(trial, index, x, y);
  };
  const found: IdlerProposal[] = [];
  for (let index = 1; index <= count && !cancelled; index += 1) {
    let best: IdlerProposal | null = null;
    for (let x = bounds.minX; x <= bounds.maxX && !cancelled; x += stepMm) {
      for (let y = bounds.minY; y <= bounds.maxY; y += stepMm) best = better(best, tryAt(index, x, y));
      if (wish.shouldStop?.()) cancelled = true;
      wish.onProgress?.((index - 1 + (x - bounds.minX) / Math.max(1, bounds.maxX - bounds.minX)) / count);
    }
    if (best) found.push(onWholeMm(refined(best, stepMm, (x, y) => tryAt(index, x, y))));
  }
  found.sort(order);
  return { tried, stepMm, proposals: found.slice(0, wish.top ?? 4), cancelled };
}

/** What an idler is tried on. */
interface Trial {
  drive: Drive;
  beltId: string;
  idler: Station;
  stop: { pulley: string; side: Side };
  before: Worst;
  kind: SectionKind;
}

/** An idler at a place in the route and on the engine; null where the belt does not run so, or gains too little. */
function idlerAt(
  { drive, beltId, idler, stop, before, kind }: Trial,
  index: number,
  x: number,
  y: number,
): IdlerProposal | null {
  const station = { ...idler, x, y };
  const tested = placeIdler(drive, beltId, station, index, stop);
  const solved = solveBelt(tested, beltId)!;
  if (
    !solved.closed ||
    solved.findings.some(({ severity }) => severity === 'fault') ||
    // With less an idler only rattles along, and would be a finding itself.
    solved.contacts[index]!.wrapDeg! < leastWrapDeg('idler', kind)
  )
    return null;
  const after = worstOf(tested, solved, kind)!;
  if (after.margin < before.margin + LEAST_GAIN) return null;
  const helped = solved.contacts.find((contact) => contact.pulley === before.pulley)!;
  return {
    station,
    index,
    stop,
    lengthMm: solved.length.mm!,
    worst: { pulley: before.pulley, beforeDeg: before.wrapDeg, afterDeg: helped.wrapDeg! },
    then: { pulley: after.pulley, wrapDeg: after.wrapDeg },
    before: before.margin,
    after: after.margin,
  };
}

/** The best place about one, by ever smaller steps to all sides. */
function refined(
  from: IdlerProposal,
  stepMm: number,
  tryAt: (x: number, y: number) => IdlerProposal | null,
): IdlerProposal {
  let best = from;
  const finer: number[] = [];
  for (let step = stepMm / 3; step > FINEST; step /= 3) finer.push(step);
  for (const step of [...finer, FINEST]) {
    for (let round = 0; round < 12; round += 1) {
      const { x, y } = best.station;
      const next = SIDES.map(([dx, dy]) => tryAt(x + step * dx, y + step * dy)).reduce<IdlerProposal>(
        (a, b) => better(a, b)!,
        best,
      );
      if (next === best) break;
      best = next;
    }
  }
  return best;
}

const SIDES = [
  [1, 0],
  [-1, 0],
  [0, 1],
  [0, -1],
  [1, 1],
  [-1, -1],
  [1, -1],
  [-1, 1],
] as const;

const order = (a: IdlerProposal, b: IdlerProposal) =>
  Math.min(PLENTY, b.after) - Math.min(PLENTY, a.after) || a.lengthMm - b.lengthMm;
const better = (a: IdlerProposal | null, b: IdlerProposal | null) => (!a || (b && order(a, b) > 0) ? b : a);
const onWholeMm = (proposal: IdlerProposal): IdlerProposal => ({
  ...proposal,
  station: { ...proposal.station, x: Math.round(proposal.station.x), y: Math.round(proposal.station.y) },
});

type SectionKind = 'ribbed' | 'vee' | 'toothed';
/** The pulley with least wrap to spare, and how much that is as a share of its default least. */
interface Worst {
  pulley: string;
  wrapDeg: number;
  margin: number;
}

/**
 * Of the accessories and the crank, the one with least wrap to spare over its default least. Guides take no power, so
 * theirs does not count.
 */
function worstOf(drive: Drive, solved: BeltSolution, kind: SectionKind): Worst | null {
  const roles = new Map(drive.stations.map(({ id, role }) => [id, role]));
  const margins = solved.contacts.flatMap(({ pulley, station, wrapDeg }) => {
    const role = roles.get(station)!;
    return role === 'idler' || role === 'tensioner' || wrapDeg === null
      ? []
      : [{ pulley, wrapDeg, margin: wrapDeg / leastWrapDeg(role, kind) - 1 }];
  });
  return margins.reduce<(typeof margins)[number] | null>(
    (worst, next) => (worst === null || next.margin < worst.margin ? next : worst),
    null,
  );
}
