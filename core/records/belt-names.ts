import { type Belt, type Drive, momentOf } from '../drive';
import { markingsOf } from '../section';
import { kindOfBelt } from './lives';

/** `name` comes first where the drive has one belt, after its number where it has several. */
function numbered(drive: Drive, { id }: Belt, name: string, alone: string): string {
  return drive.belts.length === 1 ? alone : `Belt ${drive.belts.findIndex((belt) => belt.id === id) + 1}, ${name}`;
}

/**
 * The belt that is on a drive now, as a list over many drives names it: `Belt 6PK1734`, of several `Belt 2, 6PK1734`;
 * `6-rib PK belt` where its length is not known.
 */
export function namedBelt(drive: Drive, belt: Belt): string {
  const { section, ribs, length } = belt;
  if (!length) return namedByKind(drive, belt);
  const size =
    markingsOf({ section, ribs: ribs ?? null, lengthMm: length })[0]?.text ??
    `${kindOfBelt(section, ribs ?? null)}, ${length} mm`;
  return numbered(drive, belt, size, `Belt ${size}`);
}

/** The place of a belt on a drive, whichever belt is or was on it: `6-rib PK belt`, of several `Belt 2, 6-rib PK`. */
export function namedByKind(drive: Drive, belt: Belt): string {
  const kind = kindOfBelt(belt.section, belt.ribs ?? null);
  return numbered(drive, belt, kind, `${kind} belt`);
}

/** The same on a day in the past: the belt that was on before the present one may have had another length. */
export function namedBeltOn(drive: Drive, belt: Belt, at: string | null): string {
  const [day, fitted] = [momentOf(at ?? undefined), momentOf(belt.care?.fittedAt)];
  return day !== null && fitted !== null && day >= fitted ? namedBelt(drive, belt) : namedByKind(drive, belt);
}
