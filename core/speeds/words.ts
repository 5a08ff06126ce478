import { type Drive, pulleyLabel, stationLabel } from '../drive';
import { type FindingWords, inOneLine, type WordsByCode, wordsOf } from '../finding';
import { formatLength, type LengthUnit, fixed, grouped } from '../quantity';
import type { BandPlace, BandSource } from './bands';
import type { RatioReading } from './ratio-mistake';
import type { SpeedReason } from './search';
import type { BandFinding, SpeedFinding } from './speeds';
import { CREEP_PERCENT, type Slip } from './tachometer';
import type { UsePreset } from './use';

export const PLACE_WORDS: Record<BandPlace, { word: string; mark: string }> = {
  'too-slow': { word: 'too slow', mark: '▲' },
  right: { word: 'right', mark: '●' },
  'too-fast': { word: 'too fast for long runs', mark: '▲' },
  beyond: { word: 'too fast', mark: '■' },
};

export const BAND_SOURCE_WORDS: Record<BandSource, string> = {
  vehicle: 'of this vehicle',
  shop: "the shop's own",
  default: "Emery's default, not a specification",
};

export const USE_WORDS: Record<UsePreset, string> = {
  traffic: 'Traffic',
  motorway: 'Motorway',
  'work-at-idle': 'Work at idle',
  track: 'Track',
  'long-grades': 'Long grades',
};

/** A speed in whole rev/min with its thousands apart. */
export function rpmFigure(rpm: number): string {
  return grouped(Math.round(rpm));
}

/** A ratio to three figures that matter. */
export function ratioFigure(ratio: number): string {
  const places = [100, 10, 1].filter((bound) => ratio < bound).length;
  return fixed(ratio, places);
}

/** Both ways of dividing, each said in full, so that neither can be taken for the other. */
export function ratioStatement(ratio: number, idle: number): { turns: string; reciprocal: string } {
  return {
    turns: `Turns ${ratioFigure(ratio)} times for each crank turn; ${rpmFigure(ratio * idle)} at idle.`,
    reciprocal: `Inverse: the crank turns ${ratioFigure(1 / ratio)} times for each of its turns.`,
  };
}

/** What a hand-made ratio is, in one sentence. */
export function ratioReadingWords(
  drive: Drive,
  { slip, value, pulley, station }: RatioReading,
  truth: number,
  name: string,
): string {
  const turns = `${name} turns ${ratioFigure(truth)} times for each crank turn`;
  const pulleyName = pulley === undefined ? '' : pulleyLabel(drive, pulley);
  const at = drive.stations.find(({ id }) => id === station);
  const shaft = at ? stationLabel(at) : '';
  switch (slip) {
    case 'right':
      return `That is right: ${turns}.`;
    case 'share':
      return `That is right as a share of crank speed: ${turns}. As a gain it would be ${fixed(100 * (truth - 1), 0)} %.`;
    case 'upside-down':
      return `That was divided the other way up: it is crank turns for each turn of ${name}. ${turns}.`;
    case 'upside-down-percent':
      return `That was divided the other way up (${ratioFigure(1 / truth)}) and read as a percentage. ${turns}, ${fixed(100 * (truth - 1), 0)} % ${truth >= 1 ? 'more' : 'less'} than the crank.`;
    case 'rims':
      return `That comes from the rims' diameters. The belt runs on its cord: ${turns}.`;
    case 'rims-upside-down':
      return `That comes from the rims' diameters, divided the other way up. ${turns}.`;
    case 'other-sheave':
      return `That was worked out with ${pulleyName}, which this belt does not use. ${turns}.`;
    case 'radius':
      return `That is ${value > truth ? 'twice' : 'half'} the ratio: a radius was divided with a diameter. ${turns}.`;
    case 'one-stage':
      return `That is the ratio of one belt alone, the one that turns ${shaft}. The others multiply with it: ${turns}.`;
    case 'other-shaft':
      return `That is the ratio of ${shaft}, not of ${name}. ${turns}.`;
  }
}

/** The result of a tachometer check. */
export function slipWords({ percent, plusMinus, verdict }: Slip): FindingWords {
  const figure = `${fixed(percent, 1)} % ± ${fixed(plusMinus, 1)}`;
  switch (verdict) {
    case 'none':
      return {
        title: 'No slip.',
        why: `${figure}: within the uncertainty of the readings.`,
        todo: '',
      };
    case 'creep':
      return {
        title: `Creeps by ${figure}.`,
        why: `A loaded belt creeps a little without slipping. Up to ${CREEP_PERCENT} % is taken as creep, a default.`,
        todo: 'Read again under full load.',
      };
    case 'slips':
      return {
        title: `Slips by ${figure}.`,
        why: 'More than normal creep.',
        todo: 'Check tension and wear, and look for oil or a glazed belt.',
      };
    case 'overruns':
      return {
        title: `Turns ${fixed(-percent, 1)} % ± ${fixed(plusMinus, 1)} faster than its ratio.`,
        why: 'No belt can do that.',
        todo: 'Read again, then measure both pulleys again.',
      };
  }
}

