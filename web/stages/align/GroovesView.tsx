import { Button } from 'antd';
import { edit, useBench } from '../../state/bench';
import { FigureField } from '../../ui/FigureField';
import { TypedPlace } from '../../ui/typed-text';
import { useAlignSums } from './sums';
import { countFront, type GrooveCount, grooveCounts } from '@emery/core/align';
import { pulleyLabel } from '@emery/core/drive';
import { plural } from '@emery/core/quantity';

const grooves = (count: number) => `${count} ${count === 1 ? 'groove' : 'grooves'}`;

/** The check list before the engine turns: the grooves that the belt leaves free on every pulley. */
export default function GroovesView() {
  const { drive, belt } = useAlignSums();
  const { select } = useBench('select');
  const counts = grooveCounts(drive, belt!);
  if (counts.length === 0)
    return <p>This belt has no ribs to count, or its pulleys&rsquo; grooves are not entered under Survey.</p>;
  const left = counts.filter(({ counted }) => counted === null).length;
  return (
    <>
      <p className="caution">
        <strong>Caution</strong> Count before the engine turns. A rib off on one pulley ruins the belt in a minute.
      </p>
      <p>
        {left === 0
          ? 'Every pulley is counted.'
          : `${left} of ${counts.length} pulleys to count, the lowest first: those are the hardest to see. −1 means a rib hangs over in front.`}
      </p>
      <ul className="groove-list" aria-label="Grooves to count">
        {counts.map((count) => (
          <TypedPlace key={count.at} at={`count ${count.at}`}>
            <Count
              count={count}
              onPoint={() =>
                select({
                  kind: 'pulley',
                  station: drive.stations.find(({ pulleys }) => pulleys.some(({ id }) => id === count.pulley))!.id,
                  pulley: count.pulley,
                })
              }
            />
          </TypedPlace>
        ))}
      </ul>
    </>
  );
}

function Count({ count, onPoint }: { count: GrooveCount; onPoint: () => void }) {
  const { drive, belt } = useAlignSums();
  const { dispatch } = useBench('dispatch');
  const { at, pulley, front, back, counted, off, grooves: all } = count;
  const name = pulleyLabel(drive, pulley);
  const keep = (value: number | null) => dispatch(edit((d) => countFront(d, belt!.id, at, value)));
  const verdict = off === 0 ? 'is-right' : 'is-off';
  const side = off > 0 ? 'out' : 'in';
  const result =
    off === 0
      ? '● Counted, right.'
      : `■ Counted ${counted}: the belt sits ${plural(Math.abs(off), 'rib')} too far ${side}.`;
  return (
    <li className={counted === null ? '' : verdict}>
      <div className="groove-head">
        <button type="button" className="row-button" onClick={onPoint}>
          {name}
        </button>
        <strong className="groove-figure">{front < 0 ? 'too few grooves' : `${grooves(front)} free in front`}</strong>
      </div>
      <Sketch count={count} ribs={belt!.ribs!} />
      <p className="quiet">
        Of {grooves(all)}, {back > 0 ? `${back} free behind` : 'none free behind'}. {counted === null ? '' : result}
      </p>
      <div className="groove-count">
        <Button
          type={counted === null ? 'primary' : 'default'}
          disabled={front < 0}
          onClick={() => keep(front)}
          aria-label={`${name}: counted, ${front} free in front`}
        >
          Counted, {front}
        </Button>
        <FigureField
          label="Or counted"
          unit="free"
          value={counted}
          min={-20}
          max={60}
          onCommit={(value) => keep(Math.round(value))}
          onClear={() => keep(null)}
        />
      </div>
    </li>
  );
}

/** The pulley's grooves from the engine out, with the belt's ribs where they were counted, or should be. */
function Sketch({ count: { grooves: all, back, counted, off }, ribs }: { count: GrooveCount; ribs: number }) {
  const [pitch, top] = [18, 12];
  const first = back + (counted === null ? 0 : off);
  const from = Math.min(0, first);
  const many = Math.max(all, first + ribs) - from;
  return (
    <svg className="groove-sketch" width={many * pitch + 110} height={46} aria-hidden>
      <text x={0} y={30}>
        engine
      </text>
      <g transform={`translate(${50 - from * pitch} ${top})`}>
        <path
          className="sketch-pulley"
          d={`M0 0${Array.from({ length: all }, (_, g) => `M${g * pitch} 0l3 0l5.5 16h1l5.5 -16h3`).join('')}M0 0V28H${all * pitch}V0`}
        />
        <path
          className="sketch-belt"
          d={`M${first * pitch} -9H${(first + ribs) * pitch}${Array.from({ length: ribs }, (_, r) => {
            const x = (first + ribs - r) * pitch;
            return `V-3l-3.5 0l-5 14h-1l-5 -14H${x - pitch}`;
          }).join('')}Z`}
        />
      </g>
      <text x={54 + many * pitch} y={30}>
        front
      </text>
    </svg>
  );
}
