import { useEffect, useEffectEvent } from 'react';
import { followed, moveTo, others } from '../live/here';
import { live } from '../live/messages';
import { useBenchStores } from '../state/bench';
import { atFieldSince } from '../state/at-field';
import { useStore } from '../state/store';

const NOWHERE = { drive: null, stage: '', part: '' };

/** Says at which stage of a drive this page is and what is in hand, and goes along with whoever is followed. */
export function useHere(drive: string, stage: string, goTo: (stage: string) => void): void {
  const { selection } = useBenchStores();
  const isLive = useStore(live);
  const mark = useStore(selection);
  const part = mark?.kind === 'pulley' ? mark.pulley : '';
  useEffect(() => moveTo({ drive, stage, part }), [drive, stage, part, isLive]);
  useEffect(() => () => moveTo(NOWHERE), []);
  const device = useStore(followed)?.device ?? null;
  const tab = useStore(others)
    .find((other) => other.device === device)
    ?.tabs.find((other) => other.drive === drive);
  const theirs = tab?.stage;
  // Once a move: who goes elsewhere by hand may stay there. Whoever is writing here is not taken away from it.
  const goAlong = useEffectEvent((next: string) => atFieldSince() === null && goTo(next));
  useEffect(() => {
    if (theirs) goAlong(theirs);
  }, [theirs]);
}
