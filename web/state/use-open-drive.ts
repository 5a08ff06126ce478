import { useEffect, useState, useSyncExternalStore } from 'react';
import type { LeftOldDraft } from './draft-store';
import type { DriveHistory, DriveStore } from './drive-history';
import type { DriveSaver, SaveState } from './drive-saver';
import { onBench, openDrive, openDriveOf, type LeftDrafts, type OpenDrive } from './open-drives';
import type { DriveOpened } from '@emery/core/api';
import type { Question } from '@emery/core/together';

/**
 * The drive as this page has it: at once where something of it is unsent, else once `read` is there. Null until then.
 */
export function useOpenDrive(id: string, read: DriveOpened | undefined): OpenDrive | null {
  const [open, setOpen] = useState(() => openDriveOf(id));
  useEffect(() => {
    if (open) return onBench(open);
    if (!read) return;
    let gone = false;
    void openDrive(read).then((opened) => gone || setOpen(opened));
    return () => void (gone = true);
  }, [id, open, read]);
  return open;
}

export const useHistory = (store: DriveStore): DriveHistory => useSyncExternalStore(store.subscribe, store.get);
export const useSaveState = (saver: DriveSaver): SaveState => useSyncExternalStore(saver.subscribe, saver.getState);
export const useQuestions = (saver: DriveSaver): readonly Question[] =>
  useSyncExternalStore(saver.subscribe, saver.getQuestions);
export const useKept = (saver: DriveSaver): boolean => useSyncExternalStore(saver.subscribe, saver.isKept);
export const useLeftDrafts = (left: LeftDrafts): readonly LeftOldDraft[] =>
  useSyncExternalStore(left.subscribe, left.get);
