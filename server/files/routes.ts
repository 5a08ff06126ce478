import { createWriteStream } from 'node:fs';
import { mkdtemp, rm } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { Transform } from 'node:stream';
import { pipeline } from 'node:stream/promises';
import { Router, type Response } from 'express';
import type { DataSource } from 'typeorm';
import { bringInArchive, bringInFiles, type FileIn } from './archive-in';
import { oneDriveFile, writeArchive } from './archive-out';
import { invalid, notFound, Problem } from '../http/problem';

const MOST_FILES = 500;
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
    response.status(201).json(await bringInFiles(data, filesOf(request.body)));
  });

  router.post('/import/archive', async (request, response) => {
    const folder = await mkdtemp(path.join(tmpdir(), 'emery-import-'));
    try {
      const file = path.join(folder, 'archive.zip');
      await pipeline(request, atMost(MOST_ARCHIVE), createWriteStream(file));
      response.status(201).json(await bringInArchive(data, file, () => response.destroyed));
    } finally {
      await rm(folder, { recursive: true, force: true });
    }
  });

  return router;
}

function filesOf(body: unknown): FileIn[] {
  const files = (body as { files?: unknown } | undefined)?.files;
  if (!Array.isArray(files)) throw invalid([{ path: 'files', message: 'is missing: a list of name and text' }]);
  if (files.length === 0) throw invalid([{ path: 'files', message: 'is empty: choose one file or more' }]);
  if (files.length > MOST_FILES)
    throw invalid([
      { path: 'files', message: `holds more than ${MOST_FILES} files: put them in a ZIP, which may hold any number` },
    ]);
  files.forEach((file: unknown, index) => {
    const { name, text } = (file ?? {}) as { name?: unknown; text?: unknown };
    if (typeof name !== 'string' || name === '' || name.length > 300)
      throw invalid([{ path: `files[${index}].name`, message: 'must be text of 1 to 300 characters' }]);
    if (typeof text !== 'string')
      throw invalid([{ path: `files[${index}].text`, message: 'must be text: what the file holds' }]);
  });
  return files as FileIn[];
}

function atMost(bytes: number): Transform {
  let passed = 0;
  return new Transform({
    transform(chunk: Buffer, _encoding, done) {
      passed += chunk.length;
      if (passed > bytes)
        done(new Problem(413, 'Too large', `An archive of ${Math.round(bytes / 1024 ** 3)} GB at most is taken in.`));
      else done(null, chunk);
    },
  });
}

function attach(response: Response, name: string, type: string): Response {
  return response.type(type).set('Content-Disposition', `attachment; filename="${name}"`);
}
