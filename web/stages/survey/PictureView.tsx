import { AimOutlined, MinusOutlined, PlusOutlined } from '@ant-design/icons';
import { Button } from 'antd';
import { useCallback, useRef, useState, type KeyboardEvent, type PointerEvent } from 'react';
import { edit, useBench } from '../../state/bench';
import { useSurveying } from './SurveyProvider';
import { useViewport } from '../../views/front/use-viewport';
import { photoAddress } from './picture-in-hand';
import './picture.css';
import {
  changeRim,
  type Drive,
  type PhotoRim,
  type PicturePoint,
  pulleyLabel,
  type SurveyPhoto,
} from '@emery/core/drive';
import { fitEllipse, photosOf } from '@emery/core/survey/photo';

/**
 * How near, px on the screen, a finger must come to a point to take hold of it; less on a small rim, or there would be
 * no room for a new one.
 */
const GRIP = { most: 20, least: 6, ofRim: 0.3 };
const ENOUGH = 5;

/** A point under the hand: where it is in the picture, and which of the rim's points it is; -1 for a new one. */
interface Held {
  pointer: number;
  index: number;
  at: PicturePoint;
  moved: boolean;
}

/**
 * The picture itself, as taken, for putting points round the rim of one pulley. One finger puts and moves points under
 * a magnifier; two pan and zoom.
 */
