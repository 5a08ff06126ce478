import { ask } from '../api/client';
import { upload } from '../api/upload';
import { whoIsThere } from '../jobs/who';
import { live, onLive, thisDevice } from '../live/messages';
import { createStore } from '../state/store';
import { TAKE } from '../together/words';
import type { KeptPicture } from '@emery/core/drive';
import type { HereDevice, Take, TakeKind } from '@emery/core/api';

/** What this device is asked to take, until it is taken or put away; null while nothing is. */
export const askedOfMe = createStore<Take | null>(null);

/** A device that may have asked or been asked while nobody listened looks so often, ms. */
const LOOK_MS = 2500;

onLive((message) => {
  if (message.kind !== 'take' || message.take.to !== thisDevice()) return;
  const { take } = message;
  // In the tab that is looked at, so that one camera opens and not three.
  if (take.state === 'asked' && document.visibilityState === 'visible') askedOfMe.set(take);
  if (take.state === 'none' && askedOfMe.get()?.id === take.id) askedOfMe.set(null);
});

/** The phones and tablets that have Emery open, besides this device. */
export async function phonesThere(): Promise<HereDevice[]> {
  const { devices } = await ask<{ devices: HereDevice[] }>('GET', '/live/here');
  return devices.filter(({ device, kind }) => device !== thisDevice() && kind !== 'computer');
}

/** What the bench has a phone take, and who gets it. */
export interface WithPhoneProps extends Asked {
  onPicture?: (picture: KeptPicture) => void;
  onSound?: (file: File) => void;
  onText?: (text: string) => void;
}

/** The same while the request is open. */
export interface PhoneTakeProps extends WithPhoneProps {
  onClose: () => void;
}

export interface Asked {
  kind: TakeKind;
  /** What for, in the bench's words, and the unit of a reading. */
  label: string;
  unit?: string;
}

/** Asks a phone, or whichever opens the request's address. */
export const askPhone = ({ kind, label, unit = '' }: Asked, to: string | null): Promise<Take> =>
  ask<Take>('POST', '/live/takes', {
    from: thisDevice(),
    to,
    by: whoIsThere(),
    kind,
    label: label.slice(0, 200),
    unit,
  });

/** Says how far it is. */
export const moveTake = (id: string, move: Partial<Pick<Take, 'state' | 'part' | 'result'>>): Promise<Take> =>
  ask<Take>('PATCH', `/live/takes/${id}`, move);

export const readTake = (id: string): Promise<Take> => ask<Take>('GET', `/live/takes/${id}`);

/** Follows a request until it is done or cannot be. Returns what ends that. */
export function followTake(id: string, changed: (take: Take) => void): () => void {
  const stop = onLive((message) => message.kind === 'take' && message.take.id === id && changed(message.take));
  const timer = setInterval(() => {
    if (!live.get()) readTake(id).then(changed, () => undefined);
  }, LOOK_MS);
  return () => {
    stop();
    clearInterval(timer);
  };
}

/** The sound that a phone recorded, as a file. */
export async function soundOfTake(id: string, name: string): Promise<File> {
  const answer = await fetch(`/api/live/takes/${id}/bytes`);
  if (!answer.ok) throw new Error(`${name}: ${answer.status}`);
  return new File([await answer.blob()], `${name}.wav`, { type: 'audio/wav' });
}

/** Hands a recording to the server, telling how much of it has gone, from 0 to 1. */
export const sendSound = (id: string, wav: Uint8Array, onShare: (share: number) => void): Promise<Take> =>
  upload({
    ...{ method: 'PUT', path: `/live/takes/${id}/bytes`, lost: TAKE.wrong, onShare },
    body: new Blob([wav as Uint8Array<ArrayBuffer>], { type: 'audio/wav' }),
  });
