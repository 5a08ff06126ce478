import { memo } from 'react';
import type { Belt } from '@emery/core/drive';
import { beltOutline, type BeltSolution } from '@emery/core/path';
import { sectionFor } from '@emery/core/section';

interface Props {
  belt: BeltSolution;
  source: Belt;
  /** Screen px per mm: a belt is drawn no thinner than can be seen. */
  scale: number;
  active: boolean;
}

/** A belt to scale, its drive side marked as what it is: ribs as fine teeth, a V as a paler face, teeth as teeth. */
export const BeltDrawing = memo(function BeltDrawing({ belt, source, scale, active }: Props) {
  const section = sectionFor(source.section, source.sectionOverrides);
  if (!section || belt.contacts.length < 2) return null;
  const grow = Math.max(1, 7 / (section.thickness * scale));
  const back = section.backOffset * grow;
  const inner = (section.thickness - section.backOffset) * grow;
  const body = back + inner * 0.45;
  const face = inner - inner * 0.45;
  const dash = {
    ribbed: [1.9 * grow, 1.7 * grow],
    vee: null,
    toothed: [section.pitch * 0.55, section.pitch * 0.45],
  }[section.kind];
  const faultless = belt.closed;
  return (
    <g className={`belt${active ? '' : ' belt-other'}${faultless ? '' : ' belt-open'}`} data-belt={belt.id}>
      <path
        className="belt-face"
        d={beltOutline(belt, inner - face / 2)}
        strokeWidth={face}
        strokeDasharray={dash?.join(' ')}
      />
      <path className="belt-body" d={beltOutline(belt, (inner * 0.45 - back) / 2)} strokeWidth={body} />
    </g>
  );
});
