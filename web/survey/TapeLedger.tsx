import { DeleteOutlined } from '@ant-design/icons';
import { Button, Input } from 'antd';
import { useId, useState } from 'react';
import { moveStation, placeStations, pulleyLabel, putReading, removeReading, stationOf, type Drive } from '@emery/core/drive';
import { formatInches, formatMm, parseLength, type LengthUnit } from '@emery/core/quantity';
import { DEFAULT_PLUS_MINUS, isTape, plusMinusOf, valueOf, type ReadingKind, type SurveyFinding, type SurveyFit, type SurveyReading } from '@emery/core/survey';
import { READING_WORDS, surveyWords } from '@emery/core/words';
import { edit, useBench } from '../bench/bench-context';
import { Choice } from '../ledger/Choice';
import { SEVERITY_MARKS } from '../ledger/FindingList';
import { LengthInput } from '../ledger/LengthInput';
import { LengthFigure } from '../ledger/LengthFigure';
import { firstTape } from './first-tape';

const KINDS = (Object.keys(READING_WORDS) as ReadingKind[]).map((value) => ({ value, label: READING_WORDS[value] }));

/** The tape network: the next tape to take, what has been read, what it comes to and what to read again. */
export function TapeLedger() {
  const { drive, surveyFit } = useBench();
  const readings = drive.survey?.readings ?? [];
  if (drive.stations.length < 2) return <p className="quiet">Add two pulleys or more, roughly where they sit. Tapes between them then put them right.</p>;
  return (
    <>
      <ReadingForm key={readings.length} fit={surveyFit} />
      {readings.length > 0 && <ReadingTable fit={surveyFit} />}
      {surveyFit && readings.length > 0 && <Fitted fit={surveyFit} />}
    </>
  );
}

/** Asks for one reading, the most useful next one first. */
function ReadingForm({ fit }: { fit: SurveyFit | null }) {
  const { drive, unit, dispatch, setTapeAsked } = useBench();
  const first = firstTape(drive, fit);
  const [kind, setKind] = useState<ReadingKind>('outer');
  const [chosen, setChosen] = useState<{ from: string; to: string } | null>(null);
  const [text, setText] = useState('');
  const [problem, setProblem] = useState('');
  const id = useId();
  const { from, to } = chosen ?? first;
  const angular = kind === 'angle';
  const placed = kind === 'x' || kind === 'y';
  const pulleys = drive.stations.flatMap((station) => station.pulleys.map(({ id: pulley }) => ({ value: pulley, label: pulleyLabel(drive, pulley) })));
  const understood = text.trim() === '' || angular ? null : parseLength(text, unit);

  const choose = (next: { from: string; to: string }) => {
    setChosen(next);
    setTapeAsked(next);
  };
  const write = (next: string) => {
    setText(next);
    setProblem('');
  };
  const submit = () => {
    const value = angular ? angleOf(text) : parseLength(text, unit);
    if (!value.ok) return setProblem(value.problem);
    if (!placed && from === to) return setProblem('From and to are the same pulley. Choose another.');
    if (isTape(kind) && 'mm' in value && value.mm < 0) return setProblem('A distance cannot be below zero.');
    const reading: SurveyReading = {
      id: nextId(drive),
      kind,
      ...(!placed && { from }),
      to,
      ...('deg' in value ? { deg: value.deg, plusMinus: DEFAULT_PLUS_MINUS.deg } : { mm: value.mm, plusMinus: DEFAULT_PLUS_MINUS.mm }),
      at: new Date().toISOString(),
    };
    setTapeAsked(null);
    dispatch(edit((d) => putReading(d, reading)));
  };

  return (
    <div className="reading-form">
      <h2>{chosen || fit === null ? 'Read a tape' : 'Next tape, the most useful one'}</h2>
      <div className="fields">
        <Choice label="What is read" value={kind} options={KINDS} onChange={setKind} />
        <div className="field">
          <label className="label" htmlFor={id}>
            {angular ? 'Reading, degrees' : 'Reading'}
          </label>
          {angular ? (
            <Input id={id} value={text} autoComplete="off" status={problem ? 'error' : ''} aria-describedby={`${id}-echo`} onChange={(event) => write(event.target.value)} />
          ) : (
            <LengthInput id={id} label="Reading" text={text} unit={unit} signed={placed} wrong={problem !== ''} onText={write} onEnter={submit} />
          )}
        </div>
        {!placed && <Choice label="From" value={from} options={pulleys} onChange={(next) => choose({ from: next, to })} />}
        <Choice label={placed ? 'Pulley' : 'To'} value={to} options={pulleys} onChange={(next) => choose({ from, to: next })} />
      </div>
      <p id={`${id}-echo`} className={`field-echo${problem ? ' is-wrong' : ''}`} role={problem ? 'alert' : undefined}>
        {problem || (understood?.ok ? `reads ${formatInches(understood.mm)} · ${formatMm(understood.mm)}` : '')}
      </p>
      <div className="button-row is-after">
        <Button type="primary" onClick={submit}>
          Add reading
        </Button>
      </div>
    </div>
  );
}

