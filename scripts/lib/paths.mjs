import { mkdirSync, mkdtempSync, rmSync } from 'node:fs';
import { fileURLToPath } from 'node:url';
import path from 'node:path';
import { SetupProblem } from './run.mjs';

/** The project's own folder. */
export const ROOT = path.resolve(fileURLToPath(new URL('../..', import.meta.url)));
/**
 * Where Emery keeps what it makes here: the database, builds, logs. Ignored by git; tests of the start command name
 * another.
 */
export const STATE = process.env.EMERY_STATE ?? path.join(ROOT, '.emery');

/** Makes the folder where it is not there, and says so in words where it cannot be written. */
export function ensureState(folder = STATE) {
  try {
    mkdirSync(folder, { recursive: true, mode: 0o700 });
    rmSync(mkdtempSync(path.join(folder, 'try-')), { recursive: true });
  } catch (error) {
    throw new SetupProblem(
      `the folder ${folder} cannot be written (${error.code}). Emery keeps the shop there; make it writable, or name another in EMERY_STATE.`,
    );
  }
}
