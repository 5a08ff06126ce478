import { useEffect, useState, useSyncExternalStore } from 'react';
import { Link, useLocation } from 'react-router';
import { PlainButton } from '../ui/PlainButton';
import { outbox, type Unsent } from './outbox';
import './outbox.css';

/** What is on its way is not told at once: most of it is with the server before anybody could read that it is not. */
const SOON_MS = 4000;

/** On every page: what waits on this device of any job, and what was not saved. A job's own page tells its own. */
export default function OutboxNotice() {
  const { pathname } = useLocation();
  const all = useSyncExternalStore(outbox.subscribe, outbox.get).filter(({ jobId }) => pathname !== `/jobs/${jobId}`);
  const waits = all.some(({ waiting }) => waiting.length > 0);
  const [long, setLong] = useState(false);
  useEffect(() => outbox.start(), []);
  useEffect(() => {
    if (!waits) return;
    const timer = setTimeout(() => setLong(true), SOON_MS);
    return () => {
      clearTimeout(timer);
      setLong(false);
    };
  }, [waits]);
  const shown = all.filter(({ refused }) => refused !== null || long);
  // Put out of the way, it stays so until there is something else to tell.
  const words = shown.map((unsent) => `${unsent.jobId} ${unsentWords(unsent)}`).join();
  const [hidden, setHidden] = useState('');
  if (shown.length === 0 || hidden === words) return null;
  return (
    <div className="outbox" role="status" aria-label="On this device">
      {shown.map((unsent) => (
        <p key={unsent.jobId}>
          <strong>{unsentWords(unsent)}</strong> {whatNow(unsent)} <Link to={`/jobs/${unsent.jobId}`}>The job</Link>
        </p>
      ))}
      <PlainButton onClick={() => setHidden(words)}>Hide</PlainButton>
    </div>
  );
}

/** What happens to them. */
function whatNow({ waiting, refused, kept }: Unsent): string {
  const single = waiting.length + (refused?.events.length ?? 0) === 1;
  if (!kept) return `This browser cannot store ${single ? 'it' : 'them'}: keep this page open.`;
  if (refused) return `${single ? 'It stays' : 'They stay'} on this device until you decide.`;
  return `${single ? 'It is' : 'They are'} sent while any Emery page is open on this device.`;
}

const entries = (count: number) => (count === 1 ? '1 entry' : `${count} entries`);

/** How many of a job's entries wait, and how many were not taken. */
export function unsentWords({ waiting, refused }: Pick<Unsent, 'waiting' | 'refused'>): string {
  const not = refused?.events.length ?? 0;
  return [
    ...(not > 0 ? [`${entries(not)} of a job ${not === 1 ? 'was' : 'were'} not saved.`] : []),
    ...(waiting.length > 0
      ? [`${entries(waiting.length)} of a job ${waiting.length === 1 ? 'waits' : 'wait'} on this device.`]
      : []),
  ].join(' ');
}
