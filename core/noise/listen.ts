import { marksOf } from '../accessory';
import type { Drive, NoiseKind, SpeedFrom } from '../drive';
import { powerOf, type Sound } from '../sound';
import { type Comb, combIn, type EngineSpeed, isOrder, type Line, linesIn, speedHeard, speedsOf } from './engine';
import { matchesOf, meshesOf, type RateMatch, rpmToPart } from './matches';
import { DEFAULT_CYLINDERS, type Rate, ratesOf } from './rates';
import { plainness, type Repeat, repeatsIn } from './repeats';
import { coloursOf, pitchAt, type Tone, tonesIn } from './tones';

/** What was heard in a sound, before anything of a drive is known. */
export interface Heard {
  seconds: number;
  repeats: readonly (Repeat & { pitchHz: number | null; tonalDb: number })[];
  tones: readonly Tone[];
  /** Steady lines of the low notes, and what they have in common. */
  lines: readonly Line[];
  comb: Comb | null;
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
  /** The engine speed that was told, and how it was read. */
  told: { rpm: number; from: SpeedFrom };
  /** That speed as the engine's own orders sharpen it; null where no engine is heard that turns about so fast. */
  engineRpm: { rpm: number; plusMinus: number } | null;
  /** Where another one is heard: every speed that would sound so, the nearest to what was told first. */
  otherRpms: readonly { rpm: number; plusMinus: number }[];
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
/** A burst is one where it stands this far above the rest of the turn, dB, and is over in this part of it. */
const BURST_DB = 2.5;
const BURST_PART = 0.6;
/** A tone stands out of what it is heard in by this, dB. */
const TONAL_DB = 16;
/** Bursts that come faster run together, Hz. */
const RUN_TOGETHER_HZ = 60;
/** From this rate on strikes that ring and bursts of a pitch of their own are told apart no more, Hz. */
const RINGS_FROM_HZ = 45;
/** A tone that swells and fades by less than this is one tone, dB. */
const BREAKS_DB = 13;
/** Mains hum makes a ripple of its own in bands below this, as exact as the mains are, Hz. */
const RIPPLE_BELOW_HZ = 700;
const RIPPLE_HZ = 0.25;
/** A tone below this is a whine, above it a squeal, where the drive has no teeth to tell by, Hz. */
const WHINES_BELOW_HZ = 900;

/** Hears what repeats and what sounds all the time. Up to a minute; `onProgress` gets the share that is done. */
export function hearNoise(sound: Sound, onProgress: (share: number) => void = () => {}): Heard {
  const seconds = sound.samples.length / sound.rate;
  if (seconds < SHORTEST_S || powerOf(sound.samples) < SILENT ** 2)
    return { seconds, repeats: [], tones: [], lines: [], comb: null };
  const repeats = repeatsIn(sound).filter(({ hz, band }) => !(band[0] < RIPPLE_BELOW_HZ && isHum(hz, RIPPLE_HZ)));
  onProgress(0.6);
  const tones = tonesIn(coloursOf(sound));
  onProgress(0.8);
  const lines = linesIn(sound);
  return {
    seconds,
    repeats: repeats.map((repeat) => {
      const pitch = pitchAt(sound, repeat.times, 1 / repeat.hz, HEARD_HZ);
      return { ...repeat, pitchHz: pitch?.hz ?? null, tonalDb: pitch?.tonalDb ?? 0 };
    }),
    tones,
    lines,
    comb: combIn(lines),
  };
}

/** Whose noise it is that was heard: what of a drive comes round as often at that engine speed, read in that way. */
export function whoseNoise(heard: Heard, drive: Drive, rpm: number, from: SpeedFrom = speedFromOf(drive)): Listening {
  const cylinders = drive.noise?.cylinders ?? DEFAULT_CYLINDERS;
  const speed = speedHeard(heard, rpm, from, cylinders);
  const rates = ratesOf(drive, speed.rpm);
  const marks = marksOf(drive.speeds);
  const tone = ownTone(heard, rates, speed);
  const repeats = heard.repeats.map((repeat): Weighed => {
    const others = heard.repeats.filter((other) => other !== repeat).map(({ hz }) => hz);
    const character = { tonal: isTonal(repeat), engine: speed.heard, others };
    const matches = matchesOf(rates, repeat, speed, character);
    return { ...repeat, matches, ofEngine: chanceOf(matches, 'engine') };
  });
  const parts = repeats.filter(({ ofEngine }) => ofEngine < 0.5);
  // What also repeats and is no part of this drive, such as a wavering pitch, stands back.
  const first =
    plainest(parts.filter(({ matches }) => matches[0]!.what !== 'none')) ?? plainest(parts) ?? plainest(repeats);
  // The strikes of an inner race wax and wane once a turn of its shaft, and that turn is often the plainer of the two.
  const strikes = parts.find(
    ({ matches: [best] }) =>
      best!.what === 'bearing' && first?.matches[0]!.what === 'pulley' && best!.id === first.matches[0]!.id,
  );
  const repeat = strikes ?? first;
  const listening = (kind: NoiseKind, pitchHz: number | null, weighed: Weighed | null = repeat): Listening => {
    const { plusMinusHz = 0, matches = [] } = weighed ?? {};
    const shared = speed.plusMinus / speed.rpm;
    return {
      kind,
      pitchHz,
      repeat: weighed && { hz: weighed.hz, plusMinusHz },
      times: weighed?.times ?? [],
      matches,
      tryRpm: weighed && rpmToPart(matches, { rpm: speed.rpm, plusMinusHz, max: marks.redline, shared }),
      rates,
      told: { rpm, from },
      engineRpm: speed.heard ? { rpm: speed.rpm, plusMinus: speed.plusMinus } : null,
      otherRpms: speed.heard
        ? []
        : speedsOf(heard.comb, cylinders, { told: rpm, min: 0.7 * marks.idle, max: 1.1 * marks.redline }),
    };
  };
  const bursts = repeat && isBurst(repeat) && !(tone && toneOver(tone.tone, repeat)) ? repeat : null;
  if (bursts && chirps(bursts) && bursts.ofEngine < 0.5) return listening(kindOf(bursts, 'chirp'), bursts.pitchHz);
  if (tone) {
    const { hz, plusMinusHz } = tone.tone;
    if (tone.mesh) return { ...listening('whine', hz, null), repeat: { hz, plusMinusHz }, matches: tone.mesh };
    return listening(hz < WHINES_BELOW_HZ ? 'whine' : 'squeal', hz);
  }
  // The engine alone is nobody's noise, nor is a dull beat beside it that nothing of the drive has.
  if (!repeat || repeat.ofEngine >= 0.5 || (speed.heard && isOfNothing(repeat))) {
    const beat = listening('none', null);
    const left = beat.matches.filter(({ what }) => what === 'engine' || what === 'none');
    const total = left.reduce((sum, { probability }) => sum + probability, 0);
    const matches = left.map((match) => ({ ...match, probability: match.probability / total }));
    return { ...beat, matches, tryRpm: null };
  }
  return chirps(repeat) ? listening(kindOf(repeat, 'chirp'), repeat.pitchHz) : listening('rumble', null);
}

/** How an engine speed was read where nobody says: what was written down off a needle, what was not is a book's. */
export const speedFromOf = ({ noise }: Drive): SpeedFrom =>
  noise?.rpmFrom ?? (noise?.rpm === undefined ? 'idle' : 'needle');

/** A repeat, and what it may be. */
type Weighed = Heard['repeats'][number] & { matches: readonly RateMatch[]; ofEngine: number };

const chanceOf = (matches: readonly RateMatch[], what: RateMatch['what']) =>
  matches.reduce((sum, match) => sum + (match.what === what ? match.probability : 0), 0);

/** A burst with a pitch of its own: rubber makes one, a thud does not; strikes that come fast ring like one. */
const isTonal = ({ hz, pitchHz, tonalDb }: Heard['repeats'][number]) =>
  hz < RINGS_FROM_HZ && pitchHz !== null && pitchHz >= RUMBLES_BELOW_HZ && tonalDb >= TONAL_DB;

/** From this chance on what repeats is none of the drive's. */
const OF_NOTHING = 0.8;
const isOfNothing = (answer: Weighed) => !isTonal(answer) && chanceOf(answer.matches, 'none') >= OF_NOTHING;

/** What a bearing's strikes are called, though they come as short as a chirp. */
const kindOf = ({ matches }: Weighed, kind: NoiseKind): NoiseKind => (matches[0]?.what === 'bearing' ? 'rumble' : kind);

/** The plainest steady tone that is not the engine's own, and whose teeth mesh at it. */
function ownTone(
  { tones, lines }: Heard,
  rates: readonly Rate[],
  speed: EngineSpeed,
): { tone: Tone; mesh: readonly RateMatch[] | null } | null {
  const own = tones.filter((tone) => !isHum(tone.hz) && soundsOn(tone));
  // Without an engine, tones that are no overtones of one another are music.
  if (!speed.heard && apartOf(own) > MOST_APART) return null;
  for (const tone of own) {
    const ofEngine = isOrder(tone, lines, speed);
    const mesh = ofEngine ? null : meshOf(tone, own, rates, speed);
    if (mesh) return { tone, mesh };
    if (!ofEngine && tone.hz >= ENGINE_TONE_HZ) return { tone, mesh: null };
  }
  return null;
}

/** A tone that sounds on: speech and notes come and go, and a squeal hardly breaks, or wavers out of its own band. */
const soundsOn = ({ comesAndGoesDb, aboveDb }: Tone) => comesAndGoesDb < GOES_DB || aboveDb > FAR_ABOVE_DB;
const GOES_DB = 6;
const FAR_ABOVE_DB = 25;
const MOST_APART = 3;

/** How many of the tones are neither the plainest's overtones nor it theirs. */
function apartOf([first, ...others]: readonly Tone[]): number {
  if (!first) return 0;
  const over = (a: number, b: number) => Math.abs(a / b - Math.round(a / b)) < 0.03 * Math.round(a / b);
  return others.filter(({ hz }) => !over(hz, first.hz) && !over(first.hz, hz)).length;
}

/** The teeth whose mesh a tone is: the mesh itself, or an overtone of it where another of them is heard too. */
function meshOf(
  tone: Tone,
  tones: readonly Tone[],
  rates: readonly Rate[],
  speed: EngineSpeed,
): readonly RateMatch[] | null {
  const matches = (tone: Tone) => meshesOf(rates, tone, speed);
  const own = matches(tone);
  const best = own[0]!;
  if (best.what !== 'tooth') return null;
  if (best.harmonic === 1) return own;
  const others = tones.flatMap((otherTone) =>
    otherTone === tone ? [] : matches(otherTone).filter(({ what }) => what === 'tooth'),
  );
  return others.some(({ id, harmonic }) => id === best.id && harmonic % best.harmonic !== 0) ? own : null;
}

/** Listens to a sound beside a drive whose engine turned at a speed, rev/min. */
export function listen(sound: Sound, drive: Drive, rpm: number, from?: SpeedFrom): Listening {
  return whoseNoise(hearNoise(sound), drive, rpm, from);
}

const isBurst = ({ contrastDb, loudPart }: Repeat) => contrastDb >= BURST_DB && loudPart <= BURST_PART;

/** Of several repeats the one that stands out most: bursts before what swells. */
function plainest<R extends Repeat>(repeats: readonly R[]): R | null {
  const bursts = repeats.filter(isBurst);
  const [first, ...rest] = bursts.length > 0 ? bursts : repeats;
  return first ? rest.reduce((best, clip) => (plainness(clip) > plainness(best) ? clip : best), first) : null;
}

/** What comes in bursts is a chirp where its pitch is high; fast ones run together, and their band tells. */
const chirps = ({ hz, band, pitchHz }: Heard['repeats'][number]) =>
  hz > RUN_TOGETHER_HZ ? band[0] >= RUMBLES_BELOW_HZ : pitchHz !== null && pitchHz >= RUMBLES_BELOW_HZ;

/** A tone that is there all the time: one that stands out by more than the bursts, which hardly break it. */
const toneOver = ({ aboveDb }: Tone, { contrastDb }: Repeat) => contrastDb < Math.min(BREAKS_DB, aboveDb - 6);

/** Mains hum and its overtones, to 12 times. */
const isHum = (hz: number, within = 1.5) =>
  [50, 60].some(
    (mains) => hz > 0.5 * mains && hz < 12.5 * mains && Math.abs(hz - mains * Math.round(hz / mains)) < within,
  );
