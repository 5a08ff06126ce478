import { useUnit } from '../habits/habits';
import { DownloadOutlined } from '@ant-design/icons';
import { Button } from 'antd';
import { Link } from 'react-router';
import { useBeltsOn } from '../api/records';
import { MoreButton } from './MoreButton';
import type { BeltOn } from '@emery/core/api';
import { formatLength, type LengthUnit, grouped } from '@emery/core/quantity';

/** Every belt that is on, found in plain words; those that ran furthest first. */
export function BeltsOnView({ search }: { search: string }) {
  const list = useBeltsOn(search);
  const unit = useUnit();
  const belts = list.data?.pages.flatMap((page) => page.belts) ?? [];
  const first = list.data?.pages[0];
  const query = `search=${encodeURIComponent(search)}`;
  return (
    <>
      <div className="answer" data-testid="belts-answer">
        <div className="answer-figure">
          {first?.total ?? '–'} <span className="answer-other">{first?.total === 1 ? 'belt' : 'belts'}</span>
        </div>
        <div className="answer-note">
          {first?.understood ? `Understood: ${first.understood}.` : 'Every belt that is on.'} Search by ribs, section,
          distance and age in plain words, or by names, plates and numbers. The distance is known where the odometer was
          recorded at fitting.
        </div>
        <div className="button-row is-after">
          <Button icon={<DownloadOutlined />} href={`/api/records/belts.csv?${query}`} download>
            CSV
          </Button>
          <Button icon={<DownloadOutlined />} href={`/api/records/belts.json?${query}`} download>
            JSON
          </Button>
        </div>
      </div>
      <ul className="due-list" aria-label="Belts on">
        {belts.map((belt) => (
          <Row key={belt.id} belt={belt} unit={unit} />
        ))}
      </ul>
      {list.isSuccess && belts.length === 0 && <p className="shop-none">No belt in the shop matches.</p>}
      <MoreButton list={list} left={(first?.total ?? 0) - belts.length} />
    </>
  );
}

function Row({ belt, unit }: { belt: BeltOn; unit: LengthUnit }) {
  const fitted = [
    belt.fittedAt?.slice(0, 10),
    belt.fittedOdometer === null ? '' : `at ${grouped(belt.fittedOdometer)} ${belt.unit ?? belt.odometerUnit}`,
  ].filter(Boolean);
  return (
    <li className="due-row">
      <span className="due-when">
        <strong>{belt.ranKm === null ? 'not known' : `${grouped(Math.round(belt.ranKm))} km`}</strong>
        <span className="quiet">{belt.ranKm === null ? 'distance run' : 'ran'}</span>
      </span>
      <span className="due-what">
        <Link to={`/drives/${belt.driveId}/inspect`}>
          {belt.kind}
          {belt.lengthMm !== null && `, ${formatLength(belt.lengthMm, unit, 0)}`}
          {belt.number && `, number ${belt.number}`}
        </Link>
        <span className="quiet">
          {fitted.length === 0 ? 'Date of fitting not recorded' : `Fitted ${fitted.join(' ')}`}
        </span>
      </span>
      <span className="due-whose">
        <Link to={`/vehicles/${belt.vehicleId}`}>{belt.vehicleName}</Link>
        <span className="quiet">{[belt.plate, belt.driveName].filter(Boolean).join(' · ')}</span>
      </span>
    </li>
  );
}