export default function PictureView({ photo, pulley }: { photo: SurveyPhoto; pulley: string }) {
  const { drive, dispatch } = useBench('drive', 'dispatch');
  const { fit: surveyFit, setPicture } = useSurveying();
  const svg = useRef<SVGSVGElement>(null);
  const bounds = useCallback(
    () => ({ minX: 0, maxX: photo.width, minY: -photo.height, maxY: 0 }),
    [photo.width, photo.height],
  );
  const view = useViewport(svg, bounds, { oneFingerPans: false });
  const { k, x: tx, y: ty } = view.transform;
  const [held, setHeld] = useState<Held | null>(null);
  const [chosen, setChosen] = useState<{ pulley: string; index: number } | null>(null);
  /** Where the arrow keys stand; null until one is pressed. */
  const [cursor, setCursor] = useState<PicturePoint | null>(null);

  const rim = photo.rims?.find((one) => one.pulley === pulley);
  const points = rim?.points ?? [];
  const inHand = chosen?.pulley === pulley && chosen.index < points.length ? chosen.index : -1;
  const off = new Set(
    surveyFit?.pictures.find(({ photo: id }) => id === photo.id)?.circles.find((circle) => circle.pulley === pulley)
      ?.off,
  );
  const shown =
    held === null
      ? points
      : held.index < 0
        ? [...points, held.at]
        : points.map((point, k) => (k === held.index ? held.at : point));

  const pointAt = (event: PointerEvent): PicturePoint => {
    const box = svg.current!.getBoundingClientRect();
    return [
      Math.round((10 * (event.clientX - box.left - tx)) / k) / 10,
      Math.round((10 * (event.clientY - box.top - ty)) / k) / 10,
    ];
  };
  const within = ([u, v]: PicturePoint) => u >= 0 && v >= 0 && u <= photo.width && v <= photo.height;
  const put = (at: PicturePoint, index: number) =>
    dispatch(
      edit((d) =>
        changeRim(d, photo.id, pulley, (old) => ({
          ...old,
          ...(old.points.length === 0 && { known: startsKnown(d, photo.id, pulley) }),
          points: index < 0 ? [...old.points, at] : old.points.map((point, k) => (k === index ? at : point)),
        })),
      ),
    );
  const takeOut = (index: number) => {
    setChosen(null);
    dispatch(
      edit((d) =>
        changeRim(d, photo.id, pulley, (old) => ({ ...old, points: old.points.filter((_, k) => k !== index) })),
      ),
    );
  };

  const onPointerDown = (event: PointerEvent<SVGSVGElement>) => {
    if (event.button !== 0 || event.shiftKey) return;
    // A second finger means pan or zoom: what the first was about to do is let go.
    if (held) return setHeld(null);
    const at = pointAt(event);
    const rimPx = (fitEllipse(points)?.b ?? 0) * k;
    const grip = Math.min(GRIP.most, Math.max(GRIP.least, GRIP.ofRim * rimPx));
    const near = points
      .map(([u, v], index) => ({ index, far: Math.hypot(u - at[0], v - at[1]) * k }))
      .filter(({ far }) => far < grip)
      .sort((a, b) => a.far - b.far)[0];
    if (!near && !within(at)) return;
    event.currentTarget.setPointerCapture(event.pointerId);
    setHeld({ pointer: event.pointerId, index: near?.index ?? -1, at: near ? points[near.index]! : at, moved: false });
  };
  const onPointerMove = (event: PointerEvent) => {
    if (held?.pointer !== event.pointerId) return;
    const at = pointAt(event);
    if (!held.moved && held.index >= 0 && Math.hypot(at[0] - held.at[0], at[1] - held.at[1]) * k < 4) return;
    if (within(at)) setHeld({ ...held, at, moved: true });
  };
  const onPointerUp = (event: PointerEvent) => {
    if (held?.pointer !== event.pointerId) return;
    setHeld(null);
    if (held.index < 0) put(held.at, -1);
    else if (held.moved) put(held.at, held.index);
    else setChosen({ pulley, index: held.index });
  };

  const onKeyDown = (event: KeyboardEvent) => {
    const [dx, dy] = ARROWS[event.key] ?? [0, 0];
    const step = event.shiftKey ? 20 : 2;
    if (dx !== 0 || dy !== 0) {
      const from = inHand >= 0 ? points[inHand]! : (cursor ?? points.at(-1) ?? [photo.width / 2, photo.height / 2]);
      const to: PicturePoint = [
        Math.max(0, Math.min(photo.width, from[0] + dx * step)),
        Math.max(0, Math.min(photo.height, from[1] + dy * step)),
      ];
      if (inHand >= 0) put(to, inHand);
      else setCursor(to);
    } else if (event.key === 'Enter' && cursor && inHand < 0) put(cursor, -1);
    else if (event.key === 'Enter' && inHand >= 0) setChosen(null);
    else if ((event.key === 'Delete' || event.key === 'Backspace') && inHand >= 0) takeOut(inHand);
    else if ((event.key === 'n' || event.key === 'N') && points.length > 0)
      setChosen({ pulley, index: (inHand + 1) % points.length });
    else return;
    event.preventDefault();
    event.stopPropagation();
  };

  const looked = held?.at ?? (inHand >= 0 ? points[inHand]! : cursor);
  const next = nextToMark(drive, photo, pulley);
  return (
    <section className="front-view sheet" aria-label="Picture">
      <div className="front-view-hint picture-hint" role="status">
        <span>
          {pulleyLabel(drive, pulley)}:{' '}
          {points.length < ENOUGH
            ? `${points.length} of ${ENOUGH} points or more, all round its rim`
            : `${points.length} points. Drag one to put it right`}
        </span>
        {inHand >= 0 ? (
          <Button onClick={() => takeOut(inHand)}>Take this point out</Button>
        ) : (
          points.length >= ENOUGH &&
          next && <Button onClick={() => setPicture({ marking: next })}>Next: {pulleyLabel(drive, next)}</Button>
        )}
      </div>
      <div className="picture-ground">
        <svg
          ref={svg}
          className="front-view-svg picture-svg"
          role="application"
          aria-label={`Points round the rim of ${pulleyLabel(drive, pulley)}. Arrow keys move, Enter puts a point, N goes from point to point, Delete takes one out.`}
          tabIndex={0}
          onPointerDown={onPointerDown}
          onPointerMove={onPointerMove}
          onPointerUp={onPointerUp}
          onPointerCancel={() => setHeld(null)}
          onKeyDown={onKeyDown}
        >
          <g transform={`translate(${tx} ${ty}) scale(${k})`}>
            <image href={photoAddress(photo.hash)} width={photo.width} height={photo.height} />
            {(photo.rims ?? [])
              .filter((one) => one.pulley !== pulley)
              .map((one) => (
                <RimDrawing key={one.pulley} rim={one} k={k} name={pulleyLabel(drive, one.pulley)} />
              ))}
            <RimDrawing rim={{ pulley, points: shown }} k={k} active off={off} inHand={inHand} />
          </g>
        </svg>
        {looked && (
          <Magnifier
            photo={photo}
            at={looked}
            x={looked[0] * k + tx}
            y={looked[1] * k + ty}
            k={k}
            width={view.size.width}
          />
        )}
      </div>
      <div className="front-view-tools">
        <Button icon={<AimOutlined />} aria-label="Show all" onClick={view.fit} />
        <Button icon={<PlusOutlined />} aria-label="Zoom in" onClick={() => view.zoomBy(1.4)} />
        <Button icon={<MinusOutlined />} aria-label="Zoom out" onClick={() => view.zoomBy(0.7)} />
      </div>
    </section>
  );
}

