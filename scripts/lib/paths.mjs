import { fileURLToPath } from 'node:url';
import path from 'node:path';

/** The project's own folder. */
export const ROOT = path.resolve(fileURLToPath(new URL('../..', import.meta.url)));
/** Where Emery keeps what it makes here: the database, builds, logs. Ignored by git; tests of the start command name another. */
export const STATE = process.env.EMERY_STATE ?? path.join(ROOT, '.emery');
