import { useState } from 'react';
import type { JobInHand } from './use-job';
import type { JobOpened } from '@emery/core/api';
import type { CardStep } from '@emery/core/job';

export interface StepHeld {
  /** Null once all is done, or where there is nothing to do. */
  step: CardStep | null;
  /** Counted from 1. */
  number: number;
  count: number;
  done: boolean;
  /** Ticks the step, where it is not, and goes on to the next one. */
  next: () => void;
  /** Looks at the step before; nothing is unticked by that. */
  back: () => void;
  /** Takes the tick of the step away. */
  untick: () => void;
  atFirst: boolean;
}

/** The step in hand: the first that is not done, unless somebody looks at another. */
export function useStepInHand({ sheet: { steps } }: JobOpened, { run, happens }: JobInHand): StepHeld {
  const [looked, setLooked] = useState<string | null>(null);
  const firstOpen = steps.findIndex(({ id }) => !run.done.has(id));
  const lookedAt = steps.findIndex(({ id }) => id === looked);
  const open = firstOpen < 0 ? steps.length : firstOpen;
  const at = lookedAt >= 0 ? lookedAt : open;
  const step = steps[at] ?? null;
  const done = step !== null && run.done.has(step.id);
  return {
    ...{ step, done, number: at + 1, count: steps.length, atFirst: at === 0 },
    next: () => {
      if (!step) return;
      if (!done) happens({ kind: 'tick', step: step.id, done: true });
      // After the one that was looked at comes the one behind it; otherwise whatever is open.
      const after = steps[at + 1];
      setLooked(lookedAt >= 0 && after && run.done.has(after.id) ? after.id : null);
    },
    back: () => at > 0 && setLooked(steps[at - 1]!.id),
    untick: () => step && happens({ kind: 'tick', step: step.id, done: false }),
  };
}
