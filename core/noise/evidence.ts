import {
  type Drive,
  type InspectFinding,
  NOISE_TESTS,
  type NoiseEvidence,
  type NoiseTest,
  noiseTest,
  pulleysById,
} from '../drive';
import { bodyRadiusMm } from '../section';
import { alignmentOf, runOutOf, WOBBLES_MM } from '../planes';
import { grooveCounts } from '../align';
import { type Answer, askKey, partOf } from './asks';

/** Who says a piece of evidence: somebody by hand, or what another stage found. */
export type EvidenceFrom = 'hand' | 'align' | 'inspect';

/** A piece of evidence that counts. */
export interface Weighed extends Answer {
  from: EvidenceFrom;
  at?: string;
  simulated?: boolean;
}

/** The evidence that counts, and what of it does not. */
export interface EvidenceTold {
  counts: readonly Weighed[];
  /** Of tests that this Emery does not know. */
  unknown: readonly NoiseEvidence[];
  /** Tests at one part that turned out in two ways at the same time. */
  contradicting: readonly Answer[];
}

/** A pulley that rocks by more is worn, mm. A default. */
const ROCKS_MM = 0.5;
/** Cracks per rib over 75 mm from which a belt is done, and the depth of a PK's grooves at its limit, mm. Defaults. */
const CRACKS = 3;
const WORN_DEPTH_MM = 2.0;

/**
 * What counts of all that was seen, heard and tried: of each test at each part the latest, by its time and not by its
 * place in the list; what other stages found, where nobody said otherwise by hand.
 */
export function evidenceOf(drive: Drive): EvidenceTold {
  const all = (drive.noise?.evidence ?? []).filter(({ past }) => !past);
  const known = all.flatMap((one): Weighed[] => (noiseTest(one.test) ? [answerOf(drive, one, one.test)] : []));
  const byAsk = new Map<string, Weighed[]>();
  for (const one of known) byAsk.set(askKey(one), [...(byAsk.get(askKey(one)) ?? []), one]);
  const counts: Weighed[] = [];
  const contradicting: Answer[] = [];
  for (const list of byAsk.values()) {
    const time = ({ at }: Weighed) => (at === undefined || Number.isNaN(Date.parse(at)) ? -Infinity : Date.parse(at));
    const last = Math.max(...list.map(time));
    const latest = list.filter((one) => time(one) === last);
    if (latest.every((one) => sameAnswer(one, latest[0]!))) counts.push(latest[0]!);
    else contradicting.push(latest[0]!);
  }
  for (const one of [...fromAlign(drive), ...fromInspect(drive)]) if (!byAsk.has(askKey(one))) counts.push(one);
  // In one order, whatever the order they were given in: sums of many terms round alike.
  const name = (one: Answer) => `${askKey(one)} ${one.outcome}`;
  counts.sort((a, b) => (name(a) < name(b) ? -1 : 1));
  return { counts, unknown: all.filter(({ test }) => !noiseTest(test)), contradicting };
}

const sameAnswer = (a: Answer, b: Answer) => a.outcome === b.outcome && a.belt === b.belt && a.pulley === b.pulley;

/** Evidence as an answer: with the part that its test is about, and no other. */
function answerOf(drive: Drive, { outcome, pulley, belt, at, simulated }: NoiseEvidence, test: NoiseTest): Weighed {
  const { on } = NOISE_TESTS[test];
  const names = on === 'turning' ? outcome : on;
  return {
    test,
    outcome,
    ...(names === 'pulley' && { pulley: partOf(drive, pulley!) }),
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

/** What an inspection found that is evidence, the latest of each check. */
function fromInspect(drive: Drive): Weighed[] {
  const time = ({ at }: InspectFinding) => (at === undefined ? -Infinity : Date.parse(at));
  const findings = [...(drive.inspect?.findings ?? [])].sort((a, b) => time(b) - time(a));
  return unlike(
    findings.flatMap((finding): Weighed[] => {
      const told = INSPECTED[`${finding.on} ${finding.check}`]?.(finding);
      if (!told) return [];
      const target = finding.on === 'belt' ? { belt: finding.target } : { pulley: partOf(drive, finding.target) };
      return [{ ...told, ...target, from: 'inspect', ...(finding.at !== undefined && { at: finding.at }) }];
    }),
  );
}

/** The first answer of each ask. */
function unlike(answers: readonly Weighed[]): Weighed[] {
  const seen = new Set<string>();
  return answers.filter((one) => !seen.has(askKey(one)) && seen.add(askKey(one)));
}

type Told = { test: NoiseTest; outcome: string } | undefined;
const yesNo = (test: NoiseTest, yes: boolean): Told => ({ test, outcome: yes ? 'yes' : 'no' });
const oneOf = (test: NoiseTest, outcome: string | undefined): Told =>
  outcome !== undefined && (NOISE_TESTS[test].outcomes as readonly string[]).includes(outcome)
    ? { test, outcome }
    : undefined;
const over = (test: NoiseTest, value: number | undefined, limit: number): Told =>
  value === undefined ? undefined : yesNo(test, value >= limit);

/** What each check of an inspection says as a test; nothing where it says nothing of a noise. */
const INSPECTED: Readonly<Record<string, ((finding: InspectFinding) => Told) | undefined>> = {
  'pulley spin': ({ outcome }) => oneOf('spin', outcome),
  'pulley rock': ({ value }) => over('rock', value, ROCKS_MM),
  'pulley run-out': ({ value }) => over('wobble', value, WOBBLES_MM),
  'pulley grooves': ({ outcome }) =>
    outcome === undefined ? undefined : { test: 'grooves', outcome: outcome === 'clean' ? 'clean' : 'grit' },
  'arm stroke': ({ outcome }) => oneOf('arm', outcome),
  'arm by-hand': ({ outcome }) => oneOf('arm-swing', outcome),
  'arm cocked': ({ outcome }) => oneOf('cocked', outcome),
  'belt profile': ({ outcome }) =>
    outcome === undefined ? undefined : { test: 'ribs', outcome: outcome === 'v' ? 'sound' : 'worn' },
  'belt rib-depth': ({ value }) =>
    value === undefined ? undefined : { test: 'ribs', outcome: value <= WORN_DEPTH_MM ? 'worn' : 'sound' },
  'belt cracks': ({ value }) =>
    value === undefined ? undefined : { test: 'ribs', outcome: value >= CRACKS ? 'cracked' : 'sound' },
  'belt chunks': ({ outcome }) => (outcome === 'yes' ? { test: 'ribs', outcome: 'cracked' } : undefined),
  'belt frayed': ({ outcome }) => oneOf('edge-wear', outcome),
  'belt oil': ({ outcome }) => (outcome === 'yes' ? { test: 'surface', outcome: 'oily' } : undefined),
  'belt glazed': ({ outcome }) => (outcome === 'yes' ? { test: 'ribs', outcome: 'worn' } : undefined),
};
