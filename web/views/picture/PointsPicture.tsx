import { AimOutlined, MinusOutlined, PlusOutlined } from '@ant-design/icons';
import { Button } from 'antd';
import { useCallback, useRef, useState, type KeyboardEvent, type PointerEvent, type ReactNode } from 'react';
import { useViewport } from '../front/use-viewport';
import { pictureAddress } from './address';
import './picture.css';
import type { KeptPicture, PicturePoint } from '@emery/core/drive';

/** A point under the hand: where it is in the picture, and which of the points it is; -1 for a new one. */
interface Held {
  pointer: number;
  index: number;
  at: PicturePoint;
  moved: boolean;
}

interface Props {
  picture: KeptPicture;
  /** What the points mean, for who does not see them; how they are put by keys is said after it. */
  label: string;
  /** What takes points: another one lets go of the point in hand. */
  row: string;
  points: readonly PicturePoint[];
  /** How near, px on the screen, a finger must come to take hold of a point, at so many px a px of the picture. */
  grip: (k: number) => number;
  /** Above the picture; `chosen` is the point in hand, -1 without, which can be taken out. */
  hint: (chosen: number, takeOut: () => void) => ReactNode;
  /** Over the picture, in its px: the points as they are shown just now. */
  drawing: (shown: readonly PicturePoint[], k: number, chosen: number) => ReactNode;
  /** Puts a point, or moves the one of that index; -1 is a new one. */
  onPut: (at: PicturePoint, index: number) => void;
  onTakeOut: (index: number) => void;
}

/**
 * A picture as taken, for putting points in it. One finger puts and moves points under a magnifier; two pan and zoom;
 * arrows, Enter, N and Delete do the same by keys.
 */
export function PointsPicture(props: Props) {
  const { picture, label, row, points, grip, hint, drawing, onPut, onTakeOut } = props;
  const svg = useRef<SVGSVGElement>(null);
  const bounds = useCallback(
    () => ({ minX: 0, maxX: picture.width, minY: -picture.height, maxY: 0 }),
    [picture.width, picture.height],
  );
  const view = useViewport(svg, bounds, { oneFingerPans: false });
  const { k, x: tx, y: ty } = view.transform;
  const [held, setHeld] = useState<Held | null>(null);
  const [chosen, setChosen] = useState<{ row: string; index: number } | null>(null);
  /** Where the arrow keys stand; null until one is pressed. */
  const [cursor, setCursor] = useState<PicturePoint | null>(null);
  const inHand = chosen?.row === row && chosen.index < points.length ? chosen.index : -1;
  const shown = held === null ? points : withHeld(points, held);

  const pointAt = (event: PointerEvent): PicturePoint => {
    const box = svg.current!.getBoundingClientRect();
    return [
      Math.round((10 * (event.clientX - box.left - tx)) / k) / 10,
      Math.round((10 * (event.clientY - box.top - ty)) / k) / 10,
    ];
  };
  const within = ([u, v]: PicturePoint) => u >= 0 && v >= 0 && u <= picture.width && v <= picture.height;
  const takeOut = (index: number) => {
    setChosen(null);
    onTakeOut(index);
  };

  const onPointerDown = (event: PointerEvent<SVGSVGElement>) => {
    if (event.button !== 0 || event.shiftKey) return;
    // A second finger means pan or zoom: what the first was about to do is let go.
    if (held) return setHeld(null);
    const at = pointAt(event);
    const near = points
      .map(([u, v], index) => ({ index, far: Math.hypot(u - at[0], v - at[1]) * k }))
      .filter(({ far }) => far < grip(k))
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
    if (held.index < 0) onPut(held.at, -1);
    else if (held.moved) onPut(held.at, held.index);
    else setChosen({ row, index: held.index });
  };

  const onKeyDown = (event: KeyboardEvent) => {
    const [dx, dy] = ARROWS[event.key] ?? [0, 0];
    const step = event.shiftKey ? 20 : 2;
    if (dx !== 0 || dy !== 0) {
      const from = inHand >= 0 ? points[inHand]! : (cursor ?? points.at(-1) ?? [picture.width / 2, picture.height / 2]);
      const to: PicturePoint = [
        Math.max(0, Math.min(picture.width, from[0] + dx * step)),
        Math.max(0, Math.min(picture.height, from[1] + dy * step)),
      ];
      if (inHand >= 0) onPut(to, inHand);
      else setCursor(to);
    } else if (event.key === 'Enter' && cursor && inHand < 0) onPut(cursor, -1);
    else if (event.key === 'Enter' && inHand >= 0) setChosen(null);
    else if ((event.key === 'Delete' || event.key === 'Backspace') && inHand >= 0) takeOut(inHand);
    else if ((event.key === 'n' || event.key === 'N') && points.length > 0)
      setChosen({ row, index: (inHand + 1) % points.length });
    else return;
    event.preventDefault();
    event.stopPropagation();
  };

  const looked = held?.at ?? (inHand >= 0 ? points[inHand]! : cursor);
  return (
    <section className="front-view sheet" aria-label="Picture">
      <div className="front-view-hint picture-hint" role="status">
        {hint(inHand, () => takeOut(inHand))}
      </div>
      <div className="picture-ground">
        <svg
          ref={svg}
          className="front-view-svg picture-svg"
          role="application"
          aria-label={`${label}. Arrow keys move, Enter puts a point, N goes from point to point, Delete removes one.`}
          tabIndex={0}
          onPointerDown={onPointerDown}
          onPointerMove={onPointerMove}
          onPointerUp={onPointerUp}
          onPointerCancel={() => setHeld(null)}
          onKeyDown={onKeyDown}
        >
          <g transform={`translate(${tx} ${ty}) scale(${k})`}>
            <image href={pictureAddress(picture.hash)} width={picture.width} height={picture.height} />
            {drawing(shown, k, inHand)}
          </g>
        </svg>
        {looked && (
          <Magnifier
            picture={picture}
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

/** The points of one row, each a dot. */
export function PictureDots({
  points,
  k,
  chosen = -1,
  off,
  className = '',
}: {
  points: readonly PicturePoint[];
  k: number;
  chosen?: number;
  /** Those that do not belong where they are. */
  off?: ReadonlySet<number>;
  className?: string;
}) {
  return points.map(([u, v], index) => (
    <circle
      key={index}
      className={`picture-point${off?.has(index) ? ' is-off' : ''}${index === chosen ? ' is-chosen' : ''} ${className}`}
      cx={u}
      cy={v}
      r={(index === chosen ? 8 : 5) / k}
    />
  ));
}

const GLASS = 132;

/** What lies under the finger, larger, above it, or below it near the upper edge. */
function Magnifier({
  picture,
  at: [u, v],
  x,
  y,
  k,
  width,
}: {
  picture: KeptPicture;
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
        backgroundImage: `url(${pictureAddress(picture.hash)})`,
        backgroundSize: `${picture.width * scale}px ${picture.height * scale}px`,
        backgroundPosition: `${GLASS / 2 - u * scale}px ${GLASS / 2 - v * scale}px`,
      }}
    />
  );
}

/** The points with the one that is held where it is now: one that is new stands last. */
const withHeld = (points: readonly PicturePoint[], { index, at }: { index: number; at: PicturePoint }) =>
  index < 0 ? [...points, at] : points.map((point, k) => (k === index ? at : point));
