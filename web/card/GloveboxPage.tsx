import { DownloadOutlined } from '@ant-design/icons';
import { Button, Spin } from 'antd';
import { Byte, Charset, Encoder } from '@nuintun/qrcode';
import { useMemo, useRef, type RefObject } from 'react';
import { useParams } from 'react-router';
import { useSavedDrive, useVehicle } from '../api/shop';
import { CardDrawing } from './CardDrawing';
import { CardPage, fileNameOf } from './CardPage';
import { download, pdfOf, svgText } from './card-files';
import { fitText } from './fit-text';
import { GLOVEBOX, GLOVEBOX_MM, gloveboxText } from './glovebox-card';
import type { DriveOpened } from '@emery/core/api';
import { essentialsOf } from '@emery/core/records';

/** Room of the head left of the drawing, px. */
const HEAD = 390;
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
      makePdf={() => pdfOf(card.current!, `Glovebox card: ${data.vehicleName}, ${data.name}`, GLOVEBOX_MM)}
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

function Card({ opened, card }: { opened: DriveOpened; card: RefObject<SVGSVGElement | null> }) {
  const { document: drive, vehicleName, vehicleId, name } = opened;
  const vehicle = useVehicle(vehicleId);
  const plate = vehicle.data?.plate ?? '';
  const essentials = useMemo(() => essentialsOf(drive, { name: vehicleName, plate }), [drive, vehicleName, plate]);
  const lines = useMemo(() => gloveboxText(drive), [drive]);
  const [head, under] = [
    fitText(vehicleName, HEAD, 24, true),
    fitText([plate, name].filter(Boolean).join(' · '), HEAD, 13),
  ];
  const qr = 244;
  return (
    <svg
      ref={card}
      xmlns="http://www.w3.org/2000/svg"
      viewBox={`0 0 ${GLOVEBOX.width} ${GLOVEBOX.height}`}
      role="img"
      aria-label={`Glovebox card of ${name}, ${vehicleName}`}
      fontFamily={FONT}
      fill="#000"
    >
      <rect width={GLOVEBOX.width} height={GLOVEBOX.height} fill="#fff" />
      <rect
        x={14}
        y={14}
        width={GLOVEBOX.width - 28}
        height={GLOVEBOX.height - 28}
        fill="none"
        stroke="#000"
        strokeWidth={2}
      />
      <text x={30} y={48} fontSize={head.size} fontWeight="bold">
        {head.text}
      </text>
      <text x={30} y={68} fontSize={under.size}>
        {under.text}
      </text>
      {lines.map((line) => (
        <text key={line.y} x={30} y={line.y} fontSize={line.size} fontWeight={line.bold ? 'bold' : 'normal'}>
          {line.text}
        </text>
      ))}
      <CardDrawing drive={drive} frame={{ left: 420, top: 30, width: 350, height: 240 }} />
      <Code text={essentials} x={GLOVEBOX.width - qr - 20} y={GLOVEBOX.height - qr - 50} size={qr} />
      <text x={GLOVEBOX.width - 30} y={GLOVEBOX.height - 40} fontSize={11} textAnchor="end">
        Scan the code for all of this, without a network
      </text>
      {['Key out and battery off before hands go in.', 'The vehicle’s service manual takes precedence.'].map(
        (line, k) => (
          <text key={line} x={30} y={GLOVEBOX.height - 44 + 16 * k} fontSize={12}>
            {line}
          </text>
        ),
      )}
    </svg>
  );
}

/** White modules that a reader needs round a code (ISO/IEC 18004, 6.3.8). */
const QUIET = 4;
/**
 * What every reader takes alike. With other letters the code itself says that it is UTF-8 (ECI 26): else readers guess.
 */
const PLAIN = /^[\x20-\x7e\n]*$/;

/** A QR code (ISO/IEC 18004) as one path, a module a square, its quiet zone inside its size. */
function Code({ text, x, y, size }: { text: string; x: number; y: number; size: number }) {
  const { count, path } = useMemo(() => {
    const charset = PLAIN.test(text) ? Charset.ISO_8859_1 : Charset.UTF_8;
    const code = new Encoder({ level: 'M' }).encode(new Byte(text, charset));
    const dark: string[] = [];
    for (let row = 0; row < code.size; row += 1)
      for (let column = 0; column < code.size; column += 1)
        if (code.get(column, row)) dark.push(`M${column + QUIET} ${row + QUIET}h1v1h-1Z`);
    return { count: code.size + 2 * QUIET, path: dark.join('') };
  }, [text]);
  return (
    <g transform={`translate(${x} ${y}) scale(${size / count})`}>
      <rect width={count} height={count} fill="#fff" />
      <path d={path} fill="#000" />
    </g>
  );
}
