import { DeleteOutlined } from '@ant-design/icons';
import { Button, Switch } from 'antd';
import { useId, useState } from 'react';
import { edit, useBench } from '../../state/bench';
import { Choice } from '../../ui/Choice';
import { FindingItem } from '../../bench/FindingItem';
import { LengthFigure } from '../../ui/LengthFigure';
import { LengthInput } from '../../ui/LengthInput';
import { QuantityField } from '../../ui/QuantityField';
import { FigureField } from '../../ui/FigureField';
import { TypedPlace, useForgetTyped, useTyped } from '../../ui/typed-text';
import { OpenedForm } from '../../ui/OpenedForm';
import {
  type AdjusterState,
  type Belt,
  freeIdIn,
  type Lay,
  LAY_WORDS,
  LAYS,
  type Measurement,
  pulleyLabel,
  putMeasurement,
  removeMeasurement,
  STATE_WORDS,
  STATES,
  type Tool,
  TOOL_WORDS,
  TOOLS,
} from '@emery/core/drive';
import { formatLength, formatMm, parseLength, readsAs } from '@emery/core/quantity';
import {
  type CombinedLength,
  layNote,
  liesEitherWay,
  type MeasuredLength,
  RULE_WORDS,
  TOOL_DEFAULTS,
} from '@emery/core/size';

/**
 * What was measured of the belt's length itself, what that makes of it on this layout, and how it goes with the
 * drawing.
 */
export function MeasuredLedger({ source, combined }: { source: Belt; combined: CombinedLength | null }) {
  const { unit } = useBench('unit');
  const [adding, setAdding] = useTyped('measuring', false);
  const measurements = source.measurements ?? [];
  return (
    <div className="measured">
      <h2>Length measured on the engine</h2>
      {measurements.map((measurement) => (
        <MeasuredOne
          key={measurement.id}
          source={source}
          measurement={measurement}
          result={combined?.measured.find(({ id }) => id === measurement.id) ?? null}
        />
      ))}
      {combined && measurements.length > 0 && (
        <p className="settled">
          <strong>
            Together with the drawing:{' '}
            {Math.abs(combined.shiftMm) < 0.5
              ? 'as drawn'
              : `${formatLength(Math.abs(combined.shiftMm), unit)} ${combined.shiftMm > 0 ? 'longer' : 'shorter'} than drawn`}
          </strong>
          , ± {formatMm(combined.plusMinus)}. All lengths here include this.
        </p>
      )}
      {combined?.disagree && (
        <ul className="findings" aria-label="Findings on the measured length">
          <FindingItem
            severity="watch"
            words={{
              title: 'Measurements and drawing disagree.',
              ...disagreeWords(combined.measured),
            }}
          />
        </ul>
      )}
      {adding ? (
        <TypedPlace at="measurement">
          <MeasureForm source={source} onDone={() => setAdding(false)} />
        </TypedPlace>
      ) : (
        <Button onClick={() => setAdding(true)}>
          {measurements.length === 0 ? 'Measure with a string or the old belt' : 'Another measurement'}
        </Button>
      )}
    </div>
  );
}

