import { createHash } from 'node:crypto';
import sharp from 'sharp';
import type { PhotoRow } from './entity';
import { Problem } from '../http/problem';

/** More would show no more of a rim, and a tablet has to hold it. */
const LONGEST_SIDE = 4096;
const MOST_PIXELS = 120_000_000;
const QUALITY = 90;

/**
 * Reads a JPEG, PNG or WebP file: turned upright as its EXIF orientation says, large ones made smaller, and written
 * anew as JPEG, so that place, time and camera are gone. Refuses with 422 what is none of these or is damaged.
 */
export async function readPhoto(file: Buffer): Promise<PhotoRow> {
  try {
    const image = sharp(file, { limitInputPixels: MOST_PIXELS, failOn: 'error' });
    const { format } = await image.metadata();
    if (format !== 'jpeg' && format !== 'png' && format !== 'webp')
      throw new Problem(422, 'Not a picture', 'Picture: a JPEG, PNG or WebP file is accepted.');
    const { data, info } = await image
      .autoOrient()
      .resize({ width: LONGEST_SIDE, height: LONGEST_SIDE, fit: 'inside', withoutEnlargement: true })
      .flatten({ background: '#fff' })
      .jpeg({ quality: QUALITY })
      .toBuffer({ resolveWithObject: true });
    return rowOf(data, info.width, info.height);
  } catch (error) {
    if (error instanceof Problem) throw error;
    throw new Problem(
      422,
      'Not a picture',
      'Picture: this file cannot be read as a JPEG, PNG or WebP picture. It may be damaged, or over 120 megapixels.',
    );
  }
}

/** A JPEG that is kept byte for byte, such as the demo shop's. */
export async function photoAsIs(file: Buffer): Promise<PhotoRow> {
  const { width, height, format } = await sharp(file, { limitInputPixels: MOST_PIXELS }).metadata();
  if (format !== 'jpeg')
    throw new Problem(422, 'Not a picture', 'Picture: a JPEG file is kept as it is, and no other.');
  return rowOf(file, width, height);
}

function rowOf(bytes: Buffer, width: number, height: number): PhotoRow {
  return { hash: createHash('sha256').update(bytes).digest('hex'), width, height, bytes, createdAt: new Date() };
}
