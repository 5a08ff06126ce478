import type { PictureInHand } from './SurveyProvider';
import type { Drive, SurveyPhoto } from '@emery/core/drive';
import { photosOf } from '@emery/core/survey/photo';

/** The picture chosen, or the first there is. */
export function pictureInHand(drive: Drive, { id }: Pick<PictureInHand, 'id'>): SurveyPhoto | null {
  const photos = photosOf(drive);
  return photos.find((photo) => photo.id === id) ?? photos[0] ?? null;
}
