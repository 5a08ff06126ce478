import { memo } from 'react';
import { DeleteOutlined } from '@ant-design/icons';
import { Button } from 'antd';
import { useId, useState } from 'react';
import { edit, useBench, useBenchStores, useDrive } from '../../state/bench';
import { Choice } from '../../ui/Choice';
import { FindingItem } from '../../bench/FindingItem';
import { LengthFigure } from '../../ui/LengthFigure';
import { LengthInput } from '../../ui/LengthInput';
import { TypedPlace, useForgetTyped, useTyped } from '../../ui/typed-text';
import { OpenedForm } from '../../ui/OpenedForm';
import {
  changePulley,
  DIAMETER_METHODS,
  DIAMETER_WORDS,
  type DiameterMethod,
  type DiameterReading,
  freeIdIn,
  type Pulley,
  pulleyLabel,
} from '@emery/core/drive';
import { formatLength, formatMm, parseLength, readsAs } from '@emery/core/quantity';
import { combinedDiameter, DIAMETER_PLUS_MINUS, putDiameter, removeDiameter } from '@emery/core/survey';

interface ReadingsProps {
  /** All pulleys of the shaft. */
  sheaves: readonly Pulley[];
  pulley: Pulley;
}

/** How a pulley's diameter was read, what the readings come to, and a further one. */
export const DiameterReadings = memo(function DiameterReadings({ sheaves, pulley }: ReadingsProps) {
  const bench = useBenchStores();
  const { unit, dispatch } = useBench('unit', 'dispatch');
  const survey = useDrive((drive) => drive.survey);
  // What the readings come to hangs on them and on the sheaves of this shaft; in a drag it stays.
  const { drive } = bench.get();
  const [adding, setAdding] = useTyped('measuring', false);
  const combined = combinedDiameter(drive, pulley.id);
  const readings = (survey?.diameters ?? []).filter((reading) => reading.pulley === pulley.id);
  const differs = combined !== null && Math.abs((pulley.diameter ?? 0) - combined.mm) > 0.05;
  return (
    <div className="diameter-readings">
      {readings.length > 0 && (
        <ul className="reading-list" aria-label="Diameter readings">
          {readings.map((reading) => {
            const made = combined?.readings.find(({ id }) => id === reading.id);
            return (
              <li key={reading.id}>
                <span className="reading-name">
                  {readings.length > 2 && combined?.suspect === reading.id && <span className="flag is-fault">■ </span>}
                  {DIAMETER_WORDS[reading.method].name}
                  {reading.of !== undefined && ` from ${pulleyLabel(drive, reading.of)}`}
                  {reading.at && <span className="quiet"> {readOn(reading.at)}</span>}
                </span>
                <span className="figure">
                  <LengthFigure mm={reading.mm} unit={unit} />{' '}
                  <span className="quiet">± {formatMm(reading.plusMinus ?? DIAMETER_PLUS_MINUS[reading.method])}</span>
                  {reading.method !== 'calliper' && reading.method !== 'across' && made && (
                    <>
                      {' '}
                      = <LengthFigure mm={made.mm} unit={unit} />
                    </>
                  )}
                </span>
                <Button
                  type="text"
                  icon={<DeleteOutlined />}
                  aria-label={`Remove ${DIAMETER_WORDS[reading.method].name}`}
                  onClick={() => dispatch(edit((d) => removeDiameter(d, reading.id)))}
                />
              </li>
            );
          })}
        </ul>
      )}
      {combined && (
        <p>
          Together <strong>{formatLength(combined.mm, unit)}</strong> ± {formatMm(combined.plusMinus)}.{' '}
          {differs && (
            <>
              The drawing has {formatLength(pulley.diameter ?? 0, unit)}.{' '}
              <Button
                onClick={() =>
                  dispatch(edit((d) => changePulley(d, pulley.id, { diameter: Math.round(combined.mm * 100) / 100 })))
                }
              >
                Use the readings
              </Button>
            </>
          )}
        </p>
      )}
      {combined?.suspect && (
        <ul className="findings" aria-label="Findings on the diameter">
          <FindingItem
            severity="watch"
            words={{
              title: 'The diameter readings disagree.',
              why: `By more than their ± allows${readings.length > 2 ? '; the marked one is furthest off' : ''}.`,
              todo: 'Take it again, on the same edge.',
            }}
          />
        </ul>
      )}
      {adding ? (
        <TypedPlace at="diameter reading">
          <ReadingForm sheaves={sheaves} pulley={pulley} onDone={() => setAdding(false)} />
        </TypedPlace>
      ) : (
        <Button onClick={() => setAdding(true)}>
          {readings.length === 0 ? 'Measure it: calliper, tape or step' : 'Another reading'}
        </Button>
      )}
    </div>
  );
});

