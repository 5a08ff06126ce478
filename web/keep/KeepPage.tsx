import { Button, Progress, Spin } from 'antd';
import { useState } from 'react';
import { useMe } from '../api/access';
import { beginBackup, cancelBackup, chooseFolder, useHealth, useKeepChange } from '../api/keep';
import { DAY_AND_TIME } from '../ui/day-and-time';
import { PageHeader } from '../ui/PageHeader';
import { TextField } from '../ui/TextField';
import { useTitle } from '../ui/use-title';
import { agoText, HEALTH, KEEP } from './words';
import '../ui/ledger.css';
import '../shop/shop.css';
import '../devices/devices.css';
import './keep.css';
import type { BackupState, Health } from '@emery/core/api';
import { bytesText, grouped } from '@emery/core/quantity';

/** How the shop is kept: its backups, and how what it runs on fares. */
export default function KeepPage() {
  const me = useMe();
  const isOwner = me?.role === 'owner';
  const { data: health, error } = useHealth(isOwner);
  useTitle(KEEP.title);
  return (
    <div className="shop">
      <PageHeader>
        <h1 className="shop-name">{KEEP.title}</h1>
      </PageHeader>
      {me !== null && !isOwner && <p className="finding is-watch">{KEEP.ownerOnly}</p>}
      {error && (
        <p className="finding is-fault" role="alert">
          {error.message}
        </p>
      )}
      {isOwner && !health && !error && <Spin className="page-spin" />}
      {health && me && (
        <main className="devices">
          <div className="devices-column">
            <Backups state={health.backups} problems={health.problems} />
            {me.machine && <Folder key={health.backups.folder} state={health.backups} />}
            <Files state={health.backups} />
          </div>
          <div className="devices-column">
            <HealthPanel health={health} />
          </div>
        </main>
      )}
    </div>
  );
}

function Backups({ state, problems }: { state: BackupState; problems: readonly string[] }) {
  const begin = useKeepChange(beginBackup);
  const cancel = useKeepChange(cancelBackup);
  const { lastAt, folder, isSealed, passed } = state;
  return (
    <section className="sheet" aria-label={KEEP.section}>
      <p className="keep-last">
        <span className="quiet">{KEEP.last}</span>
        <strong className="keep-figure">{lastAt ? agoText(lastAt) : KEEP.none}</strong>
        {lastAt && <span>{DAY_AND_TIME.format(new Date(lastAt))}</span>}
      </p>
      {problems.map((text) => (
        <p key={text} className="finding is-watch">
          ▲ {text}
        </p>
      ))}
      {problems.length === 0 && <p>{KEEP.sound}</p>}
      {begin.error && (
        <p className="finding is-fault" role="alert">
          {begin.error.message}
        </p>
      )}
      {passed === null ? (
        <Button
          type="primary"
          size="large"
          disabled={folder === null}
          loading={begin.isPending}
          onClick={() => begin.mutate(undefined)}
        >
          {KEEP.make}
        </Button>
      ) : (
        <div className="keep-making" role="status">
          <Progress percent={100} status="active" showInfo={false} />
          <span>{KEEP.making(passed)}</span>
          <Button onClick={() => cancel.mutate(undefined)}>{KEEP.cancel}</Button>
        </div>
      )}
      <p>{folder === null ? KEEP.noFolder : KEEP.why}</p>
      <p>{isSealed ? KEEP.sealed : KEEP.open}</p>
      <p className="quiet">{KEEP.restoring}</p>
    </section>
  );
}

/** Where they are made; only at the machine, whose folders they are. */
function Folder({ state: { folder } }: { state: BackupState }) {
  const [wanted, setWanted] = useState(folder ?? '');
  const change = useKeepChange(chooseFolder);
  return (
    <section className="sheet">
      <form
        className="keep-folder"
        onSubmit={(event) => {
          event.preventDefault();
          change.mutate(wanted.trim());
        }}
      >
        <TextField
          label={KEEP.folder}
          value={wanted}
          max={500}
          onChange={setWanted}
          problem={change.error?.message ?? ''}
        />
        <Button htmlType="submit" loading={change.isPending} disabled={wanted.trim() === (folder ?? '')}>
          {KEEP.use}
        </Button>
      </form>
      <p className="quiet">{KEEP.folderHint}</p>
    </section>
  );
}

function Files({ state: { files } }: { state: BackupState }) {
  if (files.length === 0) return null;
  return (
    <section className="sheet" aria-label={KEEP.files}>
      <h2>{KEEP.files}</h2>
      <ul className="rows">
        {files.map(({ name, at, bytes }) => (
          <li key={name}>
            <span className="row-name">{DAY_AND_TIME.format(new Date(at))}</span>
            <span>{bytesText(bytes)}</span>
            <a className="button-link" href={`/api/keep/backups/${name}`} download>
              {KEEP.saveCopy}
            </a>
          </li>
        ))}
      </ul>
    </section>
  );
}

function HealthPanel({ health }: { health: Health }) {
  const { disk, shopBytes, history, certificateEnds, queue, startedAt, versions, slowest } = health;
  const rows: [name: string, value: string][] = [
    [HEALTH.shop, bytesText(shopBytes)],
    [HEALTH.history, [grouped(history.versions), bytesText(history.bytes)].join(', ')],
    ...(certificateEnds ? ([[HEALTH.certificate, certificateEnds.slice(0, 10)]] as [string, string][]) : []),
    [HEALTH.connections, HEALTH.used(queue)],
    [HEALTH.started, DAY_AND_TIME.format(new Date(startedAt))],
    [HEALTH.versions, [versions.emery, versions.node, versions.database, versions.shop].join(', ')],
  ];
  return (
    <section className="sheet" aria-label={HEALTH.title}>
      <h2>{HEALTH.title}</h2>
      {disk ? (
        <>
          <p className="keep-last">
            <span className="quiet">{HEALTH.free}</span>
            <strong className="keep-figure">{bytesText(disk.freeBytes)}</strong>
            <span>
              {HEALTH.of(disk.totalBytes)}
              {disk.fullOn && `, ${HEALTH.full(disk.fullOn)}`}
            </span>
          </p>
          <Progress percent={Math.round((1 - disk.freeBytes / disk.totalBytes) * 100)} aria-label={HEALTH.fullLabel} />
        </>
      ) : (
        <p>{HEALTH.elsewhere}</p>
      )}
      <dl className="share-facts">
        {rows.map(([name, value]) => (
          <div key={name}>
            <dt>{name}</dt>
            <dd>{value}</dd>
          </div>
        ))}
      </dl>
      <h3>{HEALTH.slowest}</h3>
      {slowest.length === 0 && <p>{HEALTH.noSlow}</p>}
      <ul className="rows">
        {slowest.map(({ what, ms, at }) => (
          <li key={what}>
            <span className="row-name">{what}</span>
            <span>{HEALTH.took(ms)}</span>
            <span className="quiet">{DAY_AND_TIME.format(new Date(at))}</span>
          </li>
        ))}
      </ul>
    </section>
  );
}
