import { spawnSync } from 'node:child_process';
import { UsageProblem } from '@emery/core/command';
import { MOST_WAV_BYTES } from '@emery/core/sound';
import { loadBytes } from './load-drive';

/** Compressed sounds by their first bytes; `sox` is what that program calls them. */
const COMPRESSED: readonly { name: string; sox: string | null; is: (start: Buffer) => boolean }[] = [
  { name: 'Ogg', sox: 'ogg', is: (start) => start.toString('latin1', 0, 4) === 'OggS' },
  { name: 'FLAC', sox: 'flac', is: (start) => start.toString('latin1', 0, 4) === 'fLaC' },
  {
    name: 'MP3',
    sox: 'mp3',
    is: (start) =>
      start.toString('latin1', 0, 3) === 'ID3' || (start[0] === 0xff && ((start[1] ?? 0) & 0xe6) >>> 1 === 0x71),
  },
  { name: 'MPEG-4', sox: null, is: (start) => start.toString('latin1', 4, 8) === 'ftyp' },
  { name: 'WebM', sox: null, is: (start) => start.readUInt32BE(0) === 0x1a45dfa3 },
];
/** A sound that takes longer to unpack than this is given up, ms. */
const PATIENCE_MS = 60_000;

/**
 * The bytes of a sound file as a WAV file. What is compressed goes through `ffmpeg` or `sox`, where one of them is
 * there; where none is, or it does not understand the file, a `UsageProblem` says what to convert it to.
 */
export function loadSound(file: string): Uint8Array {
  const bytes = loadBytes(file);
  const start = Buffer.from(bytes.subarray(0, 16));
  const packed = start.length === 16 ? COMPRESSED.find(({ is }) => is(start)) : undefined;
  if (!packed) return bytes;
  const ways: [string, string[]][] = [
    ['ffmpeg', ['-v', 'error', '-i', 'pipe:0', '-ac', '1', '-c:a', 'pcm_s16le', '-f', 'wav', 'pipe:1']],
    ...(packed.sox
      ? [['sox', ['-t', packed.sox, '-', '-b', '16', '-c', '1', '-t', 'wav', '-']] as [string, string[]]]
      : []),
  ];
  for (const [program, args] of ways) {
    const { status, stdout } = spawnSync(program, args, {
      input: bytes,
      maxBuffer: MOST_WAV_BYTES,
      timeout: PATIENCE_MS,
      stdio: ['pipe', 'pipe', 'ignore'],
    });
    if (status === 0 && stdout.length > 44) return stdout;
  }
  throw new UsageProblem(
    `FILE ${file} is a compressed sound (${packed.name}): convert it to WAV first, as ffmpeg and sox do`,
  );
}
