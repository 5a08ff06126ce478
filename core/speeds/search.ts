import { marksOf } from '../accessory';
import type { Drive } from '../drive';
import { bandOf, type ShopBands } from './bands';
import { chainTo, type Link } from './chain';
import { type DriveEffect, effectOf } from './effect';
import {
  enoughOf,
  goesOn,
  type PulleyAtHand,
  type PulleyChange,
  radiusWith,
  seatsOf,
  withPulley,
} from './pulley-choice';

/** A speed wanted of a shaft at an engine speed: no less than `min`, no more than `max`, rev/min. */
export interface SpeedTarget {
  station: string;
  engineRpm: number;
  min: number | null;
  max: number | null;
}

export interface PulleySearchOptions {
  /** No more pulleys than this are changed. */
  changes?: number;
  top?: number;
  bands?: ShopBands;
  onProgress?: (share: number) => void;
}

/** Why an answer ranks where it does, as data. */
export interface SpeedReason {
  code:
    | 'meets'
    | 'misses'
    | 'too-fast-elsewhere'
    | 'too-slow-elsewhere'
    | 'does-not-close'
    | 'new-fault'
    | 'new-watch'
    | 'taken-belt'
    | 'length'
    | 'fewest-changes';
  good: boolean;
  station?: string;
  belt?: string;
  figures?: Readonly<Record<string, number>>;
}

export interface PulleyAnswer {
  changes: PulleyChange[];
  /** Less is better: 0 is every target met with nothing changed and nothing amiss. */
  score: number;
  reasons: SpeedReason[];
  effect: DriveEffect;
}

export interface PulleySearch {
  /** Ways to change the pulleys that were weighed. */
  searched: number;
  answers: PulleyAnswer[];
}

/** What a pulley changed costs beside a speed missed by that share: a change must earn it. */
const PER_CHANGE = 0.05;
/**
 * A target is a bound: to miss it at all costs more than any accessory out of its band and anything to watch, and less
 * than a fault.
 */
const MISSED = 5;
/** What is amiss with the belt then, in the same measure. */
const COST = { doesNotClose: 100, fault: 20, watch: 0.04, takenBelt: 0.05 };
/** So many of the best by speed alone are drawn and judged. */
const JUDGED = 48;

interface Choice {
  changes: PulleyChange[];
  cost: number;
}

/** Another pulley for a seat, and the logarithm of its radius there. */
interface Option {
  to: PulleyAtHand;
  log: number;
}

/**
 * Chooses pulleys from those at hand so that every target is met and no other accessory is driven out of its band:
 * which pulleys on the way from the crank to the targets to change, no more than `changes` of them. By speed alone the
 * search is complete: all ways are weighed for the pulleys that drive others, and for each of them the best of every
 * accessory's own pulleys, which do not act on one another. The best of those are then drawn, for belt length, wrap and
 * adjuster, and ranked. The drive as it is takes part.
 */
export function choosePulleys(
  drive: Drive,
  targets: readonly SpeedTarget[],
  atHand: readonly PulleyAtHand[],
  { changes: max = 2, top = 8, bands = {}, onProgress }: PulleySearchOptions = {},
): PulleySearch {
  const chains = new Map(drive.stations.map(({ id }) => [id, chainTo(drive, id) ?? []] as const));
  const { shared, own } = onTheWay(chains, targets);
  const options = optionsAt(drive, [...shared, ...own], atHand);
  const best = new BestFew();
  const weigh = weigher({ drive, chains, own, options, max, best, demands: demandsOf(drive, chains, targets, bands) });
  const total = waysOf(
    shared.map((id) => options.get(id)!.length),
    max,
  );
  let done = 0;
  const choose = (index: number, chosen: PulleyChange[], logs: ReadonlyMap<string, number>) => {
    if (index === shared.length) {
      weigh(chosen, logs);
      done += 1;
      if (done % 64 === 0) onProgress?.((0.6 * done) / total);
      return;
    }
    choose(index + 1, chosen, logs);
    if (chosen.length >= max) return;
    const id = shared[index]!;
    for (const { to, log } of options.get(id)!) {
      const more = [...chosen, { pulley: id, to }];
      if (enoughOf(more)) choose(index + 1, more, new Map(logs).set(id, log));
    }
  };
  choose(0, [], new Map());

  const before = effectOf(drive, bands);
  const answers = best.choices.map((choice, k) => {
    onProgress?.(0.6 + (0.4 * k) / best.choices.length);
    const effect = effectOf(choice.changes.reduce(withPulley, drive), bands);
    const { reasons, cost } = judge(before, effect, targets);
    if (choice.changes.length === 1) reasons.push({ code: 'fewest-changes', good: true });
    return { changes: choice.changes, score: choice.cost + cost, reasons, effect };
  });
  return { searched: best.searched, answers: answers.sort((a, b) => a.score - b.score).slice(0, top) };
}

