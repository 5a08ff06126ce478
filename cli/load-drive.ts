import { readFileSync } from 'node:fs';
import path from 'node:path';
import { UsageProblem } from '@emery/core/command';
import { type Drive, parseDrive } from '@emery/core/drive';

const REASONS: Record<string, string> = {
  ENOENT: 'there is no such file',
  EISDIR: 'it is a folder',
  EACCES: 'access is refused',
};

/** Reads a drive file, named from where the caller stands. Throws a `UsageProblem` that names the file or the field. */
export function loadDrive(file: string): Drive {
  let text: string;
  try {
    text = readFileSync(path.resolve(process.env['EMERY_CALLED_FROM'] ?? '.', file), 'utf8');
  } catch (error) {
    const { code } = error as NodeJS.ErrnoException;
    if (!code) throw error;
    throw new UsageProblem(`FILE ${file} cannot be read: ${REASONS[code] ?? code}`);
  }
  const reading = parseDrive(text);
  if (reading.ok) return reading.drive;
  const { path: field, message } = reading.problems[0]!;
  throw new UsageProblem(field === '' ? `FILE ${message}` : `${field} ${message}`);
}
