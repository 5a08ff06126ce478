import { Segmented } from 'antd';
import { FindingItem } from '../../bench/FindingItem';
import { lazyPart } from '../../parts/lazy-part';
import { TypedPlace } from '../../ui/typed-text';
import { ListenView } from './ListenView';
import { type NoiseView, useNoise } from './NoiseProvider';
import { useDiagnosis } from './sums';
import './noise.css';
import {
  CAUSE_WORDS,
  chanceFigure,
  type NoiseFindingCode,
  noiseFindings,
  noiseWords,
  partLabel,
  reasonWords,
} from '@emery/core/noise';

const CluesView = lazyPart('Clues', () => import('./CluesView'));
const CausesView = lazyPart('The causes', () => import('./CausesView'));
const LearnView = lazyPart('Sounds to learn', () => import('./LearnView'));
const AfterView = lazyPart('After the repair', () => import('./AfterView'));

const VIEWS: readonly { value: NoiseView; label: string }[] = [
  { value: 'listen', label: 'Listen' },
  { value: 'clues', label: 'Clues' },
  { value: 'causes', label: 'Causes' },
  { value: 'learn', label: 'Learn' },
  { value: 'after', label: 'After' },
];

/** What must stop, wherever one looks. */
const STOPS: readonly NoiseFindingCode[] = ['hub-stop', 'rib-stop'];
/** What is said above each view. */
const TOLD: Record<NoiseView, readonly NoiseFindingCode[]> = {
  listen: STOPS,
  clues: [...STOPS, 'contradicts', 'unknown-test', 'dressed', 'masked'],
  causes: [...STOPS, 'not-the-drive', 'simulated', 'contradicts', 'came-back'],
  learn: [],
  after: [...STOPS, 'came-back'],
};

/** Noise: whose it is, what causes it, and the next test worth doing. */
export default function NoiseLedger() {
  const { view, setView } = useNoise();
  const { diagnosis } = useDiagnosis();
  if (diagnosis.causes.length === 0) {
    return (
      <>
        <h2>No route yet</h2>
        <p>Give a belt its route first, under Route. Then Emery works out what can cause a noise here.</p>
      </>
    );
  }
  return (
    <TypedPlace at="noise">
      <Answer />
      <Segmented<NoiseView> block value={view} options={[...VIEWS]} onChange={setView} aria-label="View" />
      <TypedPlace at={view}>
        {view === 'listen' && <ListenView />}
        {view === 'clues' && <CluesView />}
        {view === 'causes' && <CausesView />}
        {view === 'learn' && <LearnView />}
        {view === 'after' && <AfterView />}
      </TypedPlace>
    </TypedPlace>
  );
}

/** The likeliest cause as the largest words, with its chance, and why in two lines. */
function Answer() {
  const { drive, diagnosis } = useDiagnosis();
  const { view } = useNoise();
  const [group] = diagnosis.groups;
  const first = group?.parts[0];
  const several = (group?.parts.length ?? 0) > 1;
  const shown = noiseFindings(drive, diagnosis).filter(({ code }) => TOLD[view].includes(code));
  const { name } = CAUSE_WORDS[first!.cause];
  const reasons = first!.reasons.filter(({ ratio }) => ratio > 1).slice(0, 2);
  return (
    <div className="answer" data-testid="noise-answer" data-cause={first!.cause} data-part={first!.id}>
      {!diagnosis.evidence.heard ? (
        <>
          <div className="label">Nothing recorded yet</div>
          <div className="answer-note">
            Most common on a drive like this: {name.toLowerCase()} ({chanceFigure(group!.probability)}). Listen, or
            record what you see.
          </div>
        </>
      ) : (
        <>
          <div className="label">
            Most likely: {partLabel(drive, first!.id)}
            {several && `, ${chanceFigure(first!.probability)}`}
          </div>
          <div className="answer-figure noise-cause">
            {name}
            <span className="answer-other">{chanceFigure(group!.probability)}</span>
          </div>
          {reasons.length > 0 && (
            <ul className="noise-why" aria-label="Why">
              {reasons.map((reason) => {
                const words = reasonWords(drive, reason, first!);
                return <li key={words}>{words}</li>;
              })}
            </ul>
          )}
        </>
      )}
      {shown.length > 0 && (
        <ul className="findings is-after" aria-label="Findings">
          {shown.map((finding) => (
            <FindingItem
              key={`${finding.code} ${finding.pulley} ${finding.belt} ${finding.figures && 'test' in finding.figures ? finding.figures.test : ''}`}
              severity={finding.severity}
              words={noiseWords(drive, finding)}
            />
          ))}
        </ul>
      )}
    </div>
  );
}