type Chains = ReadonlyMap<string, readonly Link[]>;

/** The pulleys on the way from the crank to the targets: those that act on several shafts, and accessories' own. */
function onTheWay(chains: Chains, targets: readonly SpeedTarget[]): { shared: string[]; own: string[] } {
  const all = [...chains.values()];
  const drivers = new Set(all.flatMap((chain) => chain.map(({ driver }) => driver)));
  // A pulley that turns a shaft from which others are driven acts on those too, and counts as a driver.
  const driving = new Set(all.flatMap((chain) => chain.slice(0, -1).map(({ driven }) => driven)));
  const wanted = new Set(targets.map(({ station }) => station));
  const way = new Set(
    [...wanted].flatMap((station) => chains.get(station)!.flatMap(({ driver, driven }) => [driver, driven])),
  );
  const shared = [...way].filter((id) => drivers.has(id) || driving.has(id));
  return { shared, own: [...way].filter((id) => !shared.includes(id)) };
}

/** What of the pulleys at hand goes on each of those, and changes something. */
function optionsAt(
  drive: Drive,
  pulleys: readonly string[],
  atHand: readonly PulleyAtHand[],
): ReadonlyMap<string, readonly Option[]> {
  const seats = seatsOf(drive);
  return new Map(
    pulleys.map((id) => {
      const seat = seats.get(id)!;
      const fits = atHand.filter((at) => goesOn(at, seat) && radiusWith(seat, at) > 0 && !sameSize(seat.pulley, at));
      return [id, fits.map((to) => ({ to, log: Math.log(radiusWith(seat, to)) }))] as const;
    }),
  );
}

/** A shaft that turns, and how far a ratio to the crank is from what is wanted of it; the ratio as a logarithm. */
interface Demand {
  station: string;
  missAt: (log: number) => number;
}

function demandsOf(drive: Drive, chains: Chains, targets: readonly SpeedTarget[], bands: ShopBands): Demand[] {
  const marks = marksOf(drive.speeds);
  const [idle, redline] = [Math.log(marks.idle), Math.log(marks.redline)];
  return drive.stations
    .filter(({ id }) => (chains.get(id)?.length ?? 0) > 0)
    .map((station) => {
      const { band } = bandOf(station, bands);
      const own = targets.filter((target) => target.station === station.id);
      const missAt = (log: number) => {
        let miss = 0;
        for (const { engineRpm, min, max } of own) {
          const by = outside(log + Math.log(engineRpm), min, max);
          miss += by > 0 ? MISSED + by : 0;
        }
        // Beyond what it was asked for, an accessory is to stay in its band; too slow at idle hurts less than too fast.
        miss += outside(log + redline, null, band.burst) + 0.5 * outside(log + redline, null, band.continuous);
        return miss + 0.25 * outside(log + idle, band.least, null);
      };
      return { station: station.id, missAt };
    });
}

/** The best choices by speed alone, in order, and how many there were. */
class BestFew {
  readonly choices: Choice[] = [];
  searched = 0;

  keep(choice: Choice): void {
    this.searched += 1;
    const { choices } = this;
    if (choices.length >= JUDGED && choice.cost >= choices.at(-1)!.cost) return;
    const at = choices.findIndex(({ cost }) => choice.cost < cost);
    choices.splice(at < 0 ? choices.length : at, 0, choice);
    if (choices.length > JUDGED) choices.pop();
  }
}

