import { noAnswerWords } from '../access/here';
import { ApiProblem, problemOf } from './client';

interface Upload {
  method: 'POST' | 'PUT';
  path: string;
  body: Blob;
  /** What is said where it did not arrive. */
  lost: string;
  /** How much of it has gone, from 0 to 1. */
  onShare: (share: number) => void;
  signal?: AbortSignal;
}

/** Hands a file to the server, telling how much of it has gone, which fetch does not. Rejects with an `ApiProblem`. */
export function upload<T>({ method, path, body, lost, onShare, signal }: Upload): Promise<T> {
  return new Promise((resolve, reject) => {
    const request = new XMLHttpRequest();
    request.open(method, `/api${path}`);
    request.setRequestHeader('content-type', body.type);
    request.upload.onprogress = ({ loaded, total }) => onShare(loaded / total);
    request.onload = () =>
      request.status < 300
        ? resolve(JSON.parse(request.responseText) as T)
        : reject(problemOf(request.status, request.responseText));
    request.onerror = () => reject(new ApiProblem(0, 'No answer', `${noAnswerWords()} ${lost}`));
    request.onabort = () => reject(new ApiProblem(0, 'Cancelled', lost));
    signal?.addEventListener('abort', () => request.abort());
    request.send(body);
  });
}
