import { DownloadOutlined } from '@ant-design/icons';
import { Button, Spin } from 'antd';
import { useRef, type RefObject } from 'react';
import { useParams } from 'react-router';
import { useSavedDrive, useShop } from '../api/shop';
import { download, dxfOf, pdfOf, svgText } from './card-files';
import { CardDrawing } from './CardDrawing';
import { CardPage, fileNameOf } from './CardPage';
import { fitText } from './fit-text';
import { CARD, CARD_FRAME, cardText } from './routing-card';
import type { DriveOpened } from '@emery/core/api';

/** The diagram the vehicle has lost: one page for the workshop wall or the underside of a bonnet. */
export default function RoutingCardPage() {
  const { driveId = '' } = useParams();
  const { data, error } = useSavedDrive(driveId);
  const card = useRef<SVGSVGElement>(null);
  if (error) return <p className="shop-none">{error.message}</p>;
  if (!data) return <Spin className="page-spin" />;
  const name = fileNameOf(data.vehicleName, data.name);
  return (
    <CardPage
      title="Routing card"
      back={`/drives/${data.id}/route`}
      paper="across"
      name={name}
      makePdf={() => pdfOf(card.current!, `Routing card: ${data.vehicleName}, ${data.name}`)}
      more={
        <>
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
        </>
      }
    >
      <main className="card-sheet">
        <Card opened={data} card={card} />
      </main>
    </CardPage>
  );
}

/** Room of the head left of the shop's name and the day, px. */
const HEAD = 760;
const FONT = 'Helvetica, Arial, sans-serif';

/** Drawn with plain attributes in black on white, so that it is the same on paper, in a file and in the browser. */
function Card({ opened, card }: { opened: DriveOpened; card: RefObject<SVGSVGElement | null> }) {
  const shop = useShop();
  const { document: drive, vehicleName, name } = opened;
  const [head, under] = [fitText(vehicleName, HEAD, 28, true), fitText(name, HEAD, 16)];
  const whose = fitText(shop.data?.name ?? '', CARD.width - 100 - HEAD, 14);
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
      <text x={40} y={60} fontSize={head.size} fontWeight="bold">
        {head.text}
      </text>
      <text x={40} y={84} fontSize={under.size}>
        {under.text}
      </text>
      <text x={CARD.width - 40} y={60} fontSize={whose.size} textAnchor="end">
        {whose.text}
      </text>
      <text x={CARD.width - 40} y={82} fontSize={14} textAnchor="end">
        {new Date(opened.updatedAt).toISOString().slice(0, 10)}
      </text>
      <CardDrawing drive={drive} frame={CARD_FRAME} />
      {cardText(drive).map(({ text, y, size, bold }) => (
        <text key={`${y} ${text}`} x={790} y={y} fontSize={size} fontWeight={bold ? 'bold' : 'normal'}>
          {text}
        </text>
      ))}
    </svg>
  );
}
