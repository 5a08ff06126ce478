import { noAnswerWords } from '../access/here';
import { ApiProblem, problemOf } from './client';
import type { KeptPicture } from '@emery/core/drive';

export const PHOTO_TYPES = ['image/jpeg', 'image/png', 'image/webp'];
const MOST_MB = 20;

/** Hands a picture to the server, telling how much of it has gone. Rejects with an `ApiProblem`. */
export function sendPhoto(file: File, onProgress: (share: number) => void, signal: AbortSignal): Promise<KeptPicture> {
  if (!PHOTO_TYPES.includes(file.type))
    return Promise.reject(
      new ApiProblem(415, 'Not a picture', `${file.name}: a JPEG, PNG or WebP picture is accepted.`),
    );
  if (file.size > MOST_MB * 1024 * 1024)
    return Promise.reject(new ApiProblem(413, 'Too large', `${file.name} is over the limit of ${MOST_MB} MB.`));
  return new Promise((resolve, reject) => {
    // fetch does not tell how far an upload has come.
    const request = new XMLHttpRequest();
    request.open('POST', '/api/photos');
    request.setRequestHeader('content-type', file.type);
    request.upload.onprogress = ({ loaded, total }) => onProgress(loaded / total);
    request.onload = () =>
      request.status === 201
        ? resolve(JSON.parse(request.responseText) as KeptPicture)
        : reject(problemOf(request.status, request.responseText));
    request.onerror = () => reject(new ApiProblem(0, 'No answer', `${noAnswerWords()} The picture was not saved.`));
    request.onabort = () => reject(new ApiProblem(0, 'Cancelled', 'The picture was not uploaded.'));
    signal.addEventListener('abort', () => request.abort());
    request.send(file);
  });
}
