import type { Drive } from '../drive';
import { type Answer, bearingParts, toothedBelts } from './asks';
import {
  BY_FAULT,
  BY_NOISE,
  type FaultRow,
  type NoiseRow,
  ON_ARM,
  OWN_PULLEY,
  OWN_SHAFT,
  type Source,
} from './likelihoods';
import { armedBelts, type Suspect, turningParts } from './suspects';

/** What may make the noise: a suspect, or something that is not in the drive. */
export type Maker = Suspect | 'elsewhere';

/** The parts of a drive among which what repeats is shared. */
export interface Shares {
  belts: readonly string[];
  pulleys: readonly string[];
  toothed: readonly string[];
  /** Those that run in rolling bearings. */
  bearings: readonly string[];
  /** Belts that a sprung arm keeps tight. */
  armed: readonly string[];
  /** The crank's own pulleys. */
  cranks: readonly string[];
}

export function sharesOf(drive: Drive): Shares {
  return {
    belts: drive.belts.map(({ id }) => id),
    pulleys: turningParts(drive).map(({ pulley }) => pulley),
    toothed: toothedBelts(drive),
    bearings: bearingParts(drive),
    armed: armedBelts(drive),
    cranks: turningParts(drive).flatMap(({ pulley, station }) => (station.role === 'crankshaft' ? [pulley] : [])),
  };
}

/** The rows of a test that goes by the noise; null for one that looks at a part itself. */
function rowsOf({ test, belt }: Answer, { armed }: Shares): readonly NoiseRow[] | null {
  const onArm = ON_ARM[test];
  return (onArm && belt !== undefined && armed.includes(belt) ? onArm : BY_NOISE[test]) ?? null;
}

/** The row of a test that goes by the noise, for what makes it. */
export function noiseRow(answer: Answer, maker: Maker, shares: Shares): NoiseRow | null {
  const rows = rowsOf(answer, shares);
  if (!rows) return null;
  // A test of one belt says of what is on another as much as of what is not in the drive.
  const there = maker !== 'elsewhere' && (answer.belt === undefined || maker.belts.includes(answer.belt));
  const source: Source = answer.test === 'repeat' || there ? sourceOf(maker) : 'elsewhere';
  const hub = source === 'hub-wobble' && maker !== 'elsewhere' && shares.cranks.includes(maker.id);
  const own = hub ? rows.find(({ causes }) => causes?.includes('crank-hub')) : undefined;
  return own ?? rows.find(({ causes }) => !causes || causes.includes(source))!;
}

const sourceOf = (maker: Maker): Source => (maker === 'elsewhere' ? maker : maker.cause);

/** How likely a test that goes by the noise turns out so, where that makes it. Null for a test of a part itself. */
export function likelihoodOf(answer: Answer, maker: Maker, shares: Shares): number | null {
  const row = noiseRow(answer, maker, shares);
  if (!row) return null;
  if (answer.test !== 'repeat') return row.p[answer.outcome]!;
  // Without teeth nothing repeats once a tooth.
  const total = shares.toothed.length > 0 ? 1 : 1 - row.p['tooth']!;
  return (row.p[answer.outcome]! / total) * shareOf(answer, maker, shares);
}

/** What of an outcome falls to the very part that was named. */
function shareOf(
  { outcome, belt, pulley }: Answer,
  maker: Maker,
  { belts, pulleys, toothed, bearings }: Shares,
): number {
  switch (outcome) {
    case 'belt':
      return among(belts, belt!, maker === 'elsewhere' ? [] : maker.belts);
    case 'tooth':
      return among(toothed, belt!, maker === 'elsewhere' ? [] : maker.belts);
    case 'pulley':
      return among(pulleys, pulley!, maker === 'elsewhere' ? [] : [maker.id]);
    case 'bearing':
      return among(bearings, pulley!, maker === 'elsewhere' ? [] : [maker.id], OWN_SHAFT);
    default:
      return 1;
  }
}

/** One of several, of which some are its own and take most. */
function among(all: readonly string[], pulley: string, own: readonly string[], share = OWN_PULLEY): number {
  const mine = all.filter((id) => own.includes(id));
  if (!all.includes(pulley)) return 0;
  if (mine.length === 0 || mine.length === all.length) return 1 / all.length;
  return mine.includes(pulley) ? share / mine.length : (1 - share) / (all.length - mine.length);
}

/** The row of a test that looks at a part, and whether a suspect is the fault at the part it looks at. */
export function faultRow(answer: Answer, shares: Shares): FaultRow | null {
  return rowsOf(answer, shares) ? null : (BY_FAULT[answer.test] ?? null);
}

export function looksAt(answer: Answer, { cause, id }: Suspect, shares: Shares): boolean {
  return faultRow(answer, shares)?.fault === cause && id === (answer.pulley ?? answer.belt);
}
