import type { Drive, Station } from '../drive';
import type { InspectItem } from '../inspect';
import { slackenedAt } from './bolts';
import { type HeldBelt, idOf, stepsBy, tightWay } from './held';
import type { BeltOrder } from './order';
import type { Put } from './step';

/** The belts off, in their order: each slackened by what holds it, lifted, and what held it let back. */
export function takeOff(
  drive: Drive,
  off: readonly HeldBelt[],
  along: readonly HeldBelt[],
  { gives }: BeltOrder,
  items: readonly InspectItem[],
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
    for (const ridden of run) put('off', 'chalk', ridden.belt.id, why(ridden));
    if (!station) {
      put('off', 'no-adjuster', belt.id, { ...why(first), by });
      print(first);
      continue;
    }
    const slackToo = along.filter((belt) => belt.station?.id === station.id).map(idOf);
    const at = { belt: belt.id, station: station.id, by };
    const arm = stepsBy(by)?.way === 'arm';
    if (arm && isStuck(items, station)) {
      // A stuck arm is not turned: the belt goes as it can, and the arm is changed after it.
      put('off', 'release', station.id, { ...at, belts: run.map(idOf), slackToo, outcome: 'stuck' });
      for (const ridden of run) lift({ ...ridden, by: 'not-said' }, put);
    } else if (arm) {
      // Let back after the belts before it, an arm is turned once more.
      const key = slack.has(station.id) ? `${station.id} ${belt.id}` : station.id;
      put('off', 'release', key, { ...at, belts: run.map(idOf), slackToo, ...(release && { release }) });
      for (const ridden of run) lift(ridden, put);
      put('off', 'let-back', key, at);
    } else {
      if (!slack.has(station.id)) slacken(drive, first, slackToo, put);
      for (const ridden of run) lift(ridden, put);
    }
    slack.add(station.id);
    run.forEach(print);
  }
}

/** Whether the last look at an arm found that it does not move. */
const isStuck = (items: readonly InspectItem[], { pulleys }: Station): boolean =>
  items.some(
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
  if (stepsBy(by)?.way !== 'arm') return [belts[from]!];
  const end = belts.findIndex((belt, k) => k > from && (belt.by !== by || belt.station?.id !== station?.id));
  return belts.slice(from, end < 0 ? belts.length : end);
}

/** An adjuster to its slack end, for all that it holds. */
function slacken(drive: Drive, held: HeldBelt, slackToo: readonly string[], put: Put): void {
  const station = held.station!;
  const at = { belt: held.belt.id, station: station.id, by: held.by };
  const bolts = slackenedAt(drive, station.id);
  if (stepsBy(held.by)?.way === 'halves') {
    put('off', 'part-halves', station.id, { ...at, bolts, slackToo });
    return;
  }
  const way = tightWay(drive, held);
  put('off', 'slacken-bolts', station.id, { ...at, bolts });
  put('off', 'slacken', station.id, { ...at, slackToo, ...(way && { way }) });
}
