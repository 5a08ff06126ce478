import { App as AntApp, Button, Input } from 'antd';
import { useState } from 'react';
import { ask, type ApiProblem } from '../api/client';
import { useAccessChange, useFeeds } from '../api/access';
import { TextField } from '../ui/TextField';
import { CALENDAR } from './words';
import type { FeedListed } from '@emery/core/api';

/** Secret addresses of what is due, for calendars that cannot sign in; each can be withdrawn. */
export function CalendarAddresses() {
  const { data } = useFeeds(true);
  const { message } = AntApp.useApp();
  const [label, setLabel] = useState('');
  const make = useAccessChange(() =>
    ask<FeedListed & { link: string }>('POST', '/access/feeds', { label: label.trim() }),
  );
  const withdraw = useAccessChange((id: string) => ask('DELETE', `/access/feeds/${id}`));
  const problem = make.error as ApiProblem | null;
  return (
    <section className="sheet" aria-label="Calendar addresses">
      <h2>{CALENDAR.title}</h2>
      <p className="quiet">{CALENDAR.why}</p>
      <ul className="rows">
        {data?.feeds.map(({ id, label: called, madeBy, lastAskedAt }) => (
          <li key={id} aria-label={called}>
            <strong className="row-name">{called}</strong>
            <span>made by {madeBy}</span>
            <span>{lastAskedAt === null ? 'never read' : `read ${lastAskedAt.slice(0, 10)}`}</span>
            <Button
              danger
              onClick={() => withdraw.mutate(id, { onError: (error) => void message.error(error.message) })}
            >
              Withdraw
            </Button>
          </li>
        ))}
      </ul>
      {make.data && (
        <div className="feed-made" role="status">
          <p>{CALENDAR.copy}</p>
          <Input
            readOnly
            value={make.data.link}
            aria-label="Secret address"
            onFocus={(event) => event.target.select()}
          />
        </div>
      )}
      <form
        className="feed-form"
        onSubmit={(event) => {
          event.preventDefault();
          make.mutate(undefined, { onSuccess: () => setLabel('') });
        }}
      >
        <TextField
          label="Whose calendar"
          value={label}
          max={80}
          problem={problem?.errors[0]?.message ?? problem?.message ?? ''}
          onChange={setLabel}
        />
        <Button htmlType="submit" disabled={label.trim() === ''} loading={make.isPending}>
          Make an address
        </Button>
      </form>
    </section>
  );
}
