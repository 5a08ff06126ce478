import { useEffect, useState } from 'react';
import { timeOfDay } from '../ui/day-and-time';
import type { SaveState } from '../state/drive-saver';

const WAITS_FOR = {
  server: 'Server not reachable, trying again',
  room: "The server's disk is full, trying again",
  'sign-in': 'Sign in to save it',
} as const;

/** The header's word on what is saved. */
export function SaveSign({ state, kept }: { state: SaveState; kept: boolean }) {
  const here = kept ? 'Kept on this device.' : 'Not kept on this device: leave this page open.';
  const text = {
    saved: () => (state.kind === 'saved' && state.at ? `Saved ${timeOfDay(state.at)}` : 'Saved'),
    saving: () => (kept ? 'Saving …' : 'Saving … Not kept on this device'),
    waiting: () => (state.kind === 'waiting' ? `▲ ${here} ${WAITS_FOR[state.for]}` : ''),
    refused: () => `■ Not saved. ${here}`,
    gone: () => `■ This drive was deleted${kept ? '' : '. Not kept on this device'}`,
  }[state.kind]();
  // A flicker of "Saving" for every nudge would be noise; it shows once a save takes its time.
  const [shown, setShown] = useState(text);
  useEffect(() => {
    const timer = setTimeout(() => setShown(text), state.kind === 'saving' ? 600 : 0);
    return () => clearTimeout(timer);
  }, [text, state.kind]);
  return (
    <span className={`save-sign is-${state.kind}`} role="status" data-save={state.kind}>
      {shown}
    </span>
  );
}
