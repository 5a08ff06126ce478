import { Button } from 'antd';
import { useState } from 'react';
import { changeStation, stationLabel, type Adjuster, type Belt, type Station } from '@emery/core/drive';
import { armThrough, newAdjuster } from '@emery/core/size';
import { edit, useBench } from '../bench/bench-context';
import { Choice } from '../ledger/Choice';
import { QuantityField } from '../ledger/QuantityField';
import { FigureField } from '../ledger/FigureField';
import { TypedPlace, useTyped } from '../ledger/typed-text';

const KINDS = [
  { value: 'none', label: 'No adjuster' },
  { value: 'sprung-arm', label: 'Sprung arm' },
  { value: 'slot-pivot', label: 'Slot and pivot' },
  { value: 'slide', label: 'Slide' },
  { value: 'turnbuckle', label: 'Turnbuckle' },
  { value: 'shims', label: 'Split sheave, shims' },
  { value: 'fixed', label: 'Fixed centres' },
];

/** How the belt in hand is tightened: at which shaft, by what, and its measures. */
export function AdjusterFields({ source }: { source: Belt }) {
  const { drive, dispatch } = useBench();
  const on = drive.stations.filter(({ pulleys }) =>
    pulleys.some(({ id }) => source.route.some(({ pulley }) => pulley === id)),
  );
  const adjusted =
    on.find(({ adjuster, role }) => adjuster && role === 'tensioner') ?? on.find(({ adjuster }) => adjuster);
  const [chosen, setChosen] = useState<string | null>(null);
  const station =
    on.find(({ id }) => id === chosen) ?? adjusted ?? on.find(({ role }) => role === 'tensioner') ?? on.at(-1);
  if (!station) return null;
  const { adjuster } = station;
  const set = (next: Adjuster | undefined) => dispatch(edit((d) => changeStation(d, station.id, { adjuster: next })));
  return (
    <div>
      <h2>How it is tightened</h2>
      {adjuster?.kind === 'sprung-arm' && (
        <p className="caution">
          <strong aria-hidden>▲</strong>
          <span>A sprung arm bites. Keep fingers out and let it down slowly.</span>
        </p>
      )}
      <div className="fields">
        <Choice
          label="At"
          value={station.id}
          options={on.map((one) => ({ value: one.id, label: stationLabel(one) }))}
          onChange={setChosen}
        />
        <Choice
          label="By"
          value={adjuster?.kind ?? 'none'}
          options={KINDS}
          onChange={(kind) => set(kind === 'none' ? undefined : newAdjuster(kind, station))}
        />
      </div>
      {adjuster && (
        <TypedPlace at={`station ${station.id}`}>
          <Measures key={`${station.id} ${adjuster.kind}`} station={station} adjuster={adjuster} set={set} />
        </TypedPlace>
      )}
    </div>
  );
}

interface MeasuresProps {
  station: Station;
  adjuster: Adjuster;
  set: (next: Adjuster) => void;
}

const NAMES: Record<string, string> = {
  armLength: 'Arm length',
  freeAngle: 'Angle let go',
  fullAngle: 'Angle pulled right back',
  shortMark: 'Angle at short mark',
  longMark: 'Angle at long mark',
  springTorqueAtFree: 'Spring torque let go',
  springRate: 'Spring rate',
  inAngle: 'Angle at slack end',
  outAngle: 'Angle at tight end',
  direction: 'Direction it slides',
  travel: 'How far',
  minLength: 'Shortest link',
  maxLength: 'Longest link, safe thread',
  pivot: 'Pivot',
  anchor: 'Link anchor',
  lug: 'Link lug now',
};
const POINTS: Record<string, string[]> = {
  'sprung-arm': ['pivot'],
  'slot-pivot': ['pivot'],
  turnbuckle: ['pivot', 'anchor', 'lug'],
};
const LENGTHS: Record<string, string[]> = {
  'sprung-arm': ['armLength'],
  slide: ['travel'],
  turnbuckle: ['minLength', 'maxLength'],
};
const ANGLES: Record<string, string[]> = {
  'sprung-arm': ['fullAngle', 'shortMark', 'longMark', 'freeAngle'],
  'slot-pivot': ['inAngle', 'outAngle'],
  slide: ['direction'],
};

