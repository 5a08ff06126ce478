import { grouped } from '@emery/core/quantity';
import { ask } from '../api/client';

export interface TextFile {
  name: string;
  text: string;
}

/** What an import brought in. */
export interface BroughtIn {
  drives: object[];
  vehicles: number;
  pictures: number;
  belts: number;
  pulleys: number;
  jobs: number;
  /** Drives that were here already, just so. */
  there: number;
}

const MOST_BYTES = 20_000_000;
export const isArchive = ({ name }: File) => /\.zip$/i.test(name);

/**
 * Brings drive files and archives into the shop, each archive by itself. Rejects with words for the user; what came in
 * before that stays in.
 */
export async function bringIn(files: readonly File[], signal: AbortSignal): Promise<BroughtIn> {
  const texts = await readDriveFiles(files.filter((file) => !isArchive(file)));
  const brought: BroughtIn[] = [];
  if (texts.length > 0) brought.push(await ask<BroughtIn>('POST', '/import', { files: texts }, signal));
  for (const file of files.filter(isArchive))
    brought.push(await ask<BroughtIn>('POST', '/import/archive', file, signal));
  if (brought.length === 0) throw new Error('No .emery.json file and no archive among these files.');
  const sum = (part: 'vehicles' | 'pictures' | 'belts' | 'pulleys' | 'jobs' | 'there') =>
    brought.reduce((total, file) => total + file[part], 0);
  return {
    drives: brought.flatMap(({ drives }) => drives),
    vehicles: sum('vehicles'),
    pictures: sum('pictures'),
    belts: sum('belts'),
    pulleys: sum('pulleys'),
    jobs: sum('jobs'),
    there: sum('there'),
  };
}

/** The drive files among what was chosen or dropped. */
export async function readDriveFiles(files: readonly File[]): Promise<TextFile[]> {
  const total = files.reduce((sum, { size }) => sum + size, 0);
  if (total > MOST_BYTES)
    throw new Error(
      `These files hold ${Math.round(total / 1e6)} MB together; 20 MB at most at once, or any number in a ZIP.`,
    );
  return Promise.all(files.map(async (file) => ({ name: file.name, text: await file.text() })));
}

/** What came in, in a sentence. */
export function broughtInWords({ drives, vehicles, pictures, belts, pulleys, jobs, there }: BroughtIn): string {
  const parts = (
    [
      [drives.length, 'drive'],
      [vehicles, 'vehicle'],
      [pictures, 'picture'],
      [belts, 'belt'],
      [pulleys, 'pulley at hand', 'pulleys at hand'],
      [jobs, 'job'],
    ] as const
  )
    .filter(([count]) => count > 0)
    .map(([count, singular, many = `${singular}s`]) => `${grouped(count)} ${count === 1 ? singular : many}`);
  const came = parts.length === 0 ? 'Nothing new' : parts.join(', ');
  return there > 0 ? `${came}; ${there === 1 ? '1 drive was' : `${grouped(there)} drives were`} here already` : came;
}
