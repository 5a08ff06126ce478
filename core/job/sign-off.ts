import { type BeltCare, changeBelt, type Drive, type OdometerUnit } from '../drive';
import { changeInspect, partChanged } from '../inspect';
import { nextLookAfter } from '../loads';
import type { BringBelt } from './bring';
import type { CardStep } from './step';
import { beltAsRead, fittedMarking } from './fitted';
import type { JobRun } from './run';

/** What a job that is signed off leaves behind in the drive as it is now. */
export interface SignedOff {
  at: string;
  unit: OdometerUnit;
  steps: readonly CardStep[];
  run: JobRun;
  /** The drive as it was when the job began: what was set since is the new belts'. */
  began?: Drive;
  /** The belts that were to be brought. */
  brought?: readonly BringBelt[];
}

/**
 * The drive after a job: belts that were fitted new with their number, date and odometer and their next look; parts
 * that were changed. What the job names and the drive no longer has is passed over.
 */
export function signedOff(drive: Drive, { at, unit, steps, run, began, brought = [] }: SignedOff): Drive {
  const odometer = run.odometer ?? undefined;
  const look = { at, ...(odometer !== undefined && { odometer }) };
  const done = (code: CardStep['code'], belt?: string) =>
    steps.find(
      (step) =>
        step.code === code &&
        (belt === undefined || step.belt === belt || step.belts?.includes(belt)) &&
        run.done.has(step.id),
    );
  const counted =
    drive.inspect?.odometerUnit === undefined && odometer !== undefined
      ? changeInspect(drive, { odometerUnit: unit })
      : drive;
  const parts = steps.filter(({ id, part }) => part !== undefined && run.done.has(id)).map(({ part }) => part!);
  const withParts = parts.reduce(
    (now, part) =>
      now.stations.some(({ pulleys }) => pulleys.some(({ id }) => id === part.target))
        ? partChanged(now, part, look, 'worn')
        : now,
    counted,
  );
  return [...run.belts].reduce((now, [id, { fitted, number, marking, why }]) => {
    const belt = now.belts.find((belt) => belt.id === id);
    if (!belt) return now;
    const next = fitted === 'new' ? partChanged(now, { on: 'belt', target: id }, look, why ?? 'worn') : now;
    const before = next.belts.find((belt) => belt.id === id)!.care;
    const setBefore = began?.belts.find((belt) => belt.id === id)?.staticTension;
    const setSince = began !== undefined && belt.staticTension !== setBefore ? belt.staticTension : undefined;
    const runIn = done('run-in');
    const again = done('set-again', id);
    const care: BeltCare = {
      ...before,
      ...(number !== undefined && number !== '' && { number }),
      ...(runIn && { runInFrom: run.done.get(runIn.id)!.at, runInMinutes: runIn.minutes! }),
      ...(again && { setAgainAt: run.done.get(again.id)!.at }),
      ...(done('next-look') && nextLookAfter(at, odometer, unit)),
    };
    const asked = brought.find((belt) => belt.belt === id);
    const read = fittedMarking(marking, asked)?.reading;
    return changeBelt(next, id, {
      care,
      ...(fitted === 'new' && setSince !== undefined && { staticTension: setSince }),
      // What its marking says is on; what was to be brought where nobody read it.
      ...(fitted === 'new' && (read ? beltAsRead(belt, read) : asked && { length: asked.lengthMm })),
    });
  }, withParts);
}
