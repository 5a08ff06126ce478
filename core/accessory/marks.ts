/** The marks of an engine's speed, rev/min. */
export interface EngineMarks {
  idle: number;
  cruise: number;
  redline: number;
}

/** Where a drive gives no speeds. Defaults, shown as such. */
export const DEFAULT_MARKS: EngineMarks = { idle: 750, cruise: 2000, redline: 5000 };

/** An engine's marks as a drive gives them, with defaults for what is missing, in rising order. */
export function marksOf(speeds: { idle?: number; cruise?: number; redline?: number } | undefined): EngineMarks {
  const given = (value: number | undefined, other: number) =>
    value !== undefined && Number.isFinite(value) && value > 0 ? value : other;
  const idle = given(speeds?.idle, DEFAULT_MARKS.idle);
  const redline = Math.max(idle + 100, given(speeds?.redline, Math.max(DEFAULT_MARKS.redline, 2 * idle)));
  return {
    idle,
    redline,
    cruise: Math.min(redline, Math.max(idle, given(speeds?.cruise, idle + 0.35 * (redline - idle)))),
  };
}
