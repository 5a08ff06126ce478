import path from 'node:path';
import { Router } from 'express';
import type { DataSource } from 'typeorm';
import { object, string } from '../http/fields';
import { bodyOf, notFound } from '../http/problem';
import { attach } from '../http/send-file';
import { backupsOf } from './backups';
import { healthOf } from './health';
import { BACKUPS } from './words';

const folderBody = object({ folder: string().trim().max(500).required(BACKUPS.folderMissing) });

/** How the shop is kept: its health, its backups, and where they are made. */
export function keepRoutes(data: DataSource): Router {
  const router = Router();

  router.get('/', async (_request, response) => {
    response.json(await healthOf(data));
  });

  router.get('/age', async (_request, response) => {
    response.json(await backupsOf(data).age());
  });

  router.put('/folder', async (request, response) => {
    const { folder } = await bodyOf(folderBody.required(), request.body);
    await backupsOf(data).setFolder(path.normalize(folder));
    response.json(await healthOf(data));
  });

  router.post('/backups', async (_request, response) => {
    await backupsOf(data).begin();
    response.status(202).json(await backupsOf(data).state());
  });

  router.delete('/backups', (_request, response) => {
    backupsOf(data).cancel();
    response.status(204).end();
  });

  router.get('/backups/:name', async (request, response) => {
    const file = await backupsOf(data).file(request.params.name);
    if (file === null) throw notFound('backup');
    attach(response, path.basename(file), file.endsWith('.age') ? 'application/octet-stream' : 'application/zip');
    response.sendFile(file, { dotfiles: 'allow' });
  });

  return router;
}