/** Weighs what was chosen of the pulleys that act on others, with the best of every accessory's own. */
function weigher({
  drive,
  chains,
  own,
  options,
  demands,
  max,
  best,
}: {
  drive: Drive;
  chains: Chains;
  own: readonly string[];
  options: ReadonlyMap<string, readonly Option[]>;
  demands: readonly Demand[];
  max: number;
  best: BestFew;
}) {
  const seats = seatsOf(drive);
  const ownOf = new Map(own.map((id) => [seats.get(id)!.station, id] as const).reverse());
  const now = new Map(
    [...chains.values()].flatMap((chain) =>
      chain.flatMap(({ driver, driven, driverRadius, drivenRadius }) => [
        [driver, Math.log(driverRadius)] as const,
        [driven, Math.log(drivenRadius)] as const,
      ]),
    ),
  );
  const logRatio = (station: string, logs: ReadonlyMap<string, number>) => {
    const logOf = (id: string) => logs.get(id) ?? now.get(id)!;
    return chains.get(station)!.reduce((sum, { driver, driven }) => sum + logOf(driver) - logOf(driven), 0);
  };
  return (chosen: PulleyChange[], logs: ReadonlyMap<string, number>) => {
    let fixed = PER_CHANGE * chosen.length;
    const free: Choice[][] = [];
    for (const { station, missAt } of demands) {
      const id = ownOf.get(station);
      const log = logRatio(station, logs);
      const base = missAt(log);
      fixed += base;
      if (id === undefined || chosen.length === max) continue;
      const all = options.get(id)!;
      const tries = all
        .map(({ to, log: other }) => ({
          changes: [{ pulley: id, to }],
          cost: PER_CHANGE + missAt(log + now.get(id)! - other) - base,
        }))
        .sort((a, b) => a.cost - b.cost)
        .slice(0, JUDGED);
      best.searched += Math.max(0, all.length - tries.length);
      free.push(tries);
    }
    for (const way of joined({ changes: chosen, cost: fixed }, free, max)) best.keep(way);
  };
}

/** Every way to go on from a choice with one of each of several lists or none of it, the best of them where many. */
function joined(from: Choice, free: readonly Choice[][], max: number): Choice[] {
  let ways = [from];
  for (const tries of free) {
    ways = ways.concat(
      ways.flatMap((way) =>
        way.changes.length >= max
          ? []
          : tries
              .map((attempt) => ({ changes: [...way.changes, ...attempt.changes], cost: way.cost + attempt.cost }))
              .filter(({ changes }) => enoughOf(changes)),
      ),
    );
    if (ways.length > JUDGED * 4) ways = ways.sort((a, b) => a.cost - b.cost).slice(0, JUDGED * 4);
  }
  return ways;
}

function sameSize(pulley: { diameter?: number; teeth?: number }, at: PulleyAtHand): boolean {
  return at.surface === 'toothed'
    ? at.teeth === pulley.teeth
    : Math.abs((at.diameter ?? 0) - (pulley.diameter ?? 0)) < 0.05;
}

/** How far a speed lies outside, as a logarithm: nought within. */
function outside(logRpm: number, min: number | null, max: number | null): number {
  if (min !== null && min > 0 && logRpm < Math.log(min) - 1e-12) return Math.log(min) - logRpm;
  return max !== null && max > 0 && logRpm > Math.log(max) + 1e-12 ? logRpm - Math.log(max) : 0;
}

/** In how many ways no more than `max` of several choices are made. */
function waysOf(counts: readonly number[], max: number): number {
  const ways = counts.reduce<number[]>(
    (sums, count) => sums.map((sum, k) => sum + (k > 0 ? sums[k - 1]! * count : 0)),
    [1, ...Array.from({ length: max }, () => 0)],
  );
  return ways.reduce((sum, way) => sum + way, 0);
}

interface Judgement {
  reasons: SpeedReason[];
  cost: number;
}

/** What the drawing says of a choice, beside the present drive. */
function judge(before: DriveEffect, after: DriveEffect, targets: readonly SpeedTarget[]): Judgement {
  const belts = after.belts.map((belt, k) => judgeBelt(before.belts[k]!, belt));
  const more = after.findings.filter(
    (finding) =>
      !before.findings.some(
        (old) => old.code === finding.code && old.belt === finding.belt && old.pulley === finding.pulley,
      ),
  );
  const reasons = [
    ...targets.map((target) => metBy(after, target)),
    ...elsewhere(before, after, targets),
    ...belts.flatMap((belt) => belt.reasons),
  ];
  const cost = belts.reduce((sum, belt) => sum + belt.cost, 0) + COST.watch * more.length;
  if (more.length > 0)
    reasons.push({ code: 'new-watch', good: false, belt: more[0]!.belt, figures: { count: more.length } });
  return { reasons, cost };
}