function MeasuredOne({
  source,
  measurement,
  result,
}: {
  source: Belt;
  measurement: Measurement;
  result: MeasuredLength | null;
}) {
  const { drive, unit, dispatch } = useBench('drive', 'unit', 'dispatch');
  const [open, setOpen] = useState(false);
  const name = TOOL_WORDS[measurement.tool].name;
  const note = result && layNote(result, measurement.lay !== undefined, unit);
  return (
    <div className={`measured-one${result?.suspect ? ' is-suspect' : ''}`}>
      <div className="block-head">
        <span>
          {result?.suspect && <span className="flag is-fault">■ again </span>}
          {name}: <LengthFigure mm={measurement.mm} unit={unit} />
          {measurement.doubled && ' doubled'}
        </span>
        <Button
          type="text"
          icon={<DeleteOutlined />}
          aria-label={`Remove ${name}`}
          onClick={() => dispatch(edit((d) => removeMeasurement(d, source.id, measurement.id)))}
        />
      </div>
      {result && (
        <p>
          Belt <strong>{formatLength(result.markedMm, unit)}</strong> ± {formatMm(result.plusMinus)}, adjuster{' '}
          {STATE_WORDS[measurement.state ?? 'as-drawn']}
          {result.lay && `, ${LAY_WORDS[result.lay]}`}.{' '}
          {result.parts.length > 0 && (
            <Button type="link" aria-expanded={open} onClick={() => setOpen(!open)}>
              Why {result.correctionMm < 0 ? '−' : '+'}
              {formatMm(Math.abs(result.correctionMm))}?
            </Button>
          )}
        </p>
      )}
      {note && (
        <ul className="findings" aria-label="How it lay">
          <FindingItem severity="watch" words={note}>
            <span className="button-row">
              {LAYS.map((lay) => (
                <Button
                  key={lay}
                  onClick={() => dispatch(edit((d) => putMeasurement(d, source.id, { ...measurement, lay })))}
                >
                  It lay {LAY_WORDS[lay]}
                </Button>
              ))}
            </span>
          </FindingItem>
        </ul>
      )}
      {open && result && (
        <table className="ledger-table">
          <tbody>
            {result.parts.map(({ part, pulley, mm }) => (
              <tr key={pulley ?? part}>
                <td>
                  {pulley !== undefined
                    ? pulleyLabel(drive, pulley)
                    : PART_WORDS[part === 'spans' ? 'spans' : 'marked']}
                </td>
                <td className="figure">{signed(mm)}</td>
              </tr>
            ))}
            <tr>
              <td>All corrections except stretch and doubling</td>
              <td className="figure">
                <strong>{signed(result.parts.reduce((sum, { mm }) => sum + mm, 0))}</strong>
              </td>
            </tr>
            {result.rules.map(({ rule, offMm }) => (
              <tr key={rule}>
                <td className="quiet">{RULE_WORDS[rule]}, by rule of thumb</td>
                <td className="figure quiet">{signed(offMm)} off</td>
              </tr>
            ))}
          </tbody>
        </table>
      )}
    </div>
  );
}

