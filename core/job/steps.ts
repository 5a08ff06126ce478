import { travelOf } from '../adjuster';
import { planFor, type PlannedMove, shiftOf } from '../align';
import {
  type Adjuster,
  type Belt,
  type Bolt,
  type BoltUse,
  type Drive,
  itemsOf,
  listeningsLeft,
  type Phase,
  type Role,
  type RouteStop,
} from '../drive';
import { inspectDrive, type InspectItem, replaceTogether } from '../inspect';
import { alignmentOf, type Shift } from '../planes';
import { puttingOn, type PuttingOn } from '../seating';
import { RUN_IN_MINUTES, usualSetting } from '../loads';
import { type BeltOrder, beltOrder } from './order';

/** What is done in one step of a job. */
export const STEP_CODES = [
  'picture',
  'key',
  'cool',
  'covers',
  'lay-out',
  'chalk',
  'slacken-bolts',
  'release',
  'slacken',
  'part-halves',
  'no-adjuster',
  'lift',
  'print',
  'look',
  'change-part',
  'move',
  'clean',
  'cure',
  'lay',
  'let-down',
  'set',
  'close-halves',
  'work-on',
  'bolt',
  'bolts',
  'grooves',
  'pointer',
  'tools-out',
  'hand-turn',
  'battery',
  'touch',
  'covers-on',
  'run',
  'noise',
  'charge',
  'load',
  'read-tension',
  'run-in',
  'set-again',
  'number',
  'listen',
  'next-look',
  'spare',
  'own',
] as const;
export type StepCode = (typeof STEP_CODES)[number];

/** A step as data; its words are made in `words.ts`. Ids stay what they are while the drive is worked on. */
export interface StepTold {
  id: string;
  phase: Phase;
  code: StepCode;
  belt?: string;
  station?: string;
  pulley?: string;
  /** Of a belt that comes off for another's sake: that one, and the shaft where it is in front of it. */
  gives?: { belt: string; station: string | null };
  bolts?: readonly Bolt[];
  release?: NonNullable<PuttingOn['release']>;
  adjuster?: Adjuster['kind'];
  route?: readonly RouteStop[];
  move?: PlannedMove;
  part?: Pick<InspectItem, 'on' | 'target'>;
  /** True of a part that is still good and is offered with another. */
  offered?: boolean;
  outcome?: string;
  minutes?: number;
  newtons?: number;
  text?: string;
}

type Put = (phase: Phase, code: StepCode, key?: string, more?: Partial<StepTold>) => void;

/**
 * The steps of a job in order, as the drive's own stages decide them: for all belts, or for one and those that have to
 * come off before it. A belt that was never said to be off is not in them.
 */
export function stepsOf(drive: Drive, order: BeltOrder = beltOrder(drive)): StepTold[] {
  const steps: StepTold[] = [];
  const put: Put = (phase, code, key, more = {}) =>
    steps.push({ id: [phase, code, key].filter((part) => part !== undefined).join(' '), phase, code, ...more });
  const belts = new Map(drive.belts.map((belt) => [belt.id, belt]));
  const off = order.off.map((id) => belts.get(id)!).filter(({ route }) => route.length > 0);
  const items = inspectDrive(drive);
  before(drive, put);
  const released = new Set<string>();
  for (const belt of off) takeOff(drive, belt, order, released, put);
  setRight(drive, off, items, put);
  const last = [...off].reverse();
  // An adjuster that holds two belts is set once both are on.
  last.forEach((belt, k) => putOn(drive, belt, last.slice(k + 1), put));
  check(drive, last, put);
  after(drive, last, put);
  return steps;
}

function before(drive: Drive, put: Put): void {
  put('before', 'picture');
  put('before', 'key');
  put('before', 'cool');
  put('before', 'lay-out');
  const covers = boltsFor(drive, ['cover']);
  put('before', 'covers', undefined, { bolts: covers });
}

/** The adjuster that holds a belt, by its station. */
function holderOf(drive: Drive, belt: Belt) {
  const station = travelOf(drive, belt)?.station;
  return drive.stations.find(({ id }) => id === station) ?? null;
}

