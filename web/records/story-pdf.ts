import { grouped } from '@emery/core/quantity';
import type { RecordListed, VehicleListed } from '@emery/core/api';

/** A4 upright, mm. */
const PAGE = { width: 210, height: 297, margin: 14 };
const COLUMNS = [
  { head: 'Date', width: 21 },
  { head: 'Odometer', width: 24 },
  { head: 'Drive', width: 32 },
  { head: 'What', width: 47 },
  { head: 'Detail', width: 58 },
] as const;

/** History to a vehicle as a PDF, as far as it is shown. */
export async function storyPdf(
  vehicle: Pick<VehicleListed, 'name' | 'plate' | 'odometer' | 'odometerUnit'>,
  shop: string,
  records: readonly RecordListed[],
): Promise<Blob> {
  const { Pdf } = await import('../paper/pdf');
  const { name, plate, odometer, odometerUnit } = vehicle;
  const pdf = await Pdf.open({ ...PAGE, title: `History: ${name}` });
  pdf.text('H1', name, 15);
  const facts = [plate, odometer === null ? '' : `${grouped(odometer)} ${odometerUnit}`, shop];
  pdf.text('P', facts.filter(Boolean).join(' · '), 10);
  pdf.y += 2;
  pdf.table(
    COLUMNS,
    records.map(({ at, readingAt, unit, driveName, title, detail }) => [
      at?.slice(0, 10) ?? '',
      readingAt === null ? '' : `${grouped(readingAt)} ${unit ?? odometerUnit}`,
      driveName,
      title,
      detail,
    ]),
    8.2,
  );
  return pdf.finish();
}
