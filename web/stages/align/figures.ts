import { useMemo } from 'react';
import { useBench } from '../../state/bench';
import { figureFrom, type Figures } from '../figures';
import { spanTextMark } from '../SpanText';
import type { PulleyFigure, UsePulleyFigure } from '../stage';
import { runText } from './run-text';
import { useAlignSums } from './sums';
import { shortOffset } from '@emery/core/align';
import type { Drive } from '@emery/core/drive';
import { type Alignment, datumOf, guides, type Plane } from '@emery/core/planes';
import type { LengthUnit } from '@emery/core/quantity';

/** How far each pulley of the belt stands off, and which are still to be measured. */
export function figures(drive: Drive, looked: Alignment, unit: LengthUnit): Figures {
  const datum = datumOf(drive, looked.belt.id);
  const text = ({ pulley, offset, readings }: Plane, at: number) => {
    if (pulley === datum) return 'datum';
    if (readings.length > 0) return shortOffset(offset, unit);
    // A roller that does not guide need not be read.
    return guides(drive, looked.belt.route[at]!) ? 'not measured' : '';
  };
  return new Map(
    looked.planes.map((plane, at): [string, PulleyFigure] => [plane.station, { text: text(plane, at), mark: 'none' }]),
  );
}

export const usePulleyFigure: UsePulleyFigure = () => {
  const { drive, alignment, after } = useAlignSums();
  const { unit } = useBench('unit');
  const looked = after ?? alignment;
  return figureFrom(
    useMemo((): Figures => (looked ? figures(drive, looked, unit) : new Map()), [drive, looked, unit]),
    (k) =>
      (looked?.runs ?? []).flatMap((run) => {
        const written = runText(run, looked!.solution.spans, k);
        return written ? [spanTextMark(written.span, k, written.text)] : [];
      }),
  );
};
