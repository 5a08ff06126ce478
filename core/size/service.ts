import { adjustersOf, type LengthCurve } from '../adjuster';
import { type Belt, type Drive, itemsOf, kmPer, momentOf, type TriedBelt } from '../drive';
import { besideAngle } from '../numeric';
import { TRIED_DEFAULTS } from './defaults';
import { SEATING_KM, type ServiceReading } from './growth';
import { tautLength, triedLengthMm } from './tried';

/** The belt that was tried on and stayed on; the last of such. */
export function keptBelt({ tried = [] }: Pick<Belt, 'tried'>): TriedBelt | null {
  return [...tried].reverse().find(({ kept, outcome }) => kept === true && outcome !== 'will-not-go-on') ?? null;
}

/** What was read of the adjuster later on, degrees or mm from its slack end, at an odometer reading. */
interface LaterReading {
  odometer: number;
  at: string | undefined;
  value: number;
  plusMinus: number;
}

/** Readings of the pointer, or of the slot, after the belt that was kept went on. */
export function serviceReadings(drive: Drive, belt: Belt, curve: LengthCurve | null): ServiceReading[] {
  const kept = keptBelt(belt);
  const fitted = belt.care?.fittedOdometer;
  if (!kept || !curve || fitted === undefined || triedLengthMm(belt, kept) === null) return [];
  const unit = kmPer(drive.inspect?.odometerUnit ?? 'km');
  const [first, last] = [curve.travel.readingAt(0), curve.travel.readingAt(1)];
  const from = momentOf(kept.at);
  return laterReadings(drive, belt, curve).flatMap(({ odometer, at, value, plusMinus }): ServiceReading[] => {
    const when = momentOf(at);
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
    const { check, target, value, odometer, at, past } = finding;
    const here = arm ? check === 'pointer' && onArm.has(target) : check === 'slot' && target === belt.id;
    if (!here || past || value === undefined || odometer === undefined) return [];
    const plusMinus = finding.plusMinus ?? (arm ? TRIED_DEFAULTS.pointerDeg : TRIED_DEFAULTS.travelMm);
    // What is left of a slot is counted from its other end.
    return [{ odometer, at, plusMinus, value: arm ? value : travel.readingAt(1) - value }];
  });
  const read = (belt.tensionReadings ?? []).flatMap((reading): LaterReading[] => {
    if (!arm || reading.way !== 'pointer' || reading.degrees === undefined || reading.odometer === undefined) return [];
    const { odometer, at, degrees: value, plusMinus = TRIED_DEFAULTS.pointerDeg } = reading;
    return [{ odometer, at, value, plusMinus }];
  });
  return [...checked, ...read].sort((a, b) => a.odometer - b.odometer);
}
