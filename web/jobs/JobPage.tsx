import { Button, Progress, Spin } from 'antd';
import { useMemo, useState } from 'react';
import { Link, useParams } from 'react-router';
import { TypedPlace } from '../ui/typed-text';
import { Thumbnail } from '../bench/Thumbnail';
import { BringList } from './BringList';
import { Estimate } from './Estimate';
import { Fitted } from './Fitted';
import { JobExtras } from './JobExtras';
import { PlanOffers } from './PlanOffers';
import { SignOff } from './SignOff';
import { StepInHand } from './StepInHand';
import { Steps } from './Steps';
import { Waiting } from './Waiting';
import { type JobInHand, useJob } from './use-job';
import { IN } from '../access/words';
import { LendJob } from '../access/LendJob';
import { OnMyPhone } from '../access/OnMyPhone';
import { useMe } from '../api/access';
import { sayWho, useWho } from './who';
import '../bench/bench.css';
import '../ui/ledger.css';
import './jobs.css';
import type { JobOpened } from '@emery/core/api';
import { durationWords, type JobEstimate, lateFacts } from '@emery/core/job';
import { sketchOf } from '@emery/core/path';
import { PageHeader } from '../ui/PageHeader';
import { useNarrow } from '../ui/use-narrow';
import { useNow } from '../ui/use-now';
import { useTitle } from '../ui/use-title';

/** One job, ticked off at the vehicle: on a telephone with one thumb, on several devices at once. */
export default function JobPage() {
  const { jobId = '' } = useParams();
  const hand = useJob(jobId);
  const { job, error } = hand;
  const lent = useMe()?.role === 'lent';
  useTitle('Job', job?.vehicleName);
  if (!job)
    return error ? (
      <main className="job-sheet">
        <p className="shop-none">{error.message}</p>
        <Waiting job={null} hand={hand} />
        {!lent && (
          <p className="shop-none">
            <Link to="/">Back to the shop</Link>
          </p>
        )}
      </main>
    ) : (
      <Spin className="page-spin" />
    );
  return (
    <div className="job-page">
      <PageHeader>
        <span className="header-where">
          <h1 className="header-vehicle job-title">{job.vehicleName}</h1>
          <span>{job.name}</span>
        </span>
        <OnMyPhone />
        {!lent && (
          <Link to={`/drives/${job.driveId}/job`} className="header-link">
            Bench
          </Link>
        )}
      </PageHeader>
      <TypedPlace at={`job ${job.id}`}>
        {lent ? <LentSheet job={job} hand={hand} /> : <Sheet job={job} hand={hand} />}
      </TypedPlace>
    </div>
  );
}

function Sheet({ job, hand }: { job: JobOpened; hand: JobInHand }) {
  const { run } = hand;
  const { sheet, signedAt } = job;
  const sketch = useMemo(() => sketchOf(sheet.drive), [sheet.drive]);
  const [bringing, setBringing] = useState(false);
  const narrow = useNarrow();
  return (
    <main className="job-sheet">
      {signedAt === null && <StepInHand job={job} hand={hand} />}
      <section className="job-progress sheet" aria-label="Progress" data-testid="job-progress">
        <StepsDone job={job} hand={hand} />
        {signedAt !== null ? (
          <SignedOff job={job} run={run} />
        ) : (
          <>
            <Who />
            <Timer hand={hand} estimate={sheet.estimate} />
          </>
        )}
        <Waiting job={job} hand={hand} />
        <div className="job-links">
          <Link to={`/jobs/${job.id}/print`}>Print or PDF</Link>
          <Link to={`/vehicles/${job.vehicleId}`}>Vehicle history</Link>
          {signedAt === null && <LendJob jobId={job.id} />}
          <Button type="link" aria-expanded={bringing} onClick={() => setBringing(!bringing)}>
            {bringing ? 'Close the bring list' : 'Bring list'}
          </Button>
        </div>
        {bringing && <BringList drive={sheet.drive} bring={sheet.bring} />}
        {bringing && signedAt === null && sheet.estimate && <Estimate estimate={sheet.estimate} open={false} />}
        {!narrow && <Thumbnail sketch={sketch} label="The drive" />}
      </section>
      {signedAt === null && <PlanOffers job={job} hand={hand} />}
      <Steps job={job} hand={hand} />
      <Fitted job={job} hand={hand} />
      <JobExtras job={job} hand={hand} />
      {signedAt === null && <SignOff job={job} hand={hand} />}
    </main>
  );
}

