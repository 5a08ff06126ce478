import { refusedEdit, refuseEdit } from './full-drive';
import { Listeners } from './listeners';
import { type Drive, withinLists } from '@emery/core/drive';

/** The open drive with the way back and forth. All drives are immutable and share what they have in common. */
export interface DriveHistory {
  past: readonly Drive[];
  present: Drive;
  future: readonly Drive[];
  /**
   * What the last edit belonged to: a drag, a run of arrow keys. The next one of the same name is part of the same
   * step.
   */
  group: string | null;
}

export type DriveAction =
  | { type: 'edit'; change: (drive: Drive) => Drive; group?: string }
  | { type: 'undo' }
  | { type: 'redo' }
  | { type: 'replace'; drive: Drive };

const MOST_STEPS = 300;

export const startHistory = (present: Drive): DriveHistory => ({ past: [], present, future: [], group: null });

export function reduceHistory(history: DriveHistory, action: DriveAction): DriveHistory {
  const { past, present, future, group } = history;
  switch (action.type) {
    case 'edit': {
      const next = action.change(present);
      if (next === present) return history;
      const joins = action.group !== undefined && action.group === group;
      return {
        past: joins ? past : [...past, present].slice(-MOST_STEPS),
        present: next,
        future: [],
        group: action.group ?? null,
      };
    }
    case 'undo':
      return past.length === 0
        ? history
        : { past: past.slice(0, -1), present: past[past.length - 1]!, future: [present, ...future], group: null };
    case 'redo':
      return future.length === 0
        ? history
        : { past: [...past, present], present: future[0]!, future: future.slice(1), group: null };
    case 'replace':
      return { past: [...past, present].slice(-MOST_STEPS), present: action.drive, future: [], group: null };
  }
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
