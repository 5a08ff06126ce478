import { binStep, type UseBin } from './use';

/** A pause between two rows longer than this is not running time, s. */
const GAP_S = 10;
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
}

export function newSpeedLog(): SpeedLog {
  return { rows: 0, bad: 0, firstBad: [], runningS: 0, standingS: 0, pauses: 0, seconds: new Float64Array(ABSURD_RPM / FINE_RPM + 1), last: null };
}

/** Which columns of a log hold time and engine speed. */
export interface LogColumns {
  time: number;
  rpm: number;
  /** Seconds in one unit of the time column, for plain numbers. */
  unitS: number;
  /** True where the first row is a heading. */
  heading: boolean;
}

/** Finds the columns by their headings, or takes the first two where the first row is figures already. Null where neither works. */
export function logColumns(first: readonly string[]): LogColumns | null {
  const names = first.map((name) => name.trim().toLowerCase());
  if (names.length >= 2 && readTime(names[0]!, 1) !== null && readRpm(names[1]!) !== null) return { time: 0, rpm: 1, unitS: 1, heading: false };
  const time = names.findIndex((name) => /\b(time|t|seconds?|sec|ms|elapsed|date|timestamp)\b/.test(name.replace(/_/g, ' ')));
  const rpm = names.findIndex((name) => /rpm|rev|engine.?speed|1\/min|n_?eng/.test(name));
  if (time < 0 || rpm < 0 || time === rpm) return null;
  return { time, rpm, unitS: /\b(ms|millis\w*)\b/.test(names[time]!.replace(/_/g, ' ')) ? 0.001 : /\bmin(utes)?\b/.test(names[time]!) ? 60 : 1, heading: true };
}

/** Adds one row. The time to the next row is spent at the mean of the two speeds. Time that runs backwards starts anew. */
export function addLogRow(log: SpeedLog, row: readonly string[], { time, rpm, unitS }: LogColumns, line: number): void {
  if (row.length === 1 && row[0]!.trim() === '') return;
  log.rows += 1;
  const [s, speed] = [readTime(row[time] ?? '', unitS), readRpm(row[rpm] ?? '')];
  if (s === null || speed === null) {
    log.bad += 1;
    if (log.firstBad.length < 5) log.firstBad.push({ line, text: row.join(',').slice(0, 80) });
    return;
  }
  const { last } = log;
  log.last = { s, rpm: speed };
  if (!last) return;
  const passed = s - last.s;
  if (passed < 0 || passed > GAP_S) {
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

/** The running time of a log by engine speed, in round bins whose shares sum to 1; empty for a log without running time. */
export function binsOfLog({ seconds, runningS }: SpeedLog): UseBin[] {
  if (runningS <= 0) return [];
  const used = seconds.reduce<[number, number]>(([from, to], value, k) => (value > 0 ? [Math.min(from, k), k + 1] : [from, to]), [seconds.length, 0]);
  const step = binStep(used[1] * FINE_RPM);
  const first = Math.floor((used[0] * FINE_RPM) / step);
  const count = Math.ceil((used[1] * FINE_RPM) / step) - first;
  return Array.from({ length: count }, (_, k) => {
    const [from, to] = [(first + k) * step, (first + k + 1) * step];
    return { from, to, share: seconds.subarray(from / FINE_RPM, to / FINE_RPM).reduce((sum, value) => sum + value, 0) / runningS };
  });
}

function number(text: string): number | null {
  const tidy = text.trim().replace(',', '.');
  const value = Number(tidy);
  return tidy === '' || !Number.isFinite(value) ? null : value;
}

function readRpm(text: string): number | null {
  const value = number(text);
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