function ReadingForm({ sheaves, pulley, onDone }: ReadingsProps & { onDone: () => void }) {
  const { drive, unit, dispatch } = useBench('drive', 'unit', 'dispatch');
  const others = sheaves.filter(({ id, surface }) => id !== pulley.id && surface !== 'toothed');
  const [method, setMethod] = useTyped<DiameterMethod>('way', 'calliper');
  const [measuredOn, setOf] = useTyped('rim', others[0]?.id ?? '');
  const [text, setText] = useTyped('diameter reading', '');
  const [doubt, setDoubt] = useTyped('doubt', '');
  const [problem, setProblem] = useState('');
  const id = useId();
  const { name, hint } = DIAMETER_WORDS[method];
  const read = text.trim() === '' ? null : parseLength(text, unit);
  const plusMinus = DIAMETER_PLUS_MINUS[method];

  const forget = useForgetTyped();
  const done = () => {
    forget();
    onDone();
  };
  const add = () => {
    const value = parseLength(text, unit);
    const sigma = doubt.trim() === '' ? { ok: true as const, mm: plusMinus } : parseLength(doubt, unit);
    if (!value.ok) return setProblem(`${name}: ${value.problem}`);
    if (value.mm <= 0) return setProblem(`${name}: it must be more than zero.`);
    if (!sigma.ok) return setProblem(`±: ${sigma.problem}`);
    if (sigma.mm <= 0) return setProblem('±: it must be more than zero.');
    const read = {
      id: freeIdIn('dia', drive.survey?.diameters),
      pulley: pulley.id,
      mm: value.mm,
      plusMinus: sigma.mm,
      at: new Date().toISOString(),
    };
    const reading: DiameterReading = method === 'step' ? { ...read, method, of: measuredOn! } : { ...read, method };
    dispatch(edit((d) => putDiameter(d, reading)));
    done();
  };

  return (
    <OpenedForm>
      <div className="fields">
        <Choice
          label="How"
          value={method}
          options={DIAMETER_METHODS.filter((method) => method !== 'step' || others.length > 0).map((value) => ({
            value,
            label: DIAMETER_WORDS[value].name,
          }))}
          onChange={(next) => {
            setMethod(next);
            setProblem('');
          }}
        />
        <div className="field">
          <label className="label" htmlFor={id}>
            Reading
          </label>
          <LengthInput
            id={id}
            label="Diameter reading"
            text={text}
            unit={unit}
            signed={false}
            wrong={problem !== ''}
            onText={(next) => {
              setText(next);
              setProblem('');
            }}
            onEnter={add}
          />
        </div>
        {method === 'step' && others.length > 1 && (
          <Choice
            label="From the rim of"
            value={measuredOn}
            options={others.map((other) => ({ value: other.id, label: pulleyLabel(drive, other.id) }))}
            onChange={setOf}
          />
        )}
        <div className="field">
          <label className="label" htmlFor={`${id}-doubt`}>
            ± (default {formatMm(plusMinus)})
          </label>
          <LengthInput
            id={`${id}-doubt`}
            label="Plus or minus"
            text={doubt}
            unit={unit}
            signed={false}
            wrong={problem.startsWith('±')}
            onText={setDoubt}
            onEnter={add}
          />
        </div>
      </div>
      <p id={`${id}-echo`} className={`field-echo${problem ? ' is-wrong' : ''}`} role={problem ? 'alert' : undefined}>
        {problem || (read?.ok ? readsAs(read.mm) : hint)}
      </p>
      <div className="button-row is-after">
        <Button type="primary" onClick={add}>
          Add reading
        </Button>
        <Button onClick={done}>Cancel</Button>
      </div>
    </OpenedForm>
  );
}

function readOn(at: string): string {
  const time = new Date(at);
  return Number.isNaN(time.getTime()) ? '' : time.toLocaleDateString('en', { day: 'numeric', month: 'short' });
}
