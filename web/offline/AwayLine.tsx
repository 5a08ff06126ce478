import { useSyncExternalStore } from 'react';
import { unsentDrives, unsentListeners } from '../state/open-drives';
import { useStore } from '../state/store';
import { PlainButton } from '../ui/PlainButton';
import { DAY_AND_TIME } from '../ui/day-and-time';
import { serverAway, shownFrom } from './away';
import { begunWaiting, forgetBegun, sendWithoutVehicle } from './begun';
import { AWAY } from './words';
import './away.css';

/** Under the head of every page while the server is away: what is shown, and what waits. */
export function AwayLine() {
  const away = useStore(serverAway);
  const from = useStore(shownFrom);
  const { count, refused } = useStore(begunWaiting);
  const unsent = useSyncExternalStore(unsentListeners, unsentDrives);
  const waiting = Math.max(unsent, count);
  if (!away && refused) return <Refused {...refused} />;
  if (!away) return null;
  return (
    <p className="away-line" role="status">
      <strong>▲ {AWAY.away}</strong> {from && AWAY.kept(DAY_AND_TIME.format(from))}{' '}
      {waiting > 0 ? AWAY.waits(waiting) : AWAY.goesOn}
    </p>
  );
}

/** A drive that was begun here and not taken: it goes up without its vehicle, or is let go. */
function Refused({ id, problem }: { id: string; problem: string }) {
  return (
    <div className="away-line" role="alert">
      <p>■ {AWAY.refused(problem)}</p>
      <PlainButton onClick={() => void sendWithoutVehicle(id)}>{AWAY.withoutVehicle}</PlainButton>{' '}
      <PlainButton onClick={() => forgetBegun(id)}>{AWAY.discard}</PlainButton>
    </div>
  );
}
