import { createHash } from 'node:crypto';
import { stat } from 'node:fs/promises';
import { crc32 } from 'node:zlib';
import yauzl from 'yauzl';
import { invalid, Problem } from '../http/problem';
import { SUMS_FILE } from './names';

/** More entries than any shop has; a list of names alone would fill the memory. */
const MOST_ENTRIES = 500_000;

/** An entry of a ZIP that is read when it is asked for. */
export interface ZipEntry {
  name: string;
  /**
   * What `as` makes of the whole of it, of `max` bytes at most. Refused are more than it says it holds, what does not
   * fit its own checksum, and, once it is read, what is not what the archive was made of.
   */
  read: <T>(max: number, as: (bytes: Buffer) => T | Promise<T>) => Promise<T>;
  /** The same a piece at a time. */
  pieces: (max: number) => AsyncGenerator<Buffer>;
}

export interface OpenZip {
  entries: ReadonlyMap<string, ZipEntry>;
  /** Holds what is read from here on against the SHA-256 of each entry by name; all of them are to be there. */
  expect: (sums: ReadonlyMap<string, string>) => void;
  close: () => void;
}

const refused = (why: string) => new Problem(422, 'Not an archive', `The archive cannot be read: ${why}.`);

/** Sound in itself, and not what the archive was made of. */
export class Another extends Problem {
  constructor(name: string) {
    const { title, detail, errors } = invalid([
      { path: name, message: 'is damaged: it is not what this archive was made of' },
    ]);
    super(422, title, detail, errors);
  }
}

/**
 * Opens a ZIP. Refused are one with more entries than any shop has, with two of one name, and one whose entries lie
 * over one another, so that a small file would hold what no disk does.
 */
export async function openZip(file: string): Promise<OpenZip> {
  let zip: yauzl.ZipFile;
  try {
    zip = await yauzl.openPromise(file, { autoClose: false });
  } catch (error) {
    throw refused((error as Error).message);
  }
  let sums: ReadonlyMap<string, string> | null = null;
  try {
    if (zip.entryCount > MOST_ENTRIES) throw refused(`it has more than ${MOST_ENTRIES.toLocaleString('en')} entries`);
    const { size } = await stat(file);
    const entries = new Map<string, ZipEntry>();
    let packed = 0;
    for await (const entry of zip.eachEntry()) {
      const name = entry.fileName;
      if (entries.has(name)) throw refused(`it has two entries called ${name}`);
      packed += entry.compressedSize;
      if (packed > size) throw refused('its entries overlap');
      entries.set(
        name,
        entryOf(zip, entry, () => sums),
      );
    }
    return {
      entries,
      expect: (wanted) => {
        for (const name of wanted.keys())
          if (!entries.has(name)) throw invalid([{ path: name, message: 'is missing: the archive is incomplete' }]);
        sums = wanted;
      },
      close: () => zip.close(),
    };
  } catch (error) {
    zip.close();
    throw error instanceof Problem ? error : refused((error as Error).message);
  }
}

/**
 * Where the archive has a list of checksums (of `max` bytes at most), all that it names must be there, and
 * nothing that it names is read as anything else. Returns it, by name; null where there is none.
 */
export async function expectSums(
  { entries, expect }: OpenZip,
  max: number,
): Promise<ReadonlyMap<string, string> | null> {
  const file = entries.get(SUMS_FILE);
  if (!file) return null;
  const lines = await file.read(max, (bytes) => bytes.toString().split('\n'));
  const sums = new Map<string, string>();
  for (const [k, line] of lines.entries()) {
    const [written, sum = '', name = ''] = /^([0-9a-f]{64}) {2}(.+)$/.exec(line) ?? [];
    if (written === undefined && line !== '')
      throw invalid([{ path: `${SUMS_FILE}, line ${k + 1}`, message: 'is no checksum' }]);
    if (written !== undefined) sums.set(name, sum);
  }
  expect(sums);
  return sums;
}

/** One entry, held against its own checksum, and against the archive's where that is known by the time it is read. */
function entryOf(zip: yauzl.ZipFile, entry: yauzl.Entry, sumsNow: () => ReadonlyMap<string, string> | null): ZipEntry {
  const name = entry.fileName;
  const pieces = async function* (max: number): AsyncGenerator<Buffer> {
    if (entry.uncompressedSize > max) throw refused(`${name} is larger than anything Emery writes`);
    const sums = sumsNow();
    const hash = sums ? createHash('sha256') : null;
    let sum = 0;
    try {
      for await (const piece of (await zip.openReadStreamPromise(entry)) as AsyncIterable<Buffer>) {
        sum = crc32(piece, sum);
        hash?.update(piece);
        yield piece;
      }
    } catch (error) {
      throw error instanceof Problem ? error : refused(`${name}: ${(error as Error).message}`);
    }
    if (sum !== entry.crc32) throw invalid([{ path: name, message: 'is damaged: it does not fit its checksum' }]);
    if (hash && hash.digest('hex') !== sums?.get(name)) throw new Another(name);
  };
  const read = async <T>(max: number, as: (bytes: Buffer) => T | Promise<T>) => {
    const all: Buffer[] = [];
    let other: Another | null = null;
    try {
      for await (const piece of pieces(max)) all.push(piece);
    } catch (error) {
      if (!(error instanceof Another)) throw error;
      // What is wrong with it itself says more.
      other = error;
    }
    const made = await as(Buffer.concat(all));
    if (other) throw other;
    return made;
  };
  return { name, read, pieces };
}
