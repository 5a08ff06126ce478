import { beginDrive } from '../offline/begun';
import { useDistanceUnit, useUnit } from '../habits/habits';
import { DownloadOutlined, EllipsisOutlined, PlusOutlined, SearchOutlined, UploadOutlined } from '@ant-design/icons';
import { App as AntApp, Button, Dropdown, Input, Progress, Spin } from 'antd';
import { memo, useDeferredValue, useMemo, useRef, useState, type DragEvent } from 'react';
import { Link, useNavigate } from 'react-router';
import { OnMyPhone } from '../access/OnMyPhone';
import { ask } from '../api/client';
import { newSaveId, useDeleted, useShop, useShopChange, useVehicles } from '../api/shop';
import { Thumbnail } from '../bench/Thumbnail';
import { LengthFigure } from '../ui/LengthFigure';
import { hasTyped, TypedPlace } from '../ui/typed-text';
import type { FreshDrive } from './NewDriveForm';
import { bringIn, broughtInWords } from './read-files';
import { useToday } from '../records/use-today';
import { UnitSwitch } from './UnitSwitch';
import { NEW_VEHICLE, VehicleForm, type VehicleSave } from './VehicleForm';
import { BackupLine, BackupLink } from '../keep/BackupLine';
import { lazyPart } from '../parts/lazy-part';
import { MoveDrive } from './MoveDrive';
import '../bench/bench.css';
import '../ui/ledger.css';
import './shop.css';
import type { DriveListed, VehicleListed } from '@emery/core/api';
import { type LengthUnit, uncapital, grouped } from '@emery/core/quantity';
import { dueState } from '@emery/core/records';
import { Dialog } from '../ui/Dialog';
import { foldWords } from './words';
import { useTitle } from '../ui/use-title';
import { PageHeader } from '../ui/PageHeader';

const ShopLimits = lazyPart('The limits of the shop', () => import('./ShopLimits'));
const NewDriveForm = lazyPart('The form for a new drive', () => import('./NewDriveForm'));

