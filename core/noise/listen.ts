import { marksOf } from '../accessory';
import type { Drive, NoiseKind } from '../drive';
import { powerOf, type Sound } from '../sound';
import { matchesOf, type RateMatch, rpmToPart, RATE_DOUBT } from './matches';
import { DEFAULT_CYLINDERS, type Rate, ratesOf } from './rates';
import { plainness, type Repeat, repeatsIn } from './repeats';
import { coloursOf, pitchAt, type Tone, tonesIn } from './tones';

/** What was heard in a sound, before anything of a drive is known. */
export interface Heard {
  seconds: number;
  repeats: readonly (Repeat & { pitchHz: number | null; tonalDb: number })[];
  tones: readonly Tone[];
}

/** Whose noise a sound is. */
export interface Listening {
  kind: NoiseKind;
  pitchHz: number | null;
  repeat: { hz: number; plusMinusHz: number } | null;
  /** When the loud part of each turn comes, s; none without a repeat. */
  times: readonly number[];
  matches: readonly RateMatch[];
  /** The engine speed that would part the two likeliest, rev/min. */
  tryRpm: number | null;
  rates: readonly Rate[];
  /** The engine speed that its beat tells, where it is heard. */
  engineRpm: { rpm: number; plusMinus: number } | null;
}

/** A sound shorter than this holds too few turns of a belt, s. */
export const SHORTEST_S = 1;
/** Nothing is heard in a sound quieter than this, full scale 1: rounding makes as much. */
const SILENT = 3e-5;
/** Below this a repeat that is no tone is a rumble, above it a chirp, Hz. */
const RUMBLES_BELOW_HZ = 1200;
/** The pitch of bursts is looked for in here, Hz. */
const HEARD_HZ = [200, 14_000] as const;
/** What hums below this all the time is the engine's own, unless teeth mesh there, Hz. */
const ENGINE_TONE_HZ = 340;
/** The engine itself beats below this, Hz. */
const ENGINE_BELOW_HZ = 800;
/** A burst is one where it stands this far above the rest of the turn, dB, and is over in this part of it. */
const BURST_DB = 2.5;
const BURST_PART = 0.6;
/** A tone stands out of what it is heard in by this, dB. */
const TONAL_DB = 16;
/** Bursts that come faster run together, Hz. */
const RUN_TOGETHER_HZ = 60;
/** A tone that swells and fades by less than this is one tone, dB. */
const BREAKS_DB = 13;
/** Mains hum makes a ripple of its own in bands below this, as exact as the mains are, Hz. */
const RIPPLE_BELOW_HZ = 700;
const RIPPLE_HZ = 0.25;
/** A beat of the engine's own is over in less than this part of its turn. */
const ENGINE_PART = 0.45;
/** A tone below this is a whine, above it a squeal, where the drive has no teeth to tell by, Hz. */
const WHINES_BELOW_HZ = 900;

/** Hears what repeats and what sounds all the time. Up to a minute; `onProgress` gets the share that is done. */
export function hearNoise(sound: Sound, onProgress: (share: number) => void = () => {}): Heard {
  const seconds = sound.samples.length / sound.rate;
  if (seconds < SHORTEST_S || powerOf(sound.samples) < SILENT ** 2) return { seconds, repeats: [], tones: [] };
  const repeats = repeatsIn(sound).filter(({ hz, band }) => !(band[0] < RIPPLE_BELOW_HZ && isHum(hz, RIPPLE_HZ)));
  onProgress(0.6);
  const tones = tonesIn(coloursOf(sound));
  onProgress(0.8);
  return {
    seconds,
    repeats: repeats.map((repeat) => {
      const pitch = pitchAt(sound, repeat.times, 1 / repeat.hz, HEARD_HZ);
      return { ...repeat, pitchHz: pitch?.hz ?? null, tonalDb: pitch?.tonalDb ?? 0 };
    }),
    tones,
  };
}