const ARROWS: Record<string, [number, number]> = {
  ArrowLeft: [-1, 0],
  ArrowRight: [1, 0],
  ArrowUp: [0, -1],
  ArrowDown: [0, 1],
};

interface RimProps {
  rim: Pick<PhotoRim, 'pulley' | 'points'>;
  k: number;
  name?: string;
  active?: boolean;
  off?: ReadonlySet<number>;
  inHand?: number;
}

function RimDrawing({ rim, k, name, active = false, off, inHand = -1 }: RimProps) {
  const ellipse = fitEllipse(rim.points);
  return (
    <g className={`rim${active ? ' is-active' : ''}`} data-rim={rim.pulley}>
      {ellipse && (
        <ellipse
          rx={ellipse.a}
          ry={ellipse.b}
          transform={`translate(${ellipse.x} ${ellipse.y}) rotate(${(ellipse.angle * 180) / Math.PI})`}
        />
      )}
      {active &&
        rim.points.map(([u, v], index) => (
          <circle
            key={index}
            className={`rim-point${off?.has(index) ? ' is-off' : ''}${index === inHand ? ' is-chosen' : ''}`}
            cx={u}
            cy={v}
            r={(index === inHand ? 8 : 5) / k}
          />
        ))}
      {ellipse && name && (
        <text x={ellipse.x} y={ellipse.y} fontSize={15 / k} textAnchor="middle" strokeWidth={3 / k}>
          {name}
        </text>
      )}
    </g>
  );
}

const GLASS = 132;

/** What lies under the finger, larger, above it, or below it near the upper edge. */
function Magnifier({
  photo,
  at: [u, v],
  x,
  y,
  k,
  width,
}: {
  photo: SurveyPhoto;
  at: PicturePoint;
  x: number;
  y: number;
  k: number;
  width: number;
}) {
  const scale = Math.max(3 * k, 1.2);
  const top = y - GLASS - 44 >= 4 ? y - GLASS - 44 : y + 56;
  const left = Math.max(4, Math.min(width - GLASS - 4, x - GLASS / 2));
  return (
    <div
      className="magnifier"
      aria-hidden
      style={{
        left,
        top,
        backgroundImage: `url(${photoAddress(photo.hash)})`,
        backgroundSize: `${photo.width * scale}px ${photo.height * scale}px`,
        backgroundPosition: `${GLASS / 2 - u * scale}px ${GLASS / 2 - v * scale}px`,
      }}
    />
  );
}

/** A first rim gives the scale, and so does every pulley that was measured; the others are told by the picture. */
function startsKnown(drive: Drive, photoId: string, pulley: string): boolean {
  const read = drive.survey?.diameters?.some((reading) => reading.pulley === pulley) ?? false;
  const others = photosOf(drive).find(({ id }) => id === photoId)?.rims ?? [];
  return read || !others.some(({ known }) => known);
}

/** The next pulley, after this one, that has not enough points yet. */
function nextToMark(drive: Drive, photo: SurveyPhoto, pulley: string): string | null {
  const ids = drive.stations.flatMap(({ pulleys }) => pulleys.map(({ id }) => id));
  const at = ids.indexOf(pulley);
  const marked = (id: string) => (photo.rims?.find((rim) => rim.pulley === id)?.points.length ?? 0) >= ENOUGH;
  return [...ids.slice(at + 1), ...ids.slice(0, at)].find((id) => !marked(id)) ?? null;
}
