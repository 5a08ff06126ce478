import { type Command, numbersIn, UsageProblem } from '../command';
import { type Drive, SPEED_FROM, type SpeedFrom } from '../drive';
import { readWav } from '../sound';
import { diagnose } from './diagnose';
import type { NoiseFinding } from './finding';
import { listenFindings, noiseFindings } from './findings';
import { hearNoise, whoseNoise } from './listen';
import { noiseMessage, reasonWords, TEST_WORDS } from './words';

/** A sound, and the drive it was recorded at. */
export interface SoundAtDrive {
  bytes: Uint8Array;
  drive: Drive;
}

/** `listen FILE.wav --drive FILE --rpm N`: what kind of noise it is, how often it repeats, and what repeats with it. */
export const listenCommand: Command<SoundAtDrive> = {
  name: 'listen',
  usage: 'emery listen FILE.wav --drive FILE --rpm N [--rpm-from scan|needle|idle]',
  options: ['drive', 'rpm', 'rpm-from'],
  prepare: ({ drive: file, rpm: asked, 'rpm-from': from = 'needle' }, usage) => {
    if (file === undefined || asked === undefined) throw usage;
    const [rpm, ...more] = numbersIn(
      asked,
      (value) => value >= 100 && value <= 30_000,
      (part) => `--rpm: "${part}" is not an engine speed, from 100 to 30000 rev/min`,
    );
    if (more.length > 0) throw new UsageProblem('--rpm: one engine speed in rev/min, such as 750');
    if (!SPEED_FROM.includes(from as SpeedFrom))
      throw new UsageProblem(`--rpm-from: "${from}" is none of ${SPEED_FROM.join(', ')}`);
    return ({ bytes, drive }) => {
      const reading = readWav(bytes);
      if (!reading.ok) throw new UsageProblem(`FILE ${reading.message}`);
      const heard = hearNoise(reading.sound);
      const listening = whoseNoise(heard, drive, rpm!, from as SpeedFrom);
      const { kind, pitchHz, repeat, matches, tryRpm, told, engineRpm, otherRpms } = listening;
      return {
        kind,
        pitchHz,
        repeat,
        matches,
        tryRpm,
        told,
        engineRpm,
        otherRpms,
        findings: inWords(drive, listenFindings(drive, listening, heard.seconds)),
      };
    };
  },
};

/** `diagnose FILE`: what makes the noise by all that is known, and the tests that would tell most a minute. */
export const diagnoseCommand: Command<Drive> = {
  name: 'diagnose',
  usage: 'emery diagnose FILE',
  options: [],
  prepare: () => (drive) => {
    const diagnosis = diagnose(drive);
    return {
      causes: diagnosis.causes.map(({ cause, id, probability, present, reasons }) => ({
        cause,
        id,
        probability,
        present,
        reasons: reasons.map((reason) => ({ ratio: reason.ratio, text: reasonWords(drive, reason, { cause, id }) })),
      })),
      byCause: diagnosis.groups.map(({ cause, probability, parts }) => ({
        cause,
        probability,
        parts: parts.map(({ id, probability: chance }) => ({ id, probability: chance })),
      })),
      elsewhere: diagnosis.elsewhere,
      stop: diagnosis.stops.length > 0,
      next: diagnosis.next.map(({ test, pulley, belt, gainBits, minutes }) => ({
        test,
        ...(pulley !== undefined && { pulley }),
        ...(belt !== undefined && { belt }),
        gainBits,
        minutes,
        caution: TEST_WORDS[test].caution ?? null,
      })),
      counted: diagnosis.evidence.counts,
      findings: inWords(drive, noiseFindings(drive, diagnosis)),
    };
  },
};

const inWords = (drive: Drive, findings: readonly NoiseFinding[]) =>
  findings.map((finding) => ({ ...finding, message: noiseMessage(drive, finding) }));
