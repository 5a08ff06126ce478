import { Button } from 'antd';
import { useEffect, useId, useMemo, useState } from 'react';
import { useLocation } from 'react-router';
import { useGoToStage } from '../bench/use-go-to-stage';
import { edit, useBench, useBenchStores } from '../state/bench';
import { LengthInput } from '../ui/LengthInput';
import { LineInput } from '../ui/LineInput';
import { useTyped } from '../ui/typed-text';
import { AddPulley } from './survey/AddPulley';
import { type FreshState, useSurveying } from './survey/SurveyProvider';
import { addStation, changePulley, type Drive, findPulley, freeIdIn, newStation, stationOf } from '@emery/core/drive';
import { formatLength, type LengthReading, parseLength, readsAs } from '@emery/core/quantity';
import { nextAsk, type NextAsk, nextWords } from '@emery/core/start';
import { putDiameter } from '@emery/core/survey';

/** The stages on the way to a belt's length; at the others nothing is asked. */
const ASKED_AT = ['survey', 'route', 'size'];
/** What a drive in the making wants, whoever opens it; the rest is asked while it is new to this page. */
const IN_THE_MAKING: readonly NextAsk['code'][] = ['crank', 'pulleys', 'diameter', 'route', 'route-open'];

/**
 * What a drive wants next, in one line with the way to it; a size is written right here, and Enter goes on to the next.
 * It goes once every belt has its length.
 */
export function NextLine({ stage }: { stage: string }) {
  const { drive, solution, history } = useBench('drive', 'solution', 'history');
  const [placed, setPlaced] = useTyped('placed', false);
  const [sized, setSized] = useTyped<string[]>('sized', []);
  const fresh = useFresh();
  const [guided, setGuided] = useTyped('guided', false);
  // The way over to another stage forgets that the drive was just made; the page does not.
  useEffect(() => {
    if (fresh) setGuided(true);
  }, [fresh, setGuided]);
  // From one size to the next the field keeps the focus.
  const [goesOn, setGoesOn] = useState(false);
  // One who walks back through the steps has not come to write: the keys go on to undo and redo.
  const walksBack = history.cameBy === 'undo' || history.cameBy === 'redo';
  const asked = ASKED_AT.includes(stage);
  const ask = useMemo(
    () => (asked ? nextAsk(drive, { solution, placed, sized }) : null),
    [asked, drive, solution, placed, sized],
  );
  if (!ask || !(guided || fresh || IN_THE_MAKING.includes(ask.code))) return null;
  if (ask.code === 'length' && stage === 'size') return null;
  const { line, button } = nextWords(drive, ask);
  return (
    <section className="next-line" aria-label="Next">
      <p>
        <span className="next-word">Next</span> {line}
      </p>
      {ask.code === 'diameter' ? (
        <SizeField
          key={ask.pulley}
          pulley={ask.pulley}
          first={(fresh || goesOn) && !walksBack}
          onTaken={() => setGoesOn(true)}
          onSized={() => setSized([...sized, ask.pulley])}
        />
      ) : (
        <Way ask={ask} stage={stage} button={button} onPlaced={() => setPlaced(true)} />
      )}
    </section>
  );
}

/** True where the drive was made a moment ago. */
const useFresh = () => (useLocation().state as FreshState | null)?.fresh === true;

/** The button that leads to what is asked; none where it is in sight already. */
function Way({ ask, stage, button, onPlaced }: { ask: NextAsk; stage: string; button: string; onPlaced: () => void }) {
  const bench = useBenchStores();
  const { select } = useBench('select');
  const { surveying, setSurveying, setTapeFirst } = useSurveying();
  const goTo = useGoToStage();
  switch (ask.code) {
    case 'crank': {
      const put = (drive: Drive) =>
        addStation(drive, newStation(drive, 'crankshaft', 0, 0, drive.belts[0]?.section ?? 'PK'));
      return <Button onClick={() => bench.get().dispatch(edit(put))}>{button}</Button>;
    }
    case 'pulleys':
      if (stage === 'survey' && surveying !== 'tapes') return null;
      return <AddPulley onAdded={(station, pulley) => select({ kind: 'pulley', station, pulley })} />;
    case 'tape':
      return (
        <div className="button-row">
          {!(stage === 'survey' && surveying === 'tapes') && (
            <Button
              type="primary"
              onClick={() => {
                setTapeFirst(true);
                setSurveying('tapes');
                if (stage !== 'survey') goTo('survey');
              }}
            >
              {button}
            </Button>
          )}
          <Button onClick={onPlaced}>Positions are as drawn</Button>
        </div>
      );
    case 'route':
    case 'route-open':
      if (stage === 'route') return null;
      return (
        <Button
          type="primary"
          onClick={() => {
            goTo('route');
            bench.get().setBelt(ask.belt);
            if (ask.code === 'route') bench.get().setTapping(true);
          }}
        >
          {button}
        </Button>
      );
    case 'adjuster':
    case 'length':
      if (stage === 'size') return null;
      return (
        <Button
          type="primary"
          onClick={() => {
            bench.get().setBelt(ask.belt);
            goTo('size');
          }}
        >
          {button}
        </Button>
      );
    default:
      return null;
  }
}

