import { degreeFigure, VERDICT_WORDS } from '@emery/core/align';
import type { SpanSolution } from '@emery/core/path';
import { type Run, worseOf } from '@emery/core/planes';

/** A span as long as this carries its run's angle, and the word beside it, px. */
const ROOM_FOR_ANGLE = 64;
const ROOM_FOR_WORD = 110;

/** What is written along a run's longest span; null where it was not read, or there is no room. */
export function runText(run: Run, spans: readonly SpanSolution[], k: number) {
  const lines = run.spans.map((at) => spans[at]!);
  const span = lines.reduce((best, line) => (line.length! > best.length! ? line : best));
  const room = span.length! * k;
  if (!run.read || room <= ROOM_FOR_ANGLE) return null;
  const { mark, word } = VERDICT_WORDS[run.verdict];
  return { span, text: `${degreeFigure(worseOf(run))} ${mark}${room > ROOM_FOR_WORD ? ` ${word}` : ''}` };
}
