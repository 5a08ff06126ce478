import { DeleteOutlined } from '@ant-design/icons';
import { Button, Input } from 'antd';
import { useId, useState } from 'react';
import { edit, useBench } from '../../state/bench';
import { useSurveying } from './SurveyProvider';
import { Choice } from '../../ui/Choice';
import { LengthInput } from '../../ui/LengthInput';
import { LengthFigure } from '../../ui/LengthFigure';
import { useNarrow } from '../../ui/use-narrow';
import { TypedPlace, useForgetTyped, useTyped } from '../../ui/typed-text';
import { firstTape } from './first-tape';
import { Fitted } from './Fitted';
import { removeTape } from './words';
import {
  findPulley,
  freeIdIn,
  pulleyLabel,
  putItem,
  READING_WORDS,
  type ReadingKind,
  removeItem,
  stationOf,
  type SurveyReading,
} from '@emery/core/drive';
import { formatMm, type LengthUnit, parseLength, readNumber, readsAs, fixed } from '@emery/core/quantity';
import { DEFAULT_PLUS_MINUS, isTape, plusMinusOf, readingOf, type SurveyFit, valueOf } from '@emery/core/survey';

const KINDS = (Object.keys(READING_WORDS) as ReadingKind[]).map((value) => ({ value, label: READING_WORDS[value] }));

/** The tape network: the next tape to take, what has been read, what it comes to and what to read again. */
export function TapeLedger() {
  const { drive } = useBench('drive');
  const { fit: surveyFit } = useSurveying();
  const readings = drive.survey?.readings ?? [];
  if (drive.stations.length < 2)
    return (
      <p className="quiet">
        Add two pulleys or more, roughly in position. Tape readings between them then correct the positions.
      </p>
    );
  return (
    <>
      <TypedPlace at="tape">
        <ReadingForm key={readings.length} fit={surveyFit} />
      </TypedPlace>
      {readings.length > 0 && <ReadingTable fit={surveyFit} />}
      {surveyFit && readings.length > 0 && <Fitted fit={surveyFit} />}
    </>
  );
}

/** Asks for one reading, the most useful next one first. */
function ReadingForm({ fit }: { fit: SurveyFit | null }) {
  const { drive, unit, dispatch } = useBench('drive', 'unit', 'dispatch');
  const { setTapeAsked, tapeFirst, setTapeFirst } = useSurveying();
  const first = firstTape(drive, fit);
  const [kind, setKind] = useTyped<ReadingKind>('kind', 'outer');
  const [picked, setChosen] = useTyped<{ from: string; to: string } | null>('between', null);
  const [text, setText] = useTyped('reading', '');
  const [doubt, setDoubt] = useTyped('doubt', '');
  const [problem, setProblem] = useState('');
  const id = useId();
  // One that was taken off the engine meanwhile is no longer meant.
  const chosen = picked && findPulley(drive, picked.from) && findPulley(drive, picked.to) ? picked : null;
  const { from, to } = chosen ?? first;
  const angular = kind === 'angle';
  const placed = kind === 'x' || kind === 'y';
  const pulleys = drive.stations.flatMap((station) =>
    station.pulleys.map(({ id: pulley }) => ({ value: pulley, label: pulleyLabel(drive, pulley) })),
  );
  const understood = text.trim() === '' || angular ? null : parseLength(text, unit);

  const choose = (next: { from: string; to: string }) => {
    setChosen(next);
    setTapeAsked(next);
  };
  const write = (next: string) => {
    setText(next);
    // What is being written belongs to the tape that was asked for, whatever the fit asks for by then.
    if (next !== '') setChosen({ from, to });
    setProblem('');
  };
  const between = placed ? pulleyLabel(drive, from) : `${pulleyLabel(drive, from)} to ${pulleyLabel(drive, to)}`;
  // With the pad open what is asked stands with its field.
  const narrow = useNarrow();
  const forget = useForgetTyped();
  const submit = () => {
    const value = angular ? angleOf(text) : parseLength(text, unit);
    if (!value.ok) return setProblem(value.problem);
    const written = angular ? angleOf : (text: string) => parseLength(text, unit);
    const plusMinus = doubt.trim() === '' ? null : written(doubt);
    if (plusMinus && !plusMinus.ok) return setProblem(`±: ${plusMinus.problem}`);
    const sigma = plusMinus ? figureOf(plusMinus) : undefined;
    if (sigma !== undefined && sigma <= 0) return setProblem('±: it must be more than zero.');
    if (!placed && from === to) return setProblem('From and to are the same pulley. Choose another.');
    if (isTape(kind) && 'mm' in value && value.mm < 0) return setProblem('A distance cannot be below zero.');
    const read = 'deg' in value ? value.deg : value.mm;
    const reading = readingOf(
      { id: freeIdIn('tape', drive.survey?.readings), kind, from, to, at: new Date().toISOString() },
      read,
      sigma,
    );
    setTapeAsked(null);
    setTapeFirst(true);
    forget();
    dispatch(edit((d) => putItem(d, 'survey.readings', reading)));
  };

  return (
    <div className="reading-form">
      <h2>{chosen || fit === null ? 'Tape reading' : 'Next tape, the most useful one'}</h2>
      <div className="fields">
        <Choice label="Kind of reading" value={kind} options={KINDS} onChange={setKind} />
        <div className="field">
          {narrow && <p className="reading-asked">{between}</p>}
          <label className="label" htmlFor={id}>
            {angular ? 'Reading, degrees' : 'Reading'}
          </label>
          {angular ? (
            <Input
              id={id}
              value={text}
              autoComplete="off"
              status={problem ? 'error' : ''}
              aria-describedby={`${id}-echo`}
              onChange={(event) => write(event.target.value)}
            />
          ) : (
            <LengthInput
              id={id}
              label="Reading"
              measured={`${between}, ${READING_WORDS[kind]}`}
              first={tapeFirst}
              text={text}
              unit={unit}
              signed={placed}
              wrong={problem !== ''}
              onText={write}
              onEnter={submit}
            />
          )}
        </div>
        <div className="field">
          <label className="label" htmlFor={`${id}-doubt`}>
            ± (default {angular ? `${DEFAULT_PLUS_MINUS.deg}°` : formatMm(DEFAULT_PLUS_MINUS.mm)})
          </label>
          {angular ? (
            <Input
              id={`${id}-doubt`}
              value={doubt}
              autoComplete="off"
              onChange={(event) => setDoubt(event.target.value)}
            />
          ) : (
            <LengthInput
              id={`${id}-doubt`}
              label="Plus or minus"
              text={doubt}
              unit={unit}
              signed={false}
              wrong={problem.startsWith('±')}
              onText={setDoubt}
              onEnter={submit}
            />
          )}
        </div>
        {!placed && (
          <Choice label="From" value={from} options={pulleys} onChange={(next) => choose({ from: next, to })} />
        )}
        <Choice
          label={placed ? 'Pulley' : 'To'}
          value={to}
          options={pulleys}
          onChange={(next) => choose({ from, to: next })}
        />
      </div>
      <p id={`${id}-echo`} className={`field-echo${problem ? ' is-wrong' : ''}`} role={problem ? 'alert' : undefined}>
        {problem || (understood?.ok ? readsAs(understood.mm) : '')}
      </p>
      <p className="quiet">± is one standard deviation: about 2 readings in 3 are within it.</p>
      <div className="button-row is-after">
        <Button type="primary" onClick={submit}>
          Add reading
        </Button>
      </div>
    </div>
  );
}

