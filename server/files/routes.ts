import { createWriteStream } from 'node:fs';
import { mkdtemp, rm } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { Transform } from 'node:stream';
import { pipeline } from 'node:stream/promises';
import { Router } from 'express';
import type { DataSource } from 'typeorm';
import { bringInArchive, bringInFiles } from './archive-in';
import { oneDriveFile, writeArchive } from './archive-out';
import { MOST_FILES } from './read-files';
import { bytesOf } from '../http/json-body';
import { invalid, notFound, Problem } from '../http/problem';
import { limitsChanged } from '../records/limits-changed';
import { attach } from '../http/send-file';

/** An archive that is brought in, bytes. */
const MOST_ARCHIVE = 8 * 1024 ** 3;

/**
 * Drive files and archives in and out. An exported file carries its vehicle as the extra field `vehicle`; an import
 * finds or makes it.
 */
export function fileRoutes(data: DataSource): Router {
  const router = Router();

  router.get('/drives/:id/file', async (request, response) => {
    const file = await oneDriveFile(data.manager, request.params.id);
    if (!file) throw notFound('drive');
    attach(response, file.name, 'application/json').send(file.text);
  });

  router.get('/export', async (request, response) => {
    const { drives } = request.query;
    const wanted = typeof drives === 'string' ? drives.split(',') : null;
    if (wanted && wanted.length > MOST_FILES)
      throw invalid([{ path: 'drives', message: `names more than ${MOST_FILES}; export the whole shop instead` }]);
    attach(response, wanted ? 'emery-drives.zip' : 'emery-shop.zip', 'application/zip');
    try {
      await writeArchive(data, response, wanted);
    } catch (error) {
      // Half an archive must not look like a whole one.
      if (response.headersSent) response.destroy();
      else throw error;
      if (!response.req.destroyed) request.log?.error({ export: 'cut off' });
    }
  });

  router.post('/import', async (request, response) => {
    const brought = await bringInFiles(data, bytesOf(request.body));
    limitsChanged(data);
    response.status(201).json(brought);
  });

  router.post('/import/archive', async (request, response) => {
    const folder = await mkdtemp(path.join(tmpdir(), 'emery-import-'));
    try {
      const file = path.join(folder, 'archive.zip');
      await pipeline(request, atMost(MOST_ARCHIVE), createWriteStream(file));
      const brought = await bringInArchive(data, file, () => response.destroyed);
      limitsChanged(data);
      response.status(201).json(brought);
    } finally {
      await rm(folder, { recursive: true, force: true });
    }
  });

  return router;
}

function atMost(bytes: number): Transform {
  let passed = 0;
  return new Transform({
    transform(chunk: Buffer, _encoding, done) {
      passed += chunk.length;
      if (passed > bytes)
        done(new Problem(413, 'Too large', `An archive of ${Math.round(bytes / 1024 ** 3)} GB at most is accepted.`));
      else done(null, chunk);
    },
  });
}
