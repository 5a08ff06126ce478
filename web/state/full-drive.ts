import { createStore } from './store';
import { type Full, fullWords } from '@emery/core/drive';

/** Why the last edit was not made, and how often one was not, so that the same words are told anew. */
export interface Refused {
  text: string;
  times: number;
}

/** An edit that the drive has no room for, until one is made. */
export const refusedEdit = createStore<Refused | null>(null);

/** True until the end of what runs now, once an edit has been refused. */
let refusing = false;

export function refuseEdit(full: Full): void {
  refusing = true;
  setTimeout(() => (refusing = false), 0);
  refusedEdit.set({ text: fullWords(full), times: (refusedEdit.get()?.times ?? 0) + 1 });
}

/** A form forgets what was typed when it has given its edit on; where that was refused just now, it keeps it. */
export const isRefusing = (): boolean => refusing;
