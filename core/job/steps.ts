import { type Drive, listeningsLeft, type Role } from '../drive';
import { inspectDrive } from '../inspect';
import { boltsFor } from './bolts';
import { byStation, type HeldBelt, idOf, jobBelts, stepsBy } from './held';
import { type BeltOrder, beltOrder } from './order';
import { coversOn, groupsOf, putOn, readTension, setAgain, type Together } from './put-on';
import { setRight } from './put-right';
import { takeOff } from './take-off';
import type { Put, StepTold } from './step';

/** A job's steps in order, and the adjusters that a hand sets in it. */
export interface JobPlan {
  steps: StepTold[];
  together: readonly Together[];
}

/**
 * What is done in a job, as the drive's own stages decide it: for all belts, or for one and those that have to come off
 * before it. Without a belt that has a route there is nothing to be done: the one step asks for it.
 */
export function planOf(drive: Drive, order: BeltOrder = beltOrder(drive)): JobPlan {
  const steps: StepTold[] = [];
  const put: Put = (phase, code, key, more = {}) =>
    steps.push({ id: [phase, code, key].filter((part) => part !== undefined).join(' '), phase, code, ...more });
  const { off, along } = jobBelts(drive, order);
  if (off.length === 0) {
    put('before', 'missing');
    return { steps, together: [] };
  }
  const on = [...off].reverse();
  const fresh = new Set(off.map(idOf));
  const together = groupsOf(drive, [...on, ...along], fresh);
  before(drive, put);
  const items = inspectDrive(drive);
  takeOff(drive, off, along, order, items, put);
  setRight(
    drive,
    off.map(({ belt }) => belt),
    items,
    put,
  );
  putOn(drive, on, together, put);
  check(drive, on, along, together, put);
  after(drive, on, together, put);
  return { steps, together };
}

export const stepsOf = (drive: Drive, order?: BeltOrder): StepTold[] => planOf(drive, order).steps;

function before(drive: Drive, put: Put): void {
  put('before', 'picture');
  put('before', 'key');
  put('before', 'cool');
  put('before', 'lay-out');
  put('before', 'covers', undefined, { bolts: boltsFor(drive, ['cover']) });
}

const CHARGES: readonly Role[] = ['alternator', 'generator'];

function check(
  drive: Drive,
  on: readonly HeldBelt[],
  along: readonly HeldBelt[],
  together: readonly Together[],
  put: Put,
): void {
  const all = [...on, ...along];
  for (const { belt } of all) put('check', 'grooves', belt.id, { belt: belt.id, route: belt.route });
  for (const { station } of byStation(on.filter(({ by }) => stepsBy(by)?.way === 'arm')))
    put('check', 'pointer', station.id, { station: station.id });
  put('check', 'hand-turn');
  for (const held of all) readTension(held.belt, 'check', together, ({ setN }) => setN, put);
  put('check', 'tools-out');
  coversOn(drive, 'check', put);
  put('check', 'battery');
  put('check', 'touch');
  put('check', 'run');
  put('check', 'noise');
  if (drive.stations.some(({ role }) => CHARGES.includes(role))) put('check', 'charge');
  put('check', 'load');
}

function after(drive: Drive, on: readonly HeldBelt[], together: readonly Together[], put: Put): void {
  if (together.length > 0) setAgain(drive, together, put);
  for (const { belt } of on) put('after', 'number', belt.id, { belt: belt.id });
  if (listeningsLeft(drive).length > 0) put('after', 'listen');
  put('after', 'next-look');
  put('after', 'spare');
}