/** All vehicles of the shop with their drives. */
export default function ShopPage() {
  const [search, setSearch] = useState('');
  const wanted = useDeferredValue(search.trim());
  const shop = useShop();
  const list = useVehicles(wanted);
  // What was being written when the page went away opens again with it.
  const [making, setMaking] = useState(() => hasTyped(NEW_PLACE));
  const [drawing, setDrawing] = useState(() => hasTyped(LOOSE_PLACE));
  const [showDeleted, setShowDeleted] = useState(false);
  const [showLimits, setShowLimits] = useState(false);
  const change = useShopChange((run: () => Promise<unknown>) => run());
  const listed = useMemo(() => list.data?.pages.flatMap((page) => page.vehicles) ?? [], [list.data]);
  // Drawn between what else there is to do: a shop of many drives holds up no finger.
  const vehicles = useDeferredValue(listed, NO_VEHICLES);
  const total = list.data?.pages[0]?.total ?? 0;
  const importing = useImport();
  const unit = useUnit();
  const distance = useDistanceUnit();

  useTitle(shop.data?.name ?? 'Shop');
  return (
    <div className="shop" onDragOver={(event) => event.preventDefault()} onDrop={importing.onDrop}>
      <PageHeader home>
        <h1 className="shop-name">{shop.data?.name}</h1>
        <span className="header-tools">
          <UnitSwitch />
          <OnMyPhone />
        </span>
      </PageHeader>
      <div className="shop-bar">
        <Input
          className="shop-search"
          prefix={<SearchOutlined />}
          allowClear
          value={search}
          placeholder="Vehicle, plate, note or drive"
          aria-label="Search the shop"
          onChange={(event) => setSearch(event.target.value)}
        />
        <Link to="/counter" className="button-link is-button">
          Counter
        </Link>
        <Button icon={<PlusOutlined />} onClick={() => setMaking(true)}>
          Add vehicle
        </Button>
        <Button icon={<PlusOutlined />} onClick={() => setDrawing(true)}>
          New drive
        </Button>
        <Button icon={<UploadOutlined />} onClick={importing.choose}>
          Import
        </Button>
        <Button icon={<DownloadOutlined />} href="/api/export" download disabled={total === 0}>
          Export all
        </Button>
        <Link to="/records/due" className="button-link">
          Due and records
        </Link>
        <Link to="/belts" className="button-link">
          Belts in stock
        </Link>
        <Link to="/devices" className="button-link">
          Devices
        </Link>
        {importing.input}
      </div>
      <main className="shop-list" aria-busy={list.isFetching}>
        <BackupLine />
        {list.error && listed.length === 0 && (
          <p className="finding is-fault" role="alert">
            <strong>The shop could not be loaded.</strong> {list.error.message}{' '}
            <Button onClick={() => void list.refetch()}>Try again</Button>
          </p>
        )}
        {list.isPending && <Spin className="page-spin" />}
        {vehicles.map((vehicle) => (
          <VehicleRow key={vehicle.id} vehicle={vehicle} unit={unit} search={wanted} />
        ))}
        {list.isSuccess &&
          listed.length === 0 &&
          (wanted === '' ? (
            <EmptyShop
              onMake={() => setMaking(true)}
              onDraw={() => setDrawing(true)}
              onDemo={() => change.mutate(() => ask('POST', '/shop/demo'))}
            />
          ) : (
            <p className="shop-none">
              Nothing in the shop matches "{wanted}". The search covers names, plates, notes and drives.
            </p>
          ))}
        {list.hasNextPage && (
          <Button block loading={list.isFetchingNextPage} onClick={() => void list.fetchNextPage()}>
            Show more ({total - listed.length} left)
          </Button>
        )}
        <div className="button-row">
          <Button type="link" onClick={() => setShowDeleted(true)}>
            Deleted vehicles and drives
          </Button>
          <Button type="link" onClick={() => setShowLimits(true)}>
            Limits of the shop
          </Button>
          <BackupLink />
        </div>
      </main>
      {making && (
        <TypedPlace at={NEW_PLACE}>
          <VehicleForm
            title="New vehicle"
            start={{ ...NEW_VEHICLE, odometerUnit: distance }}
            revision={0}
            onClose={() => setMaking(false)}
            onSave={({ fields, saveId }) =>
              change.mutateAsync(() => ask('POST', '/vehicles', { ...fields, id: saveId }))
            }
          />
        </TypedPlace>
      )}
      {drawing && (
        <TypedPlace at={LOOSE_PLACE}>
          <NewDrive vehicle={null} onClose={() => setDrawing(false)} />
        </TypedPlace>
      )}
      {showLimits && <ShopLimits onClose={() => setShowLimits(false)} />}
      {showDeleted && <DeletedList onClose={() => setShowDeleted(false)} />}
    </div>
  );
}

function EmptyShop({ onMake, onDraw, onDemo }: { onMake: () => void; onDraw: () => void; onDemo: () => void }) {
  return (
    <div className="shop-none">
      <h2>No vehicle in the shop yet</h2>
      <p>One question? Ask it at the counter. Otherwise add the vehicle, or draw a drive and assign it later.</p>
      <div className="button-row">
        <Link to="/counter" className="button-link is-button">
          To the counter
        </Link>
        <Button onClick={onMake}>Add vehicle</Button>
        <Button onClick={onDraw}>New drive</Button>
        <Button onClick={onDemo}>Load the demo vehicles</Button>
      </div>
    </div>
  );
}

