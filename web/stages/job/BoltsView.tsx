import { DeleteOutlined, PlusOutlined } from '@ant-design/icons';
import { Button } from 'antd';
import { useState } from 'react';
import { edit, useBench } from '../../state/bench';
import { Choice } from '../../ui/Choice';
import { CountField } from '../../ui/CountField';
import { FigureField } from '../../ui/FigureField';
import { TextField } from '../../ui/TextField';
import { TorqueField } from '../../ui/TorqueField';
import { TypedPlace } from '../../ui/typed-text';
import { OpenedForm } from '../../ui/OpenedForm';
import {
  type Bolt,
  BOLT_REUSES,
  BOLT_USES,
  type BoltReuse,
  freeIdIn,
  itemsOf,
  putItem,
  removeItem,
  stationLabel,
} from '@emery/core/drive';
import { BOLT_REUSE_WORDS, BOLT_USE_WORDS, boltWords, inTighteningOrder, lacksTorque } from '@emery/core/job';
import { adjusterKind } from '@emery/core/adjuster';
import { runOfEdits } from '../../state/drive-history';

/** The bolts that the job turns, as the service manual has them. */
export default function BoltsView() {
  const { drive, dispatch } = useBench('drive', 'dispatch');
  const bolts = inTighteningOrder(itemsOf(drive, 'job.bolts'));
  const [open, setOpen] = useState<string | null>(null);
  const holder =
    drive.stations.find(({ adjuster }) => adjuster && adjusterKind(adjuster.kind).moves !== 'nothing') ??
    drive.stations[0];
  const add = () => {
    const id = freeIdIn('bolt', itemsOf(drive, 'job.bolts'));
    dispatch(edit((d) => putItem(d, 'job.bolts', { id, station: holder!.id, use: 'pivot' })));
    setOpen(id);
  };
  return (
    <section aria-label="Bolts">
      <p>
        In the order of tightening. Pivot bolts are slackened before the adjuster is turned and tightened last, unless
        the manual gives an order. The adjuster screw sets the belt before the lock bolt is tightened. Figures come from
        the vehicle&rsquo;s service manual; there are no defaults.
      </p>
      <ul className="bolt-list">
        {bolts.map((bolt) =>
          bolt.id === open ? (
            <li key={bolt.id}>
              <TypedPlace at={`bolt ${bolt.id}`}>
                <BoltForm bolt={bolt} onDone={() => setOpen(null)} />
              </TypedPlace>
            </li>
          ) : (
            <li key={bolt.id} className="bolt-row">
              <button type="button" className="job-read" onClick={() => setOpen(bolt.id)}>
                <strong>{BOLT_USE_WORDS[bolt.use].name}</strong> {boltWords(drive, bolt)}
                {lacksTorque(bolt) && <span className="flag is-watch"> ▲ no torque yet</span>}
              </button>
              <Button
                icon={<DeleteOutlined />}
                aria-label={`Delete ${boltWords(drive, bolt)}`}
                onClick={() => dispatch(edit((d) => removeItem(d, 'job.bolts', bolt.id)))}
              />
            </li>
          ),
        )}
      </ul>
      {bolts.length === 0 && <p className="quiet">No bolts entered yet.</p>}
      <Button icon={<PlusOutlined />} disabled={!holder} onClick={add}>
        Add a bolt
      </Button>
    </section>
  );
}

function BoltForm({ bolt, onDone }: { bolt: Bolt; onDone: () => void }) {
  const { drive, dispatch } = useBench('drive', 'dispatch');
  const put = (change: Partial<Bolt>) =>
    dispatch(
      edit(
        (d) => {
          const now = itemsOf(d, 'job.bolts').find(({ id }) => id === bolt.id) ?? bolt;
          const next = Object.fromEntries(
            Object.entries({ ...now, ...change }).filter(([, value]) => value !== undefined),
          );
          // Only what may be left out is set to undefined.
          return putItem(d, 'job.bolts', next as unknown as Bolt);
        },
        runOfEdits(`bolt ${bolt.id}`),
      ),
    );
  const text = (value: string) => (value === '' ? undefined : value);
  return (
    <OpenedForm className="bolt-form">
      <div className="fields">
        <Choice
          label="Use"
          value={bolt.use}
          options={BOLT_USES.map((value) => ({ value, label: BOLT_USE_WORDS[value].name }))}
          onChange={(use) => put({ use })}
        />
        <Choice
          label="At"
          value={bolt.station}
          options={drive.stations.map((station) => ({ value: station.id, label: stationLabel(station) }))}
          onChange={(station) => put({ station })}
        />
        <p className="quiet field is-wide">{BOLT_USE_WORDS[bolt.use].hint}</p>
        <TextField
          label="Name, if any"
          value={bolt.name ?? ''}
          max={80}
          onChange={(name) => put({ name: text(name) })}
        />
        <TextField label="Thread" value={bolt.size ?? ''} max={40} onChange={(size) => put({ size: text(size) })} />
        <TextField label="Tool" value={bolt.tool ?? ''} max={60} onChange={(tool) => put({ tool: text(tool) })} />
        <TorqueField
          label="Torque"
          nm={bolt.torqueNm ?? null}
          unit={bolt.torqueUnit ?? 'nm'}
          onCommit={(torqueNm, torqueUnit) => put({ torqueNm, torqueUnit })}
          onClear={() => put({ torqueNm: undefined, torqueUnit: undefined } as Partial<Bolt>)}
        />
        <FigureField
          label="Then angle"
          unit="°"
          value={bolt.angleDeg ?? null}
          min={1}
          max={720}
          onCommit={(angleDeg) => put({ angleDeg })}
          onClear={() => put({ angleDeg: undefined } as Partial<Bolt>)}
        />
        <CountField
          label="Order"
          value={bolt.order}
          max={100}
          optional
          hint="Number in the manual"
          onCommit={(order) => put({ order } as Partial<Bolt>)}
        />
        <Choice<BoltReuse>
          label="Reuse"
          value={bolt.reuse ?? 'again'}
          options={BOLT_REUSES.map((value) => ({ value, label: BOLT_REUSE_WORDS[value] }))}
          onChange={(reuse) => put({ reuse })}
        />
      </div>
      <p className="caution">
        <strong>Caution</strong> Torque to the service manual. Never reuse a stretch bolt, or a bolt that the manual
        says to replace.
      </p>
      <Button type="primary" onClick={onDone}>
        Done
      </Button>
    </OpenedForm>
  );
}
