import { asksOf, demandOf, type DriveTension, GRIP, leastFor, type Running, SAFE_MARGIN } from '../loads';
import { toDegrees, toRadians } from '../numeric';

/** What would give a pulley its margin, and how much each way is worth. */
export interface Remedies {
  pulley: string;
  station: string;
  /** The state in which it asks for most. */
  running: Running;
  /** Tension at rest it needs there; null where none would do. */
  needsN: number | null;
  wrapDeg: number;
  /** What `WRAP_STEP_DEG` more of wrap takes off that, N; null where either has no end. */
  wrapWorthN: number | null;
  /** Wrap at which `atN` would do, degrees; null where it does already, or no wrap would. */
  wrapWantedDeg: number | null;
  /** What it would need running dry, where it was asked wet, N. */
  dryNeedsN: number | null;
  /** What it would need on the ribs or in the groove, where the belt's back drives it, N. */
  drivenSideNeedsN: number | null;
}

/** Wrap that is told the worth of, degrees. */
export const WRAP_STEP_DEG = 10;

/**
 * What wrap, tension and surface are worth at a pulley of a belt over some states, and what wrap `atN` would want (the
 * present tension where it is left out). Null where it takes nothing.
 */
export function remediesFor(
  tension: DriveTension,
  beltId: string,
  pulley: string,
  states: readonly Running[],
  atN?: number,
): Remedies | null {
  const b = tension.lines.findIndex(({ id }) => id === beltId);
  const standing = tension.staticBelts[b];
  if (!standing) return null;
  const asks = states.flatMap((running) => {
    const torques = demandOf(tension.transmission, tension.lines, running).torques[b] ?? [];
    const asked = asksOf(standing, torques, running).find(({ contact }) => contact.pulley === pulley);
    return !asked || asked.pull === 0 || asked.hold === null
      ? []
      : [{ running, asked: { ...asked, hold: asked.hold }, needsN: leastFor(asked) }];
  });
  if (asks.length === 0) return null;
  const hardest = asks.reduce((found, next) => ((next.needsN ?? Infinity) > (found.needsN ?? Infinity) ? next : found));
  const { asked, running, needsN } = hardest;
  const { wrap, station, gripExponent } = asked.contact;
  const grip = asked.hold / wrap;
  const at = (more: Partial<typeof asked>) => leastFor({ ...asked, ...more });
  const stepped = at({ hold: asked.hold + grip * toRadians(WRAP_STEP_DEG) });
  const back = gripExponent !== null && Math.abs(gripExponent.dry / wrap - GRIP.back) < 1e-9;
  return {
    pulley,
    station,
    running,
    needsN,
    wrapDeg: toDegrees(wrap),
    wrapWorthN: needsN === null || stepped === null ? null : needsN - stepped,
    wrapWantedDeg: wantedWrap(asked, atN ?? standing.tensionN, grip, needsN),
    dryNeedsN: running.wet ? at({ hold: gripExponent!.dry }) : null,
    drivenSideNeedsN: back ? at({ hold: (asked.hold * GRIP.ribbed) / GRIP.back }) : null,
  };
}

/** Wrap, degrees, at which a tension at rest keeps the margin. */
function wantedWrap(
  { rise, pull, offset }: { rise: number; pull: number; offset: number },
  tensionN: number,
  grip: number,
  needsN: number | null,
): number | null {
  if (needsN !== null && needsN <= tensionN) return null;
  const slack = tensionN - offset + rise;
  if (slack <= 0) return null;
  return (Math.log(((1 + SAFE_MARGIN) * (slack + pull)) / slack) / grip / Math.PI) * 180;
}