/** Runs a delete and offers the way back. */
function useDelete() {
  const { notification } = AntApp.useApp();
  const change = useShopChange((run: () => Promise<unknown>) => run());
  return async (name: string, path: string) => {
    try {
      // Awaited, not given as callbacks: those are dropped once the deleted row itself has left the screen.
      await change.mutateAsync(() => ask('DELETE', path));
    } catch (error) {
      notification.error({ title: `${name} was not deleted`, description: (error as Error).message });
      return;
    }
    const key = newSaveId();
    const bringBack = () => {
      notification.destroy(key);
      change.mutate(() => ask('POST', `${path}/restore`));
    };
    notification.open({
      key,
      title: `${name} is deleted`,
      duration: 12,
      actions: (
        <Button type="primary" onClick={bringBack}>
          Undo
        </Button>
      ),
    });
  };
}

const NEW_PLACE = 'new vehicle';
/** A drive of no vehicle yet. */
const LOOSE_PLACE = 'new drive';

const NO_VEHICLES: VehicleListed[] = [];

/** A vehicle with more drives than this shows the first few until it is asked for all. */
const MOST_DRIVES = 6;
const FIRST_DRIVES = 4;

/** The drives of a vehicle that are shown at first: those that were searched for, then the last that were changed. */
function firstDrives(drives: readonly DriveListed[], search: string): readonly DriveListed[] {
  if (drives.length <= MOST_DRIVES) return drives;
  const words = search.toLowerCase().split(/\s+/).filter(Boolean);
  const named = ({ name }: DriveListed) => words.length > 0 && words.some((word) => name.toLowerCase().includes(word));
  const found = drives.filter(named);
  return [...found, ...drives.filter((drive) => !named(drive))].slice(
    0,
    Math.max(FIRST_DRIVES, Math.min(found.length, MOST_DRIVES)),
  );
}

interface VehicleRowProps {
  vehicle: VehicleListed;
  unit: LengthUnit;
  /** What was searched for. */
  search: string;
}

const VehicleRow = memo(function VehicleRow({ vehicle, unit, search }: VehicleRowProps) {
  const place = `vehicle ${vehicle.id}`;
  const [editing, setEditing] = useState(() => hasTyped(`${place}/vehicle`));
  const [making, setMaking] = useState(() => hasTyped(`${place}/drive`));
  const [all, setAll] = useState(false);
  const change = useShopChange((run: () => Promise<unknown>) => run());
  const remove = useDelete();
  const first = firstDrives(vehicle.drives, search);
  const { id, name, plate, odometer, odometerUnit, notes, revision, drives } = vehicle;
  const facts = [plate, odometer === null ? '' : `${grouped(odometer)} ${odometerUnit}`].filter(Boolean);

  const saveFields = ({ fields, ...save }: VehicleSave) =>
    change.mutateAsync(() => ask('PUT', `/vehicles/${id}`, { ...fields, ...save }));

  return (
    <section className="vehicle sheet" aria-label={name}>
      <div className="vehicle-head">
        <h2>
          <Link to={`/vehicles/${id}`}>{name}</Link>
        </h2>
        {facts.length > 0 && <p className="vehicle-facts">{facts.join(' · ')}</p>}
        {notes && <p className="vehicle-notes">{notes}</p>}
        <div className="button-row">
          <Button onClick={() => setEditing(true)}>Edit</Button>
          <Dropdown
            trigger={['click']}
            menu={{
              items: [
                { key: 'copy', label: 'Duplicate vehicle' },
                { key: 'export', label: 'Export its drives', disabled: drives.length === 0 },
                { key: 'delete', label: 'Delete vehicle', danger: true },
              ],
              onClick: ({ key }) => {
                if (key === 'copy') change.mutate(() => ask('POST', `/vehicles/${id}/duplicate`));
                else if (key === 'export')
                  window.location.assign(`/api/export?drives=${drives.map((drive) => drive.id).join(',')}`);
                else void remove(name, `/vehicles/${id}`);
              },
            }}
          >
            <Button icon={<EllipsisOutlined />} aria-label={`More for ${name}`} />
          </Dropdown>
        </div>
      </div>
      <div className="vehicle-drives">
        {(all ? drives : first).map((drive) => (
          <DriveTile key={drive.id} drive={drive} vehicle={vehicle} unit={unit} />
        ))}
        {first.length < drives.length && (
          <button type="button" className="drive-new" aria-expanded={all} onClick={() => setAll(!all)}>
            {foldWords(drives.length, all)}
          </button>
        )}
        <button type="button" className="drive-new" onClick={() => setMaking(true)}>
          <PlusOutlined aria-hidden /> New drive
        </button>
      </div>
      <TypedPlace at={place}>
        {editing && (
          <VehicleForm
            title={name}
            start={{ name, plate, odometer, odometerUnit, notes }}
            revision={revision}
            onClose={() => setEditing(false)}
            onSave={saveFields}
          />
        )}
        {making && <NewDrive vehicle={{ id, name }} onClose={() => setMaking(false)} />}
      </TypedPlace>
    </section>
  );
});

