import type { Belt, Drive, Pulley, Side, Station } from '../drive/types';
import { sectionFor } from '../section';

/** A pulley that a belt is to run on, with the sides of the belt it may meet. */
export interface Carried {
  pulley: Pulley;
  station: Station;
  sides: Side[];
  /** May be left off the belt. */
  optional: boolean;
}

/**
 * The pulleys a belt carries: those `belt.carries` lists, or one of every shaft that has a fitting face in the belt's plane and is not on another belt. The plane is
 * that of the crank's pulley (of the first shaft's where there is no crank). Crank first.
 */
export function carriedBy(drive: Drive, belt: Belt): Carried[] {
  const section = sectionFor(belt.section, belt.sectionOverrides)!;
  const wanted = section.kind === 'ribbed' ? 'ribbed' : section.kind === 'vee' ? 'vee' : 'toothed';
  const named = Array.isArray(belt['carries']) ? new Set(belt['carries'] as unknown[]) : null;
  const elsewhere = new Set(drive.belts.filter(({ id }) => id !== belt.id).flatMap(({ route }) => route.map(({ pulley }) => pulley)));
  const fits = ({ surface }: Pulley) => surface === wanted || surface === 'smooth';
  const stations = [...drive.stations].sort((a, b) => Number(b.role === 'crankshaft') - Number(a.role === 'crankshaft'));
  const free = (pulley: Pulley) => fits(pulley) && !elsewhere.has(pulley.id) && measured(pulley);
  const plane = stations[0]?.pulleys.find(free)?.plane ?? 0;
  const reach = section.kind === 'ribbed' ? section.width * (belt.ribs ?? 1) : section.width || 10;

  return stations.flatMap((station): Carried[] => {
    const pulley = named
      ? station.pulleys.find(({ id }) => named.has(id))
      : station.pulleys.filter(free).find((candidate) => Math.abs((candidate.plane ?? 0) - plane) < reach / 2);
    if (!pulley) return [];
    return [{ pulley, station, sides: sidesOf(drive, pulley, station), optional: station.optional === true || pulley['optional'] === true }];
  });
}

function measured({ diameter, teeth }: Pulley): boolean {
  return (diameter ?? teeth ?? 0) > 0;
}

/** Grooves and teeth take the drive side and a smooth face the back; a smooth one that must turn with the crank has to take the drive side. */
function sidesOf(drive: Drive, { surface }: Pulley, { requires, role }: Station): Side[] {
  const usual: Side = surface === 'smooth' && role !== 'crankshaft' ? 'back' : 'drive';
  const turns = (side: Side) => (side === 'drive') === (requires === drive.crankRotation);
  if (!requires || role === 'crankshaft' || turns(usual)) return [usual];
  return surface === 'smooth' ? ['drive'] : [];
}
