import type { Drive } from '@emery/core/drive';
import { photosOf, type SurveyPhoto } from '@emery/core/photo';
import type { PictureInHand } from '../bench/bench-context';

/** The picture chosen, or the first there is. */
export function pictureInHand(drive: Drive, { id }: Pick<PictureInHand, 'id'>): SurveyPhoto | null {
  const photos = photosOf(drive);
  return photos.find((photo) => photo.id === id) ?? photos[0] ?? null;
}

export const photoAddress = (hash: string) => `/api/photos/${hash}`;