/** Tells a shaft outside its band. */
export function bandWords(drive: Drive, { station, place, at, rpm, limit, source }: BandFinding): FindingWords {
  const name = stationLabel(drive.stations.find(({ id }) => id === station)!);
  const by = rpmFigure(Math.abs(rpm - limit));
  return {
    title: `${name} turns ${rpmFigure(rpm)} at ${at}.`,
    why: `${by} ${OUTSIDE_WORDS[place]}, ${rpmFigure(limit)} (${BAND_SOURCE_WORDS[source]}).`,
    todo:
      place === 'too-slow'
        ? 'A smaller pulley on it, or a larger one on the crank.'
        : 'A larger pulley on it, or a smaller one on the crank.',
  };
}

/** What a row of the table is told with: names, and figures in the shop's unit. */
interface Telling {
  belt: (id: string) => string;
  pulley: (id: string) => string;
  length: (mm: number) => string;
}

const SPEED_WORDS: WordsByCode<SpeedFinding, Telling> = {
  'belt-too-fast': (found, { belt }) => ({
    title: `${belt(found.belt)} runs at ${fixed(found.figures.metresPerSecond, 0)} m/s at ${rpmFigure(found.figures.rpm)} rev/min.`,
    why: `The limit for such belts is about ${fixed(found.figures.limit, 0)} m/s, a default.`,
    todo: 'A smaller crank pulley slows the belt.',
  }),
  'flexes-too-often': (found, { belt }) => ({
    title: `${belt(found.belt)} bends ${fixed(found.figures.flexPerSecond, 0)} times a second at ${rpmFigure(found.figures.rpm)} rev/min.`,
    why: `The limit for such belts is about ${fixed(found.figures.limit, 0)} bends a second, a default. Each pulley bends it once a turn.`,
    todo: 'It will age sooner. Fewer pulleys, a longer or a slower belt bend less.',
  }),
  'bend-too-tight': (found, { pulley, length }) => ({
    title: `${pulley(found.pulley)} bends the belt tightly.`,
    why: `Its cord runs on ${length(found.figures.diameterMm)}; such belts need ${length(found.figures.limit)} or more, a default.`,
    todo: 'The belt runs warmer and ages sooner. Ask its maker for the smallest diameter.',
  }),
  'two-ratios': (found, { pulley }) => ({
    title: `Two belts turn ${pulley(found.pulley)} at different speeds.`,
    why: `Their speeds differ by ${fixed(Math.abs(found.figures.percent), 2)} %.`,
    todo: 'One of them must slip all the time. Measure the pulleys of both again.',
  }),
  'two-ways': (found, { pulley }) => ({
    title: `Two belts turn ${pulley(found.pulley)} opposite ways.`,
    why: 'Its speed here is by the first of them.',
    todo: 'Change the side of one of them, under Route.',
  }),
};

/** Tells what speeds ask of a belt. */
export function speedWords(drive: Drive, finding: SpeedFinding, unit: LengthUnit = 'mm'): FindingWords {
  return wordsOf(SPEED_WORDS, finding, {
    belt: (belt) =>
      drive.belts.length > 1 ? `Belt ${drive.belts.findIndex(({ id }) => id === belt) + 1}` : 'The belt',
    pulley: (id) => pulleyLabel(drive, id),
    length: (mm) => formatLength(mm, unit),
  });
}

/** The same on one line, in mm. */
export function speedMessage(drive: Drive, finding: SpeedFinding): string {
  return inOneLine(speedWords(drive, finding));
}

/** One reason for or against a choice of pulleys; empty where it needs no saying. */
export function speedReason(
  drive: Drive,
  { code, good, station, belt, figures }: SpeedReason,
  unit: LengthUnit = 'mm',
): string {
  const at = drive.stations.find(({ id }) => id === station);
  const name = at ? stationLabel(at) : '';
  const which = drive.belts.length > 1 ? `belt ${drive.belts.findIndex(({ id }) => id === belt) + 1}` : 'the belt';
  const figure = (key: string) => figures?.[key] ?? 0;
  switch (code) {
    case 'meets':
      return `${name} turns ${rpmFigure(figure('rpm'))} at ${rpmFigure(figure('engineRpm'))}, as wanted`;
    case 'misses':
      return `${name} turns ${rpmFigure(figure('rpm'))} at ${rpmFigure(figure('engineRpm'))}, ${rpmFigure(Math.abs(figure('by')))} ${figure('by') < 0 ? 'too slow' : 'too fast'}`;
    case 'too-fast-elsewhere':
      return `${name} then turns ${rpmFigure(figure('rpm'))} at redline, too fast for long runs`;
    case 'too-slow-elsewhere':
      return `${name} then turns ${rpmFigure(figure('rpm'))} at idle, too slow`;
    case 'does-not-close':
      return `${which} then has no path`;
    case 'new-fault':
      return `${which} gets a new fault`;
    case 'new-watch':
      return `${which} gets a new warning`;
    case 'length':
      return `${which} ${figure('changeMm') < 0 ? 'shorter' : 'longer'} by ${formatLength(Math.abs(figure('changeMm')), unit)}`;
    case 'taken-belt':
      return `the chosen belt, ${formatLength(figure('lengthMm'), unit)}, ${good ? 'still fits' : 'no longer fits'}`;
    case 'fewest-changes':
      return 'one pulley to change';
  }
}

/** Where outside its band a shaft turns, behind by how much. */
const OUTSIDE_WORDS: Record<BandFinding['place'], string> = {
  'too-slow': 'below its useful minimum',
  'too-fast': 'above its continuous limit',
  beyond: 'above its short-time limit',
};
