import { Button, Segmented } from 'antd';
import { useBench } from '../../state/bench';
import { BeltChoice } from '../../bench/BeltChoice';
import { FindingItem } from '../../bench/FindingItem';
import { TypedPlace } from '../../ui/typed-text';
import { lazyPart } from '../../parts/lazy-part';
import { useAlign, type AlignView } from './AlignProvider';
import { ReadView } from './ReadView';
import { useAlignFindings, useAlignSums } from './sums';
import './align.css';
import { type AlignFindingCode, alignWords, degreeFigure, VERDICT_WORDS } from '@emery/core/align';
import { pulleyLabel } from '@emery/core/drive';
import { worseOf, worstFirst } from '@emery/core/planes';

const RunsView = lazyPart('Runs', () => import('./RunsView'));
const GroovesView = lazyPart('Grooves', () => import('./GroovesView'));
const CuresView = lazyPart('Cures', () => import('./CuresView'));
const PartsView = lazyPart('Parts', () => import('./PartsView'));

const VIEWS: readonly { value: AlignView; label: string }[] = [
  { value: 'read', label: 'Read' },
  { value: 'runs', label: 'Runs' },
  { value: 'grooves', label: 'Grooves' },
  { value: 'cures', label: 'Cures' },
  { value: 'parts', label: 'Parts' },
];

/** What must not turn, wherever one looks. */
const STOPS: readonly AlignFindingCode[] = ['no-path', 'rib-off', 'hangs-over', 'load-by-hand'];
/** What is said above each view; Runs says all there is by itself. */
const TOLD: Record<AlignView, readonly AlignFindingCode[]> = {
  read: [
    ...STOPS,
    'wrong-rib',
    'other-side',
    'inch-for-mm',
    'readings-disagree',
    'straightedge-short',
    'simulated-mixed',
    'wobbles',
  ],
  runs: ['no-path'],
  grooves: [...STOPS, 'stands-a-rib-off'],
  cures: [...STOPS, 'stands-a-rib-off'],
  parts: ['no-path'],
};

/** Align: which pulley is off, by how much, and what puts it right. */
export default function AlignLedger() {
  const { view, setView } = useAlign();
  const { belt } = useAlignSums();
  if (!belt || belt.route.length < 2) {
    return (
      <>
        <h2>No route yet</h2>
        <p>Give the belt its route first, under Route. Then Emery works out its alignment here.</p>
      </>
    );
  }
  return (
    <TypedPlace at={`align ${belt.id}`}>
      <BeltChoice />
      <Answer />
      <Segmented<AlignView> block value={view} options={[...VIEWS]} onChange={setView} aria-label="View" />
      <TypedPlace at={view}>
        {view === 'read' && <ReadView />}
        {view === 'runs' && <RunsView />}
        {view === 'grooves' && <GroovesView />}
        {view === 'cures' && <CuresView />}
        {view === 'parts' && <PartsView />}
      </TypedPlace>
    </TypedPlace>
  );
}

/** The worst run that was read, as the largest figure, and what else there is to say. */
function Answer() {
  const { drive, alignment, after } = useAlignSums();
  const { unit } = useBench('unit');
  const { view, setView, setTried } = useAlign();
  const findings = useAlignFindings();
  const looked = after ?? alignment;
  const runs = (looked?.runs ?? []).filter(({ read }) => read);
  const all = looked?.runs.length ?? 0;
  const [worst] = worstFirst(runs);
  const shown = findings.filter(({ code }) => TOLD[view].includes(code));
  const name = (id: string) => pulleyLabel(drive, id);
  return (
    <div className="answer" data-testid="align-answer" data-worst={worst ? worseOf(worst) : ''}>
      {worst ? (
        <>
          <div className="label">
            {after ? 'Worst run with the moves tried: ' : 'Worst run: '}
            {name(worst.from)} → {name(worst.to)}
          </div>
          <div className="answer-figure">
            {degreeFigure(worseOf(worst))}
            <span className={`answer-other is-${worst.verdict}`}>
              {VERDICT_WORDS[worst.verdict].mark} {VERDICT_WORDS[worst.verdict].word}
            </span>
          </div>
          <div className="answer-note">
            ± {degreeFigure(worst.plusMinusDeg)}; up to {looked!.limits.good}° is good
            {looked!.belt.runAngle ? '' : ', by default'}.
            {Math.abs(worseOf(worst) - looked!.limits.good) < worst.plusMinusDeg &&
              ' The limit is within its ±: one more reading settles it.'}
            {runs.length < all && ` ${runs.length} of ${all} runs are read.`}
          </div>
        </>
      ) : (
        <>
          <div className="label">No run is read yet</div>
          <div className="answer-note">
            A reading is the offset of a pulley from the crank&rsquo;s plane. One for each pulley is enough to start.
          </div>
        </>
      )}
      {after && view !== 'cures' && (
        <div className="button-row is-after">
          <Button onClick={() => setTried(null)}>Stop the what-if</Button>
        </div>
      )}
      {!after && shown.length > 0 && (
        <ul className="findings is-after" aria-label="Findings">
          {shown.map((finding) => (
            <FindingItem
              key={`${finding.code} ${finding.pulley} ${finding.reading}`}
              severity={finding.severity}
              words={alignWords(drive, finding, unit)}
            />
          ))}
        </ul>
      )}
      {!after && worst && worst.verdict !== 'good' && (view === 'read' || view === 'runs') && (
        <div className="button-row is-after">
          <Button type="primary" onClick={() => setView('cures')}>
            Show cures
          </Button>
        </div>
      )}
    </div>
  );
}