const teethProblem = (text: string) => {
  const teeth = Number(text.trim());
  return /^\d+$/.test(text.trim()) && teeth >= 1 && teeth <= 400 ? null : 'Teeth: enter a whole number from 1 to 400.';
};
const lengthProblem = (length: LengthReading) => {
  if (!length.ok) return length.problem;
  return length.mm > 0 ? null : 'Diameter: it must be more than zero.';
};

/** The size of one pulley: across it, or its teeth. The starting size is taken only by saying so. */
function SizeField({
  pulley,
  first,
  onTaken,
  onSized,
}: {
  pulley: string;
  /** In focus at once. */
  first: boolean;
  /** The size was written, or said to be as drawn. */
  onTaken: () => void;
  /** It has the teeth that are drawn: no reading says that. */
  onSized: () => void;
}) {
  const { drive, unit, dispatch, hover } = useBench('drive', 'unit', 'dispatch', 'hover');
  const found = findPulley(drive, pulley)!;
  const station = stationOf(drive, pulley)!;
  const toothed = found.surface === 'toothed';
  const [text, setText] = useState('');
  const [pressed, setPressed] = useState(false);
  const id = useId();
  const empty = text.trim() === '';
  const length = toothed || empty ? null : parseLength(text, unit);
  const teeth = Number(text.trim());
  const written = toothed ? teethProblem : () => lengthProblem(length!);
  const problem = empty ? null : written(text);
  useEffect(() => () => hover(null), [hover]);
  const drawn = () => {
    onTaken();
    if (toothed) return onSized();
    const id = freeIdIn('dia', drive.survey?.diameters);
    const read = { id, pulley, method: 'calliper' as const, mm: found.diameter ?? 0, at: new Date().toISOString() };
    dispatch(edit((d) => putDiameter(d, read)));
  };
  const take = () => {
    if (empty) return setPressed(true);
    if (problem !== null) return;
    const now = toothed ? found.teeth : found.diameter;
    const mm = length?.ok ? length.mm : 0;
    const next = toothed ? teeth : mm;
    if (Math.abs(next - (now ?? 0)) < 0.005) return drawn();
    onTaken();
    dispatch(edit((d) => changePulley(d, pulley, toothed ? { teeth: next } : { diameter: next })));
  };
  const size = toothed ? `${found.teeth} teeth` : formatLength(found.diameter ?? 0, unit);
  const unmeasured = pressed
    ? `Enter what you measured, or confirm ${size} as drawn.`
    : `drawn with a starting size, ${size}`;
  const understood = length?.ok ? readsAs(length.mm) : `${teeth} teeth`;
  return (
    <div className="next-field">
      <div
        className="field"
        onFocus={() => hover({ kind: 'pulley', station: station.id, pulley })}
        onBlur={() => hover(null)}
      >
        <label className="visually-hidden" htmlFor={id}>
          {toothed ? 'Teeth counted' : 'Diameter measured'}
        </label>
        {toothed ? (
          <LineInput
            id={id}
            autoFocus={first}
            value={text}
            inputMode="numeric"
            wrong={problem !== null}
            aria-describedby={`${id}-echo`}
            onFocus={(event) => event.target.select()}
            onChange={(event) => setText(event.target.value)}
            onKeyDown={(event) => event.key === 'Enter' && take()}
          />
        ) : (
          <LengthInput
            id={id}
            label="Diameter measured"
            first={first}
            text={text}
            unit={unit}
            signed={false}
            wrong={problem !== null}
            onText={setText}
            onEnter={take}
          />
        )}
        <p id={`${id}-echo`} className={`field-echo${problem ? ' is-wrong' : ''}`} role={problem ? 'alert' : undefined}>
          {problem ?? (empty ? unmeasured : understood)}
        </p>
      </div>
      {empty ? (
        <Button onClick={drawn}>As drawn</Button>
      ) : (
        <Button type="primary" onClick={take}>
          Continue
        </Button>
      )}
    </div>
  );
}
