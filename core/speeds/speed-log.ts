import type { UseBin } from '../drive';
import { binStep } from './use';

/**
 * A pause between two rows longer than this is not running time, s. A log whose rows are further apart, as one in
 * minutes may be, is given several of its own steps.
 */
const GAP_S = 10;
const GAP_STEPS = 5;
/** Below this the engine stands, rev/min. */
const STANDS_RPM = 100;
/** No engine goes beyond this; a row that says so is a fault of the logger. */
const ABSURD_RPM = 30_000;
const FINE_RPM = 25;

/** A log of engine speed, row by row, as time spent at each speed. */
export interface SpeedLog {
  rows: number;
  bad: number;
  /** Line number and text of the first rows that were not understood. */
  firstBad: { line: number; text: string }[];
  runningS: number;
  standingS: number;
  pauses: number;
  /** Seconds by 25 rev/min. */
  seconds: Float64Array;
  last: { s: number; rpm: number } | null;
  /** The shortest time between two rows so far, s. */
  leastStepS: number;
}

export function newSpeedLog(): SpeedLog {
  return {
    rows: 0,
    bad: 0,
    firstBad: [],
    runningS: 0,
    standingS: 0,
    pauses: 0,
    seconds: new Float64Array(ABSURD_RPM / FINE_RPM + 1),
    last: null,
    leastStepS: Infinity,
  };
}

/** Which columns of a log hold time and engine speed. */
export interface LogColumns {
  time: number;
  rpm: number;
  /** Seconds in one unit of the time column, for plain numbers. */
  unitS: number;
  /** True where the first row is a heading. */
  heading: boolean;
  /** True where commas part the columns, so that one within a cell parts the thousands. */
  commas?: boolean;
}

/**
 * Finds the columns by their headings, or takes the first two where the first row is figures already. Null where
 * neither works.
 */
export function logColumns(first: readonly string[]): LogColumns | null {
  const names = first.map((name) => name.trim().toLowerCase());
  if (names.length >= 2 && readTime(names[0]!, 1) !== null && readRpm(names[1]!) !== null)
    return { time: 0, rpm: 1, unitS: 1, heading: false };
  const rpm = likeliest(names, engineSpeedness);
  const time = likeliest(
    names.map((name, k) => (k === rpm ? '' : name)),
    timeness,
  );
  if (time === null || rpm === null) return null;
  return { time, rpm, unitS: unitOf(names[time]!), heading: true };
}

/** The first of the columns that look most like what is sought; null where none does at all. */
function likeliest(names: readonly string[], likeness: (name: string) => number): number | null {
  const scores = names.map(likeness);
  const best = Math.max(0, ...scores);
  return best > 0 ? scores.indexOf(best) : null;
}

const TIME_UNITS: readonly (readonly [RegExp, number])[] = [
  [/^(ms|msecs?|millis|milliseconds?)$/, 0.001],
  [/^(s|secs?|seconds?)$/, 1],
  [/^(min|mins|minutes?)$/, 60],
  [/^(h|hrs?|hours?)$/, 3600],
];
const isUnit = (word: string) => TIME_UNITS.some(([pattern]) => pattern.test(word));
const isTimeWord = (word: string) => /^(time|t|elapsed|timestamp|clock|datetime)$/.test(word);
const FILLING = new Set(['since', 'start', 'run', 'running', 'log', 'of', 'in', 'the', 'abs', 'rel', 'total']);
const wordsOf = (name: string) => name.split(/[^a-z0-9]+/).filter((word) => word !== '');

/**
 * How much a heading looks like a time that runs: a bare unit or a time with one most, then a time, a date with its
 * time, and a date alone least.
 */
function timeness(name: string): number {
  const words = wordsOf(name);
  if (words.length === 0) return 0;
  const [timed, united, dated] = [words.some(isTimeWord), words.some(isUnit), words.includes('date')];
  if (words.every((word) => isTimeWord(word) || isUnit(word) || FILLING.has(word)) && (timed || united))
    return united ? 5 : 4;
  if (timed) return dated ? 2 : 3;
  return dated ? 1 : 0;
}

/** Seconds in the unit that a time's heading names; a time without one is in seconds. */
function unitOf(name: string): number {
  const unit = wordsOf(name).filter(isUnit).at(-1);
  return TIME_UNITS.find(([pattern]) => unit !== undefined && pattern.test(unit))?.[1] ?? 1;
}

const ENGINE_WORD = /^(engine|eng|motor|mot|crank|crankshaft|ne)$/;
const OTHER_SHAFT = /^(turbo|turbine|wheel|fan|alternator|alt|shaft|gearbox|output|input|pump|prop|generator)$/;
const NO_READING =
  /^(limit|limiter|max|maximum|min|minimum|target|desired|setpoint|set|redline|shift|cut|idle|warning|demand|requested|peak|average|avg|mean)$/;