function takeOff(drive: Drive, belt: Belt, { gives }: BeltOrder, released: Set<string>, put: Put): void {
  const { id } = belt;
  const why = gives.get(id);
  const of = { belt: id, ...(why && { gives: why }) };
  put('off', 'chalk', id, of);
  const holder = holderOf(drive, belt);
  const { lastOn, release } = puttingOn(drive, id)!;
  const kind = holder?.adjuster?.kind;
  if (!holder || !kind) put('off', 'no-adjuster', id, of);
  else if (!released.has(holder.id)) {
    released.add(holder.id);
    const at = { ...of, station: holder.id, adjuster: kind };
    const bolts = boltsFor(drive, ['pivot', 'lock'], holder.id);
    if (kind === 'sprung-arm') put('off', 'release', holder.id, { ...at, ...(release && { release }) });
    else if (kind === 'shims') put('off', 'part-halves', holder.id, { ...at, bolts });
    else {
      put('off', 'slacken-bolts', holder.id, { ...at, bolts });
      put('off', 'slacken', holder.id, at);
    }
  }
  put('off', 'lift', id, { ...of, ...(lastOn && { pulley: lastOn.pulley }) });
  if (belt.care?.number === undefined) put('off', 'print', id, of);
}

/** What is put right while the belts are off: worn parts, planes, dirt, and what spoiled the belt. */
function setRight(drive: Drive, off: readonly Belt[], items: readonly InspectItem[], put: Put): void {
  const on = new Set(off.flatMap(({ route }) => route.map(({ pulley }) => pulley)));
  const own = items.filter((item) => item.on !== 'belt' && onOf(drive, on, item.target));
  if (own.some(({ verdict }) => verdict === 'not looked at')) put('set', 'look');
  const changed = own.filter(({ verdict }) => verdict === 'replace');
  const targets = new Set(changed.map(({ on: what, target }) => `${what} ${target}`));
  for (const { on: what, target } of changed)
    put('set', 'change-part', `${what} ${target}`, { part: { on: what, target } });
  for (const { targets: together, offered } of replaceTogether(drive, items))
    for (const target of together.filter((id) => offered.includes(id))) {
      const part =
        own.find((item) => item.target === target && item.on === 'arm') ?? own.find((item) => item.target === target);
      if (!part || targets.has(`${part.on} ${target}`)) continue;
      targets.add(`${part.on} ${target}`);
      put('set', 'change-part', `${part.on} ${target}`, { part: { on: part.on, target }, offered: true });
    }
  for (const { on: what, target, judged } of own) {
    const dirt = judged.find(({ code, grade }) => code === 'grooves' && grade !== 'sound')?.finding?.outcome;
    if (what === 'pulley' && (dirt === 'paint' || dirt === 'grit'))
      put('set', 'clean', target, { pulley: target, outcome: dirt });
  }
  for (const { id } of off) {
    const judged = items.find((item) => item.on === 'belt' && item.target === id)?.judged ?? [];
    const oil = judged.some(({ code, finding }) => code === 'oil' && finding?.outcome === 'yes');
    if (oil) put('set', 'cure', id, { belt: id });
  }
  // A shaft that is moved for one belt is moved for all: the next belt's plan goes on from there.
  const done: Shift[] = [];
  for (const { id } of off) {
    const alignment = itemsOf(drive, 'align.readings').length > 0 ? alignmentOf(drive, id, { shifts: done }) : null;
    const [plan] = alignment ? planFor(drive, alignment, undefined, done).plans : [];
    for (const move of plan?.moves ?? []) {
      put('set', 'move', `${id} ${move.kind} ${move.pulley}`, { belt: id, pulley: move.pulley, move });
      done.push(shiftOf(move));
    }
  }
}

const onOf = (drive: Drive, on: ReadonlySet<string>, target: string) =>
  drive.stations.some(({ pulleys }) => pulleys.some(({ id }) => id === target) && pulleys.some(({ id }) => on.has(id)));

