import { type Drive, type DriveProblem, readDrive } from '@emery/core/drive';
import { sketchOf } from '@emery/core/path';
import { memoryOf } from '@emery/core/records';
import { limitsKey } from './limits-key';

/** A drive that may be stored, with the drawing that lists show of it; each as JSON, as it is stored. */
export interface CheckedDrive {
  /** What the drive is called; never empty. */
  name: string;
  document: string;
  sketch: string;
  /** What the shop's lists remember of it. */
  memory: string;
  /** The name of the shop's limits that this goes by. */
  byLimits: string;
}

export type DriveCheck = ({ ok: true } & CheckedDrive) | { ok: false; problems: DriveProblem[] };

/** A drive that was read, with its drawing and what is remembered of it. */
export const drawn = (document: Drive): CheckedDrive => ({
  name: document.name?.trim() || 'Drive without a name',
  document: JSON.stringify(document),
  sketch: JSON.stringify(sketchOf(document)),
  memory: JSON.stringify(memoryOf(document)),
  byLimits: limitsKey(document.inspect?.shop),
});

/** Fields of a file that say whose it is and which: they stand beside the drive and are none of its own. */
const BESIDE = new Set(['vehicle', 'record']);

/** Reads and draws a drive, without what stands beside it in a file: a second's work for one at its limits. */
export function checkDrive(value: unknown): DriveCheck {
  const alone =
    typeof value === 'object' && value !== null && !Array.isArray(value)
      ? Object.fromEntries(Object.entries(value).filter(([field]) => !BESIDE.has(field)))
      : value;
  const reading = readDrive(alone);
  return reading.ok ? { ok: true, ...drawn(reading.drive) } : reading;
}
