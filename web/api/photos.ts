import { ApiProblem } from './client';
import { upload } from './upload';
import type { KeptPicture } from '@emery/core/drive';

export const PHOTO_TYPES = ['image/jpeg', 'image/png', 'image/webp'];
const MOST_MB = 20;

/** Hands a picture to the server, telling how much of it has gone. Rejects with an `ApiProblem`. */
export function sendPhoto(file: File, onShare: (share: number) => void, signal: AbortSignal): Promise<KeptPicture> {
  if (!PHOTO_TYPES.includes(file.type))
    return Promise.reject(
      new ApiProblem(415, 'Not a picture', `${file.name}: a JPEG, PNG or WebP picture is accepted.`),
    );
  if (file.size > MOST_MB * 1024 * 1024)
    return Promise.reject(new ApiProblem(413, 'Too large', `${file.name} is over the limit of ${MOST_MB} MB.`));
  return upload({ method: 'POST', path: '/photos', body: file, lost: 'The picture was not saved.', onShare, signal });
}
