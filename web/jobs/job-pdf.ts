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
}

/** A4 upright, mm. */
const PAGE = { width: 210, margin: 12 };
const DRAWING = { width: 92, height: 65 };

/** The built-in fonts of a PDF know the letters of Western Europe alone. */
export const plainText = (text: string) =>
  text
    .replace(/[−‐‑]/g, '-')
    .replace(/≤/g, '<=')
    .replace(/≥/g, '>=')
    .replace(/[^\u0020-\u007e\u00a0-\u00ff‘’“”–—…•]/g, '?');

/** A job as a PDF: the drawing, what to bring, and every step with a box to tick; a page or two. */
export async function jobPdf(printed: PrintedJob, drawing: SVGSVGElement): Promise<Blob> {
  const [{ jsPDF }, { svg2pdf }, { autoTable }] = await Promise.all([
    import('jspdf'),
    import('svg2pdf.js'),
    import('jspdf-autotable'),
  ]);
  const { vehicle, drive, shop, facts, sheet, done } = printed;
  const pdf = new jsPDF({ orientation: 'portrait', unit: 'mm', format: 'a4' });
  const { margin, width } = PAGE;
  pdf.setFont('helvetica', 'bold').setFontSize(15).text(plainText(vehicle), margin, 17);
  pdf.setFont('helvetica', 'normal').setFontSize(10);
  pdf.text(plainText(drive), margin, 22.5);
  pdf.text(plainText(shop), width - margin, 17, { align: 'right' });
  const told: string[] = pdf.splitTextToSize(plainText(facts.join(' · ')), width - 2 * margin) as string[];
  pdf.setFontSize(8.5).text(told, margin, 28);
  const top = 28 + 3.6 * told.length;
  await svg2pdf(drawing, pdf, { x: margin, y: top, ...DRAWING });
  const bring = [
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
    `Off: ${sheet.off.map((id) => beltName(sheet.drive, id)).join(', then ')}.`,
    'The vehicle’s service manual comes first.',
  ];
  const left = margin + DRAWING.width + 5;
  pdf
    .setFont('helvetica', 'bold')
    .setFontSize(10)
    .text('Bring', left, top + 5);
  pdf.setFont('helvetica', 'normal').setFontSize(8.5);
  let y = top + 10;
  for (const line of bring) {
    const parts = pdf.splitTextToSize(plainText(line), width - margin - left) as string[];
    pdf.text(parts, left, y);
    y += 3.7 * parts.length + 1.2;
  }
  autoTable(pdf, {
    startY: Math.max(top + DRAWING.height + 3, y),
    margin: { left: margin, right: margin, top: margin, bottom: margin },
    theme: 'plain',
    styles: {
      font: 'helvetica',
      fontSize: 8.2,
      cellPadding: { top: 0.7, bottom: 0.7, left: 1, right: 1 },
      textColor: 0,
    },
    columnStyles: { 0: { cellWidth: 6 }, 1: { cellWidth: 7, halign: 'right' } },
    body: PHASES.flatMap((phase) => {
      const steps = sheet.steps.filter((step) => step.phase === phase);
      if (steps.length === 0) return [];
      return [
        [{ content: PHASE_WORDS[phase], colSpan: 3, styles: { fontStyle: 'bold' as const, fontSize: 9.5 } }],
        ...steps.map((step) => {
          const by = done.get(step.id);
          const caution = step.caution ? ` Caution: ${step.caution}` : '';
          return [
            done.has(step.id) ? 'x' : '',
            String(sheet.steps.indexOf(step) + 1),
            plainText(`${step.text}${caution}${by ? ` (${by})` : ''}`),
          ];
        }),
      ];
    }),
    // A box to tick in the first column of every step.
    didDrawCell: ({ cell, column, row }) => {
      if (column.index !== 0 || (row.raw as unknown[]).length === 1) return;
      pdf.setLineWidth(0.25).rect(cell.x + 1, cell.y + 0.9, 3, 3);
    },
  });
  return pdf.output('blob');
}
