import { Segmented } from 'antd';
import { FindingItem } from '../../bench/FindingItem';
import { lazyPart } from '../../parts/lazy-part';
import { useBench } from '../../state/bench';
import { TypedPlace } from '../../ui/typed-text';
import { type InspectView, useInspect } from './InspectProvider';
import { useInspection } from './sums';
import { WalkView } from './WalkView';
import './inspect.css';
import type { Drive } from '@emery/core/drive';
import {
  inspectedLabel,
  inspectFindings,
  type InspectFindingCode,
  type InspectItem,
  inspectWords,
  leftFigure,
  VERDICT_WORDS,
} from '@emery/core/inspect';

const CloseUpView = lazyPart('The close-up', () => import('./CloseUpView'));
const VerdictsView = lazyPart('Verdicts', () => import('./VerdictsView'));
const LimitsView = lazyPart('Limits', () => import('./LimitsView'));

const VIEWS: readonly { value: InspectView; label: string }[] = [
  { value: 'walk', label: 'Walk' },
  { value: 'close-up', label: 'Close-up' },
  { value: 'verdicts', label: 'Verdicts' },
  { value: 'limits', label: 'Limits' },
];

/** What must stop is told above every view; everything else with the verdicts. */
const STOPS: readonly InspectFindingCode[] = ['stop-wobble', 'no-parts'];

/** Inspect: a walk round the drive, a close look at its ribs, and what follows. */
export default function InspectLedger() {
  const { view, setView } = useInspect();
  const { drive, items } = useInspection();
  const { solution } = useBench('solution');
  const findings = inspectFindings(drive, items, solution);
  const stops = findings.filter(({ code }) => STOPS.includes(code));
  const others = findings.filter(({ code }) => !STOPS.includes(code) && code !== 'nothing-looked-at');
  return (
    <TypedPlace at="inspect">
      <Answer drive={drive} items={items} />
      <Findings drive={drive} findings={stops} />
      <Segmented<InspectView> block value={view} options={[...VIEWS]} onChange={setView} aria-label="View" />
      {view === 'walk' && <WalkView />}
      {view === 'close-up' && <CloseUpView />}
      {view === 'verdicts' && <VerdictsView />}
      {view === 'limits' && <LimitsView />}
      {view === 'verdicts' && <Findings drive={drive} findings={others} />}
    </TypedPlace>
  );
}

function Findings({ drive, findings }: { drive: Drive; findings: ReturnType<typeof inspectFindings> }) {
  const { unit } = useBench('unit');
  if (findings.length === 0) return null;
  return (
    <ul className="findings" aria-label="Findings">
      {findings.map((finding) => (
        <FindingItem
          key={`${finding.code} ${finding.pulley} ${finding.belt}`}
          severity={finding.severity}
          words={inspectWords(drive, finding, unit)}
        />
      ))}
    </ul>
  );
}

/** The worst verdict as the largest words, and how far the first belt still goes. */
function Answer({ drive, items }: { drive: Drive; items: readonly InspectItem[] }) {
  const looked = items.filter(({ verdict }) => verdict !== 'not looked at');
  const withVerdict = (verdict: InspectItem['verdict']) => items.filter((item) => item.verdict === verdict);
  const worst = (['replace', 'watch', 'keep'] as const).find((verdict) => withVerdict(verdict).length > 0);
  const wear = items
    .filter((item) => item.wear?.left)
    .sort((a, b) => a.wear!.left!.distance - b.wear!.left!.distance)[0];
  const unit = drive.inspect?.odometerUnit ?? 'km';
  const names = worst && worst !== 'keep' ? withVerdict(worst).map((item) => inspectedLabel(drive, item)) : [];
  return (
    <div className="answer" data-testid="inspect-answer" data-worst={worst ?? 'none'}>
      <div className="label">
        {looked.length} of {items.length} {items.length === 1 ? 'part' : 'parts'} inspected
      </div>
      {worst === undefined ? (
        <div className="answer-note">
          Nothing inspected yet, so no verdict. The walk below takes one tap or one figure for each check.
        </div>
      ) : (
        <>
          <div className={`answer-figure inspect-worst is-${worst}`}>
            {VERDICT_WORDS[worst]}
            <span className="answer-other">
              {withVerdict(worst).length} {withVerdict(worst).length === 1 ? 'part' : 'parts'}
            </span>
          </div>
          {names.length > 0 && <div className="answer-note">{names.join(' · ')}</div>}
          {wear && (
            <div className="answer-note">
              {inspectedLabel(drive, wear)}: about <strong>{leftFigure(wear.wear!.left!, unit)}</strong> left
            </div>
          )}
        </>
      )}
    </div>
  );
}
