import { useEffect, useState, useSyncExternalStore } from 'react';
import type { Drive } from '@emery/core/drive';
import { ask } from '../api/client';
import { newSaveId, type DriveOpened } from '../api/shop';
import { createDriveStore, type DriveHistory, type DriveStore } from './drive-history';
import { DriveSaver, type SaveState } from './drive-saver';
import { holdPageName, openDraftStore, takeLeftDraft } from './draft-store';

const PAGE = newSaveId();
holdPageName(PAGE);

/** An open drive: its history, and the saver that follows every change of it. */
export interface OpenDrive {
  store: DriveStore;
  saver: DriveSaver;
}

/** Ties a drive read from the server to this page: takes up a draft left behind, saves every change, tries again when the network is back. */
export function useOpenDrive(opened: DriveOpened): OpenDrive | null {
  const [open, setOpen] = useState<OpenDrive | null>(null);
  useEffect(() => {
    let gone = false;
    let stop = () => undefined as void;
    void takeLeftDraft(opened.id).then((left) => {
      if (gone) return;
      const store = createDriveStore(opened.document);
      const saver = new DriveSaver({
        revision: opened.revision,
        draft: openDraftStore(opened.id, PAGE),
        send: (request) => ask('PUT', `/drives/${opened.id}`, request),
      });
      let last: Drive = opened.document;
      const unsubscribe = store.subscribe(() => {
        const { present } = store.get();
        if (present !== last) saver.change(present);
        last = present;
      });
      if (left && !sameDocument(left.document, opened.document)) {
        last = left.document;
        store.dispatch({ type: 'replace', drive: left.document });
        if (left.revision === opened.revision) saver.change(left.document);
        else saver.startInConflict(left.document, opened);
      }
      const nudge = () => saver.nudge();
      const warn = (event: BeforeUnloadEvent) => {
        // The draft holds it in any case; the question is for someone who is about to walk away from this machine.
        if (saver.getState().kind === 'waiting') event.preventDefault();
      };
      window.addEventListener('online', nudge);
      window.addEventListener('beforeunload', warn);
      document.addEventListener('visibilitychange', nudge);
      stop = () => {
        unsubscribe();
        saver.nudge();
        window.removeEventListener('online', nudge);
        window.removeEventListener('beforeunload', warn);
        document.removeEventListener('visibilitychange', nudge);
      };
      setOpen({ store, saver });
    });
    return () => {
      gone = true;
      stop();
    };
    // A drive is opened once; what the server says later comes through the saver.
    // eslint-disable-next-line react-hooks/exhaustive-deps
  }, [opened.id]);
  return open;
}

export const useHistory = (store: DriveStore): DriveHistory => useSyncExternalStore(store.subscribe, store.get);
export const useSaveState = (saver: DriveSaver): SaveState => useSyncExternalStore(saver.subscribe, saver.getState);

function sameDocument(a: Drive, b: Drive): boolean {
  return JSON.stringify(a) === JSON.stringify(b);
}