/** The form for a new drive, of a vehicle or of none yet; what it makes opens on the bench. */
function NewDrive({ vehicle, onClose }: { vehicle: { id: string; name: string } | null; onClose: () => void }) {
  const navigate = useNavigate();
  const make = async ({ document, look }: FreshDrive) => {
    const made = await beginDrive(document, vehicle);
    void navigate(`/drives/${made.id}/survey`, { state: { fresh: true, look } });
  };
  return (
    <NewDriveForm
      vehicle={vehicle && vehicle.name}
      onClose={onClose}
      onMake={make}
      onString={() => void navigate('/counter/string')}
    />
  );
}

const STATES = { fault: ['is-fault', '■ unfinished'], watch: ['is-watch', '▲ check it'], note: ['', ''] } as const;

function DriveTile({ drive, vehicle: owner, unit }: { drive: DriveListed; vehicle: VehicleListed; unit: LengthUnit }) {
  const vehicle = owner.name;
  const change = useShopChange((run: () => Promise<unknown>) => run());
  const remove = useDelete();
  const [moving, setMoving] = useState(false);
  const { id, name, sketch } = drive;
  const [state, word] = sketch.worst ? STATES[sketch.worst] : ['', ''];
  return (
    <div className="drive-tile">
      <Link to={`/drives/${id}`} aria-label={`Open ${name} of ${vehicle}`}>
        <Thumbnail sketch={sketch} label={`Drawing of ${name}`} />
        <span className="drive-name">{name}</span>
        <span className="drive-belts">
          {sketch.belts.map(({ id: belt, section, ribs, lengthMm }) => (
            <span key={belt}>
              <strong>{lengthMm === null ? 'no length yet' : <LengthFigure mm={lengthMm} unit={unit} />}</strong>{' '}
              <span className="drive-section">{ribs ? `${ribs} ribs ${section}` : section}</span>
            </span>
          ))}
        </span>
        <span className="drive-flags">
          {word && <span className={`flag ${state}`}>{word}</span>}
          <DueFlags dues={drive.dues} vehicle={owner} />
        </span>
      </Link>
      <Dropdown
        trigger={['click']}
        menu={{
          items: [
            { key: 'copy', label: 'Duplicate drive' },
            { key: 'move', label: 'Move to another vehicle' },
            { key: 'export', label: 'Export drive' },
            { key: 'delete', label: 'Delete drive', danger: true },
          ],
          onClick: ({ key }) => {
            if (key === 'copy') change.mutate(() => ask('POST', `/drives/${id}/duplicate`));
            else if (key === 'move') setMoving(true);
            else if (key === 'export') window.location.assign(`/api/drives/${id}/file`);
            else void remove(name, `/drives/${id}`);
          },
        }}
      >
        <Button
          type="text"
          className="drive-more"
          icon={<EllipsisOutlined />}
          aria-label={`More for ${name} of ${vehicle}`}
        />
      </Dropdown>
      {moving && <MoveDrive drive={drive} onClose={() => setMoving(false)} />}
    </div>
  );
}

