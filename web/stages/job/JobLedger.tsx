import { Button, Segmented } from 'antd';
import { Link, useNavigate, useParams } from 'react-router';
import { useBeginJob, useJobs } from '../../api/jobs';
import { FindingItem } from '../../bench/FindingItem';
import { useEstimate } from '../../jobs/use-estimate';
import { lazyPart } from '../../parts/lazy-part';
import { useBench } from '../../state/bench';
import { StoppedSum } from '../../ui/StoppedSum';
import { TypedPlace } from '../../ui/typed-text';
import { CardView } from './CardView';
import { type JobView, useJobStage } from './JobProvider';
import { useBring, useCard } from './sums';
import './job.css';
import { beltName, durationWords, jobWords, type JobCard, type JobEstimate } from '@emery/core/job';
import { capital } from '@emery/core/quantity';

const BoltsView = lazyPart('The bolts', () => import('./BoltsView'));
const BringView = lazyPart('What to bring', () => import('./BringView'));

const VIEWS: readonly { value: JobView; label: string }[] = [
  { value: 'card', label: 'Card' },
  { value: 'bolts', label: 'Bolts' },
  { value: 'bring', label: 'Bring' },
];

/** Job card: the work in order, the bolts, and what to bring. */
export default function JobLedger() {
  const { view, setView } = useJobStage();
  const { drive, unit } = useBench('drive', 'unit');
  const { card, progress, stopped } = useCard();
  const { bring } = useBring();
  const estimate = useEstimate(card?.steps ?? null, bring);
  if (drive.belts.every(({ route }) => route.length === 0))
    return (
      <>
        <h2>No belt with a route yet</h2>
        <p>Give a belt its route first, under Route. Then the job steps appear here.</p>
      </>
    );
  return (
    <TypedPlace at="job">
      <Scope />
      {!card && progress !== null && <p className="quiet">Preparing the card …</p>}
      <StoppedSum stopped={stopped} />
      {card && <Answer card={card} estimate={estimate} />}
      {card && <Begin estimate={estimate} />}
      {card && <Findings card={card} urgent />}
      <Segmented<JobView> block value={view} options={[...VIEWS]} onChange={setView} aria-label="View" />
      {view === 'card' && card && <CardView card={card} unit={unit} />}
      {view === 'bolts' && <BoltsView />}
      {view === 'bring' && <BringView />}
      {card && <Findings card={card} urgent={false} />}
    </TypedPlace>
  );
}

/** What stands in the way is told above the card, what is only open below it. */
function Findings({ card, urgent }: { card: JobCard; urgent: boolean }) {
  const { drive } = useBench('drive');
  const shown = card.findings.filter(({ severity }) => (severity !== 'note') === urgent);
  if (shown.length === 0) return null;
  return (
    <ul className="findings" aria-label={urgent ? 'Cannot go ahead' : 'Open'}>
      {shown.map((finding) => (
        <FindingItem
          key={`${finding.code} ${finding.belt}`}
          severity={finding.severity}
          words={jobWords(drive, finding)}
        />
      ))}
    </ul>
  );
}

/** For which belt the job is; those in front of it come along. */
function Scope() {
  const { drive } = useBench('drive');
  const { scope, setScope } = useJobStage();
  const routed = drive.belts.filter(({ route }) => route.length > 0);
  if (routed.length < 2) return null;
  return (
    <Segmented<string>
      block
      value={scope ?? ''}
      options={[
        { value: '', label: 'All belts' },
        ...routed.map(({ id }) => ({ value: id, label: capital(beltName(drive, id)) })),
      ]}
      onChange={(belt) => setScope(belt === '' ? null : belt)}
      aria-label="Belt for this job"
    />
  );
}

/** The order of the belts as the largest words. */
function Answer({ card: { order, steps }, estimate }: { card: JobCard; estimate: JobEstimate | null }) {
  const { drive } = useBench('drive');
  const names = order.off.map((id) => beltName(drive, id));
  const heading = names.length === 1 ? 'Belt' : capital(names.join(', then '));
  return (
    <div className="answer" data-testid="job-answer" data-off={order.off.join(' ')}>
      <div className="label">{names.length === 1 ? 'Comes off' : 'Removal order; fit in reverse'}</div>
      <div className="answer-figure job-order">{heading}</div>
      <div className="answer-note">
        {steps.length} steps
        {estimate && `, ${durationWords(estimate.minutes)} ± ${durationWords(estimate.plusMinus)} of work`}
        {estimate?.jobs === 0 && ' (a default)'}. Made from the results of the other stages; the vehicle&rsquo;s service
        manual takes precedence.
      </div>
    </div>
  );
}

/** Begins the job with the card as it is, or goes on with one that is in hand. */
function Begin({ estimate }: { estimate: JobEstimate | null }) {
  const { driveId = '' } = useParams();
  const { drive, unit } = useBench('drive', 'unit');
  const { card, fresh, asked } = useCard();
  const { bring } = useBring();
  const jobs = useJobs({ drive: driveId });
  const begin = useBeginJob();
  const navigate = useNavigate();
  const open = jobs.data?.jobs.find(({ signedAt }) => signedAt === null);
  const scope = asked.belt === null ? '' : `?belt=${encodeURIComponent(asked.belt)}`;
  const start = async () => {
    const job = await begin.mutateAsync({
      driveId,
      sheet: {
        drive,
        unit,
        belt: asked.belt,
        off: card!.order.off,
        on: card!.order.on,
        steps: card!.steps,
        bring: bring!,
        estimate: estimate!,
      },
    });
    void navigate(`/jobs/${job.id}`);
  };
  return (
    <div className="job-begin">
      <div className="button-row">
        {open && (
          <Button type="primary" onClick={() => void navigate(`/jobs/${open.id}`)}>
            Continue the job of {open.startedAt.slice(0, 10)}
          </Button>
        )}
        <Button
          type={open ? 'default' : 'primary'}
          disabled={!fresh || !bring || !estimate || card!.findings.some(({ code }) => code === 'no-belts')}
          loading={begin.isPending}
          onClick={() => void start()}
        >
          {open ? 'Start another' : 'Start this job'}
        </Button>
      </div>
      {begin.error && (
        <p className="field-echo is-wrong" role="alert">
          The job was not started: {begin.error.message}
        </p>
      )}
      <p className="job-links">
        <Link to={`/drives/${driveId}/job-card${scope}`}>Print the card</Link>
        <Link to={`/drives/${driveId}/glovebox`}>Glovebox card</Link>
      </p>
    </div>
  );
}
