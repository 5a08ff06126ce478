import { CalendarOutlined, CopyOutlined } from '@ant-design/icons';
import { App as AntApp, Button } from 'antd';
import { Link } from 'react-router';
import { useDues } from '../api/records';
import { MoreButton } from './MoreButton';
import { useToday } from './use-today';
import type { DueListed } from '@emery/core/api';
import { DUE_STATE_WORDS, dueBy, type DueKind, dueState, SOON_DAYS } from '@emery/core/records';

/** Where one goes to put a thing right. */
export const STAGE_OF_DUE: Record<DueKind, string> = {
  change: 'job',
  'set-again': 'tension',
  look: 'tension',
  listen: 'noise',
  wear: 'inspect',
  life: 'inspect',
};

/** What is due, the first to come first. */
export function DueView({ search }: { search: string }) {
  const list = useDues(search);
  const dues = list.data?.pages.flatMap((page) => page.dues) ?? [];
  const first = list.data?.pages[0];
  const { message } = AntApp.useApp();
  const feed = `${window.location.origin}/api/records/due.ics`;
  const copy = async () => {
    try {
      await navigator.clipboard.writeText(feed);
      void message.success('The address is copied.');
    } catch {
      void message.info(feed);
    }
  };
  return (
    <>
      <div className="answer" data-testid="due-answer">
        <div className="answer-figure">
          {first?.due ?? '–'} <span className="answer-other">due</span> {first?.soon ?? '–'}{' '}
          <span className="answer-other">within {SOON_DAYS} days</span>
        </div>
        <div className="answer-note">
          By day, or by odometer at each vehicle&rsquo;s usual use: the slope of its readings, or 15,000 km a year where
          there are none (a default).
        </div>
        <div className="button-row is-after">
          <Button icon={<CalendarOutlined />} href="/api/records/due.ics" download>
            Calendar file
          </Button>
          <Button icon={<CopyOutlined />} onClick={() => void copy()}>
            Address of the feed
          </Button>
        </div>
      </div>
      <DueList dues={dues} />
      {list.isSuccess && dues.length === 0 && (
        <p className="shop-none">
          {search === ''
            ? 'Nothing is due. What is written down of belts under Tension, Noise, Inspect and in jobs comes up here.'
            : `Nothing that is due matches "${search}".`}
        </p>
      )}
      <MoreButton list={list} left={(first?.total ?? 0) - dues.length} />
    </>
  );
}

function DueList({ dues }: { dues: readonly DueListed[] }) {
  const today = useToday();
  return (
    <ul className="due-list" aria-label="What is due">
      {dues.map((due) => {
        const state = dueState(due, today, { odometer: due.vehicleOdometer, unit: due.odometerUnit });
        return <DueRow key={due.id} due={due} state={state} />;
      })}
    </ul>
  );
}

function DueRow({ due, state }: { due: DueListed; state: keyof typeof DUE_STATE_WORDS }) {
  const { mark, word } = DUE_STATE_WORDS[state];
  return (
    <li className={`due-row is-${state.replace(' ', '-')}`}>
      <span className="due-when">
        <strong>{due.expected ?? 'no day'}</strong>
        <span className={`flag ${state === 'due' ? 'is-watch' : ''}`}>
          {mark} {word}
        </span>
      </span>
      <span className="due-what">
        <Link to={`/drives/${due.driveId}/${STAGE_OF_DUE[due.kind]}`}>{due.text}</Link>
        <span className="quiet">{dueBy(due, due.odometerUnit)}</span>
      </span>
      <span className="due-whose">
        <Link to={`/vehicles/${due.vehicleId}`}>{due.vehicleName}</Link>
        <span className="quiet">{[due.plate, due.driveName].filter(Boolean).join(' · ')}</span>
      </span>
    </li>
  );
}
