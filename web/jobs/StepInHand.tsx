import { SoundOutlined } from '@ant-design/icons';
import { Button } from 'antd';
import { type ReactNode, useEffect, useState } from 'react';
import { createPortal } from 'react-dom';
import { Countdown } from './Countdown';
import { canReadAloud, readAloud, stopReading } from './read-aloud';
import type { JobInHand } from './use-job';
import { type StepHeld, useStepInHand } from './use-step-in-hand';
import { useWakeLock } from './use-wake-lock';
import { JOB } from './words';
import type { JobOpened } from '@emery/core/api';
import type { CardStep } from '@emery/core/job';
import { useKeys, withModifier } from '../ui/use-key';

/** What is read aloud of a step: its number, what to do, and what can hurt. */
const spoken = ({ text, caution }: CardStep, number: number) => JOB.spoken(number, text, caution ?? '');

/** The step in hand, large, with its caution and the button that goes on under the thumb; hands-free over the page. */
export function StepInHand({ job, hand }: { job: JobOpened; hand: JobInHand }) {
  const held = useStepInHand(job, hand);
  const [free, setFree] = useState(false);
  const [aloud, setAloud] = useState(false);
  const awake = useWakeLock(true);
  const { step, number } = held;
  useEffect(() => {
    if (aloud && step) readAloud(spoken(step, number));
    return stopReading;
  }, [aloud, step, number]);
  if (!step)
    return (
      <section className="sheet step-in-hand" aria-label={JOB.inHand}>
        <p className="step-text">{JOB.allDone}</p>
      </section>
    );
  const tools = (
    <div className="step-tools">
      {canReadAloud() && (
        <Button icon={<SoundOutlined />} aria-pressed={aloud} onClick={() => setAloud(!aloud)}>
          {aloud ? JOB.quiet : JOB.aloud}
        </Button>
      )}
      {!free && <Button onClick={() => setFree(true)}>{JOB.handsFree}</Button>}
      {awake && <span className="quiet">{JOB.staysOn}</span>}
    </div>
  );
  return (
    <section className="sheet step-in-hand" aria-label={JOB.inHand}>
      <StepShown held={held} step={step} />
      {step.minutes !== undefined && !held.done && <Countdown place={`${job.id} ${step.id}`} minutes={step.minutes} />}
      {tools}
      <div className="step-foot">
        <Button disabled={held.atFirst} onClick={held.back}>
          {JOB.back}
        </Button>
        {held.done && <Button onClick={held.untick}>{JOB.untick}</Button>}
        <Button type="primary" className="step-next" onClick={held.next}>
          {held.done ? JOB.next : JOB.done}
        </Button>
      </div>
      {free && (
        <HandsFree held={held} step={step} onClose={() => setFree(false)}>
          {tools}
        </HandsFree>
      )}
    </section>
  );
}

function StepShown({ held: { number, count, done }, step }: { held: StepHeld; step: CardStep }) {
  return (
    <div aria-live="polite">
      <p className="label">
        {JOB.step(number, count)}
        {done && JOB.isDone}
      </p>
      <p className="step-text">{step.text}</p>
      {step.caution && (
        <p className="caution step-caution">
          <strong>{JOB.caution}</strong> <span>{step.caution}</span>
        </p>
      )}
    </div>
  );
}

/** Keys of a foot pedal or a remote control: they turn pages, or send arrows. Enter is of the button in focus. */
const ON = ['ArrowRight', 'ArrowDown', 'PageDown', 'AudioVolumeUp'];
const BACK = ['ArrowLeft', 'ArrowUp', 'PageUp', 'AudioVolumeDown'];

interface FreeProps {
  held: StepHeld;
  step: CardStep;
  onClose: () => void;
  children: ReactNode;
}

/** The whole screen as two large keys: the left third goes back, all else goes on. */
function HandsFree({ held, step, onClose, children }: FreeProps) {
  useKeys(
    (event) => {
      if (withModifier(event)) return false;
      if (ON.includes(event.key)) held.next();
      else if (BACK.includes(event.key)) held.back();
      else if (event.key === 'Escape') onClose();
      else return false;
      return true;
    },
    { first: true },
  );
  // Over the page, out of whatever it is opened from.
  return createPortal(
    <div className="hands-free" role="dialog" aria-modal aria-label={JOB.handsFree}>
      <button type="button" className="hands-free-back" disabled={held.atFirst} onClick={held.back}>
        <span>‹ {JOB.back}</span>
      </button>
      <button type="button" className="hands-free-next" onClick={held.next} autoFocus>
        <span>{held.done ? JOB.next : JOB.done} ›</span>
      </button>
      <div className="hands-free-step">
        <StepShown held={held} step={step} />
      </div>
      <div className="hands-free-tools">
        {children}
        <Button onClick={onClose}>{JOB.close}</Button>
      </div>
    </div>,
    document.body,
  );
}