function metBy(after: DriveEffect, { station, engineRpm, min, max }: SpeedTarget): SpeedReason {
  const rpm = (after.shafts.find((shaft) => shaft.station === station)?.ratio ?? 0) * engineRpm;
  const meets = (min === null || rpm >= min * (1 - 1e-9)) && (max === null || rpm <= max * (1 + 1e-9));
  const by = Math.min(0, rpm - (min ?? -Infinity)) + Math.max(0, rpm - (max ?? Infinity));
  return { code: meets ? 'meets' : 'misses', good: meets, station, figures: { rpm, engineRpm, by } };
}

/** Shafts without a target that leave their band. */
function elsewhere(before: DriveEffect, after: DriveEffect, targets: readonly SpeedTarget[]): SpeedReason[] {
  return after.shafts.flatMap(({ station, place, redline, idle }, k) => {
    if (targets.some((target) => target.station === station) || !place) return [];
    const was = before.shafts[k]!.place;
    const reasons: SpeedReason[] = [];
    if (place.redline !== 'right' && place.redline !== 'too-slow' && was?.redline !== place.redline)
      reasons.push({ code: 'too-fast-elsewhere', good: false, station, figures: { rpm: redline! } });
    if (place.idle === 'too-slow' && was?.idle !== 'too-slow')
      reasons.push({ code: 'too-slow-elsewhere', good: false, station, figures: { rpm: idle! } });
    return reasons;
  });
}

type BeltEffect = DriveEffect['belts'][number];

function judgeBelt(was: BeltEffect, { belt, lengthMm, findings, taken }: BeltEffect): Judgement {
  if (lengthMm === null)
    return was.lengthMm === null
      ? { reasons: [], cost: 0 }
      : { reasons: [{ code: 'does-not-close', good: false, belt }], cost: COST.doesNotClose };
  const reasons: SpeedReason[] = [];
  const fresh = (severity: string) =>
    findings.filter(
      (finding) =>
        finding.severity === severity &&
        !was.findings.some((old) => old.code === finding.code && old.pulley === finding.pulley),
    ).length;
  const [faults, watches] = [fresh('fault'), fresh('watch')];
  let cost = COST.fault * faults + COST.watch * watches;
  if (faults > 0) reasons.push({ code: 'new-fault', good: false, belt, figures: { count: faults } });
  else if (watches > 0) reasons.push({ code: 'new-watch', good: false, belt, figures: { count: watches } });
  if (was.lengthMm !== null && Math.abs(lengthMm - was.lengthMm) > 0.05)
    reasons.push({ code: 'length', good: true, belt, figures: { changeMm: lengthMm - was.lengthMm, lengthMm } });
  if (taken) {
    const fits = taken.verdict === 'fits';
    if (!fits && was.taken?.verdict === 'fits') cost += COST.takenBelt;
    if (lengthMm !== was.lengthMm)
      reasons.push({ code: 'taken-belt', good: fits, belt, figures: { lengthMm: taken.lengthMm } });
  }
  return { reasons, cost };
}

/**
 * The sets among the pulleys at hand, and the drive with each put on: every pulley of a set goes on the accessory it is
 * made for. Sets that fit nothing are left out.
 */
export function setsOf(drive: Drive, atHand: readonly PulleyAtHand[]): { set: string; changes: PulleyChange[] }[] {
  const seats = [...seatsOf(drive).entries()];
  const names = [...new Set(atHand.flatMap(({ set }) => (set ? [set] : [])))];
  return names.flatMap((set) => {
    const taken = new Set<string>();
    const pieces = atHand
      .filter((at) => at.set === set)
      .flatMap((at) => Array.from({ length: at.count ?? 1 }, () => at));
    const changes = pieces.flatMap((to): PulleyChange[] => {
      const seat = seats.find(([id, seat]) => !taken.has(id) && goesOn(to, seat));
      if (!seat) return [];
      taken.add(seat[0]);
      return [{ pulley: seat[0], to }];
    });
    return changes.length > 0 ? [{ set, changes }] : [];
  });
}
