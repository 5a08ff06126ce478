import { type Drive, same } from '../drive';
import { type ClashWhy, forced, lookedUp } from './apply';
import type { Change, Way } from './change';
import { changesBetween } from './changes-between';
import { type Clash, withMine } from './merge';

/** One version of a drive: what it changed of the one before, by whom and when. */
export interface Version {
  revision: number;
  changes: readonly Change[];
  /** Whose it is; empty where nobody is known. */
  by: string;
  /** ISO 8601. */
  at: string;
  saveId: string;
}

/** Two people changed one thing. Theirs stands; `changes` makes it mine. */
export interface Question {
  id: string;
  why: ClashWhy;
  changes: readonly Change[];
  by: string;
  at: string;
}

/** What has to be asked of clashes: `mine` is the drive with my changes, `now` the one that stands. */
export function questionsOf(
  clashes: readonly Clash[],
  mine: Drive,
  now: Drive,
  versions: readonly Version[],
): Question[] {
  return clashes.flatMap(({ why, changes }) => {
    const wanted = withMine(restored(now, mine, changes), changes);
    const taken = changesBetween(now, wanted);
    if (taken.length === 0) return [];
    const ways = changes.map(({ at }) => at);
    const whose = versions.findLast((version) => version.changes.some(({ at }) => ways.some((way) => meet(way, at))));
    const { by, at } = whose ?? versions.at(-1) ?? { by: '', at: '' };
    return [{ id: JSON.stringify(ways), why, changes: taken, by, at }];
  });
}

/** Questions with newer ones: of one thing there is one question, with the latest of mine. */
export function joined(questions: readonly Question[], newer: readonly Question[]): readonly Question[] {
  if (newer.length === 0) return questions;
  const ids = new Set(newer.map(({ id }) => id));
  return [...questions.filter(({ id }) => !ids.has(id)), ...newer];
}

/** Questions that still have two answers: what is mine by now is asked no more. */
export const stillOpen = (questions: readonly Question[], now: Drive): readonly Question[] => {
  const open = questions.filter(({ changes }) => !same(withMine(now, changes), now));
  return open.length === questions.length ? questions : open;
};

/** Whether two ways lead to one thing, or one to what holds the other. */
export const meet = (a: Way, b: Way): boolean => a.slice(0, b.length).every((step, k) => step === b[k]);

/** What others deleted and these changes are made to, put back as it was in mine. */
function restored(now: Drive, mine: Drive, changes: readonly Change[]): Drive {
  return changes.reduce((drive, { at }) => {
    for (let depth = 1; depth <= at.length; depth += 1) {
      const way = at.slice(0, depth);
      if (!Array.isArray(lookedUp(mine, way.slice(0, -1)).value)) continue;
      const [there, own] = [lookedUp(drive, way).value, lookedUp(mine, way).value];
      if (there === undefined && own !== undefined) return forced(drive, [{ at: way, add: own }]);
    }
    return drive;
  }, now);
}