/** How many of the steps are done. */
function StepsDone({ job: { sheet }, hand }: { job: JobOpened; hand: JobInHand }) {
  const { length } = sheet.steps;
  const done = sheet.steps.filter(({ id }) => hand.run.done.has(id)).length;
  return (
    <>
      <div className="answer-figure">
        {done} <span className="answer-other">of {length} steps</span>
      </div>
      <Progress
        percent={(100 * done) / length}
        showInfo={false}
        strokeColor="var(--enamel)"
        aria-label="Share of the steps done"
      />
    </>
  );
}

/** By whom and when; and what came in too late for it. */
function SignedOff({ job: { sheet, signedAt, signedBy }, run }: { job: JobOpened; run: JobInHand['run'] }) {
  return (
    <>
      <p className="job-signed" role="status">
        ✓ Signed off by {signedBy}, {signedAt?.slice(0, 10)}. It can no longer be changed.
      </p>
      {run.late.length > 0 && (
        <ul className="findings" aria-label="Received after sign-off">
          {lateFacts(sheet.steps, run).map((fact, k) => (
            <li key={k} className="finding is-note">
              {fact}
            </li>
          ))}
        </ul>
      )}
      {sheet.estimate && <Estimate estimate={sheet.estimate} open={false} run={run} />}
    </>
  );
}

/** What somebody has whom the job was lent to: its steps, to be ticked and photographed. */
function LentSheet({ job, hand }: { job: JobOpened; hand: JobInHand }) {
  return (
    <main className="job-sheet">
      {job.signedAt === null && <StepInHand job={job} hand={hand} />}
      <section className="job-progress sheet" aria-label="Progress" data-testid="job-progress">
        <StepsDone job={job} hand={hand} />
        <Who />
        <p className="quiet">{IN.lentHere}</p>
        <Waiting job={job} hand={hand} />
      </section>
      <Steps job={job} hand={hand} lent />
    </main>
  );
}

/** Who works at this device: every tick carries the name. Of a device that is signed in it is known. */
function Who() {
  const who = useWho();
  const name = useMe()?.name ?? null;
  if (name !== null)
    return (
      <p className="job-who">
        <span className="label">Technician</span> <strong>{name}</strong>
      </p>
    );
  return (
    <label className="job-who">
      <span className="label">Technician</span>
      <input
        value={who}
        maxLength={80}
        placeholder="Your name"
        autoComplete="name"
        onChange={(event) => sayWho(event.target.value)}
      />
    </label>
  );
}

/** The time that the work takes: it runs on while the page is closed, and on any device. */
function Timer({ hand: { run, happens }, estimate }: { hand: JobInHand; estimate: JobEstimate | undefined }) {
  const runs = run.runningSince !== null;
  const { now, look } = useNow(runs ? Infinity : null);
  const start = run.workedMs > 0 ? '▶ Continue' : '▶ Start the clock';
  const ms = run.workedMs + (runs ? Math.max(0, now - Date.parse(run.runningSince!)) : 0);
  return (
    <div className="job-timer">
      <span className="label">Time taken</span>
      <strong>{clock(ms)}</strong>
      {estimate && (
        <span className="quiet">
          of {durationWords(estimate.minutes)} ± {durationWords(estimate.plusMinus)} estimated
        </span>
      )}
      <Button
        onClick={() => {
          look();
          happens({ kind: 'timer', running: !runs });
        }}
      >
        {runs ? '❚❚ Pause' : start}
      </Button>
    </div>
  );
}

const clock = (ms: number) => {
  const seconds = Math.floor(ms / 1000);
  const two = (value: number) => String(value).padStart(2, '0');
  return `${Math.floor(seconds / 3600)}:${two(Math.floor(seconds / 60) % 60)}:${two(seconds % 60)}`;
};
