import { EditOutlined } from '@ant-design/icons';
import { Button } from 'antd';
import { useEffect, useRef, useState } from 'react';
import { PictureButton } from '../ui/PictureButton';
import { useTyped } from '../ui/typed-text';
import { JobPicture } from './JobPicture';
import { RemarkForm } from './RemarkForm';
import type { JobInHand } from './use-job';
import type { JobOpened } from '@emery/core/api';
import { PHASES } from '@emery/core/drive';
import { type CardStep, PHASE_WORDS } from '@emery/core/job';
import { useNow } from '../ui/use-now';

/** The steps, each as one large thing to tap; what comes next stands out, its caution with it. */
export function Steps({ job, hand, lent = false }: { job: JobOpened; hand: JobInHand; lent?: boolean }) {
  const { run } = hand;
  const { steps } = job.sheet;
  const next = job.signedAt === null ? steps.find(({ id }) => !run.done.has(id)) : undefined;
  return PHASES.map((phase) => {
    const own = steps.filter((step) => step.phase === phase);
    if (own.length === 0) return null;
    const done = own.filter(({ id }) => run.done.has(id)).length;
    return (
      <section key={phase} className="sheet job-ticks" aria-label={PHASE_WORDS[phase]}>
        <div className="block-head">
          <h2>{PHASE_WORDS[phase]}</h2>
          <span className="quiet">
            {done} of {own.length}
          </span>
        </div>
        <ol>
          {own.map((step) => (
            <Tick
              key={step.id}
              step={step}
              number={steps.indexOf(step) + 1}
              next={step.id === next?.id}
              job={job.id}
              hand={hand}
              fixed={job.signedAt !== null}
              lent={lent}
            />
          ))}
        </ol>
      </section>
    );
  });
}

interface TickProps {
  job: string;
  step: CardStep;
  number: number;
  next: boolean;
  hand: JobInHand;
  fixed: boolean;
  /** True where the device has this job alone, and adds no remark to it. */
  lent: boolean;
}

function Tick({ job, step, number, next, hand: { run, happens }, fixed, lent }: TickProps) {
  const done = run.done.get(step.id);
  const row = useRef<HTMLLIElement>(null);
  const wasNext = useRef(next);
  useEffect(() => {
    // Ticked off one after the other, the next one comes to the thumb.
    if (next && !wasNext.current) row.current?.scrollIntoView({ block: 'nearest' });
    wasNext.current = next;
  }, [next]);
  const remarks = run.notes.filter((note) => note.step === step.id);
  const photos = run.photos.filter((taken) => taken.step === step.id);
  const [open, setOpen] = useState(false);
  return (
    <li ref={row} className={`job-tick${done ? ' is-done' : ''}${next ? ' is-next' : ''}`}>
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
      {step.caution && !done && (
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
      {step.minutes !== undefined && next && !fixed && <Countdown place={`${job} ${step.id}`} minutes={step.minutes} />}
    </li>
  );
}

export const timeOf = (at: string) =>
  new Date(at).toLocaleString('en-GB', { day: 'numeric', month: 'short', hour: '2-digit', minute: '2-digit' });

/** The minutes of a step, counted down on this device; kept over a reload. */
function Countdown({ place, minutes }: { place: string; minutes: number }) {
  const [from, setFrom] = useTyped<number | null>(`counting ${place}`, null);
  const ends = from === null ? null : from + minutes * 60_000;
  const { now, look } = useNow(ends);
  const left = ends === null ? null : Math.max(0, ends - now);
  if (left === null) return <Button onClick={() => setFrom(look())}>Count {minutes} minutes</Button>;
  return (
    <p className="job-countdown" role="timer">
      {left === 0
        ? 'Time is up: key out.'
        : `${Math.floor(left / 60_000)}:${String(Math.floor(left / 1000) % 60).padStart(2, '0')} left`}
    </p>
  );
}
