import { type Belt, type Drive, pulleysById, stationOf } from '../drive';
import { onOneShaft } from './latest';
import type { InspectItem } from './verdicts';

/** Parts that are changed in one go, and why. */
export interface Together {
  /** Belts first, then pulleys; an arm goes by the pulley that stands on it. */
  targets: string[];
  why: 'arm' | 'pair' | 'idler';
  /** Of them those that are still good by themselves, or were not looked at: an offer. */
  offered: string[];
}

/**
 * What is changed together. Parts wear together: a belt with its sprung arm, whichever of them is done; the smooth
 * idlers of a belt that are no longer sound; belts that run side by side over the same shafts, of which a new one would
 * carry the load alone.
 */
export function replaceTogether(drive: Drive, items: readonly InspectItem[]): Together[] {
  const verdict = (on: InspectItem['on'], target: string) =>
    items.find((item) => item.on === on && item.target === target)?.verdict;
  const pulleys = pulleysById(drive);
  const groups: Together[] = [];
  const offer = (ids: readonly { on: InspectItem['on']; target: string }[]) =>
    ids.filter(({ on, target }) => verdict(on, target) !== 'replace').map(({ target }) => target);
  for (const belt of drive.belts) {
    const done = verdict('belt', belt.id) === 'replace';
    const on = [...new Set(belt.route.map(({ pulley }) => pulley))];
    for (const arm of items.filter(
      (item) => item.on === 'arm' && on.some((id) => onOneShaft(drive, id, item.target)),
    )) {
      const roller = on.find((id) => onOneShaft(drive, id, arm.target))!;
      if (!done && arm.verdict !== 'replace' && verdict('pulley', roller) !== 'replace') continue;
      const offered = [
        ...offer([{ on: 'belt', target: belt.id }]),
        ...(arm.verdict === 'replace' || verdict('pulley', roller) === 'replace' ? [] : [arm.target]),
      ];
      groups.push({ targets: [belt.id, arm.target], why: 'arm', offered });
    }
    if (!done) continue;
    const idlers = on.filter((id) => {
      const { station, pulley } = pulleys.get(id)!;
      const poor = verdict('pulley', id) === 'watch' || verdict('pulley', id) === 'replace';
      return station.role === 'idler' && pulley.surface === 'smooth' && poor;
    });
    if (idlers.length > 0)
      groups.push({
        targets: [belt.id, ...idlers],
        why: 'idler',
        offered: offer(idlers.map((target) => ({ on: 'pulley', target }))),
      });
  }
  for (const pair of pairsOf(drive)) {
    const ids = pair.map(({ id }) => id);
    if (ids.some((id) => verdict('belt', id) === 'replace'))
      groups.push({ targets: ids, why: 'pair', offered: offer(ids.map((target) => ({ on: 'belt', target }))) });
  }
  return groups;
}

/** Belts of one section that run side by side over the same shafts, as sets. */
function pairsOf(drive: Drive): Belt[][] {
  const sets = new Map<string, Belt[]>();
  for (const belt of drive.belts) {
    const shafts = [...new Set(belt.route.map(({ pulley }) => stationOf(drive, pulley)?.id ?? pulley))].sort();
    if (shafts.length < 2) continue;
    const key = JSON.stringify([belt.section, shafts]);
    sets.set(key, [...(sets.get(key) ?? []), belt]);
  }
  return [...sets.values()].filter(({ length }) => length > 1);
}
