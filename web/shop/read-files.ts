import { strFromU8, unzip, type UnzipFileInfo } from 'fflate';

export interface TextFile {
  name: string;
  text: string;
}

const MOST_BYTES = 20_000_000;

/** The drive files among what was chosen or dropped; archives are opened. Rejects with words for the user. */
export async function readDriveFiles(files: readonly File[]): Promise<TextFile[]> {
  const total = files.reduce((sum, { size }) => sum + size, 0);
  if (total > MOST_BYTES) throw new Error(`These files hold ${Math.round(total / 1e6)} MB together; 20 MB at most go in at once.`);
  const read = await Promise.all(files.map(async (file) => (file.name.endsWith('.zip') ? openArchive(file) : [{ name: file.name, text: await file.text() }])));
  const found = read.flat();
  if (found.length === 0) throw new Error('No .emery.json file is among these.');
  return found;
}

async function openArchive(file: File): Promise<TextFile[]> {
  const bytes = new Uint8Array(await file.arrayBuffer());
  // Refused by what the archive says it holds, before anything is unpacked.
  let unpacked = 0;
  const filter = ({ name, originalSize }: UnzipFileInfo) => name.endsWith('.emery.json') && (unpacked += originalSize) <= MOST_BYTES;
  return new Promise((resolve, reject) =>
    unzip(bytes, { filter }, (error, contents) => {
      if (error) reject(new Error(`${file.name} cannot be opened as an archive.`));
      else if (unpacked > MOST_BYTES) reject(new Error(`${file.name} unpacks to more than 20 MB.`));
      else resolve(Object.entries(contents).map(([name, data]) => ({ name, text: strFromU8(data) })));
    }),
  );
}
