import { planFor, shiftOf } from '../align';
import { type Belt, type Drive, itemsOf } from '../drive';
import { type InspectItem, replaceTogether } from '../inspect';
import { alignmentOf, type Shift } from '../planes';
import { boltsFor, inTighteningOrder } from './bolts';
import type { Put } from './step';

/** What is put right while the belts are off: worn parts, planes, dirt, and what spoiled the belt. */
export function setRight(drive: Drive, off: readonly Belt[], items: readonly InspectItem[], put: Put): void {
  const on = new Set(off.flatMap(({ route }) => route.map(({ pulley }) => pulley)));
  const own = items.filter((item) => item.on !== 'belt' && onOf(drive, on, item.target));
  const unseen = own.filter(({ verdict }) => verdict === 'not looked at');
  const arms = stationsOf(
    drive,
    unseen.filter((item) => item.on === 'arm'),
  ).filter((id) => drive.stations.some((station) => station.id === id && station.adjuster?.kind === 'sprung-arm'));
  if (unseen.length > 0) put('set', 'look', undefined, arms.length > 0 ? { station: arms[0]! } : {});
  const changed = partsToChange(drive, own, items);
  for (const { part, offered } of changed)
    put('set', 'change-part', `${part.on} ${part.target}`, { part, ...(offered && { offered }) });
  // A mount that is undone for a part is tightened with it; nothing else undoes one.
  for (const station of stationsOf(
    drive,
    changed.map(({ part }) => part),
  ))
    for (const bolt of inTighteningOrder(boltsFor(drive, ['mount'], station)))
      put('set', 'bolt', bolt.id, { station, bolts: [bolt] });
  clean(own, put);
  for (const { id } of off) {
    const judged = items.find((item) => item.on === 'belt' && item.target === id)?.judged ?? [];
    const oil = judged.some(({ code, finding }) => code === 'oil' && finding?.outcome === 'yes');
    if (oil) put('set', 'cure', id, { belt: id });
  }
  moveInLine(drive, off, put);
}

/** What Inspect condemned, and what is offered with it; each part once. */
function partsToChange(drive: Drive, own: readonly InspectItem[], items: readonly InspectItem[]) {
  const condemned = own.filter(({ verdict }) => verdict === 'replace');
  const parts = condemned.map(({ on, target }) => ({ part: { on, target }, offered: false }));
  for (const { targets, offered } of replaceTogether(drive, items))
    for (const target of targets.filter((id) => offered.includes(id))) {
      const part =
        own.find((item) => item.target === target && item.on === 'arm') ?? own.find((item) => item.target === target);
      if (!part || parts.some((other) => other.part.on === part.on && other.part.target === target)) continue;
      parts.push({ part: { on: part.on, target }, offered: true });
    }
  return parts;
}

function clean(own: readonly InspectItem[], put: Put): void {
  for (const { on: what, target, judged } of own) {
    const dirt = judged.find(({ code, grade }) => code === 'grooves' && grade !== 'sound')?.finding?.outcome;
    if (what === 'pulley' && (dirt === 'paint' || dirt === 'grit'))
      put('set', 'clean', target, { pulley: target, outcome: dirt });
  }
}

/** A shaft that is moved for one belt is moved for all: the next belt's plan goes on from there. */
function moveInLine(drive: Drive, off: readonly Belt[], put: Put): void {
  if (itemsOf(drive, 'align.readings').length === 0) return;
  const done: Shift[] = [];
  for (const { id } of off) {
    const alignment = alignmentOf(drive, id, { shifts: done });
    const [plan] = alignment ? planFor(drive, alignment, undefined, done).plans : [];
    for (const move of plan?.moves ?? []) {
      put('set', 'move', `${id} ${move.kind} ${move.pulley}`, { belt: id, pulley: move.pulley, move });
      done.push(shiftOf(move));
    }
  }
}

const onOf = (drive: Drive, on: ReadonlySet<string>, target: string) =>
  drive.stations.some(({ pulleys }) => pulleys.some(({ id }) => id === target) && pulleys.some(({ id }) => on.has(id)));

/** The shafts of some parts, once each. */
function stationsOf(drive: Drive, parts: readonly Pick<InspectItem, 'target'>[]): string[] {
  const targets = new Set(parts.map(({ target }) => target));
  return drive.stations.filter(({ pulleys }) => pulleys.some(({ id }) => targets.has(id))).map(({ id }) => id);
}
