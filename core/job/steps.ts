import type { PlannedMove } from '../align';
import {
  type Belt,
  type Bolt,
  type Drive,
  listeningsLeft,
  type Phase,
  type Role,
  type RouteStop,
  type Station,
} from '../drive';
import { inspectDrive, type InspectItem } from '../inspect';
import { RUN_IN_MINUTES } from '../loads';
import type { PuttingOn } from '../seating';
import { boltsFor, inTighteningOrder, slackenedAt } from './bolts';
import { byStation, type HeldBelt, type HeldBy, isSetByHand, jobBelts, tightWay, type TightWay } from './held';
import { type BeltOrder, beltOrder } from './order';
import { setRight } from './put-right';
import { type BeltFigure, mostHotRise, type SetTogether, setTogether } from './together';

/** What is done in one step of a job. */
export const STEP_CODES = [
  'missing',
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
  'cut-off',
  'lift',
  'let-back',
  'print',
  'look',
  'change-part',
  'move',
  'clean',
  'cure',
  'lay',
  'let-down',
  'bleed',
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
  'stop',
  'set-again',
  'number',
  'listen',
  'next-look',
  'spare',
  'own',
] as const;
export type StepCode = (typeof STEP_CODES)[number];

/** A step as data; its words are made in `step-words.ts`. Ids stay what they are while the drive is worked on. */
export interface StepTold {
  id: string;
  phase: Phase;
  code: StepCode;
  belt?: string;
  /** Of a step that is done on several belts at once: all of them. */
  belts?: readonly string[];
  /** Belts that stay on and come slack with it. */
  slackToo?: readonly string[];
  /** Over which rim each belt goes on last. */
  rims?: readonly { belt: string; pulley: string | null }[];
  station?: string;
  pulley?: string;
  /** Of a belt that comes off for another's sake: that one, and the shaft where it is in front of it. */
  gives?: { belt: string; station: string | null };
  bolts?: readonly Bolt[];
  release?: NonNullable<PuttingOn['release']>;
  by?: HeldBy;
  way?: TightWay;
  route?: readonly RouteStop[];
  move?: PlannedMove;
  part?: Pick<InspectItem, 'on' | 'target'>;
  /** True of a part that is still good and is offered with another. */
  offered?: boolean;
  outcome?: string;
  minutes?: number;
  /** Whether the minutes are Emery's default. */
  byDefault?: boolean;
  /** What belts are set to, or read, N; the first is the one that is set by. */
  figures?: readonly (Pick<BeltFigure, 'belt' | 'leastN' | 'mostN'> & { newtons: number | null })[];
  /** What a hot engine adds, N. */
  hotN?: number;
  text?: string;
}

export type Put = (phase: Phase, code: StepCode, key?: string, more?: Partial<StepTold>) => void;

/**
 * The steps of a job in order, as the drive's own stages decide them: for all belts, or for one and those that have to
 * come off before it. Without a belt that has a route there is nothing to be done: the one step asks for it.
 */
export function stepsOf(drive: Drive, order: BeltOrder = beltOrder(drive)): StepTold[] {
  const steps: StepTold[] = [];
  const put: Put = (phase, code, key, more = {}) =>
    steps.push({ id: [phase, code, key].filter((part) => part !== undefined).join(' '), phase, code, ...more });
  const { off, along } = jobBelts(drive, order);
  if (off.length === 0) {
    put('before', 'missing');
    return steps;
  }
  const on = [...off].reverse();
  const fresh = new Set(off.map(idOf));
  const together = new Map(
    byStation([...on, ...along].filter(isSetByHand)).map(({ station, belts }) => [
      station.id,
      { station, belts, set: setTogether(drive, belts, fresh) },
    ]),
  );
  before(drive, put);
  takeOff(drive, off, along, order, put);
  setRight(
    drive,
    off.map(({ belt }) => belt),
    inspectDrive(drive),
    put,
  );
  putOn(drive, on, [...together.values()], put);
  check(drive, on, along, [...together.values()], put);
  after(drive, on, [...together.values()], put);
  return steps;
}

/** Belts that one adjuster sets by hand, and what they are set to. */
interface Together {
  station: Station;
  belts: readonly HeldBelt[];
  set: SetTogether;
}

const idOf = ({ belt }: HeldBelt) => belt.id;

function before(drive: Drive, put: Put): void {
  put('before', 'picture');
  put('before', 'key');
  put('before', 'cool');
  put('before', 'lay-out');
  put('before', 'covers', undefined, { bolts: boltsFor(drive, ['cover']) });
}