function Measures({ station, adjuster, set }: MeasuresProps) {
  const { unit } = useBench();
  const { kind } = adjuster;
  const figure = (name: string) => Number(adjuster[name] ?? 0);
  const point = (name: string) => (adjuster[name] as { x: number; y: number } | undefined) ?? { x: 0, y: 0 };
  return (
    <>
      <div className="fields">
        {(POINTS[kind] ?? []).flatMap((name) => [
          <QuantityField
            key={`${name}-x`}
            label={`${NAMES[name]}, right (x)`}
            mm={point(name).x}
            unit={unit}
            signed
            onCommit={(x) => set({ ...adjuster, [name]: { ...point(name), x } })}
          />,
          <QuantityField
            key={`${name}-y`}
            label={`${NAMES[name]}, up (y)`}
            mm={point(name).y}
            unit={unit}
            signed
            onCommit={(y) => set({ ...adjuster, [name]: { ...point(name), y } })}
          />,
        ])}
        {(LENGTHS[kind] ?? []).map((name) => (
          <QuantityField
            key={name}
            label={NAMES[name]!}
            mm={figure(name)}
            unit={unit}
            onCommit={(mm) => set({ ...adjuster, [name]: mm })}
          />
        ))}
        {(ANGLES[kind] ?? []).map((name) => (
          <FigureField
            key={name}
            label={NAMES[name]!}
            unit="°"
            value={figure(name)}
            onCommit={(value) => set({ ...adjuster, [name]: value })}
          />
        ))}
        {kind === 'sprung-arm' && (
          <>
            <FigureField
              label={NAMES['springTorqueAtFree']!}
              unit="N·m"
              least={0}
              value={figure('springTorqueAtFree')}
              onCommit={(value) => set({ ...adjuster, springTorqueAtFree: value })}
            />
            <FigureField
              label={NAMES['springRate']!}
              unit="N·m per degree"
              least={0}
              value={figure('springRate')}
              onCommit={(value) => set({ ...adjuster, springRate: value })}
            />
          </>
        )}
        {kind === 'shims' && <Shims adjuster={adjuster} set={set} />}
      </div>
      {kind === 'sprung-arm' && <ThreePlaces station={station} adjuster={adjuster} set={set} />}
    </>
  );
}

function Shims({ adjuster, set }: Omit<MeasuresProps, 'station'>) {
  const { unit } = useBench();
  const shims = Array.isArray(adjuster['shims']) ? (adjuster['shims'] as number[]) : [];
  return (
    <>
      {shims.map((mm, k) => (
        <QuantityField
          key={k}
          label={`Shim ${k + 1} between the halves`}
          mm={mm}
          unit={unit}
          onCommit={(next) =>
            set({ ...adjuster, shims: shims.map((old, i) => (i === k ? next : old)).filter((one) => one > 0) })
          }
        />
      ))}
      <div className="field">
        <span className="label">&nbsp;</span>
        <Button onClick={() => set({ ...adjuster, shims: [...shims, shims.at(-1) ?? 0.8] })}>One more shim</Button>
      </div>
    </>
  );
}

/** An arm measured as a mechanic can: the roller's centre seen at three places of its swing gives pivot and length. */
function ThreePlaces({ station, adjuster, set }: MeasuresProps) {
  const { unit } = useBench();
  const [places, setPlaces] = useTyped<{ x: number; y: number }[] | null>('three places', null);
  if (!places)
    return (
      <Button onClick={() => setPlaces([0, 1, 2].map(() => ({ x: station.x, y: station.y })))}>
        Find pivot from three places of the roller
      </Button>
    );
  const found = armThrough(places[0]!, places[1]!, places[2]!);
  const sensible = found && found.length < 1000;
  return (
    <div className="reading-form">
      <p>Where the roller's centre stands at three places of its swing, from the crank.</p>
      <div className="fields">
        {places.flatMap(({ x, y }, k) => [
          <QuantityField
            key={`${k}x`}
            label={`Place ${k + 1}, right (x)`}
            mm={x}
            unit={unit}
            signed
            onCommit={(mm) => setPlaces(places.map((old, i) => (i === k ? { ...old, x: mm } : old)))}
          />,
          <QuantityField
            key={`${k}y`}
            label={`Place ${k + 1}, up (y)`}
            mm={y}
            unit={unit}
            signed
            onCommit={(mm) => setPlaces(places.map((old, i) => (i === k ? { ...old, y: mm } : old)))}
          />,
        ])}
      </div>
      <div className="button-row is-after">
        <Button
          type="primary"
          disabled={!sensible}
          onClick={() => {
            const tenth = (value: number) => Math.round(10 * value) / 10;
            set({
              ...adjuster,
              pivot: { x: tenth(found!.pivot.x), y: tenth(found!.pivot.y) },
              armLength: tenth(found!.length),
            });
            setPlaces(null);
          }}
        >
          {sensible ? 'Take pivot and length' : 'Three different places, please'}
        </Button>
        <Button onClick={() => setPlaces(null)}>Not now</Button>
      </div>
    </div>
  );
}
