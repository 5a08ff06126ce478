import { raw, Router, type RequestHandler } from 'express';
import type { DataSource } from 'typeorm';
import { Photo } from './entity';
import { keepPhoto } from './photo-store';
import { readPhoto } from './read-photo';
import { notFound, Problem } from '../http/problem';
import { change } from '../storage/change';

const TYPES = ['image/jpeg', 'image/png', 'image/webp'];
const MOST_BYTES = 20 * 1024 * 1024;

/**
 * Pictures: taken in as files, kept upright and without what the camera wrote into them, named by the SHA-256 of what
 * is kept.
 */
export function photoRoutes(data: DataSource): Router {
  const router = Router();

  router.post('/', ofPictureType, raw({ type: TYPES, limit: MOST_BYTES }), async (request, response) => {
    const body: unknown = request.body;
    if (!Buffer.isBuffer(body) || body.length === 0) throw new Problem(422, 'Not accepted', 'The picture is empty.');
    const photo = await readPhoto(body);
    const { hash, width, height } = await change(data, (manager) => keepPhoto(manager, photo));
    response.status(201).json({ hash, width, height });
  });

  router.get('/:hash', async (request, response) => {
    const photo = await data.getRepository(Photo).findOneBy({ hash: request.params.hash });
    if (!photo) throw notFound('picture');
    // The name is made from the content, so what was read once stays right.
    response.set('Cache-Control', 'private, max-age=31536000, immutable').type('image/jpeg').send(photo.bytes);
  });

  return router;
}

const ofPictureType: RequestHandler = (request, _response, next) => {
  if (request.is(TYPES) === false)
    throw new Problem(415, 'Not a picture', 'Picture: a JPEG, PNG or WebP file is accepted.');
  next();
};
