import { type Belt, type Check, type Drive, findPulley, stationOf } from '../drive';
import { sectionFor } from '../section';
import { mayRunAhead } from './kinds';
import { type PartName, partKey } from './latest';

/** Every part of a drive, in the order in which a walk along its belts meets them: a belt, then what it runs over. */
export function partsOf(drive: Drive): PartName[] {
  const parts: PartName[] = [];
  const pulley = (id: string) => {
    if (hasArm(drive, id)) parts.push({ on: 'arm', target: stationOf(drive, id)!.pulleys[0]!.id });
    parts.push({ on: 'pulley', target: id });
  };
  for (const { id, route } of drive.belts) {
    parts.push({ on: 'belt', target: id });
    for (const stop of route) pulley(stop.pulley);
  }
  for (const { pulleys } of drive.stations) for (const { id } of pulleys) pulley(id);
  return [...new Map(parts.map((part) => [partKey(part), part])).values()];
}

/** An arm is there where the drive says so, or somebody found something of one. */
function hasArm(drive: Drive, pulleyId: string): boolean {
  const station = stationOf(drive, pulleyId);
  if (!station) return false;
  const { adjuster, pulleys } = station;
  return (
    adjuster?.kind === 'sprung-arm' ||
    (drive.inspect?.findings ?? []).some(({ on, target }) => on === 'arm' && pulleys.some(({ id }) => id === target))
  );
}

export const kindOf = (belt: Belt | undefined) => (belt ? sectionFor(belt.section)?.kind : undefined) ?? 'ribbed';

/** What can be seen on any belt at one glance, and says that it is done. */
export const GLANCE = ['chunks', 'frayed', 'glazed', 'pilling', 'oil'] as const satisfies Check[];

const OF_BELT = {
  ribbed: ['material', 'rib-depth', 'profile', 'cracks', ...GLANCE, 'length'],
  vee: ['material', 'ride', 'cracks', 'slot', ...GLANCE, 'length'],
  toothed: ['cracks', ...GLANCE, 'length'],
} as const satisfies Record<string, Check[]>;

/** The checks that make a part known: without one of them nothing is said of its wear. */
const TELLING = {
  ribbed: ['rib-depth', 'profile', 'cracks'],
  vee: ['ride', 'slot', 'length', 'cracks'],
  toothed: ['chunks', 'cracks'],
} as const satisfies Record<string, Check[]>;

/** What is looked at of a part: its checks in order, and those of which one at least must be made. */
export function checksOf(
  drive: Drive,
  { on, target }: PartName,
): { checks: readonly Check[]; telling: readonly Check[] } {
  if (on === 'belt') {
    const kind = kindOf(drive.belts.find(({ id }) => id === target));
    return { checks: OF_BELT[kind], telling: TELLING[kind] };
  }
  if (on === 'arm') return { checks: ['stroke', 'by-hand', 'pointer', 'cocked'], telling: ['stroke', 'by-hand'] };
  const smooth = findPulley(drive, target)?.surface === 'smooth';
  const face: Check[] = smooth ? ['track'] : ['grooves'];
  const { role, pulleys = [] } = stationOf(drive, target) ?? {};
  // A crank is not spun by hand, and does not rock; a shaft's bearings are tried at its first sheave.
  if (role === 'crankshaft' || pulleys[0]?.id !== target)
    return { checks: ['run-out', ...face], telling: ['run-out', ...face] };
  const clutch: Check[] = mayRunAhead(drive, target) ? ['clutch'] : [];
  return { checks: ['spin', 'rock', 'run-out', ...face, ...clutch], telling: ['spin', 'rock', 'run-out'] };
}
