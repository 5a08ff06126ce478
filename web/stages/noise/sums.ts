import { once } from '../../state/once';
import { useBench } from '../../state/bench';
import { useNoise } from './NoiseProvider';
import { marksOf } from '@emery/core/accessory';
import { type Drive, stationOf } from '@emery/core/drive';
import {
  askKey,
  diagnose,
  type Diagnosis,
  type DriveFigure,
  figuresOf,
  type Listening,
  type NextTest,
  ratesOf,
  whoseNoise,
} from '@emery/core/noise';

/** Turns are drawn so many times slower than they are, so that the eye can follow. */
export const SLOWED = 20;

/** What the drive's own figures say follows from all of it but what is said of its noise. */
const figures = new WeakMap<readonly object[], { key: readonly unknown[]; told: readonly DriveFigure[] }>();
const diagnoses = new WeakMap<Drive, Diagnosis>();

/** Each drive is looked into once; its figures only where more than its noise has changed. */
function diagnosisFor(drive: Drive): Diagnosis {
  const known = diagnoses.get(drive);
  if (known) return known;
  const key = [drive.belts, drive.align, drive.speeds, drive.loads, drive.crankRotation, lastSeen(drive)];
  const kept = figures.get(drive.stations);
  const found = kept && kept.key.every((part, k) => part === key[k]) ? kept.told : figuresOf(drive);
  figures.set(drive.stations, { key, told: found });
  const diagnosis = diagnose(drive, found);
  diagnoses.set(drive, diagnosis);
  return diagnosis;
}

/** How old a belt was follows from the day of the last observation. */
const lastSeen = ({ noise }: Drive) =>
  (noise?.evidence ?? []).reduce((last, { at = '' }) => (at.slice(0, 10) > last ? at.slice(0, 10) : last), '');

export function useDiagnosis(): { drive: Drive; diagnosis: Diagnosis } {
  const { drive } = useBench('drive');
  return { drive, diagnosis: diagnosisFor(drive) };
}

/** The test that is made next: the one that was picked, else the best. */
export function useNextTest(): NextTest | undefined {
  const { diagnosis } = useDiagnosis();
  const { picked } = useNoise();
  return diagnosis.next.find((check) => askKey(check) === picked) ?? diagnosis.next[0];
}

/** The engine speed that is listened at, rev/min: as written down, else idle. */
export function useEngineRpm(): { rpm: number; written: boolean; idle: number } {
  const { drive } = useBench('drive');
  const { idle } = marksOf(drive.speeds);
  return { rpm: drive.noise?.rpm ?? idle, written: drive.noise?.rpm !== undefined, idle };
}

const ratesFor = once(ratesOf);
const heardAt = once(whoseNoise);

/** How often everything comes round at that speed. */
export function useRates() {
  const { drive, solution } = useBench('drive', 'solution');
  const { rpm } = useEngineRpm();
  return ratesFor(drive, rpm, solution);
}

/** Whose the sound in hand is. */
export function useListening(): Listening | null {
  const { drive } = useBench('drive');
  const { inHand } = useNoise();
  const { rpm } = useEngineRpm();
  return inHand ? heardAt(inHand.heard, drive, rpm) : null;
}

/** The part that is pointed out: the one that was chosen, else the likeliest of what is looked at. */
export function useSuspect(): { id: string; what: 'belt' | 'pulley' } | null {
  const { drive, diagnosis } = useDiagnosis();
  const { view, suspect } = useNoise();
  const listening = useListening();
  const [first] = listening?.matches ?? [];
  const heard = first && first.what !== 'engine' && first.what !== 'none' ? first.id : undefined;
  const untouched = !diagnosis.evidence.heard;
  const likeliest = untouched ? undefined : diagnosis.causes[0]?.id;
  const id = suspect ?? (view === 'listen' ? heard : likeliest);
  if (id === undefined) return null;
  if (stationOf(drive, id)) return { id, what: 'pulley' };
  return drive.belts.some((belt) => belt.id === id) ? { id, what: 'belt' } : null;
}
