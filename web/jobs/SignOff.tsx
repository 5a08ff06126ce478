import { App as AntApp, Button, Input } from 'antd';
import { useMutation, useQueryClient } from '@tanstack/react-query';
import { useNavigate } from 'react-router';
import { ask } from '../api/client';
import { useShopHasChanged } from '../api/jobs';
import { MarkingDoubt } from './Fitted';
import { ShopOdometer } from './JobExtras';
import type { JobInHand } from './use-job';
import { useMe } from '../api/access';
import { sayWho, useWho } from './who';
import type { JobOpened } from '@emery/core/api';
import { beltName } from '@emery/core/job';
import { capital } from '@emery/core/quantity';

/** The end of a job: who signs it off, what is still open, and what it will leave behind. */
export function SignOff({ job, hand }: { job: JobOpened; hand: JobInHand }) {
  const { run, queue } = hand;
  const client = useQueryClient();
  const changed = useShopHasChanged();
  const navigate = useNavigate();
  const { modal } = AntApp.useApp();
  const written = useWho();
  const signedIn = useMe()?.name ?? null;
  const by = signedIn ?? written;
  const { sheet } = job;
  const open = sheet.steps.filter(({ id }) => !run.done.has(id)).length;
  const unsaid = sheet.off.filter((belt) => !run.belts.has(belt));
  const sign = useMutation({
    mutationFn: () =>
      ask<JobOpened>('POST', `/jobs/${job.id}/sign-off`, { by: by.trim(), at: new Date().toISOString() }),
    onSuccess: (signed) => {
      client.setQueryData(['job', job.id], signed);
      return changed();
    },
  });
  const drop = useMutation({
    mutationFn: () => ask('DELETE', `/jobs/${job.id}`),
    onSuccess: async () => {
      await changed();
      void navigate(`/drives/${job.driveId}/job`);
    },
  });
  const waits = queue.waiting.length > 0;
  return (
    <section className="sheet job-sign" aria-label="Sign off">
      <h2>Sign off</h2>
      {open > 0 && (
        <p className="finding is-watch">
          <strong>{open === 1 ? '1 step is not ticked.' : `${open} steps are not ticked.`}</strong> You can still sign
          it off; the record shows it.
        </p>
      )}
      {unsaid.length > 0 && (
        <p className="finding is-watch">
          <strong>Belt fitted not recorded: {unsaid.map((belt) => beltName(sheet.drive, belt)).join(', ')}.</strong>{' '}
          Without it, no number and no date are recorded for it.
        </p>
      )}
      {sheet.off.map((belt) => {
        const said = run.belts.get(belt);
        const asked = sheet.bring.belts.find((entry) => entry.belt === belt);
        const name = capital(beltName(sheet.drive, belt));
        return said?.fitted === 'new' && <MarkingDoubt key={belt} name={name} marking={said.marking} asked={asked} />;
      })}
      {run.odometer === null && (
        <p className="finding is-note">
          <strong>The odometer was not read.</strong> The next inspection is then due by date alone.{' '}
          <ShopOdometer job={job} hand={hand} />
        </p>
      )}
      <label className="job-who">
        <span className="label">Signed off by</span>
        <Input
          value={by}
          maxLength={80}
          placeholder="Your name"
          readOnly={signedIn !== null}
          onChange={(event) => sayWho(event.target.value)}
        />
      </label>
      <div className="button-row">
        <Button
          type="primary"
          size="large"
          disabled={by.trim() === '' || waits}
          loading={sign.isPending}
          onClick={() => sign.mutate()}
        >
          Sign off
        </Button>
        <Button
          danger
          onClick={() =>
            void modal.confirm({
              title: 'Delete this job?',
              content: 'Its ticks, remarks and times are deleted. The drive stays unchanged.',
              okText: 'Delete it',
              cancelText: 'Keep it',
              onOk: () => drop.mutateAsync(),
            })
          }
        >
          Delete the job
        </Button>
      </div>
      {by.trim() === '' && <p className="quiet">Enter a name first.</p>}
      {waits && <p className="quiet">Ticks are still being sent.</p>}
      {(sign.error ?? drop.error) && (
        <p className="field-echo is-wrong" role="alert">
          {(sign.error ?? drop.error)!.message}
        </p>
      )}
      <p className="quiet">
        This updates the drive with the new belts, their number, date, odometer and next inspection, the vehicle’s
        odometer, and the stock. The job can then no longer be changed.
      </p>
    </section>
  );
}