function putOn(drive: Drive, belt: Belt, later: readonly Belt[], put: Put): void {
  const { id, route } = belt;
  const { lastOn, release } = puttingOn(drive, id)!;
  const holder = holderOf(drive, belt);
  const kind = holder?.adjuster?.kind;
  const at = { belt: id, ...(lastOn && { pulley: lastOn.pulley }) };
  put('on', 'lay', id, { ...at, route });
  if (!holder || !kind) {
    put('on', 'work-on', id, at);
    return;
  }
  const held = { ...at, station: holder.id, adjuster: kind };
  if (kind === 'sprung-arm') {
    put('on', 'let-down', `${holder.id} ${id}`, { ...held, ...(release && { release }) });
    return;
  }
  if (later.some((other) => holderOf(drive, other)?.id === holder.id)) return;
  const newtons = usualSetting(drive, id)?.setN;
  put('on', kind === 'shims' ? 'close-halves' : 'set', holder.id, {
    ...held,
    ...(newtons !== undefined && { newtons }),
  });
  tighten(drive, holder.id, put);
}

/** Bolts of an adjuster in the order of tightening, a step each; in one step where the manual was not looked up. */
function tighten(drive: Drive, station: string, put: Put): void {
  const bolts = inTighteningOrder(boltsFor(drive, ['lock', 'adjust', 'pivot', 'mount'], station));
  for (const bolt of bolts) put('on', 'bolt', bolt.id, { station, bolts: [bolt] });
  if (bolts.length === 0) put('on', 'bolts', station, { station });
}

/** What is slackened first is what the adjuster turns on: tightened last, unless the manual gives an order. */
const TIGHTENED: readonly BoltUse[] = ['lock', 'adjust', 'pivot', 'mount', 'cover'];
export const inTighteningOrder = (bolts: readonly Bolt[]): Bolt[] =>
  [...bolts].sort(
    (a, b) => (a.order ?? Infinity) - (b.order ?? Infinity) || TIGHTENED.indexOf(a.use) - TIGHTENED.indexOf(b.use) || 0,
  );

/** The bolts with these uses, in the order of the uses; of one station where it is named. */
function boltsFor(drive: Drive, uses: readonly BoltUse[], station?: string): Bolt[] {
  const all = itemsOf(drive, 'job.bolts').filter((bolt) => station === undefined || bolt.station === station);
  return uses.flatMap((use) => all.filter((bolt) => bolt.use === use));
}

const CHARGES: readonly Role[] = ['alternator', 'generator'];

function check(drive: Drive, on: readonly Belt[], put: Put): void {
  for (const { id, route } of on) put('check', 'grooves', id, { belt: id, route });
  const arms = new Set(
    on.flatMap((belt) => {
      const holder = holderOf(drive, belt);
      return holder?.adjuster?.kind === 'sprung-arm' ? [holder.id] : [];
    }),
  );
  for (const station of arms) put('check', 'pointer', station, { station });
  put('check', 'hand-turn');
  put('check', 'tools-out');
  const covers = boltsFor(drive, ['cover']);
  if (covers.length > 0) put('check', 'covers-on', undefined, { bolts: inTighteningOrder(covers) });
  put('check', 'battery');
  put('check', 'touch');
  put('check', 'run');
  put('check', 'noise');
  if (drive.stations.some(({ role }) => CHARGES.includes(role))) put('check', 'charge');
  put('check', 'load');
  for (const { id } of on) put('check', 'read-tension', id, { belt: id });
}

function after(drive: Drive, on: readonly Belt[], put: Put): void {
  const byHand = on.filter((belt) => holderOf(drive, belt)?.adjuster?.kind !== 'sprung-arm');
  if (byHand.length > 0) {
    put('after', 'run-in', undefined, { minutes: byHand[0]!.care?.runInMinutes ?? RUN_IN_MINUTES });
    for (const { id } of byHand) {
      const newtons = usualSetting(drive, id)?.runInN;
      put('after', 'set-again', id, { belt: id, ...(newtons !== undefined && { newtons }) });
    }
  }
  for (const { id } of on) put('after', 'number', id, { belt: id });
  if (listeningsLeft(drive).length > 0) put('after', 'listen');
  put('after', 'next-look');
  put('after', 'spare');
}
