import { fixed } from '@emery/core/quantity';
import { DeleteOutlined } from '@ant-design/icons';
import { Button } from 'antd';
import { useBench, edit, useSelected } from '../../state/bench';
import type { Mark } from '../../state/mark';
import { MarkedRow } from '../../bench/MarkedRow';
import { Choice } from '../../ui/Choice';
import { FigureField } from '../../ui/FigureField';
import { TextField } from '../../ui/TextField';
import { TypedPlace, useTyped } from '../../ui/typed-text';
import { stationById, useTensionSums } from './sums';
import { useTension } from './TensionProvider';
import { DEFAULT_HUB_LIMITS, torqueOfPower, type TorqueSource } from '@emery/core/accessory';
import { changeStation, type Station, stationLabel, type TorqueCurve } from '@emery/core/drive';
import { rpmFigure } from '@emery/core/speeds';

const SOURCES: Record<TorqueSource, string> = {
  points: 'From its points.',
  power: 'From its power, entered under Speeds, Output.',
  loads: 'From the electrical loads under Speeds, Output.',
  default: "Emery's default, not a specification.",
  none: '',
};

/** What every accessory takes, in which state; and the points of the one in hand. */
export default function LoadsView() {
  const { drive, run, tension } = useTensionSums();
  const { looked, look } = useTension();
  const { select } = useBench('select');
  const selected = useSelected();
  const taking = tension.transmission.shafts.filter(({ own }) => own[0]!.source !== 'none');
  const held = taking.find(({ station }) => selected?.kind === 'pulley' && station === selected.station) ?? taking[0];
  if (!held) return <p>No accessory on this drive takes power yet. Put an accessory on the belt, under Route.</p>;
  const station = stationById(drive, held.station);
  return (
    <>
      <table className="ledger-table" aria-label="Accessory loads">
        <thead>
          <tr>
            <th>Accessory</th>
            <th>state</th>
            <th className="figure">rev/min</th>
            <th className="figure">N·m</th>
          </tr>
        </thead>
        <tbody>
          {taking.map(({ station: id, ratio, own }) => {
            const now = run.own.find((torque) => torque.station === id)!;
            const station = stationById(drive, id);
            const mark: Mark = { kind: 'pulley', station: id, pulley: station.pulleys[0]!.id };
            return (
              <MarkedRow key={id} mark={mark} held={id === held.station}>
                <td>
                  <button type="button" className="row-button" onClick={() => select(mark)}>
                    {stationLabel(station)}
                  </button>
                </td>
                <td className="load-state">
                  {now.state}
                  {now.source === 'default' && <span className="quiet"> (default)</span>}
                  {own.length < 2 && now.source === 'none' ? '—' : ''}
                </td>
                <td className="figure">{rpmFigure(ratio * run.running.rpm)}</td>
                <td className="figure">{fixed(now.nm, 1)}</td>
              </MarkedRow>
            );
          })}
        </tbody>
      </table>
      <TypedPlace at={`station ${station.id}`} key={station.id}>
        <section aria-label={`Load of ${stationLabel(station)}`}>
          <h2>{stationLabel(station)}</h2>
          <p className="quiet">{SOURCES[held.own[0]!.source]} Enter its maker’s figure below.</p>
          {held.own.length > 1 && (
            <div className="fields">
              <Choice
                label="State now"
                value={run.own.find((torque) => torque.station === station.id)!.state}
                options={held.own.map(({ state }) => ({ value: state, label: state }))}
                onChange={(state) =>
                  look({ choice: { ...looked.choice, by: { ...looked.choice.by, [station.id]: state } } })
                }
              />
              {looked.choice.by?.[station.id] !== undefined && (
                <Button
                  className="is-beside-field"
                  onClick={() =>
                    look({
                      choice: {
                        ...looked.choice,
                        by: Object.fromEntries(
                          Object.entries(looked.choice.by ?? {}).filter(([id]) => id !== station.id),
                        ),
                      },
                    })
                  }
                >
                  From the state of the drive
                </Button>
              )}
            </div>
          )}
          <Points station={station} />
          <Limits station={station} />
        </section>
      </TypedPlace>
    </>
  );
}