function ReadingTable({ fit }: { fit: SurveyFit | null }) {
  const { drive, unit, dispatch, hover } = useBench('drive', 'unit', 'dispatch', 'hover');
  const byId = new Map(fit?.readings.map((reading) => [reading.id, reading]));
  return (
    <table className="ledger-table">
      <thead>
        <tr>
          <th>Reading</th>
          <th className="figure">Reading</th>
          <th className="figure">Off by</th>
          <th aria-label="Remove" />
        </tr>
      </thead>
      <tbody>
        {(drive.survey?.readings ?? []).map((reading, nth) => {
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
                <Value reading={reading} value={valueOf(reading)} unit={unit} />{' '}
                <span className="quiet">± {plusMinusOf(reading)}</span>
              </td>
              <td className="figure">
                {fitted?.suspect && <span className="flag is-fault">■ again </span>}
                {fitted ? <Value reading={reading} value={fitted.residual} unit="mm" /> : '…'}
              </td>
              <td>
                <Button
                  type="text"
                  icon={<DeleteOutlined />}
                  aria-label={removeTape(nth + 1)}
                  onClick={() => dispatch(edit((d) => removeItem(d, 'survey.readings', reading.id)))}
                />
              </td>
            </tr>
          );
        })}
      </tbody>
    </table>
  );
}

function Value({ reading, value, unit }: { reading: SurveyReading; value: number; unit: LengthUnit }) {
  return reading.kind === 'angle' ? <span>{fixed(value, 1)}°</span> : <LengthFigure mm={value} unit={unit} />;
}

function angleOf(text: string): { ok: true; deg: number } | { ok: false; problem: string } {
  const written = text
    .trim()
    .replace(/°|deg(rees)?$/i, '')
    .trim();
  const read = readNumber(written, { min: -360, max: 360 });
  return read.ok && Math.abs(read.value) <= 360
    ? { ok: true, deg: read.value }
    : { ok: false, problem: 'Angle: enter degrees from -360 to 360, such as 35.5.' };
}

const figureOf = (reading: { deg: number } | { mm: number }) => ('deg' in reading ? reading.deg : reading.mm);
