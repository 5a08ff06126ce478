import { type Drive, findPulley, PULLEY_KINDS, type PulleyKind, type Station, stationOf } from '../drive';
import type { Grade } from './limits';

/** Shafts whose rotor runs on when its pulley is spun: what spins on there has not lost its grease. */
const ROTORS: ReadonlySet<Station['role']> = new Set(['alternator', 'generator']);
const COUPLED: ReadonlySet<Station['role']> = new Set(['ac-compressor']);

/** What a plain pulley's clutch test comes to. */
const SOLID_GRADES: Readonly<Record<string, Grade>> = { locked: 'sound', slips: 'replace' };

/** The kinds of pulley that one may be, where it matters for what is tried by hand; none where it does not. */
export function kindsAsked(drive: Drive, pulley: string): readonly PulleyKind[] {
  const role = stationOf(drive, pulley)?.role;
  const own = findPulley(drive, pulley)?.kind;
  if (role && ROTORS.has(role)) return ['solid', 'one-way', 'decoupling'];
  if (role && COUPLED.has(role)) return ['solid', 'magnetic-clutch'];
  const tried = drive.inspect?.findings?.some(({ target, check }) => target === pulley && check === 'clutch');
  return tried || (own !== undefined && own !== 'solid') ? PULLEY_KINDS : [];
}

const RUNS_AHEAD: ReadonlySet<PulleyKind> = new Set(['one-way', 'decoupling']);

/** Whether a pulley has, or may have, a clutch that lets it run ahead of its shaft. */
export function mayRunAhead(drive: Drive, pulley: string): boolean {
  const kind = findPulley(drive, pulley)?.kind;
  const role = stationOf(drive, pulley)?.role;
  return kind === undefined ? role !== undefined && ROTORS.has(role) : RUNS_AHEAD.has(kind);
}

/**
 * What spinning a pulley, or holding its rotor, says of it by its kind: a plain one is locked both ways, one that runs
 * ahead spins on, a magnetic clutch turns free while it is not fed. `ask` where the kind must be known first; null for
 * an outcome, or a check or test, that says the same of every kind.
 */
export function gradeByKind(
  drive: Drive,
  pulley: string,
  check: string,
  outcome: string | undefined,
): Grade | 'ask' | null {
  const kind = findPulley(drive, pulley)?.kind;
  const role = stationOf(drive, pulley)?.role;
  const rotor = role !== undefined && ROTORS.has(role);
  if (check === 'spin' && outcome === 'freewheels') {
    if (kind !== undefined && RUNS_AHEAD.has(kind)) return 'sound';
    if (kind === 'magnetic-clutch') return 'watch';
    if (rotor) return kind === undefined ? 'ask' : 'sound';
    return kind === undefined && role !== undefined && COUPLED.has(role) ? 'ask' : null;
  }
  if (check !== 'clutch') return null;
  if (kind === 'solid') return SOLID_GRADES[outcome ?? ''] ?? 'nothing';
  if (kind === 'magnetic-clutch') return 'nothing';
  return kind === undefined && outcome === 'locked' ? 'ask' : null;
}
