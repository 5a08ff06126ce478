import { type Section, sectionFor, type Surface } from '../section';
import type { Belt } from './belt';
import type { Drive } from './drive';
import { ROLE_LABELS } from './look-up';
import type { Role } from './role';
import type { Pulley, Station } from './station';

/** Starting diameters, mm: round figures to be measured over, never a specification. */
export const STARTING_SIZES: Record<Role, number> = {
  crankshaft: 160,
  alternator: 58,
  'water-pump': 120,
  'power-steering': 130,
  'ac-compressor': 115,
  fan: 140,
  'air-pump': 110,
  supercharger: 75,
  'vacuum-pump': 100,
  generator: 70,
  idler: 76,
  tensioner: 70,
  jackshaft: 120,
  other: 100,
};

/** The surface that a kind of belt's drive side is made for. */
export const SURFACE_OF: Record<Section['kind'], Surface> = { ribbed: 'ribbed', vee: 'vee', toothed: 'toothed' };

/** An empty drive: nothing drawn yet. */
export function newDrive(name: string): Drive {
  return { format: 'emery-drive', version: 1, name, crankRotation: 'cw', stations: [], belts: [] };
}

/** A belt with no route yet. */
export function newBelt(drive: Drive, section: string): Belt {
  const belt = { id: freeId('belt', new Set(drive.belts.map(({ id }) => id))), section, length: null, route: [] };
  return sectionFor(section)?.kind === 'ribbed' ? { ...belt, ribs: 6 } : belt;
}

/** A pulley that suits the drive's belts: smooth for an idler on ribs, otherwise what the first belt wants. */
export function newPulley(drive: Drive, stationId: string, role: Role, section: string, plane = 0): Pulley {
  const kind = sectionFor(section)?.kind ?? 'ribbed';
  const surface = (role === 'idler' || role === 'tensioner') && kind !== 'vee' ? 'smooth' : SURFACE_OF[kind];
  const taken = new Set(drive.stations.flatMap(({ pulleys }) => pulleys.map(({ id }) => id)));
  const base = { id: freeId(stationId, taken), plane };
  if (surface === 'toothed')
    return {
      ...base,
      surface,
      teeth: Math.max(12, Math.round((STARTING_SIZES[role] * Math.PI) / (sectionFor(section)?.pitch ?? 9.525))),
    };
  const sized = { ...base, diameter: STARTING_SIZES[role] };
  return surface === 'ribbed' ? { ...sized, surface, grooves: 6 } : { ...sized, surface };
}

/** A station of that role at x, y with one pulley of a starting size, under an id and a label not used yet. */
export function newStation(drive: Drive, role: Role, x: number, y: number, section: string): Station {
  const id = freeId(role === 'crankshaft' ? 'crank' : role, new Set(drive.stations.map((station) => station.id)));
  const number = drive.stations.filter((station) => station.role === role).length + 1;
  const label = number > 1 ? { label: `${ROLE_LABELS[role]} ${number}` } : {};
  return { id, role, ...label, x, y, pulleys: [newPulley(drive, id, role, section)] };
}

let tail = '';

/** Ends the ids that are made from here on, so that two devices at one drive do not make the same; empty for none. */
export function endIdsWith(own: string): void {
  tail = own === '' ? '' : `-${own}`;
}

/** `base-1`, `base-2` … whichever is free first, with this device's end where it has one. */
export function freeId(base: string, taken: ReadonlySet<string>): string {
  // A pulley is named after its shaft, which has that end already.
  const name = tail !== '' && base.endsWith(tail) ? base.slice(0, -tail.length) : base;
  for (let n = 1; ; n += 1) if (!taken.has(`${name}-${n}${tail}`)) return `${name}-${n}${tail}`;
}

/** The same for one more item of a list. */
export function freeIdIn(base: string, items: readonly { readonly id: string }[] = []): string {
  return freeId(base, new Set(items.map(({ id }) => id)));
}
