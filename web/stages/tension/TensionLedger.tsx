import { Button, Segmented, Slider } from 'antd';
import { useMemo } from 'react';
import { useBench } from '../../state/bench';
import { BeltChoice } from '../../bench/BeltChoice';
import { FindingItem } from '../../bench/FindingItem';
import { useCoreSum } from '../../state/use-core-sum';
import { TypedPlace } from '../../ui/typed-text';
import { lazyPart } from '../../parts/lazy-part';
import { RunsView } from './RunsView';
import { useTensionSums } from './sums';
import { useTension, type TensionView } from './TensionProvider';
import './tension.css';
import { rpmFigure } from '@emery/core/speeds';
import { limitOrDefault, writtenLimit } from '@emery/core/accessory';
import { SITUATIONS, windowOf } from '@emery/core/loads';
import { forceFigure, restFindings, shortForce, SOURCE_WORDS, tensionWords, windowFindings } from '@emery/core/tension';

const LoadsView = lazyPart('Loads', () => import('./LoadsView'));
const WindowView = lazyPart('Range', () => import('./WindowView'));
const SetView = lazyPart('Setting', () => import('./SetView'));
const CheckView = lazyPart('The checks', () => import('./CheckView'));

const VIEWS: readonly { value: TensionView; label: string }[] = [
  { value: 'runs', label: 'Runs' },
  { value: 'loads', label: 'Loads' },
  { value: 'window', label: 'Range' },
  { value: 'set', label: 'Set' },
  { value: 'check', label: 'Check' },
];

/** Tension: how tight the belt is, what slips, and how to set and check it. */
export default function TensionLedger() {
  const { view, setView } = useTension();
  const { source, belt } = useTensionSums();
  if (!source || source.route.length < 2) {
    return (
      <>
        <h2>No route yet</h2>
        <p>Give the belt its route first, under Route. Then Emery works out its loads here.</p>
      </>
    );
  }
  return (
    <TypedPlace at={`belt ${source.id}`}>
      <BeltChoice />
      <Answer />
      {belt && (
        <>
          {view !== 'set' && view !== 'check' && <StateRow />}
          <Segmented<TensionView> block value={view} options={[...VIEWS]} onChange={setView} aria-label="View" />
          <TypedPlace at={view}>
            {view === 'runs' && <RunsView />}
            {view === 'loads' && <LoadsView />}
            {view === 'window' && <WindowView />}
            {view === 'set' && <SetView />}
            {view === 'check' && <CheckView />}
          </TypedPlace>
        </>
      )}
    </TypedPlace>
  );
}

/** What the belt stands at, and how that lies in its window: the largest figure. */
function Answer() {
  const { drive, tension, belt, source, states } = useTensionSums();
  const { unit } = useBench('unit');
  const { view, setView } = useTension();
  const window = useMemo(() => windowOf(tension, source!.id, states, limitOrDefault), [tension, source, states]);
  const written = useMemo(() => windowOf(tension, source!.id, states, writtenLimit), [tension, source, states]);
  const asked = useMemo(() => (source!.length ? { drive, belt: source!.id } : null), [drive, source]);
  const { found } = useCoreSum('tensionMisfit', asked);
  const answered = asked && found?.input.belt === asked.belt ? found.output : undefined;
  const misfit = asked === null ? null : answered;
  const own = restFindings(tension, source!.id, misfit);
  // Where it is set or checked, that it is not yet is no news.
  const rest = view === 'set' || view === 'check' ? own.filter(({ severity }) => severity !== 'note') : own;
  if (!belt || !window || !written)
    return (
      <ul className="findings" aria-label="Findings">
        {rest.map((finding) => (
          <FindingItem key={finding.code} severity={finding.severity} words={tensionWords(drive, finding)} />
        ))}
      </ul>
    );
  const { tensionN, from } = belt.standing;
  const place = windowFindings(belt.standing, window);
  const [first, other] = [shortForce(tensionN), forceFigure(tensionN, 'in').replace(/^.*\(|\)$/g, '')];
  return (
    <div className="answer" data-testid="tension-answer" data-tension={tensionN}>
      <div className="label">Static tension of the belt</div>
      <div className="answer-figure">
        {first}
        {other !== first && <span className="answer-other">{other}</span>}
        {place.length === 0 && window.leastN !== null && from !== 'default' && (
          <span className="answer-other tension-right">● right</span>
        )}
      </div>
      <div className="answer-note">
        {from === 'default' ? `${SOURCE_WORDS[from]}.` : `Source: ${SOURCE_WORDS[from]}.`}{' '}
        {window.leastN !== null && window.leastN > 0 && `It needs ${forceFigure(window.leastN, unit)} or more`}
        {window.mostN !== null &&
          window.leastN !== null &&
          `${window.leastN > 0 ? ', and' : ''} hub loads allow up to ${forceFigure(window.mostN, unit)}`}
        {window.leastN !== null && '.'}
        {written.mostN === null && window.mostN !== null && ' Their limits are defaults.'}
      </div>
      {(place.length > 0 || rest.length > 0) && (
        <ul className="findings is-after" aria-label="Findings">
          {[...place, ...rest].map((finding) => (
            <FindingItem
              key={finding.code + (finding.pulley ?? '')}
              severity={finding.severity}
              words={tensionWords(drive, finding)}
            >
              {(finding.code === 'below-window' || finding.code === 'above-window') && belt.standing.arm === null && (
                <Button onClick={() => setView('set')}>Set it</Button>
              )}
              {finding.code === 'default-tension' && <Button onClick={() => setView('check')}>Check it by hand</Button>}
            </FindingItem>
          ))}
        </ul>
      )}
    </div>
  );
}

/** The state of the whole drive: one of three, or any engine speed, dry or wet. */
function StateRow() {
  const { marks, rpm, looked, look } = useTension();
  const now = SITUATIONS.find(
    ({ choice, wet, rpm: atRpm }) =>
      choice.all === looked.choice.all && !looked.choice.by && wet === looked.wet && atRpm(marks) === rpm,
  );
  return (
    <section className="tension-state" aria-label="State of the drive">
      <div className="button-row is-even">
        {SITUATIONS.map(({ id, name, choice, wet, rpm: atRpm }) => (
          <Button
            key={id}
            type={now?.id === id ? 'primary' : 'default'}
            aria-pressed={now?.id === id}
            onClick={() => look({ choice, wet, rpm: atRpm(marks) })}
          >
            {name}
          </Button>
        ))}
      </div>
      <div className="tension-engine">
        <span className="label">Engine</span>
        <strong>{rpmFigure(rpm)}</strong>
        <Slider
          min={Math.min(400, marks.idle)}
          max={Math.max(marks.redline, rpm)}
          step={10}
          value={rpm}
          onChange={(next: number) => look({ rpm: next })}
          tooltip={{ open: false }}
          ariaLabelForHandle="Engine speed, rev/min"
        />
        <Button
          aria-pressed={looked.wet}
          type={looked.wet ? 'primary' : 'default'}
          onClick={() => look({ wet: !looked.wet })}
        >
          {looked.wet ? 'Wet' : 'Dry'}
        </Button>
      </div>
    </section>
  );
}
