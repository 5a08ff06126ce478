import type { Role } from '../drive';
import type { Section } from '../section';

/**
 * Emery's default least wrap, degrees, by what the pulley does. Less is worth a look; the maker's figure always wins.
 */
export const LEAST_WRAP_DEG: Record<
  Section['kind'],
  { crankshaft: number; alternator: number; driven: number; idler: number }
> = {
  ribbed: { crankshaft: 100, alternator: 90, driven: 75, idler: 60 },
  vee: { crankshaft: 100, alternator: 90, driven: 75, idler: 40 },
  toothed: { crankshaft: 60, alternator: 60, driven: 60, idler: 30 },
};

export function leastWrapDeg(role: Role, kind: Section['kind']): number {
  const limits = LEAST_WRAP_DEG[kind];
  if (role === 'idler' || role === 'tensioner') return limits.idler;
  if (role === 'crankshaft' || role === 'alternator') return limits[role];
  return limits.driven;
}
