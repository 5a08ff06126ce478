import { type Drive, freeIdIn, itemsOf, type Job, type Phase, putItem, removeItem } from '../drive';
import type { CardStep } from './step';

/* What the bench changes of a job card. Each is a pure function from drive to drive. */

const changeJob = (drive: Drive, change: Partial<Job>): Drive => ({ ...drive, job: { ...drive.job, ...change } });

/** Gives a step other words; the card's own again where they are empty or the same as those. */
export function rewordStep(drive: Drive, step: Pick<CardStep, 'id' | 'code'>, text: string): Drive {
  const words = text.trim();
  if (step.code === 'own') {
    const own = itemsOf(drive, 'job.own').find(({ id }) => id === step.id);
    if (!own) return drive;
    return words === '' ? removeItem(drive, 'job.own', step.id) : putItem(drive, 'job.own', { ...own, text: words });
  }
  const others = (drive.job?.words ?? []).filter((word) => word.step !== step.id);
  return changeJob(drive, { words: words === '' ? others : [...others, { step: step.id, text: words }] });
}

/** Leaves a step out, or brings it back. One that a hand added goes for good. */
export function leaveOut(drive: Drive, { id, code }: Pick<CardStep, 'id' | 'code'>, out: boolean): Drive {
  if (code === 'own') return out ? removeItem(drive, 'job.own', id) : drive;
  const others = (drive.job?.leftOut ?? []).filter((other) => other !== id);
  return changeJob(drive, { leftOut: out ? [...others, id] : others });
}

/** Adds a step of a hand's own at the end of a phase. */
export function addStep(drive: Drive, phase: Phase, text: string): Drive {
  const id = freeIdIn('own', itemsOf(drive, 'job.own'));
  return putItem(drive, 'job.own', { id, phase, text: text.trim() });
}

/** Puts a step to the place of another of its phase; the steps of that phase then stand as a hand put them. */
export function moveStep(drive: Drive, steps: readonly CardStep[], id: string, to: string): Drive {
  const step = steps.find((step) => step.id === id);
  const phase = steps.filter((candidate) => candidate.phase === step?.phase).map((candidate) => candidate.id);
  const [from, target] = [phase.indexOf(id), phase.indexOf(to)];
  if (from < 0 || target < 0 || from === target) return drive;
  const moved = phase.toSpliced(from, 1).toSpliced(target, 0, id);
  const others = (drive.job?.order ?? []).filter((text) => !phase.includes(text));
  return changeJob(drive, { order: [...others, ...moved] });
}
