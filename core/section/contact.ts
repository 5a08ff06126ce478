import type { Face, Side } from './face';
import type { Section } from './sections';

/**
 * Radius of the cord line on a pulley, mm. Ribs: diameter/2 + drive offset. V rim: diameter/2 + ride − cord depth.
 * Teeth: teeth × pitch / 2π. The tips of ribs or teeth or the bottom of a V on a smooth face: face radius + the belt
 * from its cord inward. Back of any belt: face radius + back offset. May be zero, negative or not finite for absurd
 * sizes; the path solver turns those into findings.
 */
export function cordRadiusMm(pulley: Face, side: Side, section: Section): number {
  if (side === 'back') return bodyRadiusMm(pulley, section) + section.backOffset;
  if (section.kind === 'toothed' && pulley.surface === 'toothed') return pitchRadius(pulley, section);
  const face = (pulley.diameter ?? 0) / 2;
  if (pulley.surface === 'smooth') return face + facingDepthMm('drive', section);
  return face + section.driveOffset + (section.kind === 'vee' && pulley.surface === 'vee' ? (pulley.ride ?? 0) : 0);
}

/**
 * Radius of the pulley's own metal, mm: what a calliper halves, or a toothed pulley's tips by its teeth where no
 * diameter is given.
 */
export function bodyRadiusMm(pulley: Face, section: Section | null): number {
  if (pulley.diameter !== undefined) return pulley.diameter / 2;
  return section?.kind === 'toothed' ? Math.max(0, pitchRadius(pulley, section) - section.tipDepth) : 0;
}

function pitchRadius(pulley: Face, section: Section): number {
  return ((pulley.teeth ?? 0) * section.pitch) / (2 * Math.PI);
}

/**
 * Half the angle between a V groove's flanks, radians. No groove is narrower than a degree, whatever is written: a belt
 * rides by its tangent.
 */
export function halfGrooveAngle(pulley: Pick<Face, 'grooveAngle'>): number {
  return (Math.max(1, pulley.grooveAngle ?? 36) * Math.PI) / 360;
}

/** The length printed on the belt, from its cord length: any line parallel to the cord at distance d differs by 2πd. */
export function markedLengthMm(cordLengthMm: number, section: Section): number {
  return cordLengthMm + 2 * Math.PI * section.markedOffset;
}

/** Axial width of the belt, mm; 0 where the section does not tell (toothed). */
export function beltWidthMm({ ribs }: { ribs?: number }, section: Section): number {
  return section.kind === 'ribbed' ? section.width * (ribs ?? 1) : section.width;
}

/** How far the belt reaches from its cord toward something that faces it on that side, mm. */
export function facingDepthMm(side: Side, section: Section): number {
  return side === 'back' ? section.backOffset : section.thickness - section.backOffset;
}
