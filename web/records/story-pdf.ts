import { plainText } from '../jobs/job-pdf';
import type { RecordListed, VehicleListed } from '@emery/core/api';

/** What happened to a vehicle as a PDF, as far as it is shown. */
export async function storyPdf(
  vehicle: Pick<VehicleListed, 'name' | 'plate' | 'odometer' | 'odometerUnit'>,
  shop: string,
  records: readonly RecordListed[],
): Promise<Blob> {
  const [{ jsPDF }, { autoTable }] = await Promise.all([import('jspdf'), import('jspdf-autotable')]);
  const pdf = new jsPDF({ orientation: 'portrait', unit: 'mm', format: 'a4' });
  const { name, plate, odometer, odometerUnit } = vehicle;
  pdf.setFont('helvetica', 'bold').setFontSize(15).text(plainText(name), 14, 18);
  pdf.setFont('helvetica', 'normal').setFontSize(10);
  const facts = [plate, odometer === null ? '' : `${odometer.toLocaleString('en')} ${odometerUnit}`, shop];
  pdf.text(plainText(facts.filter(Boolean).join(' · ')), 14, 24);
  autoTable(pdf, {
    startY: 29,
    margin: 14,
    styles: { fontSize: 8.5, textColor: 0, lineColor: 190, lineWidth: 0.1 },
    headStyles: { fillColor: [31, 90, 74], textColor: 255 },
    head: [['Date', 'Odometer', 'Drive', 'What', 'Detail']],
    body: records.map(({ at, readingAt, unit, driveName, title, detail }) =>
      [
        at?.slice(0, 10) ?? '',
        readingAt === null ? '' : `${readingAt.toLocaleString('en')} ${unit ?? odometerUnit}`,
        driveName,
        title,
        detail,
      ].map(plainText),
    ),
  });
  return pdf.output('blob');
}
