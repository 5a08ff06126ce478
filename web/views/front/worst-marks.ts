import type { PathFinding } from '@emery/core/path';

/** The worst finding at each pulley, and the spans a fault names. */
export function worstMarks(findings: readonly PathFinding[]) {
  const pulleys = new Map<string, 'fault' | 'watch'>();
  const spans = new Set<string>();
  for (const { code, pulley, other, span, severity } of findings) {
    if (severity === 'note') continue;
    if (code === 'crosses-itself' && span) {
      // Two spans are at fault here, not the pulleys at their ends.
      spans.add(`${span.from} ${span.to}`).add(`${pulley} ${other}`);
      continue;
    }
    for (const id of [pulley, other]) if (id !== undefined && pulleys.get(id) !== 'fault') pulleys.set(id, severity);
    if (span && severity === 'fault') spans.add(`${span.from} ${span.to}`);
  }
  return { pulleys, spans };
}
