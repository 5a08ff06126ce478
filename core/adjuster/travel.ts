import {
  type Adjuster,
  type Belt,
  changePulley,
  changeStation,
  type Drive,
  moveStation,
  type Point,
  type Shims,
  type Slide,
  type SlotPivot,
  type SprungArm,
  type Station,
  type Turnbuckle,
} from '../drive';
import { halfGrooveAngle } from '../section';

/**
 * How a shaft is moved to tighten a belt. A fraction of the travel runs from 0, the end where the belt is slackest to
 * slip on (a sprung arm's `fullAngle`), to 1, the end the belt is tightened toward (its `freeAngle`).
 */
export interface Travel {
  station: string;
  kind: Adjuster['kind'];
  /** The drive with the shaft (or the split sheave) at that fraction of the travel. */
  at: (fraction: number) => Drive;
  /** What a mechanic reads there: the arm's angle in degrees, or mm of travel from the slack end. */
  readingAt: (fraction: number) => number;
  reads: 'armAngle' | 'travel';
  /** Shares of a sprung arm's marks. */
  marks: { short: number; long: number } | null;
  /** Where the shaft stands now. */
  now: number;
}

/**
 * The shafts that could tighten a belt, the one that does first: what the belt's `adjuster` says; else a shaft that
 * tightens no other belt besides, a tensioner before any other, in the order of the file. More than one, with nothing
 * said and none the only one of its kind, is a doubt (`unclear`).
 */
export function adjustersOf(drive: Drive, belt: Belt): { stations: readonly Station[]; unclear: boolean } {
  const onBelt = ({ route }: Belt) => {
    const on = new Set(route.map(({ pulley }) => pulley));
    return drive.stations.filter(
      ({ adjuster, pulleys }) => adjuster && adjuster.kind !== 'fixed' && pulleys.some(({ id }) => on.has(id)),
    );
  };
  const own = onBelt(belt);
  const said = own.find(({ id }) => id === belt.adjuster);
  if (said) return { stations: [said, ...own.filter((one) => one !== said)], unclear: false };
  // A shaft that other belts must have, for they touch no other one that moves or say so themselves, is theirs first.
  const claimed = new Set(
    drive.belts.flatMap((other) => {
      if (other.id === belt.id) return [];
      const theirs = onBelt(other);
      return theirs.length === 1
        ? [theirs[0]!.id]
        : theirs.some(({ id }) => id === other.adjuster)
          ? [other.adjuster!]
          : [];
    }),
  );
  const rank = ({ id, role }: Station) => (claimed.has(id) ? 2 : 0) + (role === 'tensioner' ? 0 : 1);
  const stations = [...own].sort((a, b) => rank(a) - rank(b));
  return { stations, unclear: stations.length > 1 && rank(stations[0]!) === rank(stations[1]!) };
}

/** The adjuster that tightens a belt, or null where none does. */
export function travelOf(drive: Drive, belt: Belt): Travel | null {
  const [station] = adjustersOf(drive, belt).stations;
  return station ? travelBy(drive, station, belt) : null;
}

function travelBy(drive: Drive, station: Station, belt: Belt): Travel | null {
  const { adjuster } = station;
  switch (adjuster?.kind) {
    case 'sprung-arm':
      return armTravel(drive, station, adjuster);
    case 'slot-pivot':
      return slotTravel(drive, station, adjuster);
    case 'slide':
      return slideTravel(drive, station, adjuster);
    case 'turnbuckle':
      return linkTravel(drive, station, adjuster);
    case 'shims':
      return shimTravel(drive, station, adjuster, belt);
    default:
      return null;
  }
}

const RAD = Math.PI / 180;
const lerp = (from: number, to: number, fraction: number) => from + (to - from) * fraction;

/** An angle as many turns on as brings it nearest to another: 350° beside −12° is −10°. */
export function besideAngle(angle: number, beside: number): number {
  return angle - 360 * Math.round((angle - beside) / 360);
}

/** A sprung arm's angles, all counted the way the arm swings, degrees. */
export function armAngles({ freeAngle: free, fullAngle, shortMark, longMark }: SprungArm): {
  free: number;
  full: number;
  short: number | null;
  long: number | null;
} {
  const full = besideAngle(fullAngle, free);
  const mark = (angle: number | undefined) => (angle === undefined ? null : besideAngle(angle, (free + full) / 2));
  return { free, full, short: mark(shortMark), long: mark(longMark) };
}

