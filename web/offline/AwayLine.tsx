import { useSyncExternalStore } from 'react';
import { unsentDrives, unsentListeners } from '../state/open-drives';
import { useStore } from '../state/store';
import { DAY_AND_TIME } from '../ui/day-and-time';
import { serverAway, shownFrom } from './away';
import { begunWaiting } from './begun';
import { AWAY } from './words';
import './away.css';

/** Under the head of every page while the server is away: what is shown, and what waits. */
export function AwayLine() {
  const away = useStore(serverAway);
  const from = useStore(shownFrom);
  const { count, problem } = useStore(begunWaiting);
  const unsent = useSyncExternalStore(unsentListeners, unsentDrives);
  const waiting = Math.max(unsent, count);
  if (!away && problem === null) return null;
  return (
    <p className="away-line" role="status">
      {problem !== null && !away ? (
        <>■ {AWAY.refused(problem)}</>
      ) : (
        <>
          <strong>▲ {AWAY.away}</strong> {from && AWAY.kept(DAY_AND_TIME.format(from))}{' '}
          {waiting > 0 ? AWAY.waits(waiting) : AWAY.goesOn}
        </>
      )}
    </p>
  );
}
