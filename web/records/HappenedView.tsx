import { grouped } from '@emery/core/quantity';
import { DownloadOutlined } from '@ant-design/icons';
import { Button } from 'antd';
import { Link } from 'react-router';
import { useRecords } from '../api/records';
import { MoreButton } from './MoreButton';
import { OldBelts } from './OldBelts';
import { StoryRow } from './StoryRow';

/** History in the whole shop, latest first. */
export function HappenedView({ search }: { search: string }) {
  const list = useRecords(search);
  const records = list.data?.pages.flatMap((page) => page.records) ?? [];
  const first = list.data?.pages[0];
  const query = `search=${encodeURIComponent(search)}`;
  return (
    <>
      <div className="answer">
        <div className="answer-figure">
          {first ? grouped(first.total) : '–'}{' '}
          <span className="answer-other">{first?.total === 1 ? 'entry' : 'entries'}</span>
        </div>
        <div className="button-row is-after">
          <Button icon={<DownloadOutlined />} href={`/api/records/file.csv?${query}`} download>
            CSV
          </Button>
          <Button icon={<DownloadOutlined />} href={`/api/records/file.json?${query}`} download>
            JSON
          </Button>
        </div>
      </div>
      <OldBelts />
      <ul className="due-list" aria-label="History">
        {records.map((record) => (
          <StoryRow
            key={record.id}
            record={record}
            whose={
              <>
                <Link to={`/vehicles/${record.vehicleId}`}>{record.vehicleName}</Link>
                <span className="quiet">{[record.plate, record.driveName].filter(Boolean).join(' · ')}</span>
              </>
            }
          />
        ))}
      </ul>
      {list.isSuccess && records.length === 0 && <p className="shop-none">No entry matches.</p>}
      <MoreButton list={list} left={(first?.total ?? 0) - records.length} />
    </>
  );
}
