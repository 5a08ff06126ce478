import type { Drive } from '../drive';
import { type BeltSolution, type Point, solveDrive } from '../path';
import { demandOf, type OwnTorque, type Running, type Transmission, transmissionOf } from './demand';
import { type BeltRunning, runBelt } from './running';
import { type Standing, standingOf } from './standing';

/** All belts of a drive at rest, and how torque goes through it: what every running state is worked out from. */
export interface DriveTension {
  drive: Drive;
  lines: readonly Pick<BeltSolution, 'id' | 'contacts'>[];
  transmission: Transmission;
  /** By belt; null where no belt can lie on the route. */
  standings: readonly (Standing | null)[];
}

/** How every belt of a drive stands at rest; `given` holds tensions to take in place of what a belt's own holds, N. */
export function tensionOf(drive: Drive, given: Readonly<Record<string, number | undefined>> = {}): DriveTension {
  const { belts } = solveDrive(drive);
  return {
    drive,
    lines: belts,
    transmission: transmissionOf(drive, belts),
    standings: belts.map(({ id }) => standingOf(drive, id, given[id])),
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
  { lines, transmission, standings }: DriveTension,
  running: Running,
  tensionN: Readonly<Record<string, number | undefined>> = {},
): DriveRunning {
  const { torques, own } = demandOf(transmission, lines, running);
  const { rpm, wet = false } = running;
  const belts = standings.map((standing, b) => {
    if (!standing) return null;
    const other = tensionN[standing.belt.id];
    return runBelt(standing, torques[b]!, { rpm, wet, ...(other !== undefined && { tensionN: other }) });
  });
  const shafts = new Map<string, Point>();
  standings.forEach((standing, b) =>
    standing?.contacts.forEach(({ station }, k) => {
      const { x, y } = shafts.get(station) ?? { x: 0, y: 0 };
      const pull = belts[b]!.hub[k]!;
      shafts.set(station, { x: x + pull.x, y: y + pull.y });
    }),
  );
  return { running, belts, own, shafts };
}

/** The pulley of a belt with the least margin; null where nothing can slip. */
export function worstOf(
  { contacts }: Standing,
  { margin }: BeltRunning,
): { at: number; pulley: string; margin: number } | null {
  let worst: { at: number; pulley: string; margin: number } | null = null;
  margin.forEach((one, at) => {
    if (one !== null && (worst === null || one < worst.margin))
      worst = { at, pulley: contacts[at]!.pulley, margin: one };
  });
  return worst;
}
