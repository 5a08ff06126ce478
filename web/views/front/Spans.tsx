import { memo, useMemo } from 'react';
import { useBench, useLit } from '../../state/bench';
import type { Mark } from '../../state/mark';
import { type BeltSolution, spanMidpoints, type SpanSolution } from '@emery/core/path';

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
      span={span}
      faulty={span.length === null || faulty.has(`${span.from} ${span.to}`)}
      tapping={tapping}
    />
  ));
}

interface ReachProps {
  belt: string;
  index: number;
  span: SpanSolution;
  faulty: boolean;
  tapping: boolean;
}

function SpanReach({ belt, index, span: { start, end }, faulty, tapping }: ReachProps) {
  const { hover, select } = useBench('hover', 'select');
  const mark = useMemo<Mark>(() => ({ kind: 'span', belt, index }), [belt, index]);
  const lit = useLit(mark) !== '';
  const line = { x1: start.x, y1: -start.y, x2: end.x, y2: -end.y };
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
}

/** Which way the belt travels, in the middle of every span that is long enough to show it. */
export const TravelArrows = memo(function TravelArrows({ belt, scale }: { belt: BeltSolution; scale: number }) {
  return spanMidpoints(belt).map(({ from, to, x, y, directionDeg, length }) =>
    length * scale < 26 ? null : (
      <path
        key={`${from} ${to}`}
        className="travel"
        d="M-7 -5.5L7 0L-7 5.5Z"
        transform={`translate(${x} ${-y}) scale(${1 / scale}) rotate(${-directionDeg})`}
      />
    ),
  );
});
