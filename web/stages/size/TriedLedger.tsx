import { DeleteOutlined } from '@ant-design/icons';
import { Button, Input } from 'antd';
import { useId, useState } from 'react';
import { edit, useBench } from '../../state/bench';
import { FigureField } from '../../ui/FigureField';
import { LengthFigure } from '../../ui/LengthFigure';
import { OpenedForm } from '../../ui/OpenedForm';
import { TypedPlace, useForgetTyped, useTyped } from '../../ui/typed-text';
import {
  type Belt,
  freeIdIn,
  putTried,
  removeTried,
  type TriedBelt,
  type TriedOutcome,
  TRIED_OUTCOMES,
} from '@emery/core/drive';
import { parseLength } from '@emery/core/quantity';
import { readMarking } from '@emery/core/section';
import {
  askForBelt,
  layoutSentence,
  PLACE_WORDS,
  serviceSentence,
  type SizeAnswer,
  TRIED_LABELS,
  TRIED_READING_WORDS,
  TRIED_WORDS,
  type TriedPlace,
  triedPlaces,
  triedReadingOf,
  triedSentence,
} from '@emery/core/size';

/** The belts that were held against the engine, what each showed, and the form for the next. */
export function TriedLedger({ source, answer }: { source: Belt; answer: SizeAnswer | null }) {
  const { unit, dispatch } = useBench('unit', 'dispatch');
  const [adding, setAdding] = useTyped('trying', false);
  const tried = source.tried ?? [];
  return (
    <div className="measured">
      <h2>{TRIED_LABELS.heading}</h2>
      {tried.map((belt) => {
        const shown = answer?.tried.find(({ id }) => id === belt.id);
        return (
          <div key={belt.id} className="measured-one">
            <div className="block-head">
              <span>
                {belt.lengthMm === undefined ? belt.marking : <LengthFigure mm={belt.lengthMm} unit={unit} />}:{' '}
                {TRIED_WORDS[belt.outcome].toLowerCase()}
                {belt.slips && TRIED_LABELS.slips}
                {belt.kept !== undefined && (belt.kept ? TRIED_LABELS.kept : TRIED_LABELS.back)}
              </span>
              <Button
                type="text"
                icon={<DeleteOutlined />}
                aria-label={`Remove ${belt.marking ?? TRIED_LABELS.belt}`}
                onClick={() => dispatch(edit((d) => removeTried(d, source.id, belt.id)))}
              />
            </div>
            {shown && triedSentence(shown, unit) !== '' && <p>{triedSentence(shown, unit)}</p>}
          </div>
        );
      })}
      {answer?.layout && tried.length > 0 && <p className="settled">{layoutSentence(answer.layout, unit)}</p>}
      {answer?.service && <p>{serviceSentence(answer.service)}</p>}
      {adding ? (
        <TypedPlace at="tried">
          <TriedForm source={source} answer={answer} onDone={() => setAdding(false)} />
        </TypedPlace>
      ) : (
        <Button onClick={() => setAdding(true)}>
          {tried.length === 0 ? TRIED_LABELS.first : TRIED_LABELS.another}
        </Button>
      )}
    </div>
  );
}

/** In millimetres or inches as the trade writes it; the length alone where no scheme has it. */
const markingOf = (source: Belt, lengthMm: number) =>
  askForBelt(source, lengthMm).markings[0]?.text ?? String(lengthMm);
/** Of the marking that is shown as an example, mm. */
const EXAMPLE_MM = 1200;

/** A length or a marking as it is written: what of it goes into the file, or what is accepted. */
function writtenBelt(
  text: string,
  source: Belt,
  unit: 'mm' | 'in',
): { ok: true; belt: Pick<TriedBelt, 'marking' | 'lengthMm'> } | { ok: false; problem: string } {
  const marking = readMarking(text).find(({ section }) => section === source.section);
  if (marking) return { ok: true, belt: { marking: text.trim(), lengthMm: marking.lengthMm } };
  const length = parseLength(text, unit);
  if (length.ok && length.mm > 0) return { ok: true, belt: { lengthMm: length.mm } };
  return { ok: false, problem: TRIED_LABELS.accepted(markingOf(source, EXAMPLE_MM)) };
}

/** Chips of which one is pressed; a thumb hits them. */
function Chips<T extends string | number>({
  label,
  options,
  value,
  onChange,
}: {
  label: string;
  options: readonly { value: T; label: string }[];
  value: T | null;
  onChange: (value: T) => void;
}) {
  return (
    <div className="tried-chips" role="group" aria-label={label}>
      <span className="label">{label}</span>
      {options.map((option) => (
        <Button
          key={option.value}
          type={option.value === value ? 'primary' : 'default'}
          aria-pressed={option.value === value}
          onClick={() => onChange(option.value)}
        >
          {option.label}
        </Button>
      ))}
    </div>
  );
}

/** The likeliest lengths are a tap away. */
const CHIPS = 5;

