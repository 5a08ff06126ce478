import { DownloadOutlined, PrinterOutlined } from '@ant-design/icons';
import { App as AntApp, Button, Spin } from 'antd';
import { useRef, useState, type RefObject } from 'react';
import { Link, useParams } from 'react-router';
import { useSavedDrive, useShop } from '../api/shop';
import { placeLabels } from '../views/front/labels';
import { download, dxfOf, pdfOf, svgText } from './card-files';
import { CARD, cardScale, cardText } from './routing-card';
import '../bench/bench.css';
import './routing-card.css';
import type { DriveOpened } from '@emery/core/api';
import { type Drive, stationLabel } from '@emery/core/drive';
import { beltOutline, solveDrive, spanMidpoints } from '@emery/core/path';
import { bodyRadiusMm, sectionFor } from '@emery/core/section';

/** The diagram the vehicle has lost: one page for the workshop wall or the underside of a bonnet. */
export default function RoutingCardPage() {
  const { driveId = '' } = useParams();
  const { data, error } = useSavedDrive(driveId);
  const card = useRef<SVGSVGElement>(null);
  const { message } = AntApp.useApp();
  const [busy, setBusy] = useState(false);
  if (error) return <p className="shop-none">{error.message}</p>;
  if (!data) return <Spin className="page-spin" />;
  const name = `${data.vehicleName} ${data.name}`.replace(/[^\w]+/g, '-').toLowerCase();
  const makePdf = async () => {
    setBusy(true);
    try {
      download(`${name}.pdf`, await pdfOf(card.current!), 'application/pdf');
    } catch (problem) {
      void message.error(`The PDF was not made: ${(problem as Error).message}. Printing to a PDF works too.`);
    } finally {
      setBusy(false);
    }
  };
  return (
    <div className="card-page">
      <header className="header">
        <Link to="/" className="wordmark">
          Emery
        </Link>
        <span className="header-where">Routing card</span>
        <Link to={`/drives/${data.id}/route`} className="header-link">
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
        <Button
          icon={<DownloadOutlined />}
          onClick={() => void dxfOf(data.document).then((text) => download(`${name}.dxf`, text, 'image/vnd.dxf'))}
        >
          DXF for a bracket maker
        </Button>
      </div>
      <main className="card-sheet">
        <Card opened={data} card={card} />
      </main>
    </div>
  );
}

const FONT = 'Helvetica, Arial, sans-serif';

/** Drawn with plain attributes in black on white, so that it is the same on paper, in a file and in the browser. */
function Card({ opened, card }: { opened: DriveOpened; card: RefObject<SVGSVGElement | null> }) {
  const shop = useShop();
  const { document: drive, vehicleName, name } = opened;
  return (
    <svg
      ref={card}
      xmlns="http://www.w3.org/2000/svg"
      viewBox={`0 0 ${CARD.width} ${CARD.height}`}
      role="img"
      aria-label={`Routing card of ${name}, ${vehicleName}`}
      fontFamily={FONT}
      fill="#000"
    >
      <rect width={CARD.width} height={CARD.height} fill="#fff" />
      <rect x={20} y={20} width={CARD.width - 40} height={CARD.height - 40} fill="none" stroke="#000" strokeWidth={2} />
      <text x={40} y={60} fontSize={28} fontWeight="bold">
        {vehicleName}
      </text>
      <text x={40} y={84} fontSize={16}>
        {name}
      </text>
      <text x={CARD.width - 40} y={60} fontSize={14} textAnchor="end">
        {shop.data?.name}
      </text>
      <text x={CARD.width - 40} y={82} fontSize={14} textAnchor="end">
        {new Date(opened.updatedAt).toISOString().slice(0, 10)}
      </text>
      <CardDrawing drive={drive} />
      {cardText(drive).map(({ text, y, size, bold }) => (
        <text key={`${y} ${text}`} x={790} y={y} fontSize={size} fontWeight={bold ? 'bold' : 'normal'}>
          {text}
        </text>
      ))}
    </svg>
  );
}

function CardDrawing({ drive }: { drive: Drive }) {
  const { k, x, y } = cardScale(drive);
  const { belts } = solveDrive(drive);
  const sections = new Map(
    drive.belts.flatMap((belt) =>
      belt.route.map(({ pulley }) => [pulley, sectionFor(belt.section, belt.sectionOverrides)] as const),
    ),
  );
  const shafts = drive.stations.map((station) => {
    const radii = station.pulleys.map((pulley) => Math.max(4, bodyRadiusMm(pulley, sections.get(pulley.id) ?? null)));
    return { station, radii, x: station.x * k + x, y: -station.y * k + y, r: Math.max(...radii) * k };
  });
  const labels = placeLabels(
    shafts.map(({ station, x: cx, y: cy, r }) => ({
      id: station.id,
      x: cx,
      y: cy,
      r,
      free: r - (station.pulleys[0]!.surface === 'vee' ? 9 * k : 4),
      width: stationLabel(station).length * 9.4 + 6,
      height: 22,
    })),
    {
      circles: shafts,
      lines: belts.flatMap(({ spans }) =>
        spans.map(({ start, end }) => ({
          start: { x: start.x * k + x, y: -start.y * k + y },
          end: { x: end.x * k + x, y: -end.y * k + y },
        })),
      ),
      width: 770,
      height: CARD.height - 30,
    },
  );
  return (
    <g>
      <g transform={`translate(${x} ${y}) scale(${k})`} fill="none" stroke="#000">
        {shafts.map(({ station, radii }) =>
          radii.map((r, index) => (
            <circle
              key={`${station.id} ${index}`}
              cx={station.x}
              cy={-station.y}
              r={r}
              strokeWidth={1.6 / k}
              fill={index === 0 ? '#f1f1f1' : 'none'}
            />
          )),
        )}
        {shafts.map(({ station }) => (
          <circle key={station.id} cx={station.x} cy={-station.y} r={3 / k} fill="#000" />
        ))}
        {belts.map((belt, index) => {
          const section = sectionFor(drive.belts[index]!.section)!;
          // The second belt is told from the first by its line, not by a colour.
          return (
            <g key={belt.id}>
              <path
                d={beltOutline(belt, 2.6)}
                strokeWidth={3}
                strokeDasharray={section.kind === 'vee' ? undefined : '2.2 2.2'}
                stroke="#666"
              />
              <path d={beltOutline(belt)} strokeWidth={3} strokeDasharray={index % 2 === 1 ? '14 4' : undefined} />
            </g>
          );
        })}
        {belts.flatMap((belt) =>
          spanMidpoints(belt).map(({ from, to, x: mx, y: my, directionDeg, length }) =>
            length * k < 24 ? null : (
              <path
                key={`${belt.id} ${from} ${to}`}
                d="M-9 -7L9 0L-9 7Z"
                fill="#fff"
                strokeWidth={1.6}
                transform={`translate(${mx} ${-my}) scale(${1 / k}) rotate(${-directionDeg})`}
              />
            ),
          ),
        )}
      </g>
      {labels.map(({ id, x: lx, y: ly }) => (
        <text key={id} x={lx} y={ly + 6} fontSize={17} fontWeight="bold" textAnchor="middle">
          {stationLabel(shafts.find(({ station }) => station.id === id)!.station)}
        </text>
      ))}
    </g>
  );
}
