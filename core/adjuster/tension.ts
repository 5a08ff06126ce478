import type { Belt, Drive, SprungArm, Station, Strut } from '../drive';
import { inOrder, monotoneAt, headingDeg, toRadians, besideAngle } from '../numeric';
import { type LengthCurve, pathLength } from './curve';
import { armAngles } from './kinds/sprung-arm';

/**
 * The torque that holds a sprung arm against its belt at an arm angle, degrees: its spring's, and a strut's besides;
 * N·m. Null where neither is known.
 */
export function armTorque({ x, y, adjuster }: Pick<Station, 'x' | 'y' | 'adjuster'>, angle: number): number | null {
  if (adjuster?.kind !== 'sprung-arm') return null;
  const { springTorqueAtFree: atFree, springRate: rate = 0, strut, pivot } = adjuster;
  if (atFree === undefined && !strut) return null;
  const { free } = armAngles(adjuster);
  const spring = atFree === undefined ? 0 : atFree + rate * Math.abs(angle - free);
  if (!strut) return spring;
  const now = headingDeg(x - pivot.x, y - pivot.y);
  return spring + strutTorque(adjuster, strut, ((angle - now) * Math.PI) / 180);
}

/** A strut's torque on the arm toward its free angle, with the arm turned by so much from where its lug is given. */
function strutTorque({ pivot, freeAngle, fullAngle }: SprungArm, { anchor, lug, closed, points }: Strut, turn: number) {
  const [dx, dy] = [lug.x - pivot.x, lug.y - pivot.y];
  const arm = { x: Math.cos(turn) * dx - Math.sin(turn) * dy, y: Math.sin(turn) * dx + Math.cos(turn) * dy };
  const push = { x: pivot.x + arm.x - anchor.x, y: pivot.y + arm.y - anchor.y };
  const length = Math.hypot(push.x, push.y);
  if (length < 1e-6) return 0;
  const force = monotoneAt(inOrder(points.map((point) => ({ x: point.stroke, y: point.force }))), length - closed);
  const counterClockwise = (force * (arm.x * push.y - arm.y * push.x)) / length / 1000;
  return besideAngle(freeAngle, fullAngle) >= fullAngle ? counterClockwise : -counterClockwise;
}

/**
 * Static tension in a belt that a sprung arm holds at a fraction of its travel, N: by virtual work the spring's torque
 * over the change of path with the arm's angle (T = torque / (dL/dφ)). Null where the spring is not known or the path
 * has stopped growing.
 */
export function armTension(
  drive: Drive,
  belt: Belt,
  { travel }: Pick<LengthCurve, 'travel'>,
  fraction: number,
): number | null {
  const station = drive.stations.find(({ id }) => id === travel.station)!;
  const torqueNm = armTorque(station, travel.readingAt(fraction));
  if (torqueNm === null || station.adjuster?.kind !== 'sprung-arm') return null;
  const { free, full } = armAngles(station.adjuster);
  const step = 1e-4;
  const [less, more] = [pathLength(travel.at(fraction - step), belt), pathLength(travel.at(fraction + step), belt)];
  if (less === null || more === null) return null;
  const perRadian = (more - less) / toRadians(2 * step * Math.abs(free - full));
  return perRadian > 1e-6 ? (torqueNm * 1000) / perRadian : null;
}
