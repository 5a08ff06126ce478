/**
 * What is in hand or pointed at: a shaft (with the pulley of it that is meant), the span after a stop of the belt, or
 * an obstacle.
 */
export type Mark =
  | { kind: 'pulley'; station: string; pulley: string }
  | { kind: 'span'; belt: string; index: number }
  | { kind: 'obstacle'; id: string };

export function sameMark(a: Mark | null, b: Mark | null): boolean {
  if (a === null || b === null || a.kind !== b.kind) return false;
  if (a.kind === 'pulley') return b.kind === 'pulley' && a.station === b.station;
  if (a.kind === 'obstacle') return b.kind === 'obstacle' && a.id === b.id;
  return b.kind === 'span' && a.belt === b.belt && a.index === b.index;
}

/** The same mark to the last field: another pulley of one shaft is another mark. */
export function identicalMark(a: Mark | null, b: Mark | null): boolean {
  if (a?.kind === 'pulley' && b?.kind === 'pulley' && a.pulley !== b.pulley) return false;
  return a === b || sameMark(a, b);
}
