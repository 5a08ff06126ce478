import type { EntityManager } from 'typeorm';
import { Photo, type PhotoRow } from './entity';
import { insertOnce } from '../storage/insert-once';
import { sendInPieces } from '../storage/large';

/** Stores a picture, within a transaction; one that is there already is left as it is. */
export async function keepPhoto(manager: EntityManager, photo: PhotoRow): Promise<PhotoRow> {
  if (!(await manager.existsBy(Photo, { hash: photo.hash })))
    await sendInPieces(manager, photo.bytes, (term) =>
      insertOnce(manager, Photo, 'hash', { ...photo, bytes: () => term }),
    );
  return photo;
}
