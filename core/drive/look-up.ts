import type { Drive } from './drive';
import type { Role } from './role';
import type { Pulley, Station } from './station';

/** A pulley with the shaft it sits on. */
export interface PlacedPulley {
  pulley: Pulley;
  station: Station;
}

export const ROLE_LABELS: Record<Role, string> = {
  crankshaft: 'Crank',
  alternator: 'Alternator',
  'water-pump': 'Water pump',
  'power-steering': 'Steering pump',
  'ac-compressor': 'Compressor',
  fan: 'Fan',
  'air-pump': 'Air pump',
  supercharger: 'Supercharger',
  'vacuum-pump': 'Vacuum pump',
  generator: 'Generator',
  idler: 'Idler',
  tensioner: 'Tensioner',
  jackshaft: 'Jackshaft',
  other: 'Pulley',
};

/** All pulleys of a drive by id, with their stations. */
export function pulleysById(drive: Drive): Map<string, PlacedPulley> {
  const found = new Map<string, PlacedPulley>();
  for (const station of drive.stations) {
    for (const pulley of station.pulleys) found.set(pulley.id, { pulley, station });
  }
  return found;
}

export function stationOf(drive: Drive, pulleyId: string): Station | undefined {
  return drive.stations.find((station) => station.pulleys.some((pulley) => pulley.id === pulleyId));
}

export function findPulley(drive: Drive, pulleyId: string): Pulley | undefined {
  return stationOf(drive, pulleyId)?.pulleys.find((pulley) => pulley.id === pulleyId);
}

/** What a person calls the shaft. */
export function stationLabel(station: Station): string {
  return station.label?.trim() || ROLE_LABELS[station.role];
}

/** What a person calls the pulley: its shaft, and which sheave of it where there are several. */
export function pulleyLabel(drive: Drive, pulleyId: string): string {
  const station = stationOf(drive, pulleyId);
  if (!station) return pulleyId;
  if (station.pulleys.length === 1) return stationLabel(station);
  return `${stationLabel(station)}, sheave ${station.pulleys.findIndex((pulley) => pulley.id === pulleyId) + 1}`;
}

/** What a person calls an obstacle. */
export function obstacleLabel({ obstacles }: Pick<Drive, 'obstacles'>, id: string | undefined): string {
  const obstacle = obstacles?.find((obstacle) => obstacle.id === id);
  return obstacle?.label?.trim() || (obstacle?.to ? 'the arm' : 'the bolt');
}
