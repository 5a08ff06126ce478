import {
  type Drive,
  momentOf,
  NOISE_TESTS,
  type NoiseEvidence,
  type NoiseTest,
  noiseTest,
  ofBeltNow,
  pulleysById,
} from '../drive';
import { bodyRadiusMm } from '../section';
import { foundOf, gradeByKind, type Judged, partsOf, type ReasonCode } from '../inspect';
import { alignmentOf, runOutOf } from '../planes';
import { grooveCounts } from '../align';
import { type Answer, askKey, partOf } from './asks';

/** Who says a piece of evidence: somebody by hand, or what another stage found. */
export type EvidenceFrom = 'hand' | 'align' | 'inspect';

/** A piece of evidence that counts. */
export interface Weighed extends Answer {
  from: EvidenceFrom;
  /** What was said, where the kind of pulley makes something else of it. */
  said?: string;
  at?: string;
  simulated?: boolean;
}

/** The evidence that counts, and what of it does not. */
export interface EvidenceTold {
  counts: readonly Weighed[];
  /** Somebody said something of the noise itself: what other stages found alone is none. */
  heard: boolean;
  /** Of tests that this Emery does not know. */
  unknown: readonly NoiseEvidence[];
  /** Tests at one part that turned out in two ways at the same time. */
  contradicting: readonly Answer[];
}

/**
 * Whether a piece of evidence tells of the belts that are on now: what was seen of a belt that came off, or heard of
 * the whole drive before one of its belts was changed, is past. What was seen of a pulley stays.
 */
function ofBeltsNow(drive: Drive, { belt, pulley, ...seen }: NoiseEvidence): boolean {
  if (belt !== undefined) return ofBeltNow(drive, belt, seen);
  return pulley !== undefined || drive.belts.every(({ id }) => ofBeltNow(drive, id, seen));
}

/**
 * What counts of all that was seen, heard and tried: of each test at each part the latest, by its time and not by its
 * place in the list; what other stages found, where nobody said otherwise by hand.
 */
export function evidenceOf(drive: Drive): EvidenceTold {
  const all = (drive.noise?.evidence ?? []).filter((evidence) => !evidence.past && ofBeltsNow(drive, evidence));
  const known = all.flatMap((evidence): Weighed[] =>
    noiseTest(evidence.test) && !asksKind(drive, evidence) ? [answerOf(drive, evidence, evidence.test)] : [],
  );
  const byAsk = new Map<string, Weighed[]>();
  for (const answer of known) byAsk.set(askKey(answer), [...(byAsk.get(askKey(answer)) ?? []), answer]);
  const counts: Weighed[] = [];
  const contradicting: Answer[] = [];
  for (const list of byAsk.values()) {
    const time = ({ at }: Weighed) => momentOf(at) ?? -Infinity;
    const last = Math.max(...list.map(time));
    const latest = list.filter((answer) => time(answer) === last);
    if (latest.every((answer) => sameAnswer(answer, latest[0]!))) counts.push(latest[0]!);
    else contradicting.push(latest[0]!);
  }
  for (const answer of [...fromAlign(drive), ...fromInspect(drive)])
    if (!byAsk.has(askKey(answer))) counts.push(answer);
  // In one order, whatever the order they were given in: sums of many terms round alike.
  const name = (answer: Answer) => `${askKey(answer)} ${answer.outcome}`;
  counts.sort((a, b) => (name(a) < name(b) ? -1 : 1));
  const heard = counts.some(({ from }) => from === 'hand');
  return { counts, heard, unknown: all.filter(({ test }) => !noiseTest(test)), contradicting };
}

/** What is said of a pulley whose kind must be known first: it says nothing until then. */
const asksKind = (drive: Drive, { test, outcome, pulley }: NoiseEvidence) =>
  pulley !== undefined && gradeByKind(drive, pulley, test, outcome) === 'ask';

const sameAnswer = (a: Answer, b: Answer) => a.outcome === b.outcome && a.belt === b.belt && a.pulley === b.pulley;

/** Evidence as an answer: with the part that its test is about, and no other. */
function answerOf(drive: Drive, { outcome, pulley, belt, at, simulated }: NoiseEvidence, test: NoiseTest): Weighed {
  const { on } = NOISE_TESTS[test];
  // What is said by hand of a pulley goes by its kind as well: one that runs ahead spins on when it is sound.
  const sound = pulley !== undefined && gradeByKind(drive, pulley, test, outcome) === 'sound';
  const names = on === 'turning' ? outcome : on;
  return {
    test,
    outcome: sound ? SOUND_OUTCOMES[test === 'spin' ? 'spin' : 'clutch'] : outcome,
    ...(sound && { said: outcome }),
    ...((names === 'pulley' || names === 'bearing') && { pulley: partOf(drive, pulley!) }),
    ...((names === 'belt' || names === 'tooth') && { belt: belt! }),
    from: 'hand',
    ...(at !== undefined && { at }),
    ...(simulated && { simulated }),
  };
}

