import { withShortNames, wrapped } from './fit-text';
import { type Drive, type Station, stationLabel } from '@emery/core/drive';
import { beltBounds, solveDrive } from '@emery/core/path';
import { formatInches, formatMm } from '@emery/core/quantity';
import { puttingOn } from '@emery/core/seating';
import { DRIVE_SIDE_WORDS, sectionFor } from '@emery/core/section';
import { askForBelt, releaseWords } from '@emery/core/size';

/** A4 across, in CSS px. */
export const CARD = { width: 1123, height: 794 };

/** How a card lays the drive: paper px = mm × k + x, and y turned over. */
export interface CardScale {
  k: number;
  x: number;
  y: number;
}

/** Where on the paper a drive is drawn, px. */
export interface CardFrame {
  left: number;
  top: number;
  width: number;
  height: number;
}
/** The left part of the routing card, under its head. */
export const CARD_FRAME: CardFrame = { left: 40, top: 96, width: 720, height: 650 };

/** Names have so many characters on a card at most, so that one line of the order holds one. */
export const CARD_NAME = 26;

/** Fits the drive into a frame. */
export function cardScale(drive: Drive, frame: CardFrame = CARD_FRAME): CardScale {
  const { minX, minY, maxX, maxY } = beltBounds(drive, 30);
  const k = Math.min(frame.width / (maxX - minX), frame.height / (maxY - minY));
  return {
    k,
    x: frame.left + frame.width / 2 - (k * (minX + maxX)) / 2,
    y: frame.top + frame.height / 2 + (k * (minY + maxY)) / 2,
  };
}

/** A line of the text beside the drawing. */
export interface CardLine {
  text: string;
  y: number;
  size: number;
  bold: boolean;
}

/**
 * Everything that is printed beside the drawing, top to bottom: each belt with its order, how to let it off, the
 * caution at the foot.
 */
export function cardText(asDrawn: Drive): CardLine[] {
  const drive = withShortNames(asDrawn, CARD_NAME);
  const lines: CardLine[] = [];
  let y = 118;
  const add = (text: string, { gap = 21, size = 15, bold = false } = {}) => {
    wrapped(text, Math.floor(540 / size)).forEach((part, index) => {
      y += index === 0 ? gap : size + 5;
      lines.push({ text: part, y, size, bold });
    });
  };
  const { belts } = solveDrive(drive);
  belts.forEach((belt, index) => {
    const source = drive.belts[index]!;
    const section = sectionFor(source.section, source.sectionOverrides)!;
    const ribs = section.kind === 'ribbed' && source.ribs ? `, ${source.ribs} ribs` : '';
    add(`${belts.length > 1 ? `Belt ${index + 1}: ` : ''}${source.section}${ribs}`, { gap: 34, size: 19, bold: true });
    add(
      belt.length.mm === null
        ? 'No length: no belt fits this route'
        : `${formatMm(belt.length.mm)} ${belt.length.basis} (${formatInches(belt.length.mm)}), from the drawing`,
    );
    // What to ask for, once somebody has taken a length.
    const ask = source.length ? askForBelt(source, source.length) : null;
    if (ask) add(`Ask for ${ask.markings.length > 0 ? ask.markings.map(({ text }) => text).join(', or ') : ask.plain}`);
    belt.contacts.forEach(({ pulley, side }, at) =>
      add(`${at + 1}  ${labelOf(drive, pulley)}, ${side === 'back' ? 'back' : DRIVE_SIDE_WORDS[section.kind]}`),
    );
    const { lastOn } = puttingOn(drive, belt.id)!;
    if (lastOn && belt.closed) add(`Fit last over ${labelOf(drive, lastOn.pulley)}`, { gap: 26, bold: true });
  });
  // An arm that holds two belts is let off once.
  const releases = new Map(
    belts.flatMap(({ id }) => puttingOn(drive, id)!.release ?? []).map((release) => [release.station, release]),
  );
  for (const release of releases.values()) add(releaseWords(drive, release), { gap: 36, bold: true });
  y = CARD.height - 100;
  add("Key out and battery off before hands go in. The vehicle's service manual takes precedence.", { size: 13 });
  return lines;
}

function labelOf(drive: Drive, pulley: string): string {
  const station = drive.stations.find(({ pulleys }) => pulleys.some(({ id }) => id === pulley)) as Station;
  const at = station.pulleys.findIndex(({ id }) => id === pulley);
  return station.pulleys.length > 1 ? `${stationLabel(station)} ${at + 1}` : stationLabel(station);
}
