import { DownloadOutlined } from '@ant-design/icons';
import { Button, Spin } from 'antd';
import { create } from 'qrcode';
import { useMemo, useRef, type RefObject } from 'react';
import { useParams } from 'react-router';
import { useSavedDrive, useVehicle } from '../api/shop';
import { CardDrawing } from './CardDrawing';
import { CardPage, fileNameOf } from './CardPage';
import { download, pdfOf, svgText } from './card-files';
import { wrapped } from './routing-card';
import type { DriveOpened } from '@emery/core/api';
import type { Drive } from '@emery/core/drive';
import { cardBelts, essentialsOf, releasesOf } from '@emery/core/records';

/** A card for the glovebox, A5 across, in CSS px; and in mm. */
const PAGE = { width: 794, height: 560 };
const PAGE_MM = { width: 210, height: 148 };
const FONT = 'Helvetica, Arial, sans-serif';

/** What somebody needs at the roadside: belts by their numbers, the route, and a code that holds it all by itself. */
export default function GloveboxPage() {
  const { driveId = '' } = useParams();
  const { data, error } = useSavedDrive(driveId);
  const card = useRef<SVGSVGElement>(null);
  if (error) return <p className="shop-none">{error.message}</p>;
  if (!data) return <Spin className="page-spin" />;
  const name = fileNameOf(data.vehicleName, data.name, 'glovebox');
  return (
    <CardPage
      title="Glovebox card"
      back={`/drives/${data.id}/job`}
      paper="a5"
      name={name}
      makePdf={() => pdfOf(card.current!, PAGE_MM)}
      more={
        <Button
          icon={<DownloadOutlined />}
          onClick={() => download(`${name}.svg`, svgText(card.current!), 'image/svg+xml')}
        >
          SVG
        </Button>
      }
    >
      <main className="card-sheet">
        <Card opened={data} card={card} />
      </main>
    </CardPage>
  );
}

interface Line {
  text: string;
  y: number;
  size: number;
  bold: boolean;
}

/** Where the text of the card ends, px from its top. */
const TEXT_END = PAGE.height - 52;

/** What stands beside the drawing, made smaller until all of it has room; what still has none is in the code. */
function linesOf(drive: Drive): Line[] {
  for (const share of [1, 0.85, 0.72, 0.62]) {
    const lines = laidOut(drive, share);
    if (lines.at(-1)!.y <= TEXT_END) return lines;
  }
  const last = laidOut(drive, 0.62).filter(({ y }) => y <= TEXT_END - 14);
  return [...last, { text: '… the rest is in the code', y: TEXT_END, size: 11, bold: true }];
}

function laidOut(drive: Drive, share: number): Line[] {
  let y = 78;
  const lines: Line[] = [];
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

function Card({ opened, card }: { opened: DriveOpened; card: RefObject<SVGSVGElement | null> }) {
  const { document: drive, vehicleName, vehicleId, name } = opened;
  const vehicle = useVehicle(vehicleId);
  const plate = vehicle.data?.plate ?? '';
  const essentials = useMemo(() => essentialsOf(drive, { name: vehicleName, plate }), [drive, vehicleName, plate]);
  const lines = useMemo(() => linesOf(drive), [drive]);
  const qr = 224;
  return (
    <svg
      ref={card}
      xmlns="http://www.w3.org/2000/svg"
      viewBox={`0 0 ${PAGE.width} ${PAGE.height}`}
      role="img"
      aria-label={`Glovebox card of ${name}, ${vehicleName}`}
      fontFamily={FONT}
      fill="#000"
    >
      <rect width={PAGE.width} height={PAGE.height} fill="#fff" />
      <rect x={14} y={14} width={PAGE.width - 28} height={PAGE.height - 28} fill="none" stroke="#000" strokeWidth={2} />
      <text x={30} y={48} fontSize={24} fontWeight="bold">
        {vehicleName}
      </text>
      <text x={30} y={68} fontSize={13}>
        {[plate, name].filter(Boolean).join(' · ')}
      </text>
      {lines.map((line) => (
        <text key={line.y} x={30} y={line.y} fontSize={line.size} fontWeight={line.bold ? 'bold' : 'normal'}>
          {line.text}
        </text>
      ))}
      <CardDrawing drive={drive} frame={{ left: 420, top: 30, width: 350, height: 240 }} />
      <Code text={essentials} x={PAGE.width - qr - 30} y={PAGE.height - qr - 54} size={qr} />
      <text x={PAGE.width - 30} y={PAGE.height - 40} fontSize={11} textAnchor="end">
        All of this in the code, to be read without a network
      </text>
      <text x={30} y={PAGE.height - 30} fontSize={12}>
        Key out and battery off before hands go in. The vehicle’s service manual comes first.
      </text>
    </svg>
  );
}

/** A QR code (ISO/IEC 18004) as one path, a module a square. */
function Code({ text, x, y, size }: { text: string; x: number; y: number; size: number }) {
  const { count, path } = useMemo(() => {
    const { modules } = create(text, { errorCorrectionLevel: 'M' });
    const dark: string[] = [];
    for (let row = 0; row < modules.size; row += 1)
      for (let column = 0; column < modules.size; column += 1)
        if (modules.get(row, column)) dark.push(`M${column} ${row}h1v1h-1Z`);
    return { count: modules.size, path: dark.join('') };
  }, [text]);
  return (
    <g transform={`translate(${x} ${y}) scale(${size / count})`}>
      <path d={path} fill="#000" />
    </g>
  );
}
