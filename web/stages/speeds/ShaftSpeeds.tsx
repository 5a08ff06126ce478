import { fixed } from '@emery/core/quantity';
import { MarkedRow } from '../../bench/MarkedRow';
import { Button, Input } from 'antd';
import { useId, useMemo } from 'react';
import { useKeepBand } from '../../api/speeds';
import { edit, useBench } from '../../state/bench';
import type { Mark } from '../../state/mark';
import { FigureField } from '../../ui/FigureField';
import { FindingItem } from '../../bench/FindingItem';
import { useTyped } from '../../ui/typed-text';
import { useSpeeds } from './SpeedsProvider';
import { changeStation, ROLE_LABELS, type SpeedBand, type Station, stationLabel } from '@emery/core/drive';
import { sectionFor } from '@emery/core/section';
import {
  BAND_SOURCE_WORDS,
  bandFindings,
  bandOf,
  bandWords,
  explainRatio,
  limitsFor,
  PLACE_WORDS,
  placeIn,
  ratioFigure,
  ratioReadingWords,
  ratioStatement,
  readRatio,
  rpmFigure,
  speedFindings,
  speedsOf,
  speedWords,
} from '@emery/core/speeds';

interface Props {
  station: Station;
  ratio: number;
}

/** Every shaft's ratio and speed, what the belts bear, and the band and ratio of the shaft in hand. */
export function ShaftSpeeds({ station, ratio }: Props) {
  const { drive, solution, unit, select } = useBench('drive', 'solution', 'unit', 'select');
  const { marks, bands, setView } = useSpeeds();
  const findings = useMemo(() => speedFindings(drive, marks.redline, solution), [drive, solution, marks.redline]);
  const outside = useMemo(() => bandFindings(drive, marks, bands, solution), [drive, marks, bands, solution]);
  const { turns, reciprocal } = ratioStatement(ratio, marks.idle);
  return (
    <>
      <div data-testid="ratio-statement">
        <p>
          <strong>{stationLabel(station)}.</strong> {turns}
        </p>
        <p className="quiet">{reciprocal}</p>
      </div>
      <ShaftTable held={station.id} />
      {findings.length + outside.length > 0 && (
        <ul className="findings" aria-label="Findings">
          {outside.map((finding) => (
            <FindingItem
              key={`${finding.station} ${finding.at}`}
              severity={finding.severity}
              words={bandWords(drive, finding)}
            >
              <Button
                onClick={() => {
                  select({
                    kind: 'pulley',
                    station: finding.station,
                    pulley: drive.stations.find(({ id }) => id === finding.station)!.pulleys[0]!.id,
                  });
                  setView('pulleys');
                }}
              >
                Find a pulley
              </Button>
            </FindingItem>
          ))}
          {findings.map((finding) => (
            <FindingItem
              key={`${finding.code} ${finding.belt} ${finding.pulley}`}
              severity={finding.severity}
              words={speedWords(drive, finding, unit)}
            />
          ))}
        </ul>
      )}
      <BeltTable />
      <ClaimedRatioField station={station} />
      <BandFields station={station} />
      <MarkFields />
    </>
  );
}

