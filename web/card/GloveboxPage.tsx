import { DownloadOutlined, PrinterOutlined } from '@ant-design/icons';
import { App as AntApp, Button, Spin } from 'antd';
import { create } from 'qrcode';
import { useMemo, useRef, useState, type RefObject } from 'react';
import { Link, useParams } from 'react-router';
import { useSavedDrive, useVehicle } from '../api/shop';
import { CardDrawing } from './CardDrawing';
import { download, pdfOf, svgText } from './card-files';
import { wrapped } from './routing-card';
import '../bench/bench.css';
import './routing-card.css';
import type { DriveOpened } from '@emery/core/api';
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
  const { message } = AntApp.useApp();
  const [busy, setBusy] = useState(false);
  if (error) return <p className="shop-none">{error.message}</p>;
  if (!data) return <Spin className="page-spin" />;
  const name = `${data.vehicleName} ${data.name} glovebox`.replace(/[^\w]+/g, '-').toLowerCase();
  const makePdf = async () => {
    setBusy(true);
    try {
      download(`${name}.pdf`, await pdfOf(card.current!, PAGE_MM), 'application/pdf');
    } catch (problem) {
      void message.error(`The PDF was not made: ${(problem as Error).message}. Printing to a PDF works too.`);
    } finally {
      setBusy(false);
    }
  };
  return (
    <div className="card-page is-a5">
      <header className="header">
        <Link to="/" className="wordmark">
          Emery
        </Link>
        <span className="header-where">Glovebox card</span>
        <Link to={`/drives/${data.id}/job`} className="header-link">
          Back to the bench
        </Link>
      </header>
      <div className="card-bar">
        <Button type="primary" icon={<PrinterOutlined />} onClick={() => window.print()}>
          Print
        </Button>
        <Button icon={<DownloadOutlined />} loading={busy} onClick={() => void makePdf()}>
          PDF
        </Button>
        <Button
          icon={<DownloadOutlined />}
          onClick={() => download(`${name}.svg`, svgText(card.current!), 'image/svg+xml')}
        >
          SVG
        </Button>
      </div>
      <main className="card-sheet">
        <Card opened={data} card={card} />
      </main>
    </div>
  );
}

function Card({ opened, card }: { opened: DriveOpened; card: RefObject<SVGSVGElement | null> }) {
  const { document: drive, vehicleName, vehicleId, name } = opened;
  const vehicle = useVehicle(vehicleId);
  const plate = vehicle.data?.plate ?? '';
  const belts = useMemo(() => cardBelts(drive), [drive]);
  const essentials = useMemo(() => essentialsOf(drive, { name: vehicleName, plate }), [drive, vehicleName, plate]);
  let y = 78;
  const lines: { text: string; y: number; size: number; bold: boolean }[] = [];
  const add = (text: string, gap: number, size: number, bold = false) =>
    wrapped(text, Math.floor(640 / size)).forEach((part, k) => {
      y += k === 0 ? gap : size + 4;
      lines.push({ text: part, y, size, bold });
    });
  belts.forEach(({ ask, length, route, lastOn, fitted }, k) => {
    add(`${belts.length > 1 ? `${k + 1}  ` : ''}${ask}`, 26, 19, true);
    add(length, 20, 13);
    add(`${route}${lastOn ? `; last over ${lastOn}` : ''}`, 19, 12);
    add(fitted ?? 'Fitted ______________ at ______________', 20, 12);
  });
  for (const release of releasesOf(drive)) add(release, 26, 13, true);
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
      {lines
        .filter((line) => line.y < PAGE.height - 50)
        .map((line) => (
          <text key={`${line.y}`} x={30} y={line.y} fontSize={line.size} fontWeight={line.bold ? 'bold' : 'normal'}>
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