function armTravel(drive: Drive, station: Station, adjuster: SprungArm): Travel | null {
  const { free, full, short, long } = armAngles(adjuster);
  if (free === full) return null;
  const { pivot, armLength: length } = adjuster;
  const angleAt = (fraction: number) => lerp(full, free, fraction);
  const fractionOf = (angle: number) => (angle - full) / (free - full);
  const standing = besideAngle(Math.atan2(station.y - pivot.y, station.x - pivot.x) / RAD, (free + full) / 2);
  return {
    station: station.id,
    kind: adjuster.kind,
    reads: 'armAngle',
    at: (fraction) =>
      moveStation(
        drive,
        station.id,
        pivot.x + length * Math.cos(angleAt(fraction) * RAD),
        pivot.y + length * Math.sin(angleAt(fraction) * RAD),
      ),
    readingAt: angleAt,
    marks: short === null || long === null ? null : { short: fractionOf(short), long: fractionOf(long) },
    now: fractionOf(standing),
  };
}

function slotTravel(drive: Drive, station: Station, adjuster: SlotPivot): Travel | null {
  const { pivot, inAngle: slack } = adjuster;
  const radius = Math.hypot(station.x - pivot.x, station.y - pivot.y);
  const tight = besideAngle(adjuster.outAngle, slack);
  if (slack === tight || radius < 1e-6) return null;
  const angleAt = (fraction: number) => lerp(slack, tight, fraction) * RAD;
  const standing = besideAngle(Math.atan2(station.y - pivot.y, station.x - pivot.x) / RAD, (slack + tight) / 2);
  return {
    station: station.id,
    kind: adjuster.kind,
    reads: 'travel',
    at: (fraction) =>
      moveStation(
        drive,
        station.id,
        pivot.x + radius * Math.cos(angleAt(fraction)),
        pivot.y + radius * Math.sin(angleAt(fraction)),
      ),
    readingAt: (fraction) => Math.abs(tight - slack) * RAD * radius * fraction,
    marks: null,
    now: (standing - slack) / (tight - slack),
  };
}

function slideTravel(drive: Drive, station: Station, adjuster: Slide): Travel | null {
  const { travel } = adjuster;
  const direction = adjuster.direction * RAD;
  if (travel === 0) return null;
  return {
    station: station.id,
    kind: adjuster.kind,
    reads: 'travel',
    at: (fraction) =>
      moveStation(
        drive,
        station.id,
        station.x + Math.cos(direction) * travel * fraction,
        station.y + Math.sin(direction) * travel * fraction,
      ),
    readingAt: (fraction) => Math.abs(travel) * fraction,
    marks: null,
    now: 0,
  };
}

/**
 * The link from the anchor to the lug turns the accessory about its pivot: the lug's angle follows from the three
 * sides.
 */
function linkTravel(drive: Drive, station: Station, adjuster: Turnbuckle): Travel | null {
  const { pivot, anchor, lug, minLength: least, maxLength: most } = adjuster;
  const reach = Math.hypot(lug.x - pivot.x, lug.y - pivot.y);
  const base = Math.hypot(anchor.x - pivot.x, anchor.y - pivot.y);
  if (least === most || reach < 1e-6 || base < 1e-6) return null;
  const toAnchor = Math.atan2(anchor.y - pivot.y, anchor.x - pivot.x);
  const toLug = Math.atan2(lug.y - pivot.y, lug.x - pivot.x);
  // Which side of the line from pivot to anchor the lug is on: it stays there.
  const side = Math.sin(toLug - toAnchor) >= 0 ? 1 : -1;
  const turnFor = (link: number) => {
    const cosine = Math.max(-1, Math.min(1, (reach ** 2 + base ** 2 - link ** 2) / (2 * reach * base)));
    return toAnchor + side * Math.acos(cosine) - toLug;
  };
  const now = Math.hypot(lug.x - anchor.x, lug.y - anchor.y);
  return {
    station: station.id,
    kind: adjuster.kind,
    reads: 'travel',
    at: (fraction) => {
      const turn = turnFor(lerp(least, most, fraction));
      const turned = ({ x, y }: Point): Point => ({
        x: pivot.x + Math.cos(turn) * (x - pivot.x) - Math.sin(turn) * (y - pivot.y),
        y: pivot.y + Math.sin(turn) * (x - pivot.x) + Math.cos(turn) * (y - pivot.y),
      });
      // The lug sits on the accessory and goes with it.
      return changeStation(drive, station.id, { ...turned(station), adjuster: { ...adjuster, lug: turned(lug) } });
    },
    readingAt: (fraction) => Math.abs(most - least) * fraction,
    marks: null,
    now: (now - least) / (most - least),
  };
}

