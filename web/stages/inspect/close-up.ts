import { useMemo } from 'react';
import { useBench } from '../../state/bench';
import { pictureAddress } from '../../views/picture/address';
import { useInspect } from './InspectProvider';
import type { Drive, KeptPicture } from '@emery/core/drive';
import { type GreyPicture, type NoRibReading, readMarks, type RibReading } from '@emery/core/inspect/ribs';
import { sectionFor } from '@emery/core/section';

/** From rib to rib of a belt, mm; null for one without ribs. */
export function pitchOfBelt(drive: Drive, beltId: string | undefined): number | null {
  const belt = drive.belts.find(({ id }) => id === beltId);
  const section = belt && sectionFor(belt.section, belt.sectionOverrides);
  return section?.kind === 'ribbed' ? section.width : null;
}

/** What the marks in the close-up come to; null without one. */
export function useCloseUpReading(): RibReading | NoRibReading | null {
  const { drive } = useBench('drive');
  const { closeUp } = useInspect();
  return useMemo(() => {
    const pitch = closeUp && pitchOfBelt(drive, closeUp.belt);
    return pitch ? readMarks(closeUp.marks, pitch) : null;
  }, [drive, closeUp]);
}

/** A kept picture in grey, as the finder of ribs takes it. */
export async function greyOf(picture: KeptPicture): Promise<GreyPicture> {
  const answer = await fetch(pictureAddress(picture.hash));
  if (!answer.ok) throw new Error('The picture could not be fetched: the server may be away.');
  const bitmap = await createImageBitmap(await answer.blob());
  const { width, height } = bitmap;
  const canvas = new OffscreenCanvas(width, height);
  const pen = canvas.getContext('2d')!;
  pen.drawImage(bitmap, 0, 0);
  const { data: colours } = pen.getImageData(0, 0, width, height);
  const data = new Uint8ClampedArray(width * height);
  for (let k = 0; k < data.length; k += 1)
    data[k] = 0.299 * colours[4 * k]! + 0.587 * colours[4 * k + 1]! + 0.114 * colours[4 * k + 2]!;
  return { width, height, data };
}

/** A made-up picture as a file, for the server to keep like any other. */
export async function fileOf({ width, height, data }: GreyPicture, name: string): Promise<File> {
  const canvas = new OffscreenCanvas(width, height);
  const pen = canvas.getContext('2d')!;
  const image = pen.createImageData(width, height);
  for (let k = 0; k < data.length; k += 1) image.data.set([data[k]!, data[k]!, data[k]!, 255], 4 * k);
  pen.putImageData(image, 0, 0);
  return new File([await canvas.convertToBlob({ type: 'image/png' })], name, { type: 'image/png' });
}
