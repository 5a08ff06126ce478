import { fixed } from '@emery/core/quantity';
import { DeleteOutlined, PlusOutlined } from '@ant-design/icons';
import { Button, Switch } from 'antd';
import { useState } from 'react';
import { edit, useBench } from '../../state/bench';
import { FigureField } from '../../ui/FigureField';
import { TextField } from '../../ui/TextField';
import { TypedPlace, useTyped } from '../../ui/typed-text';
import { useSpeeds } from './SpeedsProvider';
import { changeStation, freeIdIn, putItem, removeItem, type Station, stationLabel } from '@emery/core/drive';
import { breakEvenRpm, cubedPower, loadOf, outputAt } from '@emery/core/accessory';
import { rpmFigure } from '@emery/core/speeds';

interface Props {
  station: Station;
  ratio: number;
}

const CHARGES = new Set(['alternator', 'generator']);
const COOLS = new Set(['water-pump', 'fan']);

/** What the accessory in hand gives at an engine speed: current, or flow and power. */
export default function OutputLedger({ station, ratio }: Props) {
  const { drive, select } = useBench('drive', 'select');
  if (CHARGES.has(station.role)) return <Charging station={station} ratio={ratio} />;
  if (COOLS.has(station.role)) return <Cooling station={station} ratio={ratio} />;
  const others = drive.stations.filter(({ role }) => CHARGES.has(role) || COOLS.has(role));
  return (
    <>
      <p>
        Emery estimates output for charging and cooling.{' '}
        {others.length > 0 ? 'Select one:' : 'This drive has neither an alternator nor a pump or fan.'}
      </p>
      <div className="button-row">
        {others.map((other) => (
          <Button
            key={other.id}
            onClick={() => select({ kind: 'pulley', station: other.id, pulley: other.pulleys[0]!.id })}
          >
            {stationLabel(other)}
          </Button>
        ))}
      </div>
    </>
  );
}

function Charging({ station, ratio }: Props) {
  const { drive, dispatch } = useBench('drive', 'dispatch');
  const { engineRpm, marks } = useSpeeds();
  const points = station.output ?? [];
  const loads = drive.loads ?? [];
  const load = loadOf(loads);
  const given = outputAt(points, ratio * engineRpm);
  const breakEven = points.length > 0 ? breakEvenRpm(points, load) : null;
  const setPoints = (next: typeof points) =>
    dispatch(edit((d) => changeStation(d, station.id, { output: [...next].sort((a, b) => a.rpm - b.rpm) })));
  return (
    <>
      <div data-testid="break-even">
        {points.length === 0 ? (
          <p>Enter a few points of the maker&rsquo;s curve: its own speed, and its output there.</p>
        ) : (
          <>
            <div className="label">Charging breaks even{breakEven === null ? '' : ' at an engine speed of'}</div>
            <div className="answer-figure is-second" data-break-even={breakEven === null ? '' : breakEven / ratio}>
              {breakEven === null ? 'nowhere' : rpmFigure(breakEven / ratio)}
            </div>
            <p>
              At {rpmFigure(engineRpm)} it gives {fixed(given!, 0)} A of {fixed(load, 0)} A wanted
              {given! < load ? `: the battery supplies ${fixed(load - given!, 0)} A.` : '.'}{' '}
              {breakEven === null && 'No speed on its curve covers the loads switched on.'}
              {breakEven !== null &&
                breakEven / ratio > marks.idle &&
                `${rpmFigure(breakEven / ratio)} is above idle: the battery discharges at idle.`}
            </p>
            <p className="quiet">Interpolated between the points entered; a hot alternator gives less.</p>
          </>
        )}
      </div>
      <table className="ledger-table is-editable">
        <thead>
          <tr>
            <th>{stationLabel(station)} rev/min</th>
            <th>output, A</th>
            <th aria-label="Remove" />
          </tr>
        </thead>
        <tbody>
          {points.map(({ rpm, amps }, index) => (
            <tr key={`${rpm} ${index}`}>
              <td>{rpmFigure(rpm)}</td>
              <td>{amps}</td>
              <td className="figure">
                <Button
                  icon={<DeleteOutlined />}
                  aria-label={`Remove the point at ${rpmFigure(rpm)}`}
                  onClick={() => setPoints(points.filter((_, k) => k !== index))}
                />
              </td>
            </tr>
          ))}
        </tbody>
      </table>
      <TypedPlace at="point">
        <PairForm
          key={points.length}
          first={['Its speed', 'rev/min', 60_000]}
          second={['Output', 'A', 5000]}
          action="Add point"
          onAdd={(rpm, amps) => setPoints([...points.filter((point) => point.rpm !== rpm), { rpm, amps }])}
        />
      </TypedPlace>
      <h2>Electrical loads, {fixed(load, 0)} A switched on</h2>
      <ul className="loads">
        {loads.map((load) => (
          <li key={load.id}>
            <Switch
              checked={load.on}
              aria-label={`${load.name} on`}
              onChange={(on) => dispatch(edit((d) => putItem(d, 'loads', { ...load, on })))}
            />
            <span>{load.name}</span>
            <span className="figure">{load.amps} A</span>
            <Button
              icon={<DeleteOutlined />}
              aria-label={`Remove ${load.name}`}
              onClick={() => dispatch(edit((d) => removeItem(d, 'loads', load.id)))}
            />
          </li>
        ))}
      </ul>
      <TypedPlace at="load">
        <LoadForm key={`loads ${loads.length}`} />
      </TypedPlace>
    </>
  );
}

