import { DeleteOutlined } from '@ant-design/icons';
import { Button } from 'antd';
import { BeltChoice } from '../../bench/BeltChoice';
import { edit, useBench } from '../../state/bench';
import { HungPicture } from './HungPicture';
import { useInspect } from './InspectProvider';
import { useInspection, useLook } from './sums';
import { VerdictFlag } from './WalkView';
import { itemsOf } from '@emery/core/drive';
import {
  changeTakenBack,
  distanceFigure,
  inspectedLabel,
  type InspectItem,
  judgedWords,
  leftFigure,
  leftSpan,
  partChanged,
  partKey,
  rateFigure,
  reasonLines,
  VERDICTS,
  WHOSE_WORDS,
} from '@emery/core/inspect';
import { capital, grouped } from '@emery/core/quantity';

/** What to change, what to watch, what to keep, each with why; and what nobody looked at. */
export default function VerdictsView() {
  const { drive, items } = useInspection();
  const { setView, setAt } = useInspect();
  const look = (item: InspectItem) => {
    setAt(partKey(item));
    setView('walk');
  };
  const sorted = VERDICTS.slice(0, 3).flatMap((verdict) => items.filter((item) => item.verdict === verdict));
  const left = items.filter(({ verdict }) => verdict === 'not looked at');
  return (
    <>
      <BeltChoice />
      {sorted.map((item) => (
        <Part key={partKey(item)} item={item} onLook={() => look(item)} />
      ))}
      {left.length > 0 && (
        <section aria-label="Not inspected">
          <h2>Not inspected</h2>
          <p>No verdict for these.</p>
          <ul className="at-hand">
            {left.map((item) => (
              <li key={partKey(item)}>
                <span>
                  {inspectedLabel(drive, item)}
                  {item.skipped !== null && <span className="quiet"> skipped {item.skipped.slice(0, 10)}</span>}
                  {item.judged.length > 0 && <span className="quiet"> started: wear not known</span>}
                </span>
                <Button onClick={() => look(item)}>Inspect it</Button>
              </li>
            ))}
          </ul>
        </section>
      )}
      <Changed />
    </>
  );
}

function Part({ item, onLook }: { item: InspectItem; onLook: () => void }) {
  const { drive, unit, dispatch } = useBench('drive', 'unit', 'dispatch');
  const look = useLook();
  const { verdict, wear, life, age, due, judged } = item;
  const odometer = drive.inspect?.odometerUnit ?? 'km';
  const name = inspectedLabel(drive, item);
  const why = reasonLines(item, unit);
  const others = judged.map((judgement) => judgedWords(judgement, unit)).filter((line) => !why.includes(line));
  const pictures = judged.flatMap(({ finding }) => (finding?.photo ? [finding] : []));
  return (
    <section className={`verdict-part is-${verdict}`} aria-label={name}>
      <div className="block-head">
        <h2>{name}</h2>
        <VerdictFlag item={item} />
      </div>
      {wear?.left && (
        <p className="verdict-left">
          <strong>{leftFigure(wear.left, odometer)}</strong>
          It wears {rateFigure(wear, odometer)}.{' '}
          {wear.bend &&
            `It ${wear.bend.power > 1 ? 'quickens' : 'slows'}: three or more readings show it, and the forecast uses it. `}
          {wear.left.day && `About ${monthOf(wear.left.day)}, at the same use as between the readings. `}
          <span className="quiet">
            {capital(leftSpan(wear.left, odometer))}. The ± is one standard deviation: about 2 times in 3 within it.
          </span>
        </p>
      )}
      {!wear?.left && life && (
        <p>
          Such a belt lasts about {distanceFigure(life.distance)} {life.unit} ({WHOSE_WORDS[life.from]}).
          {life.left !== null && ` By when it was fitted, ${distanceFigure(Math.max(0, life.left))} of that are left.`}
        </p>
      )}
      {age?.day && (
        <p className={due?.by === 'age' ? undefined : 'quiet'}>
          {due?.by === 'age' && wear?.left ? 'Sooner by its age: ' : 'By its age: '}
          {age.years} years in {monthOf(age.day)} at the latest (a default by kind),{' '}
          {age.from === 'fitted'
            ? 'from its fitting'
            : 'from its first inspection; its date of fitting is not recorded'}
          .
        </p>
      )}
      <ul className="verdict-why" aria-label={`Why: ${name}`}>
        {why.map((line) => (
          <li key={line}>{line}</li>
        ))}
      </ul>
      {others.length > 0 && (
        <details className="verdict-all">
          <summary>{others.length === 1 ? '1 more finding' : `${others.length} more findings`}</summary>
          <ul className="verdict-why">
            {others.map((line) => (
              <li key={line}>{line}</li>
            ))}
          </ul>
        </details>
      )}
      {item.missing.length > 0 && (
        <p className="quiet">
          {item.missing.length === 1 ? '1 check was not made.' : `${item.missing.length} checks were not made.`}
        </p>
      )}
      {pictures.map((finding) => (
        <HungPicture key={finding.id} finding={finding} />
      ))}
      <div className="button-row">
        <Button onClick={onLook}>Inspect again</Button>
        {verdict !== 'keep' && (
          <Button
            onClick={() =>
              dispatch(edit((d) => partChanged(d, item, look(), verdict === 'replace' ? 'worn' : 'in-passing')))
            }
          >
            New part fitted
          </Button>
        )}
      </div>
    </section>
  );
}

const monthOf = (day: string) =>
  new Date(day).toLocaleDateString('en-GB', { month: 'long', year: 'numeric', timeZone: 'UTC' });

/** What was changed, latest first; the last of each part can be taken back. */
function Changed() {
  const { drive, dispatch } = useBench('drive', 'dispatch');
  const changes = [...itemsOf(drive, 'inspect.changed')].reverse();
  if (changes.length === 0) return null;
  return (
    <section aria-label="Changed">
      <h2>Changed</h2>
      <ul className="at-hand">
        {changes.map((change, k) => {
          const name = inspectedLabel(drive, change);
          const isLast = changes.findIndex((candidate) => partKey(candidate) === partKey(change)) === k;
          return (
            <li key={change.id}>
              <span>
                {name}{' '}
                <span className="quiet">
                  {change.at?.slice(0, 10)}
                  {change.odometer !== undefined && `, at ${grouped(change.odometer)}`}
                </span>
              </span>
              {isLast && (
                <Button
                  icon={<DeleteOutlined />}
                  aria-label={`Undo: ${name} changed`}
                  onClick={() => dispatch(edit((d) => changeTakenBack(d, change)))}
                />
              )}
            </li>
          );
        })}
      </ul>
    </section>
  );
}
