import { scaleLinear } from 'd3-scale';
import { memo, useEffect, useRef, useState, type ReactNode } from 'react';
import { LengthFigure } from '../../ui/LengthFigure';
import { useBench, useLit } from '../../state/bench';
import type { Mark } from '../../state/mark';
import { TapeRule } from './TapeRule';
import './unrolled.css';
import { pulleyLabel } from '@emery/core/drive';
import { tenth } from '@emery/core/numeric';
import type { BeltSolution } from '@emery/core/path';
import { formatLength, type LengthUnit } from '@emery/core/quantity';

const HEIGHT = 140;
const BELT_Y = 58;
const MARGIN = 18;

/** What a stage lays over the strip: px along it for mm of cord, and where the belt lies in it, px. */
export type OverStrip = (
  x: (mm: number) => number,
  belt: { y: number; height: number; cordLength: number },
) => ReactNode;

/**
 * The belt cut open at the crank and laid flat to scale on a tape: what lies on which pulley, and what runs free, with
 * what a stage lays `over` it.
 */
export function UnrolledBelt({ over }: { over?: OverStrip }) {
  const { belt } = useBench('belt');
  const holder = useRef<HTMLElement>(null);
  const [width, setWidth] = useState(0);
  useEffect(() => {
    const watch = new ResizeObserver(([entry]) => setWidth(entry!.contentRect.width));
    watch.observe(holder.current!);
    return () => watch.disconnect();
  }, []);
  return (
    <section className="unrolled sheet" aria-label="Unrolled belt" ref={holder}>
      {belt?.cordLength ? (
        <Strip belt={belt} cordLength={belt.cordLength} width={width} over={over} />
      ) : (
        <p className="unrolled-empty">{emptyText(belt)}</p>
      )}
    </section>
  );
}

function emptyText(belt: BeltSolution | null): string {
  if (!belt || belt.contacts.length === 0) return 'The unrolled belt appears here once it has a route.';
  return 'No belt can follow this route yet. The ledger shows why.';
}

interface Piece {
  mark: Mark;
  kind: 'drive' | 'back' | 'span';
  from: number;
  to: number;
  text: string;
  label: string;
}

function Strip({
  belt,
  cordLength,
  width,
  over,
}: {
  belt: BeltSolution;
  cordLength: number;
  width: number;
  over: OverStrip | undefined;
}) {
  const { drive, unit } = useBench('drive', 'unit');
  const x = scaleLinear([0, cordLength], [MARGIN, Math.max(MARGIN + 1, width - MARGIN)]);
  const pieces = piecesOf(
    belt,
    (id) => pulleyLabel(drive, id),
    (mm) => formatLength(mm, unit, 0),
  );
  const names = spreadNames(pieces, x);
  return (
    <svg
      width={width}
      height={HEIGHT}
      role="group"
      aria-label={`Belt laid flat, ${formatLength(cordLength, unit)} along the cord`}
    >
      {pieces.map((piece, index) => (
        <PieceDrawing
          key={index}
          {...flatMark(piece.mark)}
          kind={piece.kind}
          left={tenth(x(piece.from))}
          right={tenth(x(piece.to))}
          length={Math.round(piece.to - piece.from)}
          text={piece.text}
          label={piece.label}
          unit={unit}
        />
      ))}
      {names.map((name, index) => (
        <PieceName key={index} {...name} />
      ))}
      <TapeRule x={x} y={HEIGHT - 26} length={cordLength} unit={unit} />
      {over?.(x, { y: BELT_Y - 15, height: 30, cordLength })}
    </svg>
  );
}

/** A mark in plain words, so that a piece that stays as it is need not be drawn again. */
type FlatMark = { station: string; pulley: string } | { belt: string; index: number };
const flatMark = (mark: Mark): FlatMark =>
  mark.kind === 'span'
    ? { belt: mark.belt, index: mark.index }
    : { station: mark.kind === 'pulley' ? mark.station : '', pulley: mark.kind === 'pulley' ? mark.pulley : '' };

interface PieceProps {
  station?: string;
  pulley?: string;
  belt?: string;
  index?: number;
  kind: Piece['kind'];
  /** Where it begins and ends, px. */
  left: number;
  right: number;
  /** Whole mm. */
  length: number;
  text: string;
  label: string;
  unit: LengthUnit;
}