/** What Align has counted and read that is evidence of its own: grooves, and rims that wobble. */
function fromAlign(drive: Drive): Weighed[] {
  const counted = drive.belts.flatMap((belt) =>
    grooveCounts(drive, belt).flatMap(({ pulley, counted: front, off }): Weighed[] =>
      front === null
        ? []
        : [{ test: 'count', outcome: off === 0 ? 'right' : 'off', pulley: partOf(drive, pulley), from: 'align' }],
    ),
  );
  const pulleys = pulleysById(drive);
  const wobbles = drive.belts.flatMap(({ id }) => {
    const alignment = alignmentOf(drive, id);
    return (alignment?.planes ?? []).flatMap(({ pulley, wobble }): Weighed[] => {
      if (!wobble) return [];
      const { wobbles: weaves } = runOutOf(wobble, bodyRadiusMm(pulleys.get(pulley)!.pulley, alignment!.section));
      const outcome = weaves ? 'yes' : 'no';
      return [{ test: 'wobble', outcome, pulley: partOf(drive, pulley), from: 'align' }];
    });
  });
  return unlike([...counted, ...wobbles]);
}

/** What an inspection found that is evidence: the last look of each check at each part, by Inspect's own limits. */
function fromInspect(drive: Drive): Weighed[] {
  if (!drive.inspect?.findings?.length) return [];
  return unlike(
    partsOf(drive).flatMap((part) =>
      foundOf(drive, part).judged.flatMap((judged): Weighed[] => {
        const inspected = INSPECTED[judged.code]?.(judged);
        if (!inspected) return [];
        const target = part.on === 'belt' ? { belt: part.target } : { pulley: partOf(drive, part.target) };
        const at = judged.finding?.at;
        return [{ ...inspected, ...target, from: 'inspect', ...(at !== undefined && { at }) }];
      }),
    ),
  );
}

/** The first answer of each ask. */
function unlike(answers: readonly Weighed[]): Weighed[] {
  const seen = new Set<string>();
  return answers.filter((answer) => !seen.has(askKey(answer)) && seen.add(askKey(answer)));
}

type Told = { test: NoiseTest; outcome: string } | undefined;
const outcomeOf = ({ finding }: Judged) => finding?.outcome;
const oneOf = (test: NoiseTest, outcome: string | undefined): Told =>
  outcome !== undefined && (NOISE_TESTS[test].outcomes as readonly string[]).includes(outcome)
    ? { test, outcome }
    : undefined;
/** By Inspect's limit: done, or not. */
const done = (test: NoiseTest, bad: string, good: string, { grade }: Judged): Told =>
  grade === 'nothing' ? undefined : { test, outcome: grade === 'replace' ? bad : good };
const byKind = (test: NoiseTest, good: string, judged: Judged): Told => {
  if (judged.grade === 'nothing') return undefined;
  return judged.grade === 'sound' ? { test, outcome: good } : oneOf(test, outcomeOf(judged));
};
const ifYes = (test: NoiseTest, outcome: string, judged: Judged): Told =>
  outcomeOf(judged) === 'yes' ? { test, outcome } : undefined;

const GROOVES: Readonly<Record<string, string>> = { clean: 'clean', grit: 'grit', dent: 'grit' };

/** What each check of an inspection says as a test; nothing where it says nothing of a noise. */
const INSPECTED: { readonly [C in ReasonCode]?: (judged: Judged) => Told } = {
  // What a kind of pulley does when it is sound is sound; where the kind is not known, it says nothing yet.
  spin: (judged) => byKind('spin', 'quiet', judged),
  rock: (judged) => done('rock', 'yes', 'no', judged),
  'run-out': (judged) => done('wobble', 'yes', 'no', judged),
  // Paint fills a groove and lifts nothing: it is no grit.
  grooves: (judged) => (outcomeOf(judged) === 'paint' ? undefined : oneOf('grooves', GROOVES[outcomeOf(judged) ?? ''])),
  clutch: (judged) => byKind('clutch', 'holds', judged),
  stroke: (judged) => oneOf('arm', outcomeOf(judged)),
  // An arm that gives to a hand swings with the engine; one that does not may swing all the same.
  'by-hand': (judged) => ifYes('arm-swing', 'yes', judged),
  cocked: (judged) => oneOf('cocked', outcomeOf(judged)),
  profile: (judged) => oneOf('ribs', outcomeOf(judged) === 'v' ? 'sound' : 'worn'),
  'rib-depth': (judged) => done('ribs', 'worn', 'sound', judged),
  cracks: (judged) => done('ribs', 'cracked', 'sound', judged),
  chunks: (judged) => oneOf('spot', outcomeOf(judged)),
  frayed: (judged) => oneOf('edge-wear', outcomeOf(judged)),
  oil: (judged) => ifYes('surface', 'oily', judged),
  glazed: (judged) => ifYes('ribs', 'worn', judged),
};

/** What the tests of a sound part come to. */
const SOUND_OUTCOMES = { spin: 'quiet', clutch: 'holds' } as const;
