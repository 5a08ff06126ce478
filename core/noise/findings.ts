import { type Drive, dueAfter, failedCure, listeningsLeft } from '../drive';
import type { Answer } from './asks';
import type { Diagnosis } from './diagnose';
import type { NoiseFinding } from './finding';
import type { Listening } from './listen';
import { SHORTEST_S } from './listen';

/** A cause that is at least this likely leads; below half of it, all is open. */
const LEADS = 0.6;
/** A chance beyond which it is said that the noise is not the drive's. */
const NOT_THE_DRIVE = 0.4;

/** What is to be said of a diagnosis, what must stop first. */
export function noiseFindings(drive: Drive, diagnosis: Diagnosis): NoiseFinding[] {
  const { groups, elsewhere, evidence } = diagnosis;
  const [first] = groups;
  if (!first) return [{ code: 'no-route', severity: 'note' }];
  const at = (test: Answer['test'], outcome: string) =>
    evidence.counts.filter((count) => count.test === test && count.outcome === outcome);
  const byHand = evidence.counts.filter(({ from }) => from === 'hand');
  const found: NoiseFinding[] = [
    ...at('wobble', 'yes').map(({ pulley }): NoiseFinding => ({
      code: 'hub-stop',
      severity: 'fault',
      pulley: pulley!,
    })),
    ...at('count', 'off').map(({ pulley }): NoiseFinding => ({ code: 'rib-stop', severity: 'fault', pulley: pulley! })),
  ];
  if (elsewhere > NOT_THE_DRIVE)
    found.push({ code: 'not-the-drive', severity: 'watch', figures: { chance: elsewhere } });
  if (!evidence.heard) found.push({ code: 'only-priors', severity: 'note' });
  else if (first.probability >= LEADS)
    found.push({
      code: 'leads',
      severity: 'watch',
      figures: {
        cause: first.cause,
        id: first.parts[0]!.id,
        chance: first.probability,
        ...(first.parts.length > 1 && { part: first.parts[0]!.probability }),
      },
    });
  else if (first.probability < LEADS / 2)
    found.push({ code: 'open', severity: 'note', figures: { chance: first.probability } });
  for (const { test, pulley, belt } of evidence.contradicting)
    found.push({
      code: 'contradicts',
      severity: 'watch',
      ...(pulley && { pulley }),
      ...(belt && { belt }),
      figures: { test },
    });
  for (const { test } of evidence.unknown) found.push({ code: 'unknown-test', severity: 'note', figures: { test } });
  if (byHand.some(({ simulated }) => simulated)) found.push({ code: 'simulated', severity: 'note' });
  for (const { belt } of at('new-belt', 'began-with-it')) found.push({ code: 'masked', severity: 'note', belt: belt! });
  for (const { belt } of at('surface', 'dressed')) found.push({ code: 'dressed', severity: 'watch', belt: belt! });
  const failed = failedCure(drive);
  if (failed) found.push({ code: 'came-back', severity: 'watch', figures: { cause: failed.cause, id: failed.part } });
  const left = drive.noise?.cures?.find((cure) => listeningsLeft({ noise: { cures: [cure] } }).length > 0);
  const due = left && dueAfter(left).find(({ done }) => !done);
  if (left && due)
    found.push({
      code: 'listen-again',
      severity: 'note',
      figures: { cause: left.cause, id: left.part, when: due.when, ...(due.at !== null && { at: due.at }) },
    });
  return found;
}

/** What is to be said of a sound that was listened to. */
export function listenFindings(
  drive: Drive,
  { kind, matches, repeat, tryRpm, told, engineRpm, otherRpms }: Listening,
  seconds: number,
): NoiseFinding[] {
  const found: NoiseFinding[] = [];
  if (seconds < SHORTEST_S) return [{ code: 'too-short', severity: 'watch', figures: { seconds } }];
  const [first] = matches;
  if (kind === 'none') found.push({ code: 'nothing-heard', severity: 'note' });
  else if (repeat && first?.what === 'none')
    found.push({ code: 'matches-nothing', severity: 'note', figures: { hz: repeat.hz } });
  if (otherRpms.length > 0)
    found.push({
      code: 'speed-clash',
      severity: 'watch',
      figures: { told: told.rpm, ...Object.fromEntries(otherRpms.map(({ rpm }, k) => [`rpm${k + 1}`, rpm])) },
    });
  else if (engineRpm === null && kind !== 'none') found.push({ code: 'no-engine', severity: 'watch' });
  if (first?.bearing) {
    const [left, second] = first.bearing.shafts;
    found.push({
      code: 'rolling-bearing',
      severity: 'watch',
      pulley: left!.id,
      figures: { chance: left!.chance, ...(second && { second: second.id, secondChance: second.chance }) },
    });
  }
  const [left, second] = matches.filter(({ what }) => what === 'belt' || what === 'pulley' || what === 'tooth');
  if (
    kind !== 'none' &&
    left &&
    second &&
    second.probability > 0.2 * left.probability &&
    second.probability > LEAST_TOGETHER
  )
    found.push({
      code: 'lie-together',
      severity: 'note',
      figures: { first: left.id, second: second.id, ...(tryRpm !== null && { rpm: tryRpm }) },
    });
  const byEngine = matches.some(({ what, probability }) => what === 'engine' && probability > 0.2);
  if ((byEngine || otherRpms.length > 0) && drive.noise?.cylinders === undefined)
    found.push({ code: 'cylinders-default', severity: 'note' });
  return found;
}

/** Two that are both less likely than this are not worth being told apart. */
const LEAST_TOGETHER = 0.05;