/** One stretch of the belt: what lies on a pulley, or runs free. */
const PieceDrawing = memo(function PieceDrawing(props: PieceProps) {
  const { station = '', pulley = '', belt, index = 0, kind, left, right, length, text, label, unit } = props;
  const mark: Mark = belt === undefined ? { kind: 'pulley', station, pulley } : { kind: 'span', belt, index };
  const { select, hover } = useBench('select', 'hover');
  const lit = useLit(mark);
  const width = Math.max(1, right - left);
  return (
    <g
      className={`piece is-${kind} ${lit}`}
      onPointerEnter={() => hover(mark)}
      onPointerLeave={() => hover(null)}
      onClick={() => select(mark)}
    >
      <title>{label}</title>
      {/* One thing to change while a finger drags, not four: each piece moves and stretches as a whole. */}
      <g transform={`translate(${left}) scale(${width} 1)`}>
        <rect className="piece-reach" y={BELT_Y - 24} width={1} height={48} />
        <rect
          className="piece-bar"
          y={kind === 'back' ? BELT_Y - 15 : BELT_Y - 5}
          width={1}
          height={kind === 'span' ? 10 : 20}
        />
      </g>
      {kind === 'span' && right - left > text.length * 7.4 + 4 && (
        <text x={(left + right) / 2} y={BELT_Y - 10} textAnchor="middle" className="piece-span">
          <LengthFigure mm={length} unit={unit} places={0} as="tspan" />
        </text>
      )}
    </g>
  );
});

function PieceName({ at, y, text, anchorX, mark }: ReturnType<typeof spreadNames>[number]) {
  const lit = useLit(mark) === 'is-selected' ? ' is-selected' : '';
  const above = y < BELT_Y;
  return (
    <g className={`piece-name${lit}`} transform={`translate(${tenth(at)})`}>
      <line
        x1={tenth(anchorX - at)}
        x2={tenth(anchorX - at)}
        y1={above ? y + 3 : BELT_Y + 16}
        y2={above ? BELT_Y - 16 : y - 12}
      />
      <text y={y} textAnchor="middle">
        {text}
      </text>
    </g>
  );
}

function piecesOf(belt: BeltSolution, nameOf: (id: string) => string, lengthOf: (mm: number) => string): Piece[] {
  let at = 0;
  return belt.contacts.flatMap((contact, index): Piece[] => {
    const arc = contact.arcLength ?? 0;
    const span = belt.spans[index]?.length ?? 0;
    const name = nameOf(contact.pulley);
    const on: Piece = {
      mark: { kind: 'pulley', station: contact.station, pulley: contact.pulley },
      kind: contact.side,
      from: at,
      to: at + arc,
      text: name,
      label: `${name}: ${lengthOf(arc)} on the ${contact.side === 'back' ? 'back' : 'drive side'}, ${Math.round(contact.wrapDeg ?? 0)}° wrap`,
    };
    const free: Piece = {
      mark: { kind: 'span', belt: belt.id, index },
      kind: 'span',
      from: at + arc,
      to: at + arc + span,
      text: lengthOf(span),
      label: `Free span after ${name}: ${lengthOf(span)}`,
    };
    at += arc + span;
    return [on, free];
  });
}

/**
 * Names of drive-side pulleys below the belt, of back-side ones above it; where two would touch, the second goes one
 * line out.
 */
function spreadNames(pieces: readonly Piece[], x: (mm: number) => number) {
  const ends = new Map<string, number>();
  return pieces
    .filter(({ kind }) => kind !== 'span')
    .map(({ kind, from, to, text, mark }) => {
      const anchorX = (x(from) + x(to)) / 2;
      const half = text.length * 3.7 + 4;
      const last = x(pieces[pieces.length - 1]!.to);
      const at = Math.min(Math.max(anchorX, MARGIN + half - 8), last - half + 8);
      const level = at - half < (ends.get(`${kind}0`) ?? -Infinity) ? 1 : 0;
      ends.set(`${kind}${level}`, at + half);
      const y = kind === 'back' ? BELT_Y - 24 - level * 16 : BELT_Y + 31 + level * 16;
      return { at, y, text, anchorX, mark };
    });
}