/** So much of what is due is told at a drive; the list of what is due has it all. */
const MOST_FLAGS = 2;

/** What is due at a drive, now or soon, the first to come first. */
function DueFlags({
  dues,
  vehicle: { odometer, odometerUnit },
}: {
  dues: DriveListed['dues'];
  vehicle: Pick<VehicleListed, 'odometer' | 'odometerUnit'>;
}) {
  const today = useToday();
  const near = dues
    .map((due) => ({ due, state: dueState(due, today, { odometer, unit: odometerUnit }) }))
    .filter(({ state }) => state === 'due' || state === 'soon');
  return near.slice(0, MOST_FLAGS).map(({ due, state }, k) => (
    <span key={k} className={`flag ${state === 'due' ? 'is-watch' : ''}`}>
      {state === 'due' ? `▲ Due: ${uncapital(due.text)}` : `● ${due.text}, ${due.expected}`}
    </span>
  ));
}

/** Choosing or dropping drive files, and what came of it. */
function useImport() {
  const input = useRef<HTMLInputElement>(null);
  const { notification } = AntApp.useApp();
  const change = useShopChange(({ files, signal }: { files: readonly File[]; signal: AbortSignal }) =>
    bringIn(files, signal),
  );
  const take = (files: FileList | null) => {
    if (!files || files.length === 0) return;
    const calling = new AbortController();
    const key = newSaveId();
    // A whole shop takes its time; a file or two are in before this would be read.
    const timer = setTimeout(
      () =>
        notification.open({
          key,
          title: `Importing ${files.length === 1 ? files[0]!.name : `${files.length} files`}`,
          description: <Progress percent={100} status="active" showInfo={false} aria-label="Import in progress" />,
          duration: 0,
          closable: false,
          actions: <Button onClick={() => calling.abort()}>Cancel</Button>,
        }),
      800,
    );
    change.mutate(
      { files: [...files], signal: calling.signal },
      {
        onSuccess: (brought) => notification.success({ title: 'Imported', description: broughtInWords(brought) }),
        onError: (error) =>
          notification.error({
            title: 'Nothing was imported',
            description: calling.signal.aborted ? 'Cancelled.' : error.message,
            duration: 0,
          }),
        onSettled: () => {
          clearTimeout(timer);
          notification.destroy(key);
        },
      },
    );
  };
  return {
    choose: () => input.current?.click(),
    onDrop: (event: DragEvent) => {
      event.preventDefault();
      take(event.dataTransfer.files);
    },
    input: (
      <input
        ref={input}
        type="file"
        hidden
        multiple
        accept=".json,.zip,.ZIP"
        aria-label="Drive files to import"
        onChange={(event) => {
          take(event.target.files);
          event.target.value = '';
        }}
      />
    ),
  };
}

function DeletedList({ onClose }: { onClose: () => void }) {
  const { data } = useDeleted(true);
  const change = useShopChange((run: () => Promise<unknown>) => run());
  const rows = [
    ...(data?.vehicles.map(({ id, name, plate }) => ({
      id,
      path: `/vehicles/${id}`,
      text: [name, plate].filter(Boolean).join(' · '),
    })) ?? []),
    ...(data?.drives.map(({ id, name }) => ({ id, path: `/drives/${id}`, text: `${name} (drive)` })) ?? []),
  ];
  return (
    <Dialog title="Deleted vehicles and drives" onClose={onClose}>
      {data && rows.length === 0 && <p>Nothing is deleted.</p>}
      <ul className="deleted">
        {rows.map(({ id, path, text }) => (
          <li key={id}>
            <span>{text}</span>
            <Button onClick={() => change.mutate(() => ask('POST', `${path}/restore`))}>Restore</Button>
          </li>
        ))}
      </ul>
      {data && data.total > rows.length && (
        <p className="quiet">
          The last {rows.length} of {data.total} deleted.
        </p>
      )}
    </Dialog>
  );
}
