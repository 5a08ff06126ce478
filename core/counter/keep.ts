import {
  addBelt,
  addStation,
  type Belt,
  type Drive,
  type Measurement,
  newBelt,
  newDrive,
  newStation,
  STARTING_SIZES,
} from '../drive';
import { markedLengthMm, type MarkingReading, sectionFor } from '../section';
import { bendOf, type Riding } from './string';

/** What a drive that starts at the counter knows of its belt. */
export interface KeptBelt {
  section: string;
  ribs?: number;
  lengthMm?: number;
  measurement?: Omit<Measurement, 'id' | 'at'>;
  /** What the belt stands at, N. */
  staticTension?: number;
  /** Of a string: the pulleys it bent round that the drive gets as well, one smooth pulley each. */
  riding?: readonly Riding[];
}

/** How far from the crank the pulleys of a string are put until they are measured, as a share of its length. */
const SPREAD = 0.16;

/**
 * A drive that carries what was entered at the counter: the crank in place, the belt with its section, ribs, length and
 * what was measured of it, and a smooth pulley for each that the string bent round, roughly placed. The rest is for the
 * bench.
 */
export function keptDrive(
  name: string,
  { section, ribs, lengthMm, measurement, staticTension, riding = [] }: KeptBelt,
): Drive {
  const empty = newDrive(name);
  const belt: Belt = {
    ...newBelt(empty, section),
    ...(ribs !== undefined && { ribs }),
    ...(lengthMm !== undefined && { length: Math.round(lengthMm * 100) / 100 }),
    ...(staticTension !== undefined && { staticTension: Math.round(staticTension) }),
    ...(measurement && { measurements: [{ id: 'measured-1', ...measurement }] }),
  };
  const started = addStation(addBelt(empty, belt), newStation(empty, 'crankshaft', 0, 0, section));
  const around = SPREAD * Math.max(400, (measurement?.mm ?? lengthMm ?? 0) - markedLengthMm(0, sectionFor(section)!));
  return riding.reduce((drive, { on, bend }, k) => {
    const angle = Math.PI / 2 - (k - (riding.length - 1) / 2) * 0.9;
    const [x, y] = [Math.cos(angle), Math.sin(angle)].map((part) => Math.round(around * part)) as [number, number];
    const made = newStation(drive, 'idler', x, y, section);
    const said = typeof bend === 'number' ? `${Math.round(bendOf(bend).degrees)}°` : bend;
    const label = `${on === 'back' ? 'Back rides, ' : 'Smooth, '}${said} ${k + 1}`;
    const { id } = made.pulleys[0]!;
    return addStation(drive, {
      ...made,
      label,
      pulleys: [{ id, plane: 0, surface: 'smooth', diameter: STARTING_SIZES.idler }],
    });
  }, started);
}

/** The same of a marking that was read. */
export function keptMarking({ section, ribs, lengthMm, widthMm }: MarkingReading): Drive {
  const drive = keptDrive('Belt by its marking', { section, lengthMm, ...(ribs !== null && { ribs }) });
  const toothed = sectionFor(section)!.kind === 'toothed' && widthMm !== null;
  return toothed
    ? { ...drive, belts: drive.belts.map((belt) => ({ ...belt, sectionOverrides: { width: widthMm } })) }
    : drive;
}
