import { shortName } from '../ui/short-name';
import { type Drive, stationLabel } from '@emery/core/drive';

/** What a character of the card's fonts takes at most in the middle, of its size; capitals and bold take more. */
const SHARE = 0.58;
const BOLD_SHARE = 0.63;

/** A text that stays within so many px on a card, its end left out where it does not. */
export const fitText = (text: string, room: number, size: number, bold = false): string =>
  shortName(text, Math.floor(room / (size * (bold ? BOLD_SHARE : SHARE))));

/** The drive with names of at most so many characters: on a card a figure has its place, however long the names are. */
export function withShortNames(drive: Drive, most: number): Drive {
  const long = drive.stations.some((station) => [...stationLabel(station)].length > most);
  if (!long) return drive;
  return {
    ...drive,
    stations: drive.stations.map((station) => ({ ...station, label: shortName(stationLabel(station), most) })),
  };
}

/** Breaks a text into lines of at most `most` characters: at spaces, and within a word that is longer than a line. */
export function wrapped(text: string, most: number): string[] {
  const pieces = text.split(' ').flatMap((word) => {
    const characters = [...word];
    if (characters.length <= most) return [word];
    const count = Math.ceil(characters.length / most);
    return Array.from({ length: count }, (_, k) => characters.slice(k * most, (k + 1) * most).join(''));
  });
  return pieces.reduce<string[]>((lines, piece) => {
    const last = lines[lines.length - 1];
    if (last === undefined || last.length + piece.length + 1 > most) lines.push(piece);
    else lines[lines.length - 1] = `${last} ${piece}`;
    return lines;
  }, []);
}
