import { App as AntApp, Button } from 'antd';
import { useMutation, useQueryClient } from '@tanstack/react-query';
import { useNavigate } from 'react-router';
import { ask } from '../api/client';
import { newSaveId } from '../api/shop';
import { outbox } from './outbox';
import { timeOf } from './Steps';
import type { JobInHand } from './use-job';
import { whoIsThere } from './who';
import type { JobOpened } from '@emery/core/api';
import { newDrive } from '@emery/core/drive';
import { eventWords, type JobEvent } from '@emery/core/job';

interface Props {
  /** Null where there is no such job any more: dropped by somebody, while this device was away. */
  job: JobOpened | null;
  hand: JobInHand;
}

/** By what entries of a job that is gone are told. */
const NO_SHEET = { drive: newDrive(''), steps: [] };

/** What is not with the server yet, and what it would not take. */
export function Waiting(props: Props) {
  const { queue } = props.hand;
  const count = queue.waiting.length;
  return (
    <>
      {count > 0 && (queue.problem || !queue.kept) && (
        <p className="finding is-watch" role="status">
          <strong>{count === 1 ? '1 entry waits' : `${count} entries wait`} on this device.</strong> {queue.problem}{' '}
          {queue.kept
            ? 'They are sent when the server is back, from any open Emery page on this device. You can close this page.'
            : 'This browser cannot store them: its storage is full or blocked. Keep this page open until they are sent.'}
        </p>
      )}
      {queue.refused && <Refused {...props} why={queue.refused.why} events={queue.refused.events} />}
    </>
  );
}

/** What was refused, whole: to be copied, put to another job, or let go. */
function Refused({ job, hand, why, events }: Props & { why: string; events: readonly JobEvent[] }) {
  const { message } = AntApp.useApp();
  const client = useQueryClient();
  const navigate = useNavigate();
  const lines = events.map(
    (event) =>
      `${[event.by, timeOf(event.at)].filter(Boolean).join(', ')}: ${eventWords(job?.sheet ?? NO_SHEET, event)}`,
  );
  const several = events.length > 1;
  const copy = async () => {
    try {
      await navigator.clipboard.writeText(lines.join('\n'));
      void message.success('Copied.');
    } catch {
      void message.warning('This browser does not let Emery copy. Select the text and copy it by hand.');
    }
  };
  const move = useMutation({
    mutationFn: async (from: JobOpened) => {
      const next = await ask<JobOpened>('POST', '/jobs', {
        ...{ id: newSaveId(), driveId: from.driveId, sheet: from.sheet },
        ...{ by: whoIsThere(), at: new Date().toISOString() },
      });
      const queue = outbox.of(next.id);
      // Kept there before it is let go here.
      for (const event of events) queue.put({ ...event, id: newSaveId() });
      hand.forgetRefused(events.map(({ id }) => id));
      await client.invalidateQueries({ queryKey: ['jobs'] });
      void message.success('Added to a new job with the same card.');
      void navigate(`/jobs/${next.id}`);
    },
  });
  return (
    <section className="finding is-fault job-refused" role="alert" aria-label="Not saved">
      <p>
        <strong>{several ? `${events.length} entries were not saved.` : '1 entry was not saved.'}</strong> {why}{' '}
        {hand.queue.kept
          ? `${several ? 'They stay' : 'It stays'} on this device until you decide.`
          : 'This browser cannot store anything: keep this page open until you have decided.'}
      </p>
      <ul>
        {lines.map((line, k) => (
          <li key={events[k]!.id}>{line}</li>
        ))}
      </ul>
      <div className="button-row">
        {job && (
          <Button type="primary" loading={move.isPending} onClick={() => move.mutate(job)}>
            Add to a new job
          </Button>
        )}
        <Button onClick={() => void copy()}>Copy</Button>
        <Button danger onClick={() => hand.forgetRefused(events.map(({ id }) => id))}>
          Discard
        </Button>
      </div>
      {move.error && <p role="alert">The new job was not started: {move.error.message}</p>}
    </section>
  );
}
