import { type Drive, findPulley, insertStop, proposedSide, type RouteStop } from '../drive';
import { solveBelt } from './solve';

/**
 * Where on a belt a pulley is best put: the stop index and side that leave the fewest faults, then the shortest belt.
 * The side its surface asks for is kept wherever it can be run. Null where the drive has no such belt or pulley.
 */
export function bestPlaceFor(
  drive: Drive,
  beltId: string,
  pulleyId: string,
): { index: number; stop: RouteStop } | null {
  const belt = drive.belts.find(({ id }) => id === beltId);
  const pulley = findPulley(drive, pulleyId);
  if (!belt || !pulley) return null;
  const side = proposedSide(pulley);
  const stop = { pulley: pulleyId, side };
  if (belt.route.length < 2) return { index: belt.route.length, stop };
  const tries = belt.route.map((_, at) => {
    const solved = solveBelt(insertStop(drive, beltId, at + 1, stop), beltId)!;
    const faults = solved.findings.filter(({ severity }) => severity === 'fault').length;
    return { index: at + 1, stop, faults: faults + (solved.closed ? 0 : 100), length: solved.cordLength ?? Infinity };
  });
  return tries.reduce((best, next) =>
    next.faults < best.faults || (next.faults === best.faults && next.length < best.length) ? next : best,
  );
}
