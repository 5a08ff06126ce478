import { type Drive, type DriveProblem, readDrive } from '@emery/core/drive';
import { type DriveSketch, sketchOf } from '@emery/core/path';

/** A drive that may be stored, with the drawing that lists show of it. */
export interface CheckedDrive {
  document: Drive;
  sketch: DriveSketch;
}

export type DriveCheck = ({ ok: true } & CheckedDrive) | { ok: false; problems: DriveProblem[] };

/** Reads and draws a drive: a second's work for one at its limits. */
export function checkDrive(value: unknown): DriveCheck {
  const reading = readDrive(value);
  return reading.ok ? { ok: true, document: reading.drive, sketch: sketchOf(reading.drive) } : reading;
}
