import { shortName } from '../ui/short-name';
import { type Drive, stationLabel } from '@emery/core/drive';

/** What a character of the card's fonts takes at most in the middle, of its size; capitals and bold take more. */
const SHARE = 0.58;
const BOLD_SHARE = 0.63;

/** The smallest a head is set, px. */
const SMALLEST = 10;

/** A head that stays within so many px: set smaller where it is long, and its end left out where that is not enough. */
export function fitText(text: string, room: number, size: number, bold = false): { text: string; size: number } {
  const share = bold ? BOLD_SHARE : SHARE;
  const fitting = room / (Math.max(1, [...text].length) * share);
  const set = Math.max(Math.min(SMALLEST, size), Math.min(size, fitting));
  return { text: shortName(text, Math.floor(room / (set * share) + 1e-9)), size: set };
}

/** The drive with names of at most so many characters: on a card a figure has its place, however long the names are. */
export function withShortNames(drive: Drive, limit: number): Drive {
  const long = drive.stations.some((station) => [...stationLabel(station)].length > limit);
  if (!long) return drive;
  return {
    ...drive,
    stations: drive.stations.map((station) => ({ ...station, label: shortName(stationLabel(station), limit) })),
  };
}

/** Breaks a text into lines of at most `limit` characters: at spaces, and within a word that is longer than a line. */
export function wrapped(text: string, limit: number): string[] {
  const pieces = text.split(' ').flatMap((word) => {
    const characters = [...word];
    if (characters.length <= limit) return [word];
    const count = Math.ceil(characters.length / limit);
    return Array.from({ length: count }, (_, k) => characters.slice(k * limit, (k + 1) * limit).join(''));
  });
  return pieces.reduce<string[]>((lines, piece) => {
    const last = lines[lines.length - 1];
    if (last === undefined || last.length + piece.length + 1 > limit) lines.push(piece);
    else lines[lines.length - 1] = `${last} ${piece}`;
    return lines;
  }, []);
}
