import { fixed, grouped } from '@emery/core/quantity';
import { MarkedRow } from '../../bench/MarkedRow';
import { UploadOutlined } from '@ant-design/icons';
import { Button, Progress } from 'antd';
import { useMemo, useRef, useState } from 'react';
import { edit, useBench } from '../../state/bench';
import type { Mark } from '../../state/mark';
import { useCoreRun } from '../../state/use-core-sum';
import { FigureField } from '../../ui/FigureField';
import { StoppedSum } from '../../ui/StoppedSum';
import type { SpeedLogRead } from './read-speed-log';
import { useSpeeds } from './SpeedsProvider';
import { type EngineUse, stationLabel } from '@emery/core/drive';
import {
  bandOf,
  meanEngineRpm,
  presetUse,
  rpmFigure,
  speedsOf,
  timeInBand,
  turnsOf,
  USE_PRESETS,
  USE_WORDS,
} from '@emery/core/speeds';

/** How the vehicle is used, and what that makes of each accessory's time. */
export default function UseLedger() {
  const { drive, dispatch } = useBench('drive', 'dispatch');
  const { marks } = useSpeeds();
  const { use } = drive;
  const put = (change: Partial<EngineUse>) => dispatch(edit((d) => ({ ...d, use: { bins: [], ...d.use, ...change } })));
  return (
    <>
      <div>
        <div className="label">Typical use: start from one of these</div>
        <div className="button-row">
          {USE_PRESETS.map((preset) => (
            <Button
              key={preset}
              type={use?.name === preset ? 'primary' : 'default'}
              aria-pressed={use?.name === preset}
              onClick={() => put(presetUse(preset, marks))}
            >
              {USE_WORDS[preset]}
            </Button>
          ))}
        </div>
      </div>
      <LogReader onRead={(bins, name) => put({ bins, name })} />
      {use && use.bins.length > 0 ? (
        <>
          <p className="quiet">
            Drag a bar below the drawing, or move it with the arrow keys, to match this vehicle. The presets are
            starting values.
          </p>
          <TimeTable use={use} />
          <div className="fields">
            <FigureField
              label="Mean road speed"
              unit="km/h"
              value={use.kmPerHour ?? null}
              min={1}
              max={300}
              onCommit={(kmPerHour) => put({ kmPerHour })}
              onClear={() => put({ kmPerHour: undefined })}
            />
          </div>
        </>
      ) : (
        <p>
          Choose a use, or import a log. Then Emery shows how long each accessory runs too slow, right, or too fast.
        </p>
      )}
    </>
  );
}

function TimeTable({ use }: { use: EngineUse }) {
  const { drive, solution } = useBench('drive', 'solution');
  const { bands } = useSpeeds();
  const { shafts } = useMemo(() => speedsOf(drive, solution), [drive, solution]);
  const mean = meanEngineRpm(use);
  return (
    <>
      {mean !== null && <p>Mean engine speed {rpmFigure(mean)}.</p>}
      <table className="ledger-table use-table">
        <thead>
          <tr>
            <th>Share of the time</th>
            <th className="figure">slow</th>
            <th className="figure">right</th>
            <th className="figure">fast</th>
            <th className="figure is-narrow">million turns in 1,000 h{use.kmPerHour ? ' · 1,000 km' : ''}</th>
          </tr>
        </thead>
        <tbody>
          {drive.stations.map((station, index) => {
            const ratio = shafts[index]!.speedRatio;
            if (ratio === null) return null;
            const { tooSlow, right, tooFast, beyond } = timeInBand(use, ratio, bandOf(station, bands).band);
            const turns = turnsOf(use, ratio);
            const mark: Mark = { kind: 'pulley', station: station.id, pulley: station.pulleys[0]!.id };
            const fast = tooFast + beyond;
            return (
              <MarkedRow key={station.id} mark={mark}>
                <td>
                  <button type="button" className="row-button">
                    {stationLabel(station)}
                  </button>
                  <span className="time-bar" aria-hidden>
                    <i className="is-slow" style={{ width: `${100 * tooSlow}%` }} />
                    <i className="is-right" style={{ width: `${100 * right}%` }} />
                    <i className="is-fast" style={{ width: `${100 * tooFast}%` }} />
                    <i className="is-beyond" style={{ width: `${100 * beyond}%` }} />
                  </span>
                </td>
                <td className="figure">{percent(tooSlow)}</td>
                <td className="figure">{percent(right)}</td>
                <td className="figure">
                  {beyond > 0.0005 && (
                    <span className="flag is-fault" title="some of it above the short-time limit">
                      ■{' '}
                    </span>
                  )}
                  {percent(fast)}
                </td>
                <td className="figure">
                  {turns && fixed(turns.per1000Hours / 1e6, 0)}
                  {turns && turns.per1000Km !== null && ` · ${fixed(turns.per1000Km / 1e6, 1)}`}
                </td>
              </MarkedRow>
            );
          })}
        </tbody>
      </table>
    </>
  );
}

function percent(share: number): string {
  return share > 0 && share < 0.005 ? 'under 1 %' : `${Math.round(100 * share)} %`;
}

/** A CSV log of time and engine speed, read beside the page. */
function LogReader({ onRead }: { onRead: (bins: EngineUse['bins'], name: string) => void }) {
  const [read, setRead] = useState<{ name: string; result: SpeedLogRead } | null>(null);
  const { progress, stopped, run, cancel } = useCoreRun('log', (result, { name }) => {
    setRead({ name, result });
    if (result.ok) onRead(result.bins, name);
  });
  const input = useRef<HTMLInputElement>(null);
  const start = (file: File) => {
    setRead(null);
    run(file);
  };
  return (
    <div>
      <div className="button-row">
        <Button icon={<UploadOutlined />} disabled={progress !== null} onClick={() => input.current?.click()}>
          Import a log (CSV)
        </Button>
        {progress !== null && <Button onClick={cancel}>Cancel</Button>}
      </div>
      <input
        ref={input}
        type="file"
        accept=".csv,.txt,text/csv"
        hidden
        aria-label="Log of time and engine speed"
        onChange={(event) => {
          const file = event.target.files?.[0];
          if (file) start(file);
          event.target.value = '';
        }}
      />
      {progress !== null && <Progress percent={Math.round(100 * progress)} aria-label="Share of the log read" />}
      <StoppedSum stopped={stopped} />
      {read &&
        (read.result.ok ? (
          <LogSummary name={read.name} {...read.result} />
        ) : (
          <p role="alert" className="field-echo is-wrong">
            {read.name}: {read.result.problem}
          </p>
        ))}
    </div>
  );
}

function LogSummary({
  name,
  rows,
  bad,
  firstBad,
  runningS,
  standingS,
  pauses,
}: { name: string } & Omit<Extract<SpeedLogRead, { ok: true }>, 'ok' | 'bins'>) {
  const count = (n: number) => grouped(n);
  return (
    <div role="status" className="log-summary">
      <p>
        <strong>{name}:</strong> {count(rows)} rows, {hours(runningS)} of running time
        {standingS > 0 && `, ${hours(standingS)} stationary`}
        {pauses > 0 && `, ${count(pauses)} pauses left out`}.
      </p>
      {bad > 0 && (
        <p className="quiet">
          ▲ {count(bad)} rows were not understood and were left out, such as line {firstBad[0]!.line}: &ldquo;
          {firstBad[0]!.text}&rdquo;.
        </p>
      )}
    </div>
  );
}

function hours(s: number): string {
  return s < 5400 ? `${fixed(s / 60, s < 600 ? 1 : 0)} min` : `${fixed(s / 3600, 1)} h`;
}
