import { grouped } from '@emery/core/quantity';
import { DownloadOutlined } from '@ant-design/icons';
import { App as AntApp, Button, Spin } from 'antd';
import { useState } from 'react';
import { Link, useParams } from 'react-router';
import { useJobs } from '../api/jobs';
import { useRecords } from '../api/records';
import { useSavedDrive, useShop, useVehicle } from '../api/shop';
import { Thumbnail } from '../bench/Thumbnail';
import { fileNameOf } from '../card/CardPage';
import { download } from '../card/card-files';
import { UnitSwitch } from '../shop/UnitSwitch';
import { DistanceCharts } from './DistanceCharts';
import { DueRow } from './DueRow';
import { MoreButton } from './MoreButton';
import { storyPdf } from './story-pdf';
import { StoryRow } from './StoryRow';
import '../bench/bench.css';
import '../ui/ledger.css';
import '../shop/shop.css';
import './records.css';
import type { DriveListed, VehicleListed } from '@emery/core/api';
import { PageHeader } from '../ui/PageHeader';
import { useTitle } from '../ui/use-title';

/** The story of one vehicle: what is due, how its belts wear and hold their tension, and all that was done. */
export default function VehiclePage() {
  const { vehicleId = '' } = useParams();
  const { data: vehicle, error } = useVehicle(vehicleId);
  useTitle(vehicle?.name);
  if (error) return <p className="shop-none">{error.message}</p>;
  if (!vehicle) return <Spin className="page-spin" />;
  const facts = [
    vehicle.plate,
    vehicle.odometer === null ? '' : `${grouped(vehicle.odometer)} ${vehicle.odometerUnit}`,
  ].filter(Boolean);
  return (
    <div className="shop records">
      <PageHeader>
        <h1 className="shop-name">
          {vehicle.name}
          {facts.length > 0 && ` · ${facts.join(' · ')}`}
        </h1>
        <span className="header-tools">
          <UnitSwitch />
        </span>
      </PageHeader>
      <main className="records-main">
        <Dues vehicle={vehicle} />
        <Jobs vehicle={vehicle} />
        {vehicle.drives.map((drive) => (
          <Drive key={drive.id} drive={drive} vehicle={vehicle} />
        ))}
        <Story vehicle={vehicle} />
      </main>
    </div>
  );
}

function Dues({ vehicle }: { vehicle: VehicleListed }) {
  const dues = vehicle.drives.flatMap((drive) => drive.dues.map((due) => ({ drive, due })));
  dues.sort((a, b) => ((a.due.expected ?? '9') < (b.due.expected ?? '9') ? -1 : 1));
  return (
    <section aria-label="Due">
      <h2>Due</h2>
      {dues.length === 0 && <p className="quiet">Nothing is due on this vehicle.</p>}
      <ul className="due-list">
        {dues.map(({ drive, due }, k) => (
          <DueRow
            key={k}
            due={due}
            driveId={drive.id}
            vehicle={{ odometer: vehicle.odometer, unit: vehicle.odometerUnit }}
            whose={<span className="quiet">{drive.name}</span>}
          />
        ))}
      </ul>
    </section>
  );
}

/** Jobs that are in hand. */
function Jobs({ vehicle }: { vehicle: VehicleListed }) {
  const { data } = useJobs({ vehicle: vehicle.id });
  const open = (data?.jobs ?? []).filter(({ signedAt }) => signedAt === null);
  if (open.length === 0) return null;
  return (
    <section aria-label="Open jobs">
      <h2>Open jobs</h2>
      <ul className="due-list">
        {open.map((job) => (
          <li key={job.id} className="due-row">
            <span className="due-when">
              <strong>{job.startedAt.slice(0, 10)}</strong>
            </span>
            <span className="due-what">
              <Link to={`/jobs/${job.id}`}>Continue the job</Link>
              {job.startedBy && <span className="quiet">started by {job.startedBy}</span>}
            </span>
            <span className="due-whose quiet">{job.name}</span>
          </li>
        ))}
      </ul>
      {data && data.total > data.jobs.length && (
        <p className="quiet">
          Searched in the last {data.jobs.length} of {data.total} jobs of this vehicle.
        </p>
      )}
    </section>
  );
}

/** A drive with what its belts did over the distance. */
function Drive({ drive, vehicle }: { drive: DriveListed; vehicle: VehicleListed }) {
  const { data } = useSavedDrive(drive.id);
  return (
    <section className="sheet vehicle-drive" aria-label={drive.name}>
      <div className="vehicle-drive-head">
        <Thumbnail sketch={drive.sketch} label={`Drawing of ${drive.name}`} />
        <div>
          <h2>
            <Link to={`/drives/${drive.id}`}>{drive.name}</Link>
          </h2>
          <p className="job-links">
            <Link to={`/drives/${drive.id}/job`}>Job card</Link>
            <Link to={`/drives/${drive.id}/glovebox`}>Glovebox card</Link>
          </p>
        </div>
      </div>
      {data && <DistanceCharts drive={data.document} vehicleUnit={vehicle.odometerUnit} />}
    </section>
  );
}

function Story({ vehicle }: { vehicle: VehicleListed }) {
  const list = useRecords('', vehicle.id);
  const shop = useShop();
  const records = list.data?.pages.flatMap((page) => page.records) ?? [];
  const total = list.data?.pages[0]?.total ?? 0;
  const { message } = AntApp.useApp();
  const [busy, setBusy] = useState(false);
  const makePdf = async () => {
    setBusy(true);
    try {
      const name = fileNameOf(vehicle.name, 'story');
      download(`${name}.pdf`, await storyPdf(vehicle, shop.data?.name ?? '', records), 'application/pdf');
    } catch (problem) {
      void message.error(`The PDF was not made: ${(problem as Error).message}.`);
    } finally {
      setBusy(false);
    }
  };
  return (
    <section aria-label="History">
      <div className="block-head">
        <h2>History</h2>
        <div className="button-row">
          <Button icon={<DownloadOutlined />} href={`/api/records/file.csv?vehicle=${vehicle.id}`} download>
            CSV
          </Button>
          <Button icon={<DownloadOutlined />} href={`/api/records/file.json?vehicle=${vehicle.id}`} download>
            JSON
          </Button>
          <Button icon={<DownloadOutlined />} loading={busy} onClick={() => void makePdf()}>
            PDF
          </Button>
        </div>
      </div>
      <ul className="due-list">
        {records.map((record) => (
          <StoryRow key={record.id} record={record} whose={<span className="quiet">{record.driveName}</span>} />
        ))}
      </ul>
      {list.isSuccess && records.length === 0 && (
        <p className="quiet">No entries yet. Readings, inspections, repairs and jobs appear here.</p>
      )}
      <MoreButton list={list} left={total - records.length} />
    </section>
  );
}