function ShaftTable({ held }: { held: string }) {
  const { drive, solution } = useBench('drive', 'solution');
  const { engineRpm, marks, bands } = useSpeeds();
  const { shafts } = useMemo(() => speedsOf(drive, solution), [drive, solution]);
  return (
    <table className="ledger-table">
      <thead>
        <tr>
          <th>Shaft</th>
          <th className="figure is-narrow">Turns per crank turn</th>
          <th className="figure">rev/min now</th>
          <th className="figure">idle</th>
          <th className="figure">redline</th>
        </tr>
      </thead>
      <tbody>
        {drive.stations.map((station, index) => {
          const { speedRatio, direction } = shafts[index]!;
          const mark: Mark = { kind: 'pulley', station: station.id, pulley: station.pulleys[0]!.id };
          const { band } = bandOf(station, bands);
          const figure = (rpm: number) => {
            if (speedRatio === null) return '—';
            const place = placeIn(band, speedRatio * rpm);
            return (
              <>
                {place !== 'right' && (
                  <span className={`flag is-${place === 'beyond' ? 'fault' : 'watch'}`} title={PLACE_WORDS[place].word}>
                    {PLACE_WORDS[place].mark}
                    <span className="visually-hidden"> {PLACE_WORDS[place].word} </span>{' '}
                  </span>
                )}
                {rpmFigure(speedRatio * rpm)}
              </>
            );
          };
          return (
            <MarkedRow key={station.id} mark={mark} held={station.id === held}>
              <td>
                <button type="button" className="row-button">
                  {stationLabel(station)}
                  {direction && (
                    <span
                      className="turn-way"
                      title={direction === 'cw' ? 'turns clockwise' : 'turns counter-clockwise'}
                    >
                      {direction === 'cw' ? ' ↻' : ' ↺'}
                    </span>
                  )}
                </button>
              </td>
              <td className="figure">{speedRatio === null ? '—' : ratioFigure(speedRatio)}</td>
              <td className="figure">{figure(engineRpm)}</td>
              <td className="figure">{figure(marks.idle)}</td>
              <td className="figure">{figure(marks.redline)}</td>
            </MarkedRow>
          );
        })}
      </tbody>
    </table>
  );
}

/** How fast the belts run and how often they bend, against the defaults for their section. */
function BeltTable() {
  const { drive, solution } = useBench('drive', 'solution');
  const { engineRpm } = useSpeeds();
  const { belts } = useMemo(() => speedsOf(drive, solution), [drive, solution]);
  return (
    <table className="ledger-table">
      <thead>
        <tr>
          <th>Belt, at {rpmFigure(engineRpm)}</th>
          <th className="figure">m/s</th>
          <th className="figure">of</th>
          <th className="figure">bends per second</th>
          <th className="figure">of</th>
        </tr>
      </thead>
      <tbody>
        {drive.belts.map((belt, index) => {
          const limits = limitsFor(sectionFor(belt.section, belt.sectionOverrides)!);
          const { metresPerSecond, flexPerSecond } = belts[index]!;
          return (
            <tr key={belt.id}>
              <td>
                {drive.belts.length > 1 ? `${index + 1} · ` : ''}
                {belt.section}
              </td>
              <td className="figure">{metresPerSecond === null ? '—' : fixed(metresPerSecond * engineRpm, 1)}</td>
              <td className="figure quiet">{limits.metresPerSecond}</td>
              <td className="figure">{flexPerSecond === null ? '—' : fixed(flexPerSecond * engineRpm, 0)}</td>
              <td className="figure quiet">{limits.flexPerSecond}</td>
            </tr>
          );
        })}
      </tbody>
    </table>
  );
}

/** A ratio someone else worked out: right, or which slip it is. */
function ClaimedRatioField({ station }: { station: Station }) {
  const { drive } = useBench('drive');
  const [text, setText] = useTyped('ratio', '');
  const id = useId();
  const claim = readRatio(text);
  const explained = claim && explainRatio(drive, station.id, claim);
  const words =
    explained?.readings
      .slice(0, 2)
      .map((reading) => ratioReadingWords(drive, reading, explained.truth, stationLabel(station))) ?? [];
  if (station.role === 'crankshaft') return null;
  return (
    <div className="field">
      <label className="label" htmlFor={id}>
        A ratio to check, for {stationLabel(station)}
      </label>
      <Input
        id={id}
        value={text}
        autoComplete="off"
        placeholder="such as 2.94, 2.94:1 or 36 %"
        aria-describedby={`${id}-echo`}
        onChange={(event) => setText(event.target.value)}
      />
      <div id={`${id}-echo`} className="claim">
        {text.trim() !== '' && claim === null && (
          <p className="field-echo is-wrong">Enter a ratio such as 2.94 or 2.94:1, or a percentage such as 36 %.</p>
        )}
        {explained && words.length === 0 && (
          <p>
            No known mistake gives that figure. {stationLabel(station)} turns {ratioFigure(explained.truth)} times for
            each crank turn.
          </p>
        )}
        {words.map((sentence, k) => (
          <p key={sentence} className={k > 0 ? 'quiet' : ''}>
            {k > 0 ? `Or: ${sentence}` : sentence}
          </p>
        ))}
      </div>
    </div>
  );
}

