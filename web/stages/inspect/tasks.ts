import { pictureAddress } from '../../views/picture/address';
import { findRibs, type GreyPicture, makeRibs, type RibsAsked } from '@emery/core/inspect/ribs';

/** The long sums of Inspect: ribs in a close-up that the server keeps, and a close-up made up to practise on. */
export const inspectTasks = {
  ribs: async ({ hash, pitchMm }: { hash: string; pitchMm: number }, onProgress: (share: number) => void) =>
    findRibs(await greyOf(hash), pitchMm, onProgress),
  madeRibs: (asked: RibsAsked) => fileOf(makeRibs(asked).picture, 'practice.png'),
};

/** A kept picture in grey. */
async function greyOf(hash: string): Promise<GreyPicture> {
  const answer = await fetch(pictureAddress(hash));
  if (!answer.ok) throw new Error('the picture could not be loaded; the server may be down');
  const bitmap = await createImageBitmap(await answer.blob());
  const { width, height } = bitmap;
  const pen = new OffscreenCanvas(width, height).getContext('2d')!;
  pen.drawImage(bitmap, 0, 0);
  const { data: colours } = pen.getImageData(0, 0, width, height);
  const data = new Uint8ClampedArray(width * height);
  for (let k = 0; k < data.length; k += 1)
    data[k] = 0.299 * colours[4 * k]! + 0.587 * colours[4 * k + 1]! + 0.114 * colours[4 * k + 2]!;
  return { width, height, data };
}

/** A made-up picture as a file, for the server to keep like any other. */
async function fileOf({ width, height, data }: GreyPicture, name: string): Promise<File> {
  const canvas = new OffscreenCanvas(width, height);
  const pen = canvas.getContext('2d')!;
  const image = pen.createImageData(width, height);
  for (let k = 0; k < data.length; k += 1) image.data.set([data[k]!, data[k]!, data[k]!, 255], 4 * k);
  pen.putImageData(image, 0, 0);
  return new File([await canvas.convertToBlob({ type: 'image/png' })], name, { type: 'image/png' });
}