function ReadingTable({ fit }: { fit: SurveyFit | null }) {
  const { drive, unit, dispatch, hover } = useBench();
  const byId = new Map(fit?.readings.map((reading) => [reading.id, reading]));
  return (
    <table className="ledger-table">
      <thead>
        <tr>
          <th>Reading</th>
          <th className="figure">Reads</th>
          <th className="figure">Off by</th>
          <th aria-label="Take out" />
        </tr>
      </thead>
      <tbody>
        {(drive.survey?.readings ?? []).map((reading) => {
          const fitted = byId.get(reading.id);
          const station = stationOf(drive, reading.to);
          return (
            <tr
              key={reading.id}
              className={fitted?.suspect ? 'is-suspect' : ''}
              onPointerEnter={() => station && hover({ kind: 'pulley', station: station.id, pulley: reading.to })}
              onPointerLeave={() => hover(null)}
            >
              <td className="reading-name">
                {reading.from === undefined ? '' : `${pulleyLabel(drive, reading.from)} to `}
                {pulleyLabel(drive, reading.to)}
                <span className="quiet"> {READING_WORDS[reading.kind]}</span>
              </td>
              <td className="figure">
                <Value reading={reading} value={valueOf(reading)} unit={unit} /> <span className="quiet">± {plusMinusOf(reading)}</span>
              </td>
              <td className="figure">
                {fitted?.suspect && <span className="flag is-fault">■ again </span>}
                {fitted ? <Value reading={reading} value={fitted.residual} unit="mm" /> : '…'}
              </td>
              <td>
                <Button type="text" icon={<DeleteOutlined />} aria-label={`Take out ${reading.id}`} onClick={() => dispatch(edit((d) => removeReading(d, reading.id)))} />
              </td>
            </tr>
          );
        })}
      </tbody>
    </table>
  );
}

function Value({ reading, value, unit }: { reading: SurveyReading; value: number; unit: LengthUnit }) {
  return reading.kind === 'angle' ? <span>{value.toFixed(1)}°</span> : <LengthFigure mm={value} unit={unit} />;
}

/** What the tapes come to, and the pulleys put there. */
function Fitted({ fit }: { fit: SurveyFit }) {
  const { drive, dispatch, unit } = useBench();
  const moved = fit.stations.filter((place) => {
    const station = drive.stations.find(({ id }) => id === place.id);
    return station && place.plusMinusX !== null && Math.hypot(station.x - originOf(drive).x - place.x, station.y - originOf(drive).y - place.y) > 0.05;
  });
  const widest = Math.max(0, ...fit.stations.flatMap(({ plusMinusX, plusMinusY }) => [plusMinusX ?? 0, plusMinusY ?? 0]));
  const shift = originOf(drive);
  const put = () => dispatch(edit((d) => placeStations(d, moved.map(({ id, x, y }) => ({ id, x: x + shift.x, y: y + shift.y })))));
  const across = ({ pulley, figures }: SurveyFinding) => {
    const station = stationOf(drive, pulley!)!;
    dispatch(edit((d) => moveStation(d, station.id, Number(figures!['x']) + shift.x, Number(figures!['y']) + shift.y)));
  };
  return (
    <>
      {moved.length > 0 ? (
        <div className="settled">
          <strong>The tapes put {moved.length === 1 ? 'one pulley' : `${moved.length} pulleys`} elsewhere.</strong> Good to ± {formatMm(widest)} or better.
          <div className="button-row is-after">
            <Button type="primary" onClick={put}>
              Move them there
            </Button>
          </div>
        </div>
      ) : widest === 0 ? null : (
        <p className="settled">
          <strong>The drawing agrees with the tapes.</strong> Good to ± {formatMm(widest)} or better.
        </p>
      )}
      <ul className="findings" aria-label="Findings">
        {fit.findings.map((finding, index) => {
          const { title, why, todo } = surveyWords(drive, finding, unit);
          const { mark, word } = SEVERITY_MARKS[finding.severity];
          return (
            <li key={index} className={`finding is-${finding.severity}`}>
              <span className="finding-word"><span aria-hidden>{mark}</span> {word}</span>
              <strong>{title}</strong> {why} <span className="finding-todo">{todo}</span>
              {finding.code === 'mirrored' && <Button onClick={() => across(finding)}>Put it across</Button>}
            </li>
          );
        })}
      </ul>
    </>
  );
}

/** The crank's place on the drawing: the fit has it at 0, 0. */
function originOf(drive: Drive): { x: number; y: number } {
  return drive.stations.find(({ role }) => role === 'crankshaft') ?? drive.stations[0]!;
}

function nextId(drive: Drive): string {
  const taken = new Set(drive.survey?.readings?.map(({ id }) => id));
  for (let n = 1; ; n += 1) if (!taken.has(`tape-${n}`)) return `tape-${n}`;
}

function angleOf(text: string): { ok: true; deg: number } | { ok: false; problem: string } {
  const written = text.trim().replace(/°|deg(rees)?$/i, '').replace(',', '.').trim();
  const deg = Number(written);
  return written !== '' && Number.isFinite(deg) && Math.abs(deg) <= 360 ? { ok: true, deg } : { ok: false, problem: 'Angle: write degrees from -360 to 360, such as 35.5.' };
}

