import type { ReactNode } from 'react';
import { useBench, useLit } from '../../state/bench';
import type { Mark } from '../../state/mark';

interface Props {
  mark: Mark;
  className: string;
  /** What it is, for the pointer that rests on it. */
  label: string;
  /** Where it can be pointed at, px. */
  reach: { x: number; y: number; width: number; height: number };
  children: ReactNode;
}

/** A stretch of the belt in a chart: pointing at it lights the same thing elsewhere, a tap takes it in hand. */
export function MarkedPiece({ mark, className, label, reach, children }: Props) {
  const { select, hover } = useBench('select', 'hover');
  const lit = useLit(mark);
  return (
    <g
      className={`${className} ${lit}`}
      onPointerEnter={() => hover(mark)}
      onPointerLeave={() => hover(null)}
      onClick={() => select(mark)}
    >
      <title>{label}</title>
      {children}
      <rect className="piece-reach" {...reach} />
    </g>
  );
}