function MeasureForm({ source, onDone }: { source: Belt; onDone: () => void }) {
  const { unit, dispatch } = useBench('unit', 'dispatch');
  const [tool, setTool] = useTyped<Tool>('tool', 'string');
  const [state, setState] = useTyped<AdjusterState>('state', 'slack');
  const [text, setText] = useTyped('length', '');
  const [lay, setLay] = useTyped<Lay | 'unsaid'>('lay', 'unsaid');
  const [doubled, setDoubled] = useTyped('doubled', false);
  const defaults = TOOL_DEFAULTS[tool];
  const [thickness, setThickness] = useTyped<number | null>('thickness', null);
  const [circumference, setCircumference] = useTyped('circumference', 0);
  const [plusMinus, setPlusMinus] = useTyped<number | null>('plus or minus', null);
  const [grown, setGrown] = useTyped<number | null>('grown', null);
  const [problem, setProblem] = useState('');
  const id = useId();
  const laid = tool === 'string' || tool === 'rope' || tool === 'wire' || tool === 'strap';
  const read = text.trim() === '' ? null : parseLength(text, unit);

  const forget = useForgetTyped();
  const done = () => {
    forget();
    onDone();
  };
  const add = () => {
    const value = parseLength(text, unit);
    if (!value.ok) return setProblem(value.problem);
    if (value.mm <= 0) return setProblem('Length: it must be more than zero.');
    const measurement: Measurement = {
      id: freeIdIn('length', source.measurements),
      tool,
      mm: value.mm,
      state,
      ...(liesEitherWay(tool) && lay !== 'unsaid' && { lay }),
      ...(doubled && { doubled }),
      ...(laid && { thickness: thickness ?? defaults.thickness, stretch: grown ?? defaults.stretch }),
      ...(tool === 'old-belt' && { worn: grown ?? defaults.worn }),
      ...(tool === 'gauge' && { circumference }),
      plusMinus: plusMinus ?? defaults.plusMinus,
      at: new Date().toISOString(),
    };
    dispatch(edit((d) => putMeasurement(d, source.id, measurement)));
    done();
  };

  return (
    <OpenedForm>
      <p className="caution">
        <strong aria-hidden>▲</strong>
        <span>Key out. Turn the engine over by hand only, never with a string on it.</span>
      </p>
      <div className="fields">
        <Choice
          label="Measured with"
          value={tool}
          options={TOOLS.map((value) => ({ value, label: TOOL_WORDS[value].name }))}
          onChange={(next) => {
            setTool(next);
            setThickness(null);
            setPlusMinus(null);
            setGrown(null);
          }}
        />
        <Choice
          label="Adjuster position"
          value={state}
          options={STATES.map((value) => ({ value, label: STATE_WORDS[value] }))}
          onChange={setState}
        />
        {liesEitherWay(tool) && (
          <Choice
            label="How it lay on grooved pulleys"
            value={lay}
            options={[
              { value: 'unsaid', label: 'not checked' },
              ...LAYS.map((value) => ({ value, label: LAY_WORDS[value] })),
            ]}
            onChange={setLay}
          />
        )}
        <div className="field">
          <label className="label" htmlFor={id}>
            {tool === 'gauge' ? "Between the wheels' centres" : 'Reading'}
          </label>
          <LengthInput
            id={id}
            label="Measured length"
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
        {laid && (
          <QuantityField
            key={tool}
            label="Thickness (a default)"
            mm={thickness ?? defaults.thickness}
            unit={unit}
            onCommit={setThickness}
          />
        )}
        {(laid || tool === 'old-belt') && (
          <FigureField
            key={`${tool} grown`}
            label={laid ? 'Stretch (a default)' : 'Growth by wear (a default)'}
            unit="%"
            min={0}
            max={20}
            value={100 * (grown ?? (laid ? defaults.stretch : defaults.worn))}
            onCommit={(percent) => setGrown(percent / 100)}
          />
        )}
        {tool === 'gauge' && (
          <QuantityField label="Circumference of a wheel" mm={circumference} unit={unit} onCommit={setCircumference} />
        )}
        <QuantityField
          key={`${tool} ±`}
          label="± (a default)"
          mm={plusMinus ?? defaults.plusMinus}
          unit={unit}
          onCommit={setPlusMinus}
        />
        {tool !== 'gauge' && tool !== 'marking' && (
          <div className="field">
            <label className="label" htmlFor={`${id}-doubled`}>
              Measured flat, as a doubled loop
            </label>
            <span className="switch-line">
              <Switch id={`${id}-doubled`} checked={doubled} onChange={setDoubled} />
            </span>
          </div>
        )}
      </div>
      <p id={`${id}-echo`} className={`field-echo${problem ? ' is-wrong' : ''}`} role={problem ? 'alert' : undefined}>
        {problem || (read?.ok ? readsAs(read.mm) : TOOL_WORDS[tool].hint)}
      </p>
      <div className="button-row is-after">
        <Button type="primary" onClick={add}>
          Add measurement
        </Button>
        <Button onClick={done}>Cancel</Button>
      </div>
    </OpenedForm>
  );
}

function signed(mm: number): string {
  return `${mm < 0 ? '−' : '+'}${formatMm(Math.abs(mm))}`;
}

const PART_WORDS = { spans: 'Straight lengths', marked: 'From the cord to the marked length' };

/** Which of measurements and drawing is likely wrong, and what to do. */
function disagreeWords(measured: readonly { suspect: boolean }[]): { why: string; todo: string } {
  if (measured.some(({ suspect }) => suspect))
    return {
      why: 'The marked one is furthest from the others.',
      todo: 'Measure that one again, and enter the adjuster position.',
    };
  return measured.length > 1
    ? {
        why: 'The drawing is furthest from the measurements.',
        todo: 'Check diameters and positions under Survey.',
      }
    : {
        why: 'Not enough readings to say which is wrong.',
        todo: 'Measure once more another way, and enter the adjuster position.',
      };
}
