import { fixed } from '@emery/core/quantity';
import { DeleteOutlined, EyeInvisibleOutlined } from '@ant-design/icons';
import { Button, Segmented, Slider } from 'antd';
import { useState } from 'react';
import { edit, useBench } from '../../state/bench';
import { FigureField } from '../../ui/FigureField';
import { FindingItem } from '../../bench/FindingItem';
import { useTyped } from '../../ui/typed-text';
import { serialTachometer, simulatedTachometer, type SerialSource, type Tachometer } from './tachometer';
import { useSpeeds } from './SpeedsProvider';
import { freeIdIn, putItem, removeItem, type Station, stationLabel } from '@emery/core/drive';
import { chainTo, DEFAULT_TACHOMETER, rpmFigure, slipOf, slipWords } from '@emery/core/speeds';

interface Props {
  station: Station;
  ratio: number;
}

type Source = 'typed' | 'simulated' | 'serial';

/** Check by tachometer: the crank's speed and a pulley's, against the ratio that the drawing has. */
export default function CheckLedger({ station, ratio }: Props) {
  const { drive, dispatch } = useBench('drive', 'dispatch');
  const { engineRpm } = useSpeeds();
  const [source, setSource] = useTyped<Source>('source', 'typed');
  const [crankRpm, setCrankRpm] = useTyped<number | null>('crank', null);
  const [rpm, setRpm] = useTyped<number | null>('shaft', null);
  const [plusMinus, setPlusMinus] = useTyped<number | null>('plus or minus', null);
  const [problem, setProblem] = useState<string | null>(null);
  const [hidden, setHidden] = useState(3);
  const [covered, setCovered] = useState(false);
  const [port, setPort] = useState<SerialSource | null>(null);
  const name = stationLabel(station);
  const radii = (chainTo(drive, station.id) ?? []).flatMap(({ driverRadius, drivenRadius }) => [
    driverRadius,
    drivenRadius,
  ]);
  const slip =
    crankRpm !== null && rpm !== null
      ? slipOf({ crankRpm, rpm, ...(plusMinus !== null && { plusMinus }) }, ratio, radii)
      : null;
  const checks = (drive.speedChecks ?? []).filter((check) => check.station === station.id);

  const readWith = async (tachometer: Tachometer, put: (rpm: number) => void) => {
    setProblem(null);
    try {
      put(await tachometer.read());
    } catch (error) {
      setProblem(`${tachometer.name}: ${(error as Error).message}`);
    }
  };
  const tachometer = (what: 'crank' | 'pulley'): Tachometer | null => {
    if (source === 'simulated')
      return simulatedTachometer(() => engineRpm * (what === 'crank' ? 1 : ratio * (1 - hidden / 100)));
    return source === 'serial' && port ? serialTachometer(port) : null;
  };
  const connect = async () => {
    setProblem(null);
    try {
      const serial = (
        navigator as Navigator & {
          serial: {
            requestPort: () => Promise<SerialSource & { open: (options: { baudRate: number }) => Promise<void> }>;
          };
        }
      ).serial;
      const chosen = await serial.requestPort();
      await chosen.open({ baudRate: 9600 });
      setPort(chosen);
    } catch (error) {
      setProblem(`No tachometer was connected. ${(error as Error).message}`);
    }
  };
  const keep = () =>
    dispatch(
      edit((d) =>
        putItem(d, 'speedChecks', {
          id: freeIdIn('check', d.speedChecks),
          station: station.id,
          crankRpm: crankRpm!,
          rpm: rpm!,
          ...(plusMinus !== null && { plusMinus }),
          ...(source === 'simulated' && { simulated: true }),
          at: new Date().toISOString(),
        }),
      ),
    );
  if (station.role === 'crankshaft')
    return <p>Select an accessory: its speed is measured against the crank&rsquo;s.</p>;

  const options: { value: Source; label: string }[] = [
    { value: 'typed', label: 'Enter readings' },
    { value: 'simulated', label: 'Simulated' },
    ...('serial' in navigator ? [{ value: 'serial' as const, label: 'Serial port' }] : []),
  ];
  return (
    <>
      <p className="finding is-watch">
        <span className="finding-word">
          <span aria-hidden>▲</span> Watch
        </span>
        Fix the reflective mark with the engine stopped and the key out. Read from arm&rsquo;s length, nothing loose
        near the belt, clear of the fan.
      </p>
      <Segmented<Source>
        block
        value={source}
        options={options}
        aria-label="Source of the reading"
        onChange={(next) => {
          setSource(next);
          setCrankRpm(null);
          setRpm(null);
        }}
      />
      {source === 'simulated' && (
        <div className="simulated" aria-label="Simulated tachometer">
          <p>
            <strong>Simulated.</strong> It measures nothing. For practice it reads the drawn drive at{' '}
            {rpmFigure(engineRpm)} rev/min engine speed, with a slip you choose.
          </p>
          {covered ? (
            <p>The slip is hidden. Read, and see whether the readings show it.</p>
          ) : (
            <>
              <div className="label">Slip of the simulated belt, {fixed(hidden, 1)} %</div>
              <Slider
                min={0}
                max={12}
                step={0.1}
                value={hidden}
                onChange={setHidden}
                tooltip={{ open: false }}
                ariaLabelForHandle="Slip of the simulated belt, percent"
              />
            </>
          )}
          <Button
            icon={<EyeInvisibleOutlined />}
            onClick={() => {
              if (!covered) setHidden(Math.round(Math.random() * 80) / 10);
              setCovered(!covered);
            }}
          >
            {covered ? 'Show the slip' : 'Hide a random slip'}
          </Button>
        </div>
      )}
      {source === 'serial' && !port && <Button onClick={() => void connect()}>Connect a tachometer</Button>}
      {(source === 'simulated' || port) && source !== 'typed' && (
        <div className="button-row">
          <Button type="primary" onClick={() => void readWith(tachometer('crank')!, setCrankRpm)}>
            Read the crank
          </Button>
          <Button type="primary" onClick={() => void readWith(tachometer('pulley')!, setRpm)}>
            Read {name}
          </Button>
        </div>
      )}
      {problem && (
        <p className="field-echo is-wrong" role="alert">
          {problem}
        </p>
      )}
      <div className="fields is-three">
        <FigureField
          label="Crank"
          unit="rev/min"
          value={crankRpm}
          min={1}
          max={30_000}
          onCommit={setCrankRpm}
          onClear={() => setCrankRpm(null)}
        />
        <FigureField
          label={name}
          unit="rev/min"
          value={rpm}
          min={0}
          max={100_000}
          onCommit={setRpm}
          onClear={() => setRpm(null)}
        />
        <FigureField
          label={plusMinus === null ? '± (a default)' : '±'}
          unit="rev/min"
          value={plusMinus ?? DEFAULT_TACHOMETER.rpm}
          min={0.01}
          max={500}
          onCommit={setPlusMinus}
        />
      </div>
      {slip && (
        <>
          <div data-testid="slip">
            <div className="label">Slip{source === 'simulated' && ', simulated'}</div>
            <div className="answer-figure is-second" data-slip={slip.percent}>
              {fixed(slip.percent, 1)} % <span className="answer-other">± {fixed(slip.plusMinus, 1)}</span>
            </div>
            <p className="quiet">
              By its ratio it should turn {rpmFigure(ratio * crankRpm!)}; it turns {rpmFigure(rpm!)}.
            </p>
          </div>
          <ul className="findings" aria-label="Result">
            <FindingItem
              severity={slip.verdict === 'slips' || slip.verdict === 'overruns' ? 'watch' : 'note'}
              words={slipWords(slip)}
            />
          </ul>
          <div className="button-row">
            <Button onClick={keep}>Record check</Button>
          </div>
        </>
      )}
      {checks.length > 0 && (
        <table className="ledger-table" aria-label="Checks">
          <thead>
            <tr>
              <th>Checks</th>
              <th className="figure">Crank</th>
              <th className="figure">{name}</th>
              <th className="figure">Slip</th>
              <th aria-label="Remove" />
            </tr>
          </thead>
          <tbody>
            {checks.map((check) => {
              const was = slipOf(check, ratio, radii);
              return (
                <tr key={check.id}>
                  <td>
                    {check.at?.slice(0, 10)}
                    {check.simulated && ' simulated'}
                  </td>
                  <td className="figure">{rpmFigure(check.crankRpm)}</td>
                  <td className="figure">{rpmFigure(check.rpm)}</td>
                  <td className="figure">{was ? `${fixed(was.percent, 1)} ± ${fixed(was.plusMinus, 1)} %` : '—'}</td>
                  <td className="figure">
                    <Button
                      icon={<DeleteOutlined />}
                      aria-label={`Remove the check of ${rpmFigure(check.rpm)}`}
                      onClick={() => dispatch(edit((d) => removeItem(d, 'speedChecks', check.id)))}
                    />
                  </td>
                </tr>
              );
            })}
          </tbody>
        </table>
      )}
    </>
  );
}
