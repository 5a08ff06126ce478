import { type Drive, pulleysById } from '@emery/core/drive';
import { solveDrive } from '@emery/core/path';
import { bodyRadiusMm, sectionFor } from '@emery/core/section';
import { headingDeg } from '@emery/core/numeric';

/** Signs that no XML may hold, as a name that came in with a file may. */
const NOT_XML =
  // eslint-disable-next-line no-control-regex
  /[\u0000-\u0008\u000B\u000C\u000E-\u001F\uFFFE\uFFFF]|[\uD800-\uDBFF](?![\uDC00-\uDFFF])|(?<![\uD800-\uDBFF])[\uDC00-\uDFFF]/g;

/** The card as a file of its own: the drawing on the page, with the styles it needs inside. */
export function svgText(card: SVGSVGElement): string {
  return `<?xml version="1.0" encoding="UTF-8"?>\n${new XMLSerializer().serializeToString(card).replace(NOT_XML, ' ')}\n`;
}

/**
 * A card as a PDF of one page; A4 across where nothing else is said, mm. What is written on it is told as well to who
 * cannot see it.
 */
export async function pdfOf(
  card: SVGSVGElement,
  title: string,
  { width, height } = { width: 297, height: 210 },
): Promise<Blob> {
  const { Pdf } = await import('../paper/pdf');
  const pdf = await Pdf.open({ title, width, height, margin: 0 });
  const words = [...card.querySelectorAll('text')].map(({ textContent }) => textContent).join('. ');
  pdf.figure(card, words, { x: 0, y: 0, width, height });
  return pdf.finish();
}

/** Circles of the pulleys and the cord line of each belt, in mm, for a bracket maker: DXF. */
export async function dxfOf(drive: Drive): Promise<string> {
  const { default: Drawing } = await import('dxf-writer');
  const drawing = new Drawing();
  drawing.setUnits('Millimeters');
  drawing
    .addLayer('PULLEYS', Drawing.ACI.WHITE, 'CONTINUOUS')
    .addLayer('CENTRES', Drawing.ACI.RED, 'CONTINUOUS')
    .addLayer('BELTS', Drawing.ACI.GREEN, 'CONTINUOUS');
  const sections = new Map(
    drive.belts.flatMap((belt) =>
      belt.route.map(({ pulley }) => [pulley, sectionFor(belt.section, belt.sectionOverrides)] as const),
    ),
  );
  for (const { pulley, station } of pulleysById(drive).values()) {
    drawing
      .setActiveLayer('PULLEYS')
      .drawCircle(station.x, station.y, bodyRadiusMm(pulley, sections.get(pulley.id) ?? null));
    drawing.setActiveLayer('CENTRES').drawPoint(station.x, station.y);
  }
  drawing.setActiveLayer('BELTS');
  for (const { contacts, spans, closed } of solveDrive(drive).belts) {
    if (!closed) continue;
    for (const { start, end } of spans) drawing.drawLine(start.x, start.y, end.x, end.y);
    for (const { centre, cordRadius, arrive, leave, turn, wrapDeg } of contacts) {
      const angle = (point: { x: number; y: number }) => headingDeg(point.x - centre.x, point.y - centre.y);
      // DXF arcs always run counter-clockwise.
      const [from, to] = turn === 1 ? [angle(arrive!), angle(leave!)] : [angle(leave!), angle(arrive!)];
      if (wrapDeg! > 0) drawing.drawArc(centre.x, centre.y, cordRadius, from, to);
    }
  }
  return drawing.toDxfString();
}

export function download(name: string, content: Blob | string, type: string): void {
  const address = URL.createObjectURL(content instanceof Blob ? content : new Blob([content], { type }));
  const link = document.createElement('a');
  link.href = address;
  link.download = name;
  link.click();
  setTimeout(() => URL.revokeObjectURL(address), 10_000);
}
