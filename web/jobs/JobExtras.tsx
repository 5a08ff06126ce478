import { DeleteOutlined } from '@ant-design/icons';
import { AutoComplete, Button } from 'antd';
import { useDeferredValue } from 'react';
import { type StockListed, useStock } from '../api/stock';
import { FigureField } from '../ui/FigureField';
import { OdometerOffer } from '../ui/OdometerOffer';
import { PictureButton } from '../ui/PictureButton';
import { useTyped } from '../ui/typed-text';
import { JobPicture } from './JobPicture';
import { RemarkForm } from './RemarkForm';
import type { JobInHand } from './use-job';
import type { JobOpened } from '@emery/core/api';
import { odometerDoubtWords, grouped } from '@emery/core/quantity';

interface Props {
  job: JobOpened;
  hand: JobInHand;
}

/** Odometer, parts from the shelf, pictures and remarks. */
export function JobExtras(props: Props) {
  const { job, hand } = props;
  const { run, happens } = hand;
  const fixed = job.signedAt !== null;
  return (
    <section className="sheet job-extras" aria-label="Recorded with the job">
      <h2>Recorded with the job</h2>
      {fixed ? (
        <p>Odometer {run.odometer === null ? 'not read' : `${grouped(run.odometer)} ${job.odometerUnit}`}</p>
      ) : (
        <>
          <FigureField
            label="Odometer"
            unit={job.odometerUnit}
            value={run.odometer}
            min={0}
            max={1e7}
            onCommit={(odometer) => happens({ kind: 'odometer', odometer })}
            onClear={() => happens({ kind: 'odometer', odometer: null })}
            doubtOf={(odometer) => odometerDoubtWords(odometer, job.vehicleOdometer, job.odometerUnit)}
          />
          {run.odometer === null && <ShopOdometer {...props} />}
        </>
      )}
      <Parts {...props} />
      <div>
        <h3>Pictures</h3>
        <div className="job-pictures">
          {run.photos
            .filter(({ step }) => step === undefined)
            .map(({ id, photo }) => (
              <JobPicture key={id} hash={photo.hash} of="the job" />
            ))}
        </div>
        {!fixed && (
          <PictureButton
            label="Take a picture"
            what="Picture of the job"
            onKept={(photo) => happens({ kind: 'photo', photo })}
          />
        )}
      </div>
      <Remarks {...props} />
    </section>
  );
}

/** The vehicle's odometer as the shop has it, offered while the job has none. */
export const ShopOdometer = ({ job, hand }: Props) => (
  <OdometerOffer
    reading={job.vehicleOdometer}
    unit={job.odometerUnit}
    onTake={(odometer) => hand.happens({ kind: 'odometer', odometer })}
  />
);

/** What tells two belts of one code apart. */
const sizeOf = ({ section, ribs, lengthMm }: StockListed) =>
  `${ribs === null ? '' : `${ribs}-rib `}${section}, ${Math.round(lengthMm)} mm`;

/** Parts used, off the shop's own shelf or not. */
function Parts({ job, hand: { run, happens } }: Props) {
  const [text, setText] = useTyped('part used', '');
  const wanted = useDeferredValue(text.trim());
  const stock = useStock({ search: wanted, section: '', ribs: '' });
  const fixed = job.signedAt !== null;
  const belts = wanted === '' ? [] : (stock.data?.pages[0]?.belts ?? []).slice(0, 12);
  const add = (name: string) => {
    if (name.trim() === '') return;
    happens({ kind: 'part', name: name.trim(), count: 1 });
    setText('');
  };
  /** A row of the list that was chosen: two of one code are two belts. */
  const take = ({ id, code }: StockListed) => {
    happens({ kind: 'part', name: code, count: 1, stock: id });
    setText('');
  };
  /** What was typed may be the code of one row alone; of several, one is to be chosen. */
  const alike = belts.filter(({ code }) => code === text.trim());
  return (
    <div>
      <h3>Parts used</h3>
      <ul className="at-hand">
        {run.parts.map((part) => (
          <li key={`${part.stock ?? ''} ${part.name}`}>
            <span>
              {part.count} × {part.name}
              {part.stock !== undefined && <span className="quiet"> from the shelf</span>}
            </span>
            {!fixed && (
              <Button
                icon={<DeleteOutlined />}
                aria-label={`Return: ${part.name}`}
                onClick={() =>
                  happens({
                    ...{ kind: 'part', name: part.name, count: -part.count },
                    ...(part.stock !== undefined && { stock: part.stock }),
                  })
                }
              />
            )}
          </li>
        ))}
      </ul>
      {run.parts.length === 0 && fixed && <p className="quiet">None.</p>}
      {!fixed && (
        <div className="job-new is-flush">
          <AutoComplete
            value={text}
            aria-label="Part used"
            placeholder="Code of a belt in stock, or any part"
            options={belts.map((belt) => ({
              // The list knows its options by this: two of one code would be one.
              value: `#${belt.id}`,
              belt,
              label: `${belt.code} · ${sizeOf(belt)} · ${belt.shelf} on the shelf`,
            }))}
            onChange={(value: string) => setText(value.slice(0, 200))}
            onSelect={(_value, { belt }) => take(belt)}
          />
          <Button disabled={alike.length > 1} onClick={() => (alike.length === 1 ? take(alike[0]!) : add(text))}>
            Add
          </Button>
          {alike.length > 1 && (
            <p className="quiet">{alike.length} belts on the list have this code. Choose one from the drop-down.</p>
          )}
        </div>
      )}
    </div>
  );
}

function Remarks({ job, hand: { run, happens } }: Props) {
  const general = run.notes.filter(({ step }) => step === undefined);
  return (
    <div>
      <h3>Remarks</h3>
      {general.map(({ id, text, by }) => (
        <p key={id} className="job-remark">
          {by && `${by}: `}
          {text}
        </p>
      ))}
      {job.signedAt === null && (
        <RemarkForm place="remark" label="Remark" onAdd={(text) => happens({ kind: 'note', text })} />
      )}
    </div>
  );
}
