import type { DrawnMark } from './stage';
import { headingDeg } from '@emery/core/numeric';
import type { Point } from '@emery/core/path';

interface Span {
  start: Point;
  end: Point;
}

/** From the span to the foot of the text, and from there to its middle, px. */
const [OFF, MIDDLE] = [15, 5];
/** A character of it, px. */
const CHARACTER = 7.4;

const middleOf = ({ start, end }: Span): Point => ({ x: (start.x + end.x) / 2, y: (start.y + end.y) / 2 });

/** A text along a span, on its upper side, so that it is read from left to right. */
export function SpanText({ span, k, text, className }: { span: Span; k: number; text: string; className?: string }) {
  const { x, y } = middleOf(span);
  let turn = -headingDeg(span.end.x - span.start.x, span.end.y - span.start.y);
  if (turn > 90 || turn < -90) turn += 180;
  return (
    <text
      className={className}
      transform={`translate(${x} ${-y}) scale(${1 / k}) rotate(${turn})`}
      textAnchor="middle"
      y={-OFF}
    >
      {text}
    </text>
  );
}

/** The room that such a text takes. */
export function spanTextMark(span: Span, k: number, text: string): DrawnMark {
  const { x, y } = middleOf(span);
  const [dx, dy] = [span.end.x - span.start.x, span.end.y - span.start.y];
  const way = dx < 0 || (dx === 0 && dy > 0) ? -1 : 1;
  const length = Math.hypot(dx, dy) || 1;
  const [ux, uy] = [(way * dx) / length, (way * dy) / length];
  const [off, half] = [(OFF + MIDDLE) / k, (text.length * CHARACTER) / 2 / k];
  const middle = { x: x - uy * off, y: y + ux * off };
  return {
    start: { x: middle.x - ux * half, y: middle.y - uy * half },
    end: { x: middle.x + ux * half, y: middle.y + uy * half },
    halfPx: 7,
  };
}