/** Two figures that only mean something together. */
function PairForm({
  first,
  second,
  action,
  onAdd,
}: {
  first: [string, string, number];
  second: [string, string, number];
  action: string;
  onAdd: (a: number, b: number) => void;
}) {
  const [a, setA] = useTyped<number | null>('a', null);
  const [b, setB] = useTyped<number | null>('b', null);
  const [lacks, setLacks] = useState(false);
  // The button is never greyed out: leaving the second field is what fills it, and that same press must count.
  const add = () => {
    if (a === null || b === null) return setLacks(true);
    setA(null);
    setB(null);
    onAdd(a, b);
  };
  return (
    <>
      <div className="fields is-three is-form">
        <FigureField
          label={first[0]}
          unit={first[1]}
          value={a}
          min={0}
          max={first[2]}
          onCommit={setA}
          onClear={() => setA(null)}
        />
        <FigureField
          label={second[0]}
          unit={second[1]}
          value={b}
          min={0}
          max={second[2]}
          onCommit={setB}
          onClear={() => setB(null)}
        />
        <Button icon={<PlusOutlined />} onClick={add}>
          {action}
        </Button>
      </div>
      {lacks && (a === null || b === null) && (
        <p className="field-echo is-wrong" role="alert">
          Enter both figures: {first[0].toLowerCase()} in {first[1]}, {second[0].toLowerCase()} in {second[1]}.
        </p>
      )}
    </>
  );
}

function LoadForm() {
  const { dispatch } = useBench('dispatch');
  const [name, setName] = useTyped('name', '');
  const [amps, setAmps] = useTyped<number | null>('amps', null);
  const [lacks, setLacks] = useState(false);
  const add = () => {
    if (amps === null) return setLacks(true);
    setName('');
    setAmps(null);
    dispatch(
      edit((d) =>
        putItem(d, 'loads', {
          id: freeIdIn('load', d.loads),
          name: name.trim() || 'Load',
          amps,
          on: true,
        }),
      ),
    );
  };
  return (
    <>
      <div className="fields is-three is-form">
        <TextField label="Name" value={name} max={80} onChange={setName} />
        <FigureField
          label="Current"
          unit="A"
          value={amps}
          min={0}
          max={5000}
          onCommit={setAmps}
          onClear={() => setAmps(null)}
        />
        <Button icon={<PlusOutlined />} onClick={add}>
          Add load
        </Button>
      </div>
      {lacks && amps === null && (
        <p className="field-echo is-wrong" role="alert">
          Enter its current, in A.
        </p>
      )}
    </>
  );
}

function Cooling({ station, ratio }: Props) {
  const { dispatch } = useBench('dispatch');
  const { engineRpm, marks } = useSpeeds();
  const { need, power } = station;
  const rpm = ratio * engineRpm;
  const change = (part: Partial<Station>) => dispatch(edit((d) => changeStation(d, station.id, part)));
  const reached = need ? (ratio * need.engineRpm) / need.rpm : null;
  return (
    <>
      {need && (
        <div data-testid="need">
          <div className="label">
            {stationLabel(station)}, share of needed speed at engine speed {rpmFigure(need.engineRpm)}
          </div>
          <div className="answer-figure is-second">{Math.round(100 * reached!)} %</div>
          <p>
            {rpmFigure(ratio * need.engineRpm)} of {rpmFigure(need.rpm)} rev/min. Flow is proportional to speed:{' '}
            {reached! >= 1
              ? 'enough.'
              : `it is short by ${Math.round(100 * (1 - reached!))} %, and reaches it at engine speed ${rpmFigure(need.rpm / ratio)}.`}
          </p>
        </div>
      )}
      <div className="fields">
        <FigureField
          label="Must turn"
          unit="rev/min"
          value={need?.rpm ?? null}
          min={1}
          max={50_000}
          onCommit={(value) => change({ need: { rpm: value, engineRpm: need?.engineRpm ?? marks.idle } })}
          onClear={() => change({ need: undefined })}
        />
        <FigureField
          label="at the engine's"
          unit="rev/min"
          value={need?.engineRpm ?? marks.idle}
          min={1}
          max={30_000}
          onCommit={(value) => need && change({ need: { ...need, engineRpm: value } })}
        />
      </div>
      <h2>Power it takes</h2>
      {power && (
        <>
          <div className="answer-figure is-second" data-testid="power">
            {fixed(cubedPower(power, rpm), 2)} kW
          </div>
          <p>
            at engine speed {rpmFigure(engineRpm)}; {fixed(cubedPower(power, ratio * marks.idle), 2)} kW at idle,{' '}
            {fixed(cubedPower(power, ratio * marks.redline), 2)} kW at redline. Power rises with the cube of speed: 10 %
            more speed takes 33 % more power.
          </p>
        </>
      )}
      <div className="fields">
        <FigureField
          label="Takes"
          unit="kW"
          value={power?.kw ?? null}
          min={0}
          max={500}
          onCommit={(kw) => change({ power: { kw, rpm: power?.rpm ?? Math.round(rpm) } })}
          onClear={() => change({ power: undefined })}
        />
        <FigureField
          label="at its own"
          unit="rev/min"
          value={power?.rpm ?? Math.round(rpm)}
          min={1}
          max={50_000}
          onCommit={(value) => power && change({ power: { ...power, rpm: value } })}
        />
      </div>
    </>
  );
}