/**
 * A split V sheave: taking out a shim of thickness t lets the belt ride t / (2·tan(half groove angle)) higher between
 * the halves, whose rim stays as large as it is.
 */
function shimTravel(drive: Drive, station: Station, adjuster: Shims, belt: Belt): Travel | null {
  const sum = (thicknesses: readonly number[]) => thicknesses.reduce((total, one) => total + one, 0);
  const between = sum(adjuster.shims);
  const spare = typeof adjuster.spare === 'number' ? adjuster.spare : sum(adjuster.spare ?? []);
  const sheaves = station.pulleys.filter(
    ({ id, surface }) => surface === 'vee' && belt.route.some(({ pulley }) => pulley === id),
  );
  if (between + spare === 0 || sheaves.length === 0) return null;
  const at = (fraction: number) => {
    const removed = (between + spare) * fraction - spare;
    return sheaves.reduce(
      (split, sheave) =>
        changePulley(split, sheave.id, {
          ride: (sheave.ride ?? 0) + removed / (2 * Math.tan(halfGrooveAngle(sheave))),
        }),
      drive,
    );
  };
  return {
    station: station.id,
    kind: adjuster.kind,
    reads: 'travel',
    at,
    readingAt: (fraction) => (between + spare) * fraction,
    marks: null,
    now: spare / (between + spare),
  };
}

/** The same travel with its ends exchanged, where the other end turns out to be the slack one. */
export function reversed(travel: Travel): Travel {
  return {
    ...travel,
    at: (fraction) => travel.at(1 - fraction),
    readingAt: (fraction) => travel.readingAt(fraction),
    now: 1 - travel.now,
  };
}

/** An adjuster of that kind with starting figures about where the shaft stands, to be measured over. */
export function newAdjuster(kind: Adjuster['kind'], { x, y }: Point): Adjuster {
  const round = (value: number) => Math.round(value * 10) / 10;
  const pivot = { x: round(x), y: round(y - 80) };
  switch (kind) {
    case 'sprung-arm':
      return {
        kind,
        pivot,
        armLength: 80,
        freeAngle: 60,
        fullAngle: 120,
        shortMark: 105,
        longMark: 75,
        springTorqueAtFree: 14,
        springRate: 0.2,
      };
    case 'slot-pivot':
      return { kind, pivot, inAngle: 100, outAngle: 75 };
    case 'slide':
      return { kind, direction: 90, travel: 25 };
    case 'turnbuckle':
      return {
        kind,
        pivot,
        anchor: { x: round(x - 100), y: round(y + 20) },
        lug: { x: round(x), y: round(y + 40) },
        minLength: 90,
        maxLength: 120,
      };
    case 'shims':
      return { kind, shims: [0.8, 0.8, 0.8] };
    default:
      return { kind: 'fixed' };
  }
}

/** Pivot and length of an arm from three places its pulley was seen at; null where they lie on a line. */
export function armThrough(a: Point, b: Point, c: Point): { pivot: Point; length: number } | null {
  const twice = 2 * (a.x * (b.y - c.y) + b.x * (c.y - a.y) + c.x * (a.y - b.y));
  if (Math.abs(twice) < 1e-6) return null;
  const [sa, sb, sc] = [a, b, c].map(({ x, y }) => x * x + y * y) as [number, number, number];
  const pivot = {
    x: (sa * (b.y - c.y) + sb * (c.y - a.y) + sc * (a.y - b.y)) / twice,
    y: (sa * (c.x - b.x) + sb * (a.x - c.x) + sc * (b.x - a.x)) / twice,
  };
  return { pivot, length: Math.hypot(a.x - pivot.x, a.y - pivot.y) };
}