function takeOff(
  drive: Drive,
  off: readonly HeldBelt[],
  along: readonly HeldBelt[],
  { gives }: BeltOrder,
  put: Put,
): void {
  const slack = new Set<string>();
  const why = ({ belt: { id } }: HeldBelt) => {
    const reason = gives.get(id);
    return { belt: id, ...(reason && { gives: reason }) };
  };
  const print = ({ belt: { id, care } }: HeldBelt) => {
    if (care?.number === undefined) put('off', 'print', id, { belt: id });
  };
  for (let from = 0; from < off.length;) {
    const run = heldAlike(off, from);
    from += run.length;
    const [first] = run as [HeldBelt];
    const { by, station, release, belt } = first;
    if (by === 'stretch-fit') {
      print(first);
      put('off', 'cut-off', belt.id, why(first));
      continue;
    }
    for (const one of run) put('off', 'chalk', one.belt.id, why(one));
    if (!station) {
      put('off', 'no-adjuster', belt.id, { ...why(first), by });
      print(first);
      continue;
    }
    const slackToo = along.filter((one) => one.station?.id === station.id).map(idOf);
    const at = { belt: belt.id, station: station.id, by };
    if (by === 'sprung-arm' && isStuck(drive, station)) {
      // A stuck arm is not turned: the belt goes as it can, and the arm is changed after it.
      put('off', 'release', station.id, { ...at, belts: run.map(idOf), slackToo, outcome: 'stuck' });
      for (const one of run) lift({ ...one, by: 'not-said' }, put);
    } else if (by === 'sprung-arm') {
      // Let back after the belts before it, an arm is turned once more.
      const key = slack.has(station.id) ? `${station.id} ${belt.id}` : station.id;
      put('off', 'release', key, { ...at, belts: run.map(idOf), slackToo, ...(release && { release }) });
      for (const one of run) lift(one, put);
      put('off', 'let-back', key, at);
    } else {
      if (!slack.has(station.id)) slacken(drive, first, slackToo, put);
      for (const one of run) lift(one, put);
    }
    slack.add(station.id);
    run.forEach(print);
  }
}

/** Whether the last look at an arm found that it does not move. */
const isStuck = (drive: Drive, { pulleys }: Station): boolean =>
  inspectDrive(drive).some(
    ({ on, target, judged }) =>
      on === 'arm' &&
      pulleys.some(({ id }) => id === target) &&
      judged.some(({ finding }) => finding?.check === 'stroke' && finding.outcome === 'stuck'),
  );

const lift = ({ belt: { id }, by, station, lastOn }: HeldBelt, put: Put) =>
  put('off', 'lift', id, {
    belt: id,
    by,
    ...(station && { station: station.id }),
    ...(lastOn !== null && { pulley: lastOn }),
  });

/** The belts from one on that the same sprung arm holds, and that so come off in one go; of any other belt it alone. */
function heldAlike(belts: readonly HeldBelt[], from: number): HeldBelt[] {
  const { by, station } = belts[from]!;
  if (by !== 'sprung-arm') return [belts[from]!];
  const end = belts.findIndex((one, k) => k > from && (one.by !== by || one.station?.id !== station?.id));
  return belts.slice(from, end < 0 ? belts.length : end);
}

/** An adjuster to its slack end, for all that it holds. */
function slacken(drive: Drive, held: HeldBelt, slackToo: readonly string[], put: Put): void {
  const station = held.station!;
  const at = { belt: held.belt.id, station: station.id, by: held.by };
  const bolts = slackenedAt(drive, station.id);
  if (held.by === 'shims') {
    put('off', 'part-halves', station.id, { ...at, bolts, slackToo });
    return;
  }
  const way = tightWay(drive, held);
  put('off', 'slacken-bolts', station.id, { ...at, bolts });
  put('off', 'slacken', station.id, { ...at, slackToo, ...(way && { way }) });
}

function putOn(drive: Drive, on: readonly HeldBelt[], together: readonly Together[], put: Put): void {
  on.forEach(({ belt, by, station, lastOn, release }, k) => {
    const at = { belt: belt.id, by, ...(lastOn !== null && { pulley: lastOn }) };
    if (!station) {
      put('on', 'work-on', belt.id, { ...at, route: belt.route });
      return;
    }
    put('on', 'lay', belt.id, { ...at, route: belt.route, station: station.id });
    // An adjuster that holds several belts is set once the last of them is on.
    if (on.slice(k + 1).some((later) => later.station?.id === station.id)) return;
    if (by === 'sprung-arm') {
      const held = on.filter((one) => one.station?.id === station.id);
      const rims = held.map((one) => ({ belt: idOf(one), pulley: one.lastOn }));
      put('on', 'let-down', station.id, {
        ...at,
        belts: held.map(idOf),
        rims,
        station: station.id,
        ...(release && { release }),
      });
      const { adjuster } = station;
      if (adjuster?.kind === 'sprung-arm' && adjuster.strut) put('on', 'bleed', station.id, { station: station.id });
      return;
    }
    const group = together.find((one) => one.station.id === station.id)!;
    setGroup(drive, 'on', by === 'shims' ? 'close-halves' : 'set', group, ({ setN }) => setN, put);
    tighten(drive, 'on', group, put);
  });
}