/** What the accessory in hand may turn: its own figures, the shop's for its kind, or the default. */
function BandFields({ station }: { station: Station }) {
  const { dispatch } = useBench('dispatch');
  const { bands } = useSpeeds();
  const keep = useKeepBand();
  const { band, source } = bandOf(station, bands);
  const change = (part: Partial<SpeedBand>) =>
    dispatch(edit((d) => changeStation(d, station.id, { speedBand: { ...band, ...part } })));
  const field = (label: string, key: keyof SpeedBand) => (
    <FigureField
      key={`${source} ${key}`}
      label={label}
      unit="rev/min"
      value={band[key]}
      min={0}
      max={100_000}
      onCommit={(rpm) => change({ [key]: rpm })}
      onClear={() => change({ [key]: null })}
    />
  );
  const kind = ROLE_LABELS[station.role];
  return (
    <section aria-label="Speed band">
      <h2>What {stationLabel(station)} may turn</h2>
      <p className="quiet">
        {BAND_SOURCE_WORDS[source][0]!.toUpperCase() + BAND_SOURCE_WORDS[source].slice(1)}. Its maker&rsquo;s figures
        take precedence.
      </p>
      <div className="fields is-three">
        {field('Useful from', 'least')}
        {field('Continuous limit', 'continuous')}
        {field('Short-time limit', 'burst')}
      </div>
      <div className="button-row">
        {source === 'vehicle' && (
          <>
            <Button onClick={() => dispatch(edit((d) => changeStation(d, station.id, { speedBand: undefined })))}>
              Back to the {bands[station.role] ? 'shop’s' : 'default'}
            </Button>
            <Button
              loading={keep.isPending}
              onClick={() =>
                keep.mutate(
                  { role: station.role, band },
                  { onSuccess: () => dispatch(edit((d) => changeStation(d, station.id, { speedBand: undefined }))) },
                )
              }
            >
              Save for every {kind.toLowerCase()}
            </Button>
          </>
        )}
        {source === 'shop' && (
          <Button loading={keep.isPending} onClick={() => keep.mutate({ role: station.role, band: null })}>
            Default for every {kind.toLowerCase()}
          </Button>
        )}
      </div>
      {keep.isError && (
        <p className="field-echo is-wrong">The shop&rsquo;s figures were not saved. {keep.error.message}</p>
      )}
    </section>
  );
}

/** Idle, cruise and redline of this engine. */
function MarkFields() {
  const { drive, dispatch } = useBench('drive', 'dispatch');
  const { marks } = useSpeeds();
  const field = (label: string, key: 'idle' | 'cruise' | 'redline') => (
    <FigureField
      label={drive.speeds?.[key] === undefined ? `${label} (a default)` : label}
      unit="rev/min"
      value={drive.speeds?.[key] ?? marks[key]}
      min={1}
      max={30_000}
      onCommit={(rpm) => dispatch(edit((d) => ({ ...d, speeds: { ...d.speeds, [key]: rpm } })))}
    />
  );
  return (
    <section aria-label="Engine speeds">
      <h2>This engine</h2>
      <div className="fields is-three">
        {field('Idle', 'idle')}
        {field('Cruise', 'cruise')}
        {field('Redline', 'redline')}
      </div>
    </section>
  );
}
