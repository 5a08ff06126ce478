/** How far beside the middle of three equally spaced values their top lies, −½ to ½ of a step: by a parabola. */
export function topBeside(before: number, at: number, after: number): number {
  const bend = before - 2 * at + after;
  return bend < 0 ? Math.max(-0.5, Math.min(0.5, (before - after) / (2 * bend))) : 0;
}
