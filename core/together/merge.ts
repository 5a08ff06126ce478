import { brokenNames, type Drive, type Json, isStillDrive, namesIn, withinLists, withoutLostNames } from '../drive';
import { applied, type ClashWhy, forced, lookedUp } from './apply';
import { type Change, isDrop } from './change';

/** Changes that somebody has to be asked about; all of them are made or none is. */
export interface Clash {
  why: ClashWhy;
  changes: readonly Change[];
}

export interface Merged {
  drive: Drive;
  clashes: readonly Clash[];
}

/**
 * A drive with changes that were made to an earlier version of it: three ways, as each change holds what it was made
 * to. What cannot be made as it was meant is left out and given back to be asked about. Where `current` passes every
 * check of a saved drive, so does what comes of it.
 */
export function merged(current: Drive, changes: readonly Change[]): Merged {
  const clashes: Clash[] = [];
  const left: Group[] = [];
  let drive = current;
  for (const group of groupsOf(current, changes)) {
    const made = madeOf(drive, group);
    if (made.why) clashes.push({ why: made.why, changes: group });
    else {
      drive = made.drive;
      left.push(group);
    }
  }
  const room = fitting(current, drive);
  if (room.drive) return { drive: room.drive, clashes };
  return fittedIn(current, left, clashes);
}

type Group = readonly Change[];

/** So often the checks of a saved drive are made at most to find out what fits: what is left then is asked about. */
const MOST_LOOKS = 300;

function madeOf(drive: Drive, group: Group): { drive: Drive; why: ClashWhy | null } {
  let now = drive;
  for (const change of group) {
    const { drive: next, clash } = applied(now, change);
    if (clash) return { drive, why: clash };
    now = next;
  }
  return { drive: now, why: null };
}

/** The drive where it passes what a saved one does, with room made for what came; else why it does not. */
function fitting(before: Drive, after: Drive): { drive: Drive; why?: never } | { drive?: never; why: ClashWhy } {
  if (after === before) return { drive: after };
  const { drive, full } = withinLists(before, after);
  // A list that is too long is no drive either; why it is none is told.
  if (full) return { why: brokenNames(after).length > 0 ? 'unfit' : 'full' };
  return isStillDrive(before, drive) ? { drive } : { why: 'unfit' };
}

/**
 * As many of the groups as fit together, made in halves: what does not fit is tried again once others are in, until no
 * more of them goes in.
 */
function fittedIn(current: Drive, groups: readonly Group[], clashes: Clash[]): Merged {
  let drive = current;
  let left = groups;
  let looks = 0;
  for (;;) {
    const refused: { group: Group; why: ClashWhy }[] = [];
    const take = (some: readonly Group[]): void => {
      looks += 1;
      const made = looks > MOST_LOOKS ? { drive, why: 'unfit' as const } : madeOf(drive, some.flat());
      const room = made.why ? { why: made.why } : fitting(drive, made.drive);
      if (!room.why) drive = room.drive ?? drive;
      else if (some.length > 1 && looks <= MOST_LOOKS) {
        const half = Math.ceil(some.length / 2);
        take(some.slice(0, half));
        take(some.slice(half));
      } else refused.push(...some.map((group) => ({ group, why: room.why ?? 'unfit' })));
    };
    if (left.length > 0) take(left);
    if (refused.length === 0 || refused.length === left.length)
      return { drive, clashes: [...clashes, ...refused.map(({ group, why }) => ({ why, changes: group }))] };
    left = refused.map(({ group }) => group);
  }
}

/** What falls with a shaft, a pulley or a belt that is deleted is deleted with it or stays with it. */
function groupsOf(current: Drive, changes: readonly Change[]): Group[] {
  const touched = changes.map((change) => (isDrop(change) ? namesOf(current, change.at) : null));
  const gone = touched.flatMap((names) => names?.is ?? []);
  if (gone.length === 0) return changes.map((change) => [change]);
  // Few are deleted in one go, and each group takes up those it meets.
  const groups: { names: Set<string>; changes: Change[] }[] = [];
  for (const [k, change] of changes.entries()) {
    const ids = [...(touched[k]?.is ?? []), ...(touched[k]?.names ?? []).filter((name) => gone.includes(name))];
    const met = groups.filter(({ names }) => ids.some((id) => names.has(id)));
    const rest = groups.filter((group) => !met.includes(group));
    const joined = {
      names: new Set([...met.flatMap(({ names }) => [...names]), ...ids]),
      changes: [...met.flatMap((group) => group.changes), change],
    };
    groups.splice(0, groups.length, ...rest, joined);
  }
  return groups.map((group) => group.changes);
}

/** What the item at a way is to others, and what it names; nothing where it is gone already. */
function namesOf(drive: Drive, at: Change['at']): { is: string[]; names: string[] } {
  const { value, way } = lookedUp(drive, at);
  if (typeof value !== 'object' || value === null) return { is: [], names: [] };
  const item = value as Json;
  const own = way === 'stations' || way === 'stations.pulleys' || way === 'belts' ? [String(item['id'])] : [];
  const pulleys = way === 'stations' ? (item['pulleys'] as Json[]).map(({ id }) => String(id)) : [];
  return { is: [...own, ...pulleys], names: namesIn(way, item) };
}

/** What a person gets who says that theirs is to stand: the changes over all that others did. */
export const withMine = (drive: Drive, changes: readonly Change[]): Drive => withoutLostNames(forced(drive, changes));
