import {
  type Drive,
  freeIdIn,
  itemsOf,
  type ListenAgain,
  type Noise,
  type NoiseCure,
  type NoiseClip,
  type NoiseEvidence,
  noiseTest,
  putItem,
} from '../drive';
import { type Answer, type Ask, askKey } from './asks';
import type { Listening } from './listen';

/* What the bench changes of a drive's noise. Each is a pure function from drive to drive. */

export const changeNoise = (drive: Drive, change: Partial<Noise>): Drive => ({
  ...drive,
  noise: { ...drive.noise, ...change },
});

const keyOf = ({ test, pulley, belt }: NoiseEvidence) =>
  noiseTest(test)
    ? askKey({ test, ...(pulley !== undefined && { pulley }), ...(belt !== undefined && { belt }) })
    : null;

const without = ({ noise }: Drive, ask: Ask): NoiseEvidence[] =>
  (noise?.evidence ?? []).filter((evidence) => evidence.past || keyOf(evidence) !== askKey(ask));

/** Says how a test turned out, in place of how it did before. */
export function answerTest(
  drive: Drive,
  { test, outcome, pulley, belt }: Answer,
  more: Pick<NoiseEvidence, 'at' | 'odometer' | 'simulated'> = {},
): Drive {
  const said = { test, outcome, ...(pulley !== undefined && { pulley }), ...(belt !== undefined && { belt }), ...more };
  return changeNoise(drive, {
    evidence: [
      ...without(drive, { test, ...(pulley !== undefined && { pulley }), ...(belt !== undefined && { belt }) }),
      said,
    ],
  });
}

/** Takes back how a test turned out. */
export const takeBack = (drive: Drive, ask: Ask): Drive => changeNoise(drive, { evidence: without(drive, ask) });

/** The likeliest part is taken for what was heard from this chance on. */
const TAKEN = 0.5;

/** What was heard as evidence: its kind, and what it repeats with, where one part is likelier than all others. */
export function heardAsClue(
  drive: Drive,
  { kind, matches, repeat }: Pick<Listening, 'kind' | 'matches' | 'repeat'>,
  more: Pick<NoiseEvidence, 'at' | 'odometer' | 'simulated'> = {},
): Drive {
  if (kind === 'none') return drive;
  const kinded = answerTest(drive, { test: 'kind', outcome: kind }, more);
  const [first] = matches;
  if (!repeat) return answerTest(kinded, { test: 'repeat', outcome: 'none' }, more);
  if (!first || first.what === 'none' || first.probability < TAKEN) return kinded;
  const ofPulley = first.what === 'pulley' || first.what === 'bearing';
  const ofBelt = first.what !== 'engine' && !ofPulley;
  const part = { ...(ofPulley && { pulley: first.id }), ...(ofBelt && { belt: first.id }) };
  return answerTest(kinded, { test: 'repeat', outcome: first.what, ...part }, more);
}

/** So many clips of a drive carry their sound: older ones keep what was heard in them. */
const MOST_SOUNDS = 6;

/** Keeps what was heard in a sound, under an id of its own, and the last few sounds themselves. */
export function keepClip(drive: Drive, clip: Omit<NoiseClip, 'id'>): Drive {
  const clips = itemsOf(drive, 'noise.clips');
  const sounds = clips.filter(({ wav }) => wav !== undefined);
  const silent = new Set(sounds.slice(0, Math.max(0, sounds.length + 1 - MOST_SOUNDS)));
  const kept = clips.map((clip) => {
    const { wav: _, ...rest } = clip;
    return silent.has(clip) ? rest : clip;
  });
  return changeNoise(drive, { clips: [...kept, { id: freeIdIn('sound', clips), ...clip }] });
}

/** Writes down that a cause was put right: what was seen of the noise until then counts no more. */
export function cureDone(drive: Drive, cure: Omit<NoiseCure, 'id' | 'listened'>): Drive {
  const id = freeIdIn('cure', itemsOf(drive, 'noise.cures'));
  const past = changeNoise(drive, {
    evidence: (drive.noise?.evidence ?? []).map((evidence) => ({ ...evidence, past: true })),
  });
  return putItem(past, 'noise.cures', { id, ...cure });
}

/** Says what was heard when it was listened to again after a cure; null takes it back. */
export function listenedAgain(
  drive: Drive,
  cureId: string,
  when: ListenAgain,
  outcome: 'quiet' | 'back' | null,
  more: { at?: string; odometer?: number } = {},
): Drive {
  const cure = drive.noise?.cures?.find(({ id }) => id === cureId);
  if (!cure) return drive;
  const others = (cure.listened ?? []).filter((listening) => listening.when !== when);
  const listened = outcome === null ? others : [...others, { when, outcome, ...more }];
  return putItem(drive, 'noise.cures', { ...cure, listened });
}
