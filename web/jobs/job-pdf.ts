import type { JobSheet } from '@emery/core/api';
import { PHASES } from '@emery/core/drive';
import { beltName, PHASE_WORDS } from '@emery/core/job';
import { formatInches, formatMm } from '@emery/core/quantity';

/** A job as it goes on paper. */
export interface PrintedJob {
  vehicle: string;
  drive: string;
  shop: string;
  facts: readonly string[];
  sheet: JobSheet;
  /** Steps that are done, and by whom. */
  done: ReadonlyMap<string, string>;
  /** What it is estimated to take, and took. */
  estimate: readonly string[];
}

/** A4 upright, mm. */
const PAGE = { width: 210, height: 297, margin: 12 };
const DRAWING = { width: 92, height: 65 };

/** Bring list, a line each. */
export function bringLines(sheet: JobSheet): string[] {
  return [
    ...sheet.bring.belts.map(({ markings, plain, lengthMm, basis, number, second }) =>
      [
        `${markings[0]?.text ?? plain}: ${formatMm(lengthMm, 0)}, ${formatInches(lengthMm)} ${basis}`,
        number && `number ${number}`,
        second && `else ${second.markings[0]?.text ?? second.plain}`,
      ]
        .filter(Boolean)
        .join('; '),
    ),
    [...sheet.bring.parts, ...sheet.bring.bolts, ...sheet.bring.tools].join(', '),
    ...(sheet.off.length > 0 ? [`Off: ${sheet.off.map((id) => beltName(sheet.drive, id)).join(', then ')}.`] : []),
    'The vehicle’s service manual takes precedence.',
  ];
}

/** A job as a PDF: the drawing, what to bring, and every step with a box to tick; a page or two. */
export async function jobPdf(printed: PrintedJob, drawing: SVGSVGElement): Promise<Blob> {
  const { Pdf } = await import('../paper/pdf');
  const { vehicle, drive, shop, facts, sheet, done, estimate } = printed;
  const pdf = await Pdf.open({ ...PAGE, title: `Job card: ${vehicle}, ${drive}` });
  pdf.text('H1', vehicle, 15);
  pdf.text('P', [drive, shop].filter(Boolean).join(' · '), 9.5);
  pdf.text('P', facts.join(' · '), 8.2);
  const top = pdf.y + 1.5;
  pdf.figure(drawing, `The drive ${drive}, as drawn`, { x: PAGE.margin, y: top, ...DRAWING });
  const left = PAGE.margin + DRAWING.width + 5;
  const column = { x: left, width: PAGE.width - PAGE.margin - left };
  pdf.y = top + 1;
  pdf.text('H2', 'Bring', 10, column);
  for (const line of [...bringLines(sheet), ...estimate]) {
    pdf.y += 0.9;
    pdf.text('P', line, 8, column);
  }
  pdf.y = Math.max(top + DRAWING.height, pdf.y) + 2;
  for (const phase of PHASES) {
    const steps = sheet.steps.filter((step) => step.phase === phase);
    if (steps.length === 0) continue;
    pdf.room(12);
    pdf.y += 1;
    pdf.text('H2', PHASE_WORDS[phase], 9.5);
    pdf.y += 0.6;
    pdf.steps(
      steps.map((step) => {
        const by = done.get(step.id);
        const caution = step.caution ? ` Caution: ${step.caution}` : '';
        return {
          number: sheet.steps.indexOf(step) + 1,
          text: `${step.text}${caution}${by ? ` (${by})` : ''}`,
          done: done.has(step.id),
        };
      }),
      7.8,
    );
  }
  return pdf.finish();
}
