import { ChartName } from '../../ui/ChartName';
import { shortName } from '../../ui/short-name';
import { TapeRule } from './TapeRule';
import './unrolled.css';
import type { LengthUnit } from '@emery/core/quantity';

/** Room under a strip for two rows of names and the tape, px. */
export const FOOT = 62;

/** Characters of a name. */
const MOST = 24;

interface Named {
  name: string;
  /** Along the cord, mm. */
  from: number;
  to: number;
}

/** What stands under a chart of the belt laid flat: the names of its pulleys, and the tape. */
export function StripFoot({
  pieces,
  x,
  height,
  length,
  unit,
}: {
  pieces: readonly Named[];
  x: (mm: number) => number;
  /** Of the whole chart, px. */
  height: number;
  /** Of the cord, mm. */
  length: number;
  unit: LengthUnit;
}) {
  return (
    <>
      <TapeRule x={x} y={height - 22} length={length} unit={unit} />
      {namesOf(pieces, x).map(({ name, at, row }) => (
        <ChartName
          key={`${name} ${at}`}
          name={name}
          limit={MOST}
          className="strip-name"
          x={at}
          y={height - FOOT + 16 + 14 * row}
          textAnchor="middle"
        />
      ))}
    </>
  );
}

/** Names under their pulleys, on two rows where they would touch. */
function namesOf(pieces: readonly Named[], x: (mm: number) => number): { name: string; at: number; row: number }[] {
  const ends = [-Infinity, -Infinity];
  return pieces
    .filter(({ name }) => name !== '')
    .flatMap(({ name, from, to }) => {
      const half = shortName(name, MOST).length * 3.4 + 4;
      const at = Math.max(half, (x(from) + x(to)) / 2);
      const row = ends.findIndex((end) => at - half > end);
      if (row < 0) return [];
      ends[row] = at + half;
      return [{ name, at, row }];
    });
}
