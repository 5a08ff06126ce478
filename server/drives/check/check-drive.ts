import { type Drive, type DriveProblem, readDrive } from '@emery/core/drive';
import { type DriveSketch, sketchOf } from '@emery/core/path';
import { memoryOf } from '@emery/core/records';

/** A drive that may be stored, with the drawing that lists show of it. */
export interface CheckedDrive {
  document: Drive;
  sketch: DriveSketch;
  /** What the shop's lists remember of it, as JSON. */
  memory: string;
}

export type DriveCheck = ({ ok: true } & CheckedDrive) | { ok: false; problems: DriveProblem[] };

/** A drive that was read, with its drawing and what is remembered of it. */
export const drawn = (document: Drive): CheckedDrive => ({
  document,
  sketch: sketchOf(document),
  memory: JSON.stringify(memoryOf(document)),
});

/** Reads and draws a drive: a second's work for one at its limits. */
export function checkDrive(value: unknown): DriveCheck {
  const reading = readDrive(value);
  return reading.ok ? { ok: true, ...drawn(reading.drive) } : reading;
}
