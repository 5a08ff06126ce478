import type { Drive } from '../drive';
import { type BeltSolution, type Point, solveDrive } from '../path';
import { demandOf, type OwnTorque, type Running, type Transmission, transmissionOf } from './demand';
import { type BeltRunning, runBelt } from './running';
import { type StaticBelt, staticBeltOf } from './static-belt';

/** All belts of a drive at rest, and how torque goes through it: what every running state is worked out from. */
export interface DriveTension {
  drive: Drive;
  lines: readonly Pick<BeltSolution, 'id' | 'contacts'>[];
  transmission: Transmission;
  /** By belt; null where no belt can lie on the route. */
  staticBelts: readonly (StaticBelt | null)[];
}

/** How every belt of a drive stands at rest; `given` holds tensions to take in place of what a belt's own holds, N. */
export function tensionOf(drive: Drive, given: Readonly<Record<string, number | undefined>> = {}): DriveTension {
  const { belts } = solveDrive(drive);
  return {
    drive,
    lines: belts,
    transmission: transmissionOf(drive, belts),
    staticBelts: belts.map(({ id }) => staticBeltOf(drive, id, given[id])),
  };
}

/** A drive that runs in one state. */
export interface DriveRunning {
  running: Running;
  /** By belt. */
  belts: (BeltRunning | null)[];
  own: OwnTorque[];
  /** Load on every shaft that a belt pulls, from all of its belts, N. */
  shafts: ReadonlyMap<string, Point>;
}

/** Every belt's tensions in one state. `tensionN` by belt: other tensions at rest than they stand at. */
export function runDrive(
  { lines, transmission, staticBelts }: DriveTension,
  running: Running,
  tensionN: Readonly<Record<string, number | undefined>> = {},
): DriveRunning {
  const { torques, own } = demandOf(transmission, lines, running);
  const { rpm, wet = false } = running;
  const belts = staticBelts.map((standing, b) => {
    if (!standing) return null;
    const other = tensionN[standing.belt.id];
    return runBelt(standing, torques[b] ?? [], { rpm, wet, ...(other !== undefined && { tensionN: other }) });
  });
  const shafts = new Map<string, Point>();
  for (const { contact, hubLoad } of belts.flatMap((belt) => belt?.pulleys ?? [])) {
    const { x, y } = shafts.get(contact.station) ?? { x: 0, y: 0 };
    shafts.set(contact.station, { x: x + hubLoad.x, y: y + hubLoad.y });
  }
  return { running, belts, own, shafts };
}

/** The pulley of a belt with the least margin; null where nothing can slip. */
export function worstOf({ pulleys }: BeltRunning): { pulley: string; margin: number } | null {
  const able = pulleys.flatMap(({ contact: { pulley }, margin }) => (margin === null ? [] : [{ pulley, margin }]));
  return able.reduce<(typeof able)[number] | null>(
    (worst, next) => (worst === null || next.margin < worst.margin ? next : worst),
    null,
  );
}