/**
 * How much a heading looks like the engine's own speed: named so most; of another shaft little; a limit, a target or a
 * mean is none.
 */
function engineSpeedness(name: string): number {
  const words = wordsOf(name.replace(/_/g, ' ').replace(/\b(1|r|u|revs?) ?\/ ?min\b/g, 'rpm'));
  const turns = words.some((word) => /^(rpm|revs?|revolutions)$|rpm$/.test(word));
  const engine = words.some((word) => ENGINE_WORD.test(word));
  const read = turns || (engine && words.some((word) => word === 'speed' || word === 'n'));
  if (!read || words.some((word) => NO_READING.test(word))) return 0;
  if (engine || words.every((word) => /^(rpm|revs?|n)$/.test(word))) return 3;
  return words.some((word) => OTHER_SHAFT.test(word)) ? 1 : 2;
}

/**
 * Adds one row. The time to the next row is spent at the mean of the two speeds. Time that runs backwards starts anew.
 */
export function addLogRow(
  log: SpeedLog,
  row: readonly string[],
  { time, rpm, unitS, commas = false }: LogColumns,
  line: number,
): void {
  if (row.length === 1 && row[0]!.trim() === '') return;
  log.rows += 1;
  const [s, speed] = [readTime(row[time] ?? '', unitS), readRpm(row[rpm] ?? '', commas)];
  if (s === null || speed === null) {
    log.bad += 1;
    if (log.firstBad.length < 5) log.firstBad.push({ line, text: row.join(',').slice(0, 80) });
    return;
  }
  const { last } = log;
  log.last = { s, rpm: speed };
  if (!last) return;
  const passed = s - last.s;
  // Before the log has shown its own step, two units of its time column are as far apart as neighbours may be.
  const longest = Math.max(GAP_S, Math.min(2.5 * unitS, GAP_STEPS * log.leastStepS));
  if (passed > 0) log.leastStepS = Math.min(log.leastStepS, passed);
  if (passed < 0 || passed > longest) {
    log.pauses += 1;
    return;
  }
  const mean = (last.rpm + speed) / 2;
  if (mean < STANDS_RPM) log.standingS += passed;
  else {
    log.runningS += passed;
    log.seconds[Math.floor(mean / FINE_RPM)]! += passed;
  }
}

/**
 * The running time of a log by engine speed, in round bins whose shares sum to 1; empty for a log without running time.
 */
export function binsOfLog({ seconds, runningS }: SpeedLog): UseBin[] {
  if (runningS <= 0) return [];
  const used = seconds.reduce<[number, number]>(
    ([from, to], value, k) => (value > 0 ? [Math.min(from, k), k + 1] : [from, to]),
    [seconds.length, 0],
  );
  const step = binStep(used[1] * FINE_RPM);
  const first = Math.floor((used[0] * FINE_RPM) / step);
  const count = Math.ceil((used[1] * FINE_RPM) / step) - first;
  return Array.from({ length: count }, (_, k) => {
    const [from, to] = [(first + k) * step, (first + k + 1) * step];
    return {
      from,
      to,
      share: seconds.subarray(from / FINE_RPM, to / FINE_RPM).reduce((sum, value) => sum + value, 0) / runningS,
    };
  });
}

function number(text: string): number | null {
  const tidy = text
    .trim()
    .replace(/(?<=^-?\d{1,3}(?:[ \u00a0\u202f]\d{3})*)[ \u00a0\u202f](?=\d{3}(?!\d))/g, '')
    .replace(',', '.');
  const value = Number(tidy);
  return tidy === '' || !Number.isFinite(value) ? null : value;
}

/**
 * A speed; null for what is none, and for one that may as well be a thousand times as much, such as 1,234 where commas
 * are decimal: no running engine turns at 1.2.
 */
function readRpm(text: string, commas = false): number | null {
  const grouped = /^\d{1,3}(,\d{3})+(\.\d+)?$/.test(text.trim());
  if (!commas && grouped && Number(text.trim().replace(',', '.')) < STANDS_RPM && !text.trim().startsWith('0'))
    return null;
  const value = number(commas && grouped ? text.replaceAll(',', '') : text);
  return value === null || value < 0 || value >= ABSURD_RPM ? null : value;
}

/** Seconds: a plain number in the column's unit, `h:mm:ss.s`, or a date and time. */
function readTime(text: string, unitS: number): number | null {
  const plain = number(text);
  if (plain !== null) return plain * unitS;
  const clock = /^(\d+):(\d{1,2})(?::(\d{1,2}(?:[.,]\d+)?))?$/.exec(text.trim());
  if (clock) return Number(clock[1]) * 3600 + Number(clock[2]) * 60 + Number((clock[3] ?? '0').replace(',', '.'));
  if (!/^\d{4}-\d\d-\d\d[T ]\d/.test(text.trim())) return null;
  const at = Date.parse(text.trim().replace(' ', 'T'));
  return Number.isNaN(at) ? null : at / 1000;
}