/** Sets the belts of an adjuster; the one that it is set by stands first. */
function setGroup(
  drive: Drive,
  phase: Phase,
  code: StepCode,
  { station, belts, set: { lead, figures } }: Together,
  newtonsOf: (figure: BeltFigure) => number | null,
  put: Put,
): void {
  const leads = belts.find(({ belt }) => belt.id === lead)!;
  const ordered = [...figures.filter(({ belt }) => belt === lead), ...figures.filter(({ belt }) => belt !== lead)];
  const way = tightWay(drive, leads);
  put(phase, code, station.id, {
    belt: lead,
    belts: ordered.map(({ belt }) => belt),
    station: station.id,
    by: leads.by,
    bolts: boltsFor(drive, ['adjust'], station.id),
    figures: ordered.map((figure) => ({ ...figure, newtons: newtonsOf(figure) })),
    ...(way && { way }),
  });
}

/** Bolts of an adjuster in the order of tightening, a step each; in one step where the manual was not looked up. */
function tighten(drive: Drive, phase: Phase, { station: { id }, belts }: Together, put: Put): void {
  const bolts = inTighteningOrder(slackenedAt(drive, id));
  for (const bolt of bolts) put(phase, 'bolt', bolt.id, { station: id, bolts: [bolt] });
  if (bolts.length === 0) put(phase, 'bolts', id, { station: id, by: belts[0]!.by });
}

const CHARGES: readonly Role[] = ['alternator', 'generator'];

function check(
  drive: Drive,
  on: readonly HeldBelt[],
  along: readonly HeldBelt[],
  together: readonly Together[],
  put: Put,
): void {
  const all = [...on, ...along];
  for (const { belt } of all) put('check', 'grooves', belt.id, { belt: belt.id, route: belt.route });
  for (const { station } of byStation(on.filter(({ by }) => by === 'sprung-arm')))
    put('check', 'pointer', station.id, { station: station.id });
  put('check', 'hand-turn');
  for (const held of all) readTension(held.belt, 'check', together, ({ setN }) => setN, put);
  put('check', 'tools-out');
  coversOn(drive, 'check', put);
  put('check', 'battery');
  put('check', 'touch');
  put('check', 'run');
  put('check', 'noise');
  if (drive.stations.some(({ role }) => CHARGES.includes(role))) put('check', 'charge');
  put('check', 'load');
}

/** Before power is on again, whether the bolts were written down or not. */
const coversOn = (drive: Drive, phase: Phase, put: Put) =>
  put(phase, 'covers-on', undefined, { bolts: inTighteningOrder(boltsFor(drive, ['cover'])) });

function readTension(
  { id }: Belt,
  phase: Phase,
  together: readonly Together[],
  newtonsOf: (figure: BeltFigure) => number | null,
  put: Put,
): void {
  const figure = together.flatMap(({ set }) => set.figures).find(({ belt }) => belt === id);
  const newtons = figure ? newtonsOf(figure) : null;
  put(phase, 'read-tension', id, { belt: id, ...(newtons !== null && { figures: [{ ...figure!, newtons }] }) });
}

function after(drive: Drive, on: readonly HeldBelt[], together: readonly Together[], put: Put): void {
  if (together.length > 0) setAgain(drive, together, put);
  for (const { belt } of on) put('after', 'number', belt.id, { belt: belt.id });
  if (listeningsLeft(drive).length > 0) put('after', 'listen');
  put('after', 'next-look');
  put('after', 'spare');
}

/** After the run-in, cold again and without power: slackened, set, tightened and read, as the first time. */
function setAgain(drive: Drive, together: readonly Together[], put: Put): void {
  const belts = together.flatMap((group) => group.belts);
  const minutes = belts.find(({ belt }) => belt.care?.runInMinutes !== undefined)?.belt.care?.runInMinutes;
  put('after', 'run-in', undefined, {
    minutes: minutes ?? RUN_IN_MINUTES,
    ...(minutes === undefined && { byDefault: true }),
  });
  put('after', 'stop', undefined, { hotN: mostHotRise(drive, belts) });
  put('after', 'covers', undefined, { bolts: boltsFor(drive, ['cover']) });
  for (const group of together) {
    const { station } = group;
    const bolts = slackenedAt(drive, station.id);
    if (group.belts[0]!.by !== 'shims')
      put('after', 'slacken-bolts', station.id, {
        belt: group.set.lead,
        station: station.id,
        by: group.belts[0]!.by,
        bolts,
      });
    setGroup(drive, 'after', 'set-again', group, ({ runInN }) => runInN, put);
    tighten(drive, 'after', group, put);
  }
  put('after', 'hand-turn');
  for (const { belt } of belts) readTension(belt, 'after', together, ({ runInN }) => runInN, put);
  put('after', 'tools-out');
  coversOn(drive, 'after', put);
  put('after', 'battery');
}