/** What is being written of a belt that is tried on, kept as long as the form is. */
function useWrittenTry(source: Belt) {
  const { drive, unit, dispatch } = useBench('drive', 'unit', 'dispatch');
  const [text, setText] = useTyped('belt', '');
  const [outcome, setOutcome] = useTyped<TriedOutcome | null>('outcome', null);
  const [place, setPlace] = useTyped<string | null>('place', null);
  const [read, setRead] = useTyped<number | null>('read', null);
  const [worn, setWorn] = useTyped('worn', false);
  const [slips, setSlips] = useTyped('slips', false);
  const places = triedPlaces(drive, source);
  const reading = triedReadingOf(drive, source);
  /** Writes it down; or says what is missing. */
  const save = (kept: boolean | null): string | null => {
    const belt = writtenBelt(text, source, unit);
    if (!belt.ok) return belt.problem;
    if (outcome === null) return TRIED_LABELS.noOutcome;
    const looked = places.find(({ name }) => name === place)?.reading;
    const tried: TriedBelt = {
      ...{ id: freeIdIn('tried', source.tried), ...belt.belt, outcome, at: new Date().toISOString() },
      ...(outcome !== 'will-not-go-on' && whereOf(reading, read, looked)),
      ...(slips && outcome === 'on' && { slips }),
      ...(worn && { worn }),
      ...(kept !== null && { kept }),
    };
    dispatch(edit((d) => putTried(d, source.id, tried)));
    return null;
  };
  const written = { text, outcome, place, read, worn, slips, places, reading };
  return { ...written, setText, setOutcome, setPlace, setRead, setWorn, setSlips, save };
}

function TriedForm({ source, answer, onDone }: { source: Belt; answer: SizeAnswer | null; onDone: () => void }) {
  const entry = useWrittenTry(source);
  const [problem, setProblem] = useState('');
  const forget = useForgetTyped();
  const done = () => {
    forget();
    onDone();
  };
  const save = (kept: boolean | null) => {
    const missing = entry.save(kept);
    if (missing === null) done();
    else setProblem(missing);
  };
  const { outcome, worn, slips } = entry;
  return (
    <OpenedForm>
      <p className="caution">
        <strong aria-hidden>▲</strong>
        <span>{TRIED_LABELS.caution}</span>
      </p>
      <WhichBelt source={source} answer={answer} text={entry.text} onText={entry.setText} />
      <Chips
        label={TRIED_LABELS.happened}
        options={TRIED_OUTCOMES.map((value) => ({ value, label: TRIED_WORDS[value] }))}
        value={outcome}
        onChange={entry.setOutcome}
      />
      {outcome !== null && outcome !== 'will-not-go-on' && (
        <Where {...entry} onPlace={entry.setPlace} onRead={entry.setRead} />
      )}
      <div className="tried-chips">
        <Button aria-pressed={worn} type={worn ? 'primary' : 'default'} onClick={() => entry.setWorn(!worn)}>
          {TRIED_LABELS.isOld}
        </Button>
        <Button aria-pressed={slips} type={slips ? 'primary' : 'default'} onClick={() => entry.setSlips(!slips)}>
          {TRIED_LABELS.isSlipping}
        </Button>
      </div>
      {problem && (
        <p className="field-echo is-wrong" role="alert">
          {problem}
        </p>
      )}
      <div className="button-row is-after">
        <Button type="primary" onClick={() => save(true)}>
          {TRIED_LABELS.keep}
        </Button>
        <Button onClick={() => save(false)}>{TRIED_LABELS.takeBack}</Button>
        <Button onClick={() => save(null)}>{TRIED_LABELS.open}</Button>
        <Button onClick={done}>{TRIED_LABELS.cancel}</Button>
      </div>
    </OpenedForm>
  );
}

/** The likeliest by their markings, a tap each, shortest first; or any other as it is written. */
function WhichBelt({
  source,
  answer,
  text,
  onText,
}: {
  source: Belt;
  answer: SizeAnswer | null;
  text: string;
  onText: (text: string) => void;
}) {
  const id = useId();
  const likely = [...(answer?.candidates ?? [])]
    .sort((a, b) => (b.chance ?? 0) - (a.chance ?? 0))
    .slice(0, CHIPS)
    .sort((a, b) => a.lengthMm - b.lengthMm)
    .map(({ lengthMm }) => markingOf(source, lengthMm));
  return (
    <>
      <Chips
        label={TRIED_LABELS.which}
        options={likely.map((marking) => ({ value: marking, label: marking }))}
        value={text}
        onChange={onText}
      />
      <div className="field">
        <label className="label" htmlFor={id}>
          {TRIED_LABELS.written}
        </label>
        <Input id={id} value={text} autoComplete="off" onChange={(event) => onText(event.target.value)} />
      </div>
    </>
  );
}

/** What was read exactly takes precedence over a look. */
function whereOf(
  reading: ReturnType<typeof triedReadingOf>,
  read: number | null,
  looked: TriedPlace['reading'] | undefined,
): Partial<TriedBelt> {
  if (reading !== null && read !== null) return { [reading]: read };
  return looked ?? {};
}

function Where({
  places,
  place,
  reading,
  read,
  onPlace,
  onRead,
}: {
  places: readonly TriedPlace[];
  place: string | null;
  reading: ReturnType<typeof triedReadingOf>;
  read: number | null;
  onPlace: (name: string) => void;
  onRead: (value: number | null) => void;
}) {
  if (reading === null) return null;
  const { label, unit } = TRIED_READING_WORDS[reading];
  return (
    <>
      <Chips
        label={reading === 'pointerDeg' ? TRIED_LABELS.pointer : TRIED_LABELS.adjuster}
        options={places.map(({ name }) => ({ value: name as string, label: PLACE_WORDS[name] }))}
        value={place}
        onChange={onPlace}
      />
      <FigureField
        label={label}
        unit={unit}
        min={reading === 'pointerDeg' ? -720 : 0}
        value={read}
        onCommit={onRead}
        onClear={() => onRead(null)}
      />
    </>
  );
}