/** Its maker's points: torque, or power, at a speed of its own, one curve a state. */
function Points({ station }: { station: Station }) {
  const { dispatch } = useBench('dispatch');
  const curves = station.torque ?? [];
  const [state, setState] = useTyped('state', curves[0]?.state ?? 'on');
  const [rpm, setRpm] = useTyped<number | null>('rpm', null);
  const [nm, setNm] = useTyped<number | null>('torque', null);
  const [kw, setKw] = useTyped<number | null>('power', null);
  const keep = (next: readonly TorqueCurve[]) =>
    dispatch(edit((d) => changeStation(d, station.id, { torque: next.length > 0 ? next : undefined })));
  const torque = nm ?? (kw !== null && rpm !== null && rpm > 0 ? torqueOfPower(kw, rpm) : null);
  const name = state.trim() || 'on';
  const add = () => {
    const point = { rpm: rpm!, nm: torque! };
    const old = curves.find((curve) => curve.state === name);
    const points = [...(old?.points ?? []).filter((otherPoint) => otherPoint.rpm !== point.rpm), point].sort(
      (a, b) => a.rpm - b.rpm,
    );
    keep(
      old
        ? curves.map((curve) => (curve === old ? { ...curve, points } : curve))
        : [...curves, { state: name, points }],
    );
    setRpm(null);
    setNm(null);
    setKw(null);
  };
  return (
    <>
      {curves.map((curve) => (
        <ul className="reading-list" key={curve.state} aria-label={`Points, ${curve.state}`}>
          {curve.points.map((point) => (
            <li key={point.rpm}>
              <span className="reading-name">
                {curve.state}: {rpmFigure(point.rpm)} rev/min, {fixed(point.nm, 1)} N·m
              </span>
              <Button
                icon={<DeleteOutlined />}
                aria-label={`Remove ${curve.state} at ${rpmFigure(point.rpm)}`}
                onClick={() => {
                  const points = curve.points.filter((other) => other !== point);
                  keep(
                    curves
                      .map((otherCurve) => (otherCurve === curve ? { ...otherCurve, points } : otherCurve))
                      .filter((curve) => curve.points.length > 0),
                  );
                }}
              />
            </li>
          ))}
        </ul>
      ))}
      <div className="fields">
        <TextField label="State" value={state} max={40} onChange={setState} />
        <FigureField
          label="Its own speed"
          unit="rev/min"
          value={rpm}
          min={0}
          max={100_000}
          onCommit={setRpm}
          onClear={() => setRpm(null)}
        />
        <FigureField
          label="Torque"
          unit="N·m"
          value={nm}
          min={0}
          max={5000}
          onCommit={setNm}
          onClear={() => setNm(null)}
        />
        <FigureField
          label="or power"
          unit="kW"
          value={kw}
          min={0}
          max={1000}
          onCommit={setKw}
          onClear={() => setKw(null)}
        />
      </div>
      <div className="button-row">
        <Button type="primary" disabled={rpm === null || torque === null} onClick={add}>
          Add this point
        </Button>
      </div>
    </>
  );
}

function Limits({ station }: { station: Station }) {
  const { dispatch } = useBench('dispatch');
  const usual = DEFAULT_HUB_LIMITS[station.role] ?? null;
  const set = (newtons: number | undefined) =>
    dispatch(edit((d) => changeStation(d, station.id, { hubLoadLimit: newtons })));
  return (
    <div className="fields">
      <FigureField
        label={station.hubLoadLimit === undefined ? 'Bearing load limit (a default)' : 'Bearing load limit'}
        unit="N"
        value={station.hubLoadLimit ?? usual}
        min={1}
        max={200_000}
        onCommit={set}
        onClear={() => set(undefined)}
      />
    </div>
  );
}