/** Whose noise it is that was heard: what of a drive comes round as often at that engine speed. */
export function whoseNoise(heard: Heard, drive: Drive, rpm: number): Listening {
  const rates = ratesOf(drive, rpm);
  const firing = rates.find(({ what }) => what === 'engine')!.hz;
  // Uneven cylinders beat once a turn of the crank as well, shortly; a bearing of the crank's swells.
  const beats = ({ hz, band, loudPart }: Repeat) =>
    [rpm / 120, firing, 2 * firing].some((beat) => isNear(hz, beat)) ||
    (isNear(hz, rpm / 60) && band[0] < ENGINE_BELOW_HZ && loudPart < ENGINE_PART);
  const tones = heard.tones.filter(({ hz }) => !isHum(hz));
  const tone = tones.find((one) => meshOf(one, tones, rates).length > 0 || !isBeat(one.hz, rpm / 120));
  const turning = rates.filter(({ what }) => what !== 'tooth');
  const parts = heard.repeats.filter((one) => !beats(one));
  // What also repeats and is no part of this drive, such as a wavering pitch, stands back.
  const repeat =
    plainest(parts.filter((one) => matchesOf(turning, one).length > 0)) ?? plainest(parts) ?? plainest(heard.repeats);
  const engineRpm = engineSpeed(heard, drive);
  const whole = (kind: NoiseKind, pitchHz: number | null, one: Repeat | null = repeat): Listening => {
    const matches = one ? matchesOf(turning, one) : [];
    const most = marksOf(drive.speeds).redline;
    return {
      kind,
      pitchHz,
      repeat: one && { hz: one.hz, plusMinusHz: one.plusMinusHz },
      times: one?.times ?? [],
      matches,
      tryRpm: one && rpmToPart(matches, { rpm, plusMinusHz: one.plusMinusHz, most }),
      rates,
      engineRpm,
    };
  };
  const bursts = repeat && isBurst(repeat) && !(tone && toneOver(tone, repeat)) ? repeat : null;
  if (bursts && chirps(bursts) && !(beats(bursts) && bursts.tonalDb < TONAL_DB)) return whole('chirp', bursts.pitchHz);
  if (tone) {
    const mesh = meshOf(tone, tones, rates);
    if (mesh.length > 0) {
      const { hz, plusMinusHz } = tone;
      return { ...whole('whine', hz, null), repeat: { hz, plusMinusHz }, matches: mesh };
    }
    return whole(tone.hz < WHINES_BELOW_HZ ? 'whine' : 'squeal', tone.hz);
  }
  if (!repeat || beats(repeat)) {
    // The engine alone is nobody's noise.
    const beat = whole('none', null);
    return { ...beat, matches: beat.matches.filter(({ what }) => what === 'engine'), tryRpm: null };
  }
  return chirps(repeat) ? whole('chirp', repeat.pitchHz) : whole('rumble', null);
}

/** The teeth whose mesh a tone is: the mesh itself, or an overtone of it where another of them is heard too. */
function meshOf(tone: Tone, tones: readonly Tone[], rates: readonly Rate[]): RateMatch[] {
  const mesh = rates.filter(({ what }) => what === 'tooth');
  const matches = (one: Tone) => matchesOf(mesh, one, { harmonics: 4 });
  const own = matches(tone);
  const [best] = own;
  if (!best || best.harmonic === 1) return own;
  const others = tones.flatMap((one) => (one === tone ? [] : matches(one)));
  return others.some(({ id, harmonic }) => id === best.id && harmonic % best.harmonic !== 0) ? own : [];
}

/** Listens to a sound beside a drive whose engine turned at a speed, rev/min. */
export function listen(sound: Sound, drive: Drive, rpm: number): Listening {
  return whoseNoise(hearNoise(sound), drive, rpm);
}

const isBurst = ({ contrastDb, loudPart }: Repeat) => contrastDb >= BURST_DB && loudPart <= BURST_PART;

/** Of several repeats the one that stands out most: bursts before what swells. */
function plainest<R extends Repeat>(repeats: readonly R[]): R | null {
  const bursts = repeats.filter(isBurst);
  const [first, ...rest] = bursts.length > 0 ? bursts : repeats;
  return first ? rest.reduce((best, one) => (plainness(one) > plainness(best) ? one : best), first) : null;
}

/** What comes in bursts is a chirp where its pitch is high; fast ones run together, and their band tells. */
const chirps = ({ hz, band, pitchHz }: Heard['repeats'][number]) =>
  hz > RUN_TOGETHER_HZ ? band[0] >= RUMBLES_BELOW_HZ : pitchHz !== null && pitchHz >= RUMBLES_BELOW_HZ;

/** A tone that is there all the time: one that stands out by more than the bursts, which hardly break it. */
const toneOver = ({ aboveDb }: Tone, { contrastDb }: Repeat) => contrastDb < Math.min(BREAKS_DB, aboveDb - 6);

const isNear = (hz: number, other: number) => Math.abs(hz / other - 1) < 3 * RATE_DOUBT;

/** Mains hum and its overtones, to 12 times. */
const isHum = (hz: number, within = 1.5) =>
  [50, 60].some(
    (mains) => hz > 0.5 * mains && hz < 12.5 * mains && Math.abs(hz - mains * Math.round(hz / mains)) < within,
  );

/** An overtone of the engine's own beat: one of its camshaft. */
function isBeat(hz: number, cam: number): boolean {
  if (hz < ENGINE_TONE_HZ) return true;
  if (hz > ENGINE_BELOW_HZ || cam < 4) return false;
  const times = hz / cam;
  return Math.abs(times - Math.round(times)) < 0.12;
}

/** The engine speed by its beat: the surest repeat of the low bands that an engine between idle and redline has. */
function engineSpeed({ repeats }: Heard, drive: Drive): Listening['engineRpm'] {
  const { idle, redline } = marksOf(drive.speeds);
  const turns = (drive.noise?.cylinders ?? DEFAULT_CYLINDERS) / 2;
  const found = repeats.find(({ hz, band }) => {
    const rpm = (60 * hz) / turns;
    return band[0] < ENGINE_BELOW_HZ / 2 && rpm > 0.7 * idle && rpm < 1.1 * redline;
  });
  return found ? { rpm: (60 * found.hz) / turns, plusMinus: (60 * found.plusMinusHz) / turns } : null;
}
