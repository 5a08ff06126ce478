import { grouped } from '@emery/core/quantity';
import { CalendarOutlined, CopyOutlined } from '@ant-design/icons';
import { App as AntApp, Button } from 'antd';
import { Link } from 'react-router';
import { useDues } from '../api/records';
import { DueRow } from './DueRow';
import { MoreButton } from './MoreButton';
import type { DueListed } from '@emery/core/api';
import { DEFAULT_KM_A_YEAR, SOON_DAYS } from '@emery/core/records';

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
      void message.success('Address copied.');
    } catch {
      void message.info(feed);
    }
  };
  return (
    <>
      <div className="answer" data-testid="due-answer">
        <div className="answer-figure">
          {first?.due ?? '–'} <span className="answer-other">due now,</span>{' '}
          {first?.soon === 0 ? 'none' : (first?.soon ?? '–')}{' '}
          <span className="answer-other">in the next {SOON_DAYS} days</span>
        </div>
        <div className="answer-note">
          By day, or by odometer at each vehicle&rsquo;s usual distance: from its readings, or{' '}
          {grouped(DEFAULT_KM_A_YEAR)} km a year where there are none (a default).
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
            ? 'Nothing is due. Records from Tension, Noise, Inspect and jobs appear here when they are due.'
            : `Nothing due matches "${search}".`}
        </p>
      )}
      <MoreButton list={list} left={(first?.total ?? 0) - dues.length} />
    </>
  );
}

function DueList({ dues }: { dues: readonly DueListed[] }) {
  return (
    <ul className="due-list" aria-label="Due">
      {dues.map((due) => (
        <DueRow
          key={due.id}
          due={due}
          driveId={due.driveId}
          vehicle={{ odometer: due.vehicleOdometer, unit: due.odometerUnit }}
          whose={
            <>
              <Link to={`/vehicles/${due.vehicleId}`}>{due.vehicleName}</Link>
              <span className="quiet">{[due.plate, due.driveName].filter(Boolean).join(' · ')}</span>
            </>
          }
        />
      ))}
    </ul>
  );
}
