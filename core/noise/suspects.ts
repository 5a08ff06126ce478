import { type Drive, NOISE_CAUSES, type NoiseCause, type Station } from '../drive';
import { sectionFor } from '../section';
import { FOUND, SET_ON_ARM } from './likelihoods';

/** A cause at a part: what may make the noise. */
export interface Suspect {
  cause: NoiseCause;
  /** The pulley or belt it is at. */
  id: string;
  /** The belts it has to do with. */
  belts: readonly string[];
  /** Of its cause's weight, its own, before any figure of the drive. */
  weight: number;
}

/** Causes that are a belt's own; all others are a pulley's. */
const OF_BELT: ReadonlySet<NoiseCause> = new Set([
  'loose',
  'tight',
  'worn-belt',
  'contaminated',
  'wrong-length',
  'belt-spot',
]);
/** Roles whose shaft runs in the engine itself, or on a bracket of its own that bends with nothing. */
const NO_BRACKET: ReadonlySet<Station['role']> = new Set(['crankshaft', 'idler', 'tensioner', 'jackshaft']);
const CHARGES: ReadonlySet<Station['role']> = new Set(['alternator', 'generator']);

/** A pulley of a shaft that a belt meets, the first of its shaft. */
export interface TurningPart {
  pulley: string;
  station: Station;
  belts: readonly string[];
}

/** The shafts that belts meet, each by the first of its pulleys that one does, in the order of the routes. */
export function turningParts(drive: Drive): TurningPart[] {
  const stationOf = new Map(
    drive.stations.flatMap((station) => station.pulleys.map(({ id }) => [id, station] as const)),
  );
  const parts = new Map<string, { pulley: string; station: Station; belts: string[] }>();
  for (const belt of drive.belts)
    for (const { pulley } of belt.route) {
      const station = stationOf.get(pulley)!;
      const part = parts.get(station.id) ?? { pulley, station, belts: [] };
      if (!part.belts.includes(belt.id)) part.belts.push(belt.id);
      parts.set(station.id, part);
    }
  return [...parts.values()];
}

/** Everything that could make a noise in this drive: each cause at each part that can have it. */
export function suspectsOf(drive: Drive): Suspect[] {
  const parts = turningParts(drive);
  const routed = drive.belts.filter(({ route }) => route.length > 1);
  const armed = armedBelts(drive);
  return NOISE_CAUSES.flatMap((cause) => {
    const at = OF_BELT.has(cause)
      ? routed.map(({ id }) => ({ id, belts: [id] }))
      : parts.filter((part) => canBe(cause, drive, part)).map(({ pulley, belts }) => ({ id: pulley, belts }));
    return at.map((suspect): Suspect => {
      const kept = (cause === 'loose' || cause === 'tight') && armed.includes(suspect.id);
      return { cause, ...suspect, weight: ((kept ? SET_ON_ARM : 1) * FOUND[cause].weight) / at.length };
    });
  });
}

/** The belts that a sprung arm keeps tight. */
export function armedBelts(drive: Drive): string[] {
  const arms = new Set(
    drive.stations.flatMap(({ adjuster, pulleys }) =>
      adjuster?.kind === 'sprung-arm' ? pulleys.map(({ id }) => id) : [],
    ),
  );
  return drive.belts.flatMap(({ id, route }) => (route.some(({ pulley }) => arms.has(pulley)) ? [id] : []));
}

/** Whether a cause can be at a pulley. */
function canBe(cause: NoiseCause, drive: Drive, { pulley: id, station, belts }: TurningPart): boolean {
  const { role } = station;
  const arm = station.adjuster?.kind === 'sprung-arm';
  const pulley = station.pulleys.find((pulley) => pulley.id === id)!;
  switch (cause) {
    case 'misaligned':
    case 'bearing':
      return role !== 'crankshaft';
    case 'arm-weak':
    case 'arm-stuck':
    case 'arm-cocked':
      return arm;
    case 'hub-wobble':
      return role === 'crankshaft' || role === 'water-pump' || role === 'fan';
    case 'wrong-groove':
      return (
        pulley.surface === 'ribbed' &&
        drive.belts.some((belt) => belts.includes(belt.id) && sectionFor(belt.section)?.kind === 'ribbed')
      );
    case 'bracket-flex':
      return !NO_BRACKET.has(role);
    case 'debris':
      return pulley.surface !== 'smooth';
    case 'one-way-clutch':
      return pulley.kind === undefined ? CHARGES.has(role) : pulley.kind === 'one-way' || pulley.kind === 'decoupling';
    default:
      return false;
  }
}
