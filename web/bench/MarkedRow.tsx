import type { ReactNode } from 'react';
import { useBench, useLit } from '../state/bench';
import type { Mark } from '../state/mark';

interface Props {
  /** What the row is about; the same object from one drawing to the next. */
  mark: Mark;
  /** Drawn as in hand whatever is. */
  held?: boolean;
  /** Marks that put the row in hand as well. */
  also?: Mark;
  children: ReactNode;
}

/** A row of a table that is a thing on the drawing: pointing at one lights the other, a tap takes it in hand. */
export function MarkedRow({ mark, held = false, also = mark, children }: Props) {
  const { select, hover } = useBench('select', 'hover');
  const lit = useLit(mark);
  const alsoLit = useLit(also);
  const state = held || alsoLit === 'is-selected' ? 'is-selected' : lit;
  return (
    <tr
      className={state}
      onClick={() => select(mark)}
      onPointerEnter={() => hover(mark)}
      onPointerLeave={() => hover(null)}
    >
      {children}
    </tr>
  );
}
