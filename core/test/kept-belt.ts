import { fractionFor, lengthCurve } from '../adjuster';
import type { Drive, TriedBelt } from '../drive';
import { DEMO } from './demo';

/**
 * The demo truck with a belt of 1,805 mm that was tried on, kept at 50,000 km and read since: so many km later it had
 * grown by so many mm.
 */
export function keptAndRead(at: string, later: readonly (readonly [km: number, grewMm: number])[]): Drive {
  const arm = DEMO.rescue;
  const belt = { ...arm.belts[0]!, measurements: [], length: 1805, care: { fittedOdometer: 50_000 } };
  const curve = lengthCurve(arm, belt)!;
  const angleAt = (mm: number) => curve.travel.readingAt(fractionFor(curve, belt, mm)!);
  const kept: TriedBelt = {
    ...{ id: 'k', lengthMm: 1805, outcome: 'on', kept: true, pointerDeg: angleAt(1805), plusMinus: 0.3, at },
  };
  const target = arm.stations.find(({ adjuster }) => adjuster)!.pulleys[0]!.id;
  const findings = later.map(([km, grew], k) => ({
    ...{ id: `f${k}`, on: 'arm' as const, target, check: 'pointer' as const, value: angleAt(1805 + grew) },
    ...{ plusMinus: 0.3, odometer: 50_000 + km, at: '2026-06-10' },
  }));
  return {
    ...arm,
    belts: [{ ...belt, tensionReadings: [], tried: [kept] }],
    inspect: { odometerUnit: 'km', findings },
  };
}
