import { withShortNames, wrapped } from './fit-text';
import { CARD_NAME, type CardLine } from './routing-card';
import type { Drive } from '@emery/core/drive';
import { cardBelts, releasesOf } from '@emery/core/records';

/** A card for the glovebox, A5 across, in CSS px; and in mm. */
export const GLOVEBOX = { width: 794, height: 560 };
export const GLOVEBOX_MM = { width: 210, height: 148 };
/** Where the text of the card ends, px from its top. */
const TEXT_END = GLOVEBOX.height - 66;

/** What stands beside the drawing, made smaller until all of it has room; what still has none is in the code. */
export function gloveboxText(asDrawn: Drive): CardLine[] {
  const drive = withShortNames(asDrawn, CARD_NAME);
  for (const share of [1, 0.85, 0.72, 0.62]) {
    const lines = laidOut(drive, share);
    if (lines.at(-1)!.y <= TEXT_END) return lines;
  }
  const last = laidOut(drive, 0.62).filter(({ y }) => y <= TEXT_END - 14);
  return [...last, { text: '… the rest is in the code', y: TEXT_END, size: 11, bold: true }];
}

function laidOut(drive: Drive, share: number): CardLine[] {
  let y = 78;
  const lines: CardLine[] = [];
  const add = (text: string, gap: number, full: number, bold = false) => {
    const size = Math.max(9, full * share);
    wrapped(text, Math.floor(640 / size)).forEach((part, k) => {
      y += k === 0 ? gap * share : size + 4;
      lines.push({ text: part, y, size, bold });
    });
  };
  const belts = cardBelts(drive);
  belts.forEach(({ ask, length, route, lastOn, fitted }, k) => {
    add(`${belts.length > 1 ? `${k + 1}  ` : ''}${ask}`, 26, 19, true);
    add(length, 20, 13);
    add(`${route}${lastOn ? `; last over ${lastOn}` : ''}`, 19, 12);
    add(fitted ?? 'Fitted ______________ at ______________', 20, 12);
  });
  for (const release of releasesOf(drive)) add(release, 26, 13, true);
  return lines.length > 0 ? lines : [{ text: 'No belt has a route yet.', y: 104, size: 14, bold: true }];
}
