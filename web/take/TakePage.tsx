import { useEffect, useState } from 'react';
import { Link, useParams } from 'react-router';
import { TAKE } from '../together/words';
import { TakeSheet } from './TakeSheet';
import { readTake } from './takes';
import type { Take } from '@emery/core/api';

/** The address of a request: a phone that had not Emery open scans it from the bench. */
export default function TakePage() {
  const { takeId = '' } = useParams();
  const [take, setTake] = useState<Take | null>(null);
  const [end, setEnd] = useState('');
  useEffect(() => {
    readTake(takeId).then(
      (found) => (found.state === 'done' || found.state === 'none' ? setEnd(TAKE.over) : setTake(found)),
      (error: Error) => setEnd(error.message),
    );
  }, [takeId]);
  return (
    <main className="take-page">
      {take && !end && (
        <TakeSheet take={take} onSent={() => setEnd(TAKE.sent)} onClose={() => setEnd(TAKE.cancelled)} />
      )}
      {end && <p role="status">{end}</p>}
      {end && <Link to="/">{TAKE.back}</Link>}
    </main>
  );
}
