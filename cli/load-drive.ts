import { readFileSync } from 'node:fs';
import path from 'node:path';
import { UsageProblem } from '@emery/core/command';
import { type Drive, parseDrive } from '@emery/core/drive';

const REASONS: Record<string, string> = {
  ENOENT: 'there is no such file',
  EISDIR: 'it is a folder',
  EACCES: 'access is refused',
};

/** The bytes of a file, named from where the caller stands. Throws a `UsageProblem` that names it. */
export function loadBytes(file: string): Uint8Array {
  try {
    return readFileSync(path.resolve(process.env['EMERY_CALLED_FROM'] ?? '.', file));
  } catch (error) {
    const { code } = error as NodeJS.ErrnoException;
    if (!code) throw error;
    throw new UsageProblem(`FILE ${file} cannot be read: ${REASONS[code] ?? code}`);
  }
}

/** Reads a drive file. Throws a `UsageProblem` that names the file or the field. */
export function loadDrive(file: string): Drive {
  const reading = parseDrive(Buffer.from(loadBytes(file)).toString('utf8'));
  if (reading.ok) return reading.drive;
  const { path: field, message } = reading.problems[0]!;
  throw new UsageProblem(field === '' ? `FILE ${message}` : `${field} ${message}`);
}
