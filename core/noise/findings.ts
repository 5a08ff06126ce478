import type { Drive, ListenAgain, NoiseCure } from '../drive';
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
  const { causes, elsewhere, evidence } = diagnosis;
  const [first] = causes;
  if (!first) return [{ code: 'no-route', severity: 'note' }];
  const at = (test: Answer['test'], outcome: string) =>
    evidence.counts.filter((one) => one.test === test && one.outcome === outcome);
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
  if (evidence.counts.length === 0) found.push({ code: 'only-priors', severity: 'note' });
  else if (first.probability >= LEADS)
    found.push({
      code: 'leads',
      severity: 'watch',
      figures: { cause: first.cause, id: first.id, chance: first.probability },
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
  for (const cure of drive.noise?.cures ?? []) found.push(...cureFindings(cure));
  return found;
}

function cureFindings(cure: NoiseCure): NoiseFinding[] {
  const figures = { cause: cure.cause, id: cure.part };
  if (cure.listened?.some(({ outcome }) => outcome === 'back'))
    return [{ code: 'came-back', severity: 'watch', figures }];
  const due = dueAfter(cure).find(({ done }) => !done);
  return due
    ? [
        {
          code: 'listen-again',
          severity: 'note',
          figures: { ...figures, when: due.when, ...(due.at !== null && { at: due.at }) },
        },
      ]
    : [];
}

/** How far on a drive is listened to again, km: a new belt's coating hides a fault for some hundreds. Defaults. */
export const LISTEN_AFTER_KM: Record<ListenAgain, number> = { now: 0, soon: 500, later: 2000 };

/** A look that is due after a cure. */
export interface DueListening {
  when: ListenAgain;
  /** At that reading of the odometer, in its own unit; null where none was written down. */
  at: number | null;
  done: boolean;
}

const KM_PER_MILE = 1.609344;
/** An hour of an engine stands for so many km. A default. */
const KM_PER_HOUR = 40;
const KM_PER: Record<'km' | 'mi' | 'h', number> = { km: 1, mi: KM_PER_MILE, h: KM_PER_HOUR };

/** When a drive is listened to again after a cure: at once, after 500 km and after 2,000 km. */
export function dueAfter({ odometer, listened = [] }: NoiseCure, unit: 'km' | 'mi' | 'h' = 'km'): DueListening[] {
  return (Object.keys(LISTEN_AFTER_KM) as ListenAgain[]).map((when) => ({
    when,
    at: odometer === undefined ? null : odometer + Math.round(LISTEN_AFTER_KM[when] / KM_PER[unit]),
    done: listened.some((one) => one.when === when),
  }));
}

/** What is to be said of a sound that was listened to. */
export function listenFindings(
  drive: Drive,
  { kind, matches, repeat, tryRpm }: Listening,
  seconds: number,
): NoiseFinding[] {
  const found: NoiseFinding[] = [];
  if (seconds < SHORTEST_S) return [{ code: 'too-short', severity: 'watch', figures: { seconds } }];
  if (kind === 'none') found.push({ code: 'nothing-heard', severity: 'note' });
  else if (repeat && matches.length === 0)
    found.push({ code: 'matches-nothing', severity: 'note', figures: { hz: repeat.hz } });
  const [first, second] = matches;
  if (first && second && second.probability > 0.2 * first.probability)
    found.push({
      code: 'lie-together',
      severity: 'note',
      figures: { first: first.id, second: second.id, ...(tryRpm !== null && { rpm: tryRpm }) },
    });
  if (
    matches.some(({ what, probability }) => what === 'engine' && probability > 0.2) &&
    drive.noise?.cylinders === undefined
  )
    found.push({ code: 'cylinders-default', severity: 'note' });
  return found;
}
