import { memo, useMemo } from 'react';
import { useBench, useLit } from '../../state/bench';
import type { Mark } from '../../state/mark';
import { type BeltSolution, spanMidpoints } from '@emery/core/path';

interface Props {
  belt: BeltSolution;
  /** The spans that a fault names, by the pulleys at their ends. */
  faulty: ReadonlySet<string>;
  tapping: boolean;
}

/** The free spans of the belt in hand, to be pointed at and taken in hand. */
export function Spans({ belt, faulty, tapping }: Props) {
  return belt.spans.map((span, index) => (
    <SpanReach
      key={`${span.from} ${index}`}
      belt={belt.id}
      index={index}
      x1={span.start.x}
      y1={-span.start.y}
      x2={span.end.x}
      y2={-span.end.y}
      faulty={span.length === null || faulty.has(`${span.from} ${span.to}`)}
      tapping={tapping}
    />
  ));
}

interface ReachProps {
  belt: string;
  index: number;
  x1: number;
  y1: number;
  x2: number;
  y2: number;
  faulty: boolean;
  tapping: boolean;
}

const SpanReach = memo(function SpanReach({ belt, index, x1, y1, x2, y2, faulty, tapping }: ReachProps) {
  const { hover, select } = useBench('hover', 'select');
  const mark = useMemo<Mark>(() => ({ kind: 'span', belt, index }), [belt, index]);
  const lit = useLit(mark) !== '';
  const line = { x1, y1, x2, y2 };
  return (
    <g>
      {(lit || faulty) && <line className={lit ? 'span-lit' : 'span-fault'} {...line} />}
      <line
        className="span-reach"
        {...line}
        onPointerEnter={() => hover(mark)}
        onPointerLeave={() => hover(null)}
        onClick={() => !tapping && select(mark)}
      />
    </g>
  );
});

/** Which way the belt travels, in the middle of every span that is long enough to show it. */
export function TravelArrows({ belt, scale }: { belt: BeltSolution; scale: number }) {
  return spanMidpoints(belt).map(({ from, to, x, y, directionDeg, length }) =>
    length * scale < 26 ? null : <Arrow key={`${from} ${to}`} x={x} y={-y} turn={-directionDeg} size={1 / scale} />,
  );
}

const Arrow = memo(function Arrow({ x, y, turn, size }: { x: number; y: number; turn: number; size: number }) {
  const transform = `translate(${x} ${y}) scale(${size}) rotate(${turn})`;
  return <path className="travel" d="M-7 -5.5L7 0L-7 5.5Z" transform={transform} />;
});
