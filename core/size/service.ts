import { adjustersOf, type LengthCurve } from '../adjuster';
import { type Belt, cameOffBy, type Drive, itemsOf, kmPer, momentOf, type TriedBelt } from '../drive';
import { besideAngle } from '../numeric';
import { TRIED_DEFAULTS } from './defaults';
import { SEATING_KM, type ServiceReading } from './growth';
import { tautLength, triedLengthMm } from './tried';

/** One belt's time on its pulleys: from its fitting to what took it off. */
export interface OnPulleys {
  /** The belt that was tried on and stayed on. */
  kept: TriedBelt;
  /** Odometer at its fitting and at its end, in the drive's own unit; the end is null of the one that is on. */
  fitted: number;
  until: number | null;
}

/** Every belt that was tried on and stayed on, the last one first, each with the change it came off by. */
const keptBelts = (drive: Drive, { id, tried = [] }: Belt) =>
  tried
    .filter(({ kept, outcome }) => kept === true && outcome !== 'will-not-go-on')
    .map((kept) => ({ kept, off: cameOffBy(drive, id, { at: kept.at, when: 'new' }) }))
    .reverse();

/** The belt that was tried on and is on; null where none was, or it was replaced since. */
export function keptBelt(drive: Drive, belt: Belt): TriedBelt | null {
  return keptBelts(drive, belt).find(({ off }) => off === null)?.kept ?? null;
}

/** The belt that is on, and those before it, each where it is known which was tried on and kept; the last one first. */
export function timesOnPulleys(drive: Drive, belt: Belt): OnPulleys[] {
  // Of several that were kept before one change, the last one stayed.
  const stayed = keptBelts(drive, belt).filter(({ off }, k, all) => all.findIndex((other) => other.off === off) === k);
  return stayed.flatMap(({ kept, off }): OnPulleys[] => {
    if (off === undefined) return [];
    const fitted = (off ? off.careBefore : belt.care)?.fittedOdometer;
    const until = off ? off.odometer : null;
    return fitted === undefined || until === undefined ? [] : [{ kept, fitted, until }];
  });
}

/** What was read of the adjuster later on, degrees or mm from its slack end, at an odometer reading. */
interface LaterReading {
  odometer: number;
  at: string | undefined;
  value: number;
  plusMinus: number;
  past: boolean;
}

/** Readings of the pointer, or of the slot, after the belt that is on went on and was kept. */
export function serviceReadings(drive: Drive, belt: Belt, curve: LengthCurve | null): ServiceReading[] {
  const on = timesOnPulleys(drive, belt).find(({ until }) => until === null);
  return on && curve ? readingsOn(drive, belt, curve, on) : [];
}

/** Readings of the adjuster while one belt was on. */
export function readingsOn(
  drive: Drive,
  belt: Belt,
  curve: LengthCurve,
  { kept, fitted, until }: OnPulleys,
): ServiceReading[] {
  if (triedLengthMm(belt, kept) === null) return [];
  const unit = kmPer(drive.inspect?.odometerUnit ?? 'km');
  const [first, last] = [curve.travel.readingAt(0), curve.travel.readingAt(1)];
  const from = momentOf(kept.at);
  return laterReadings(drive, belt, curve).flatMap(({ odometer, at, value, plusMinus, past }): ServiceReading[] => {
    const when = momentOf(at);
    if (until === null ? past : odometer > until) return [];
    if (odometer <= fitted || (from !== null && when !== null && when < from)) return [];
    const read = curve.travel.reads === 'armAngle' ? besideAngle(value, (first + last) / 2) : value;
    const taut = tautLength(belt, curve, {
      fraction: (read - first) / (last - first),
      plusMinus: plusMinus / Math.abs(last - first),
    });
    return taut ? [{ tried: kept.id, km: (odometer - fitted) * unit, seatKm: SEATING_KM, ...taut }] : [];
  });
}

function laterReadings(drive: Drive, belt: Belt, { travel }: LengthCurve): LaterReading[] {
  const [station] = adjustersOf(drive, belt).stations;
  const onArm = new Set(station?.pulleys.map(({ id }) => id));
  const arm = travel.reads === 'armAngle';
  const checked = itemsOf(drive, 'inspect.findings').flatMap((finding): LaterReading[] => {
    const { check, target, value, odometer, at, past = false } = finding;
    const here = arm ? check === 'pointer' && onArm.has(target) : check === 'slot' && target === belt.id;
    if (!here || value === undefined || odometer === undefined) return [];
    const plusMinus = finding.plusMinus ?? (arm ? TRIED_DEFAULTS.pointerDeg : TRIED_DEFAULTS.travelMm);
    // What is left of a slot is counted from its other end.
    return [{ odometer, at, plusMinus, past, value: arm ? value : travel.readingAt(1) - value }];
  });
  const read = (belt.tensionReadings ?? []).flatMap((reading): LaterReading[] => {
    if (!arm || reading.way !== 'pointer' || reading.degrees === undefined || reading.odometer === undefined) return [];
    const { odometer, at, degrees: value, plusMinus = TRIED_DEFAULTS.pointerDeg } = reading;
    return [{ odometer, at, value, plusMinus, past: false }];
  });
  return [...checked, ...read].sort((a, b) => a.odometer - b.odometer);
}
