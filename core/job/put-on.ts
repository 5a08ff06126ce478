import type { Belt, Drive, Phase, Station } from '../drive';
import { RUN_IN_MINUTES } from '../loads';
import { boltsFor, inTighteningOrder, slackenedAt, tightenedAt } from './bolts';
import { byStation, type HeldBelt, idOf, isSetByHand, stepsBy, tightWay } from './held';
import type { Put, StepCode } from './step';
import { type BeltFigure, mostHotRise, type SetTogether, setTogether } from './together';

/** Belts that one adjuster sets by hand, and what they are set to. */
export interface Together {
  station: Station;
  belts: readonly HeldBelt[];
  set: SetTogether;
}

/** The adjusters that a hand sets, with all belts of each; `fresh` are those that go on new. */
export function groupsOf(drive: Drive, belts: readonly HeldBelt[], fresh: ReadonlySet<string>): Together[] {
  return byStation(belts.filter(isSetByHand)).map(({ station, belts: held }) => ({
    station,
    belts: held,
    set: setTogether(drive, held, fresh),
  }));
}

/** The belts on, the other way round: laid, set once the last of an adjuster is on, its bolts tightened. */
export function putOn(drive: Drive, on: readonly HeldBelt[], together: readonly Together[], put: Put): void {
  on.forEach(({ belt, by, station, lastOn, release }, k) => {
    const at = { belt: belt.id, by, ...(lastOn !== null && { pulley: lastOn }) };
    if (!station) {
      put('on', 'work-on', belt.id, { ...at, route: belt.route });
      return;
    }
    put('on', 'lay', belt.id, { ...at, route: belt.route, station: station.id });
    // An adjuster that holds several belts is set once the last of them is on.
    if (on.slice(k + 1).some((later) => later.station?.id === station.id)) return;
    const way = stepsBy(by)?.way;
    if (way === 'arm') {
      const held = on.filter((belt) => belt.station?.id === station.id);
      const rims = held.map((belt) => ({ belt: idOf(belt), pulley: belt.lastOn }));
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
    const group = together.find((group) => group.station.id === station.id)!;
    setGroup(drive, 'on', way === 'halves' ? 'close-halves' : 'set', group, ({ setN }) => setN, put);
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
  const bolts = tightenedAt(drive, id);
  for (const bolt of bolts) put(phase, 'bolt', bolt.id, { station: id, bolts: [bolt] });
  if (bolts.length === 0) put(phase, 'bolts', id, { station: id, by: belts[0]!.by });
}

/** Before power is on again, whether the bolts were written down or not. */
export const coversOn = (drive: Drive, phase: Phase, put: Put) =>
  put(phase, 'covers-on', undefined, { bolts: inTighteningOrder(boltsFor(drive, ['cover'])) });

/** Reads a belt, and says what it is to read where that is known. */
export function readTension(
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

/** After the run-in, cold again and without power: slackened, set, tightened and read, as the first time. */
export function setAgain(drive: Drive, together: readonly Together[], put: Put): void {
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
    if (stepsBy(group.belts[0]!.by)?.way !== 'halves')
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
