import type { EntityManager } from 'typeorm';
import { Photo, type PhotoRow } from './entity';
import { insertOnce } from '../storage/insert-once';

/** Stores a picture; one that is there already is left as it is. */
export async function keepPhoto(manager: EntityManager, photo: PhotoRow): Promise<PhotoRow> {
  await insertOnce(manager, Photo, 'hash', photo);
  return photo;
}
