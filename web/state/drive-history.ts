import { refusedEdit, refuseEdit } from './full-drive';
import { Listeners } from './listeners';
import { brokenNames, type Drive, same, withinLists, withoutLostNames } from '@emery/core/drive';
import { changesBetween, forced } from '@emery/core/together';

/** The open drive with the way back and forth. All drives are immutable and share what they have in common. */
export interface DriveHistory {
  past: readonly Drive[];
  present: Drive;
  future: readonly Drive[];
  /** What the last edit belonged to, if to any: the next one of the same is part of the same step. */
  group: EditGroup | null;
  /** What led here; null at the start. What an undo brings back is not asked for again. */
  cameBy: DriveAction['type'] | null;
  /** What others changed last, for what else is made of this drive. */
  others?: { from: Drive; to: Drive };
}

/**
 * Edits that are one step to whoever made them. A drag is one however long the finger rests, and its name is its own; a
 * run, of keys or of letters, ends with a pause: `at` is when the edit was made, ms.
 */
export type EditGroup = { kind: 'drag'; name: string } | { kind: 'run'; name: string; at: number };

/** A run goes on where the next edit comes within this, ms. */
export const RUN_PAUSE_MS = 1500;

/** The run of that name, with an edit made now. */
export const runOfEdits = (name: string): EditGroup => ({ kind: 'run', name, at: performance.now() });

function goesOn(before: EditGroup | null, now: EditGroup | undefined): boolean {
  if (!before || !now || before.name !== now.name) return false;
  if (before.kind === 'drag' || now.kind === 'drag') return before.kind === now.kind;
  return now.at - before.at <= RUN_PAUSE_MS;
}

export type DriveAction =
  | { type: 'edit'; change: (drive: Drive) => Drive; group?: EditGroup }
  | { type: 'undo' }
  | { type: 'redo' }
  | { type: 'replace'; drive: Drive }
  /** What others changed, from one drive to the next: no step of one's own, and in every step that there is. */
  | { type: 'merge'; from: Drive; to: Drive };

const MOST_STEPS = 300;

export const startHistory = (present: Drive): DriveHistory => ({
  past: [],
  present,
  future: [],
  group: null,
  cameBy: null,
});

export function reduceHistory(history: DriveHistory, action: DriveAction): DriveHistory {
  const { past, present, future, group } = history;
  switch (action.type) {
    case 'edit': {
      const next = action.change(present);
      if (next === present) return history;
      return {
        past: goesOn(group, action.group) ? past : [...past, present].slice(-MOST_STEPS),
        present: next,
        future: [],
        group: action.group ?? null,
        cameBy: 'edit',
      };
    }
    case 'undo':
      return past.length === 0
        ? history
        : {
            past: past.slice(0, -1),
            present: past[past.length - 1]!,
            future: [present, ...future],
            group: null,
            cameBy: 'undo',
          };
    case 'redo':
      return future.length === 0
        ? history
        : { past: [...past, present], present: future[0]!, future: future.slice(1), group: null, cameBy: 'redo' };
    case 'merge':
      return withOthers(history, action.from, action.to);
    case 'replace':
      return {
        past: [...past, present].slice(-MOST_STEPS),
        present: action.drive,
        future: [],
        group: null,
        cameBy: 'replace',
      };
  }
}

/**
 * The same steps with what others changed in each, so that an undo takes back one's own alone. A step that others built
 * on, as a tape on a shaft that it put there, cannot be taken back any more, and neither can those before it.
 */
function withOthers({ past, present, future, group, cameBy }: DriveHistory, from: Drive, to: Drive): DriveHistory {
  const changes = changesBetween(from, to);
  const next = present === from ? to : withoutLostNames(forced(present, changes));
  const onto = (steps: readonly Drive[]) => {
    const made: Drive[] = [];
    for (const step of steps) {
      const drive = forced(step, changes);
      if (brokenNames(drive).length > 0) break;
      if (!same(drive, made.at(-1) ?? next)) made.push(drive);
    }
    return made;
  };
  const steps = { past: onto([...past].reverse()).reverse(), future: onto(future) };
  return { ...steps, present: next, group, cameBy, others: { from, to } };
}

/**
 * A history outside React: an edit has happened when `dispatch` returns, also while the page is going away. One that
 * the drive has no room for has not, and is told.
 */
export interface DriveStore {
  get: () => DriveHistory;
  dispatch: (action: DriveAction) => void;
  subscribe: (listener: () => void) => () => void;
}

export function createDriveStore(drive: Drive): DriveStore {
  let history = startHistory(drive);
  const listeners = new Listeners();
  return {
    get: () => history,
    dispatch: (action) => {
      const next = reduceHistory(history, action);
      if (next === history) return;
      if (action.type === 'edit') {
        const { drive, full } = withinLists(history.present, next.present);
        if (full) return refuseEdit(full);
        refusedEdit.set(null);
        history = drive === next.present ? next : { ...next, present: drive };
      } else history = next;
      listeners.tell();
    },
    subscribe: listeners.add,
  };
}
