import { EditOutlined } from '@ant-design/icons';
import { Button } from 'antd';
import { type ReactNode, useEffect, useRef, useState } from 'react';
import { PictureButton } from '../ui/PictureButton';
import { Countdown } from './Countdown';
import { JOB } from './words';
import { useNarrow } from '../ui/use-narrow';
import { JobPicture } from './JobPicture';
import { RemarkForm } from './RemarkForm';
import type { JobInHand } from './use-job';
import type { JobOpened } from '@emery/core/api';
import { PHASES } from '@emery/core/drive';
import { type CardStep, PHASE_WORDS } from '@emery/core/job';
import { habitsNow } from '@emery/core/quantity';

/** The steps, each as one large thing to tap; what comes next stands out, its caution with it. */
export function Steps({ job, hand, lent = false }: { job: JobOpened; hand: JobInHand; lent?: boolean }) {
  const { run } = hand;
  const { steps } = job.sheet;
  const next = job.signedAt === null ? steps.find(({ id }) => !run.done.has(id)) : undefined;
  // In the hand the step that comes next stands above, large: what is done is folded, what follows is in short.
  const folds = useNarrow() && job.signedAt === null;
  return PHASES.map((phase) => {
    const own = steps.filter((step) => step.phase === phase);
    if (own.length === 0) return null;
    return (
      <Phase key={phase} name={PHASE_WORDS[phase]} own={own} done={run.done} folds={folds}>
        {(step) => (
          <Tick
            key={step.id}
            step={step}
            number={steps.indexOf(step) + 1}
            next={step.id === next?.id}
            short={folds}
            job={job.id}
            hand={hand}
            fixed={job.signedAt !== null}
            lent={lent}
          />
        )}
      </Phase>
    );
  });
}

interface PhaseProps {
  name: string;
  own: readonly CardStep[];
  done: ReadonlyMap<string, unknown>;
  folds: boolean;
  children: (step: CardStep) => ReactNode;
}

/** The steps of one phase; where they fold, the done ones are out of the way until they are asked for. */
function Phase({ name, own, done, folds, children }: PhaseProps) {
  const [open, setOpen] = useState(false);
  const left = own.filter(({ id }) => !done.has(id));
  return (
    <section className="sheet job-ticks" aria-label={name}>
      <div className="block-head">
        <h2>{name}</h2>
        <span className="quiet">
          {own.length - left.length} of {own.length}
        </span>
      </div>
      <ol>{(folds && !open ? left : own).map(children)}</ol>
      {folds && left.length < own.length && (
        <Button type="link" aria-expanded={open} onClick={() => setOpen(!open)}>
          {open ? JOB.hideDone : JOB.showDone}
        </Button>
      )}
    </section>
  );
}

interface TickProps {
  job: string;
  step: CardStep;
  number: number;
  next: boolean;
  /** In short: whole where it is opened. */
  short: boolean;
  hand: JobInHand;
  fixed: boolean;
  /** True where the device has this job alone, and adds no remark to it. */
  lent: boolean;
}

function Tick({ job, step, number, next, short, hand: { run, happens }, fixed, lent }: TickProps) {
  const done = run.done.get(step.id);
  const row = useRef<HTMLLIElement>(null);
  const wasNext = useRef(next);
  useEffect(() => {
    // Ticked off one after the other, the next one comes to the thumb.
    if (next && !wasNext.current && !short) row.current?.scrollIntoView({ block: 'nearest' });
    wasNext.current = next;
  }, [next, short]);
  const remarks = run.notes.filter((note) => note.step === step.id);
  const photos = run.photos.filter((taken) => taken.step === step.id);
  const [open, setOpen] = useState(false);
  return (
    <li
      ref={row}
      className={`job-tick${done ? ' is-done' : ''}${next ? ' is-next' : ''}${short && !open ? ' is-short' : ''}`}
    >
      <div className="job-tick-row">
        <button
          type="button"
          role="checkbox"
          aria-checked={done !== undefined}
          disabled={fixed}
          onClick={() => happens({ kind: 'tick', step: step.id, done: !done })}
        >
          <span className="job-box" aria-hidden>
            {done ? '✓' : ''}
          </span>
          <span className="job-tick-number">{number}</span>
          <span className="job-tick-text">
            {step.text}
            {done && (
              <span className="job-tick-who">
                {done.by || 'Done'}, {timeOf(done.at)}
              </span>
            )}
          </span>
        </button>
        {!fixed && (
          <Button
            type="text"
            icon={<EditOutlined />}
            aria-label={`${lent ? 'Picture' : 'Remark or picture'}, step ${number}`}
            aria-expanded={open}
            onClick={() => setOpen(!open)}
          />
        )}
      </div>
      {step.caution && !done && !(short && !open) && (
        <p className="job-caution">
          <strong>▲ Caution</strong> {step.caution}
        </p>
      )}
      {remarks.map(({ id, text, by }) => (
        <p key={id} className="job-remark">
          {by && `${by}: `}
          {text}
        </p>
      ))}
      {photos.length > 0 && (
        <div className="job-pictures">
          {photos.map(({ id, photo }) => (
            <JobPicture key={id} hash={photo.hash} of={`step ${number}`} />
          ))}
        </div>
      )}
      {open && !fixed && (
        <div className="job-at-step">
          {!lent && (
            <RemarkForm
              place={`remark at ${step.id}`}
              label={`Remark, step ${number}`}
              onAdd={(text) => happens({ kind: 'note', text, step: step.id })}
            />
          )}
          <PictureButton
            label="Take a picture"
            what={`Picture of step ${number}`}
            onKept={(photo) => happens({ kind: 'photo', photo, step: step.id })}
          />
        </div>
      )}
      {step.minutes !== undefined && next && !short && !fixed && (
        <Countdown place={`${job} ${step.id}`} minutes={step.minutes} />
      )}
    </li>
  );
}

export const timeOf = (at: string) =>
  new Date(at).toLocaleString('en-GB', {
    ...{ day: 'numeric', month: 'short', hour: '2-digit', minute: '2-digit' },
    hour12: habitsNow().clock === 'h12',
  });
