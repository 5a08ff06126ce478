import { Router } from 'express';
import type { DataSource, EntityManager } from 'typeorm';
import { mixed, number, object, string } from '../http/fields';
import { doneBy } from '../access/caller';
import { checkedDrive, type CheckedDrive } from '../check';
import { PATCH } from './words';
import { createDrive, type DriveSent, listDrives, openDrive, patchDrive, versionsAfter } from './drive-store';
import { DriveEntity, type DriveRow } from './entity';
import { openPast, pastOf } from './history';
import { newVehicle, Vehicle } from '../vehicles/entity';
import { pageOf } from '../http/listing';
import { bodyOf, invalid, notFound } from '../http/problem';
import { sendJson } from '../http/raw-json';
import { change } from '../storage/change';
import { holdDrive, holdVehicles } from '../storage/hold';
import { indexVehicles, shownPage } from '../vehicles/search-index';
import type { DriveOpened } from '@emery/core/api';
import { readChanges } from '@emery/core/together';

/** As `crypto.randomUUID` makes them, in the browser as here. */
const UUID = /^[0-9a-f]{8}-[0-9a-f]{4}-[0-9a-f]{4}-[0-9a-f]{4}-[0-9a-f]{12}$/;

const newBody = object({
  /** Where it was begun with the server away: sent again, it is the same drive. */
  id: string().matches(UUID, 'must be a UUID in lower case'),
  /** Left out where nobody said which vehicle it is: the drive then gets one that is not named yet. */
  vehicleId: string(),
  document: mixed().required('is missing'),
}).required();

const moveBody = object({ vehicleId: string().required('is missing: the vehicle it goes to') }).required();

/** The last so many that were deleted are listed. */
const DELETED = 40;

/** What a vehicle is called until somebody names it. */
const NOT_NAMED = 'Vehicle not named yet';

const patchBody = object({
  revision: number().integer(PATCH.wholeNumber).min(1, PATCH.positive).required(PATCH.revision),
  saveId: string().max(36, 'must be 36 characters at most').required('is missing'),
  by: string().max(80).default(''),
  changes: mixed().required(PATCH.changes),
}).required();

/** Drives: list and search, make, open, save, move, duplicate, delete, bring back. */
export function driveRoutes(data: DataSource): Router {
  const router = Router();

  router.get('/', async (request, response) => {
    const { rows, total } = await shownPage<DriveRow>(data.manager, 'drive', pageOf(request));
    sendJson(response, { drives: await listDrives(data.manager, rows), total });
  });

  router.get('/deleted', async (_request, response) => {
    sendJson(response, await lastDeleted(data));
  });

  router.post('/', async (request, response) => {
    const { id, vehicleId, document } = await bodyOf(newBody, request.body);
    response.status(201).json(await makeDrive(data, { id, vehicleId }, await checkedDrive(document)));
  });

  router.get('/:id', async (request, response) => {
    response.json(await openDrive(data.manager, request.params.id));
  });

  versionRoutes(router, data);

  router.put('/:id/vehicle', async (request, response) => {
    const { vehicleId } = await bodyOf(moveBody, request.body);
    response.json(await moveDrive(data, request.params.id, vehicleId));
  });

  router.post('/:id/duplicate', async (request, response) => {
    response.status(201).json(await duplicateDrive(data, request.params.id));
  });

  router.delete('/:id', async (request, response) => {
    await change(data, (manager) => setDeleted(manager, request.params.id, new Date()));
    response.status(204).end();
  });

  router.post('/:id/restore', async (request, response) => {
    const { id } = request.params;
    const restored = await change(data, async (manager) => {
      await setDeleted(manager, id, null);
      return openDrive(manager, id);
    });
    response.json(restored);
  });

  return router;
}

/** What was done to a drive: put in as changes, and told since a version. */
function versionRoutes(router: Router, data: DataSource): void {
  router.patch('/:id', async (request, response) => {
    const { revision, saveId, by = '', changes } = await bodyOf(patchBody, request.body);
    const reading = readChanges(changes);
    if (!reading.ok) throw invalid([reading.problem]);
    const patch = { revision, saveId, changes: reading.changes };
    response.json(await patchDrive(data, request.params.id, patch, doneBy(request, by)));
  });

  router.get('/:id/versions', async (request, response) => {
    const after = Number(request.query['after'] ?? 0);
    if (!Number.isInteger(after) || after < 0) throw invalid([{ path: 'after', message: PATCH.after }]);
    response.json(await versionsAfter(data.manager, request.params.id, after));
  });

  router.get('/:id/past', async (request, response) => {
    const { before } = request.query;
    response.json(await pastOf(data.manager, request.params.id, before === undefined ? null : revisionOf(before)));
  });

  router.get('/:id/past/:revision', async (request, response) => {
    const { id, revision } = request.params;
    response.json(await openPast(data.manager, id, revisionOf(revision)));
  });
}

function revisionOf(text: unknown): number {
  const revision = Number(text);
  if (!Number.isInteger(revision) || revision < 1 || revision >= 2 ** 31)
    throw invalid([{ path: 'revision', message: PATCH.positive }]);
  return revision;
}

async function lastDeleted(data: DataSource): Promise<{ drives: DriveSent[]; total: number }> {
  const from = `FROM drive FORCE INDEX (drive_recent) STRAIGHT_JOIN vehicle ON vehicle.id = drive.vehicleId
     WHERE drive.deletedAt IS NOT NULL AND vehicle.deletedAt IS NULL`;
  const rows = await data.query<DriveRow[]>(`SELECT drive.* ${from} ORDER BY drive.deletedAt DESC LIMIT ${DELETED}`);
  const [counted] = await data.query<{ total: string }[]>(`SELECT COUNT(*) AS total ${from}`);
  return { drives: await listDrives(data.manager, rows), total: Number(counted!.total) };
}

type Opened = DriveOpened<Date>;

interface NewDrive {
  id: string | undefined;
  vehicleId: string | undefined;
}

/**
 * With a vehicle that is not named yet where nobody says which. One that was made by that id already stays. As
 * everywhere, what a change answers is read within it: another one may have deleted the drive right after.
 */
async function makeDrive(data: DataSource, asked: NewDrive, checked: CheckedDrive): Promise<Opened> {
  const { id } = asked;
  try {
    return await change(data, async (manager) => {
      if (id !== undefined && (await manager.existsBy(DriveEntity, { id }))) return openDrive(manager, id);
      const vehicleId = asked.vehicleId ?? (await makeUnnamed(manager));
      const vehicle = (await holdVehicles(manager, [vehicleId])).get(vehicleId);
      if (!vehicle || vehicle.deletedAt) throw notFound('vehicle');
      const made = await createDrive(manager, vehicleId, checked, id === undefined ? {} : { id });
      await indexVehicles(manager, [vehicleId]);
      return openDrive(manager, made);
    });
  } catch (error) {
    // Asked twice at one moment: the other was first, and all of this one is taken back.
    if (id !== undefined && (error as { code?: string }).code === 'ER_DUP_ENTRY') return openDrive(data.manager, id);
    throw error;
  }
}

/** To another vehicle, with its jobs and all that is remembered of it. */
async function moveDrive(data: DataSource, id: string, vehicleId: string): Promise<Opened> {
  return change(data, async (manager) => {
    const held = await holdDrive(manager, id, [vehicleId]);
    const from = (await openDrive(manager, id)).vehicleId;
    const to = held?.others.get(vehicleId);
    if (!to || to.deletedAt) throw notFound('vehicle');
    await manager.update(DriveEntity, { id }, { vehicleId });
    await manager.query('UPDATE job SET vehicleId = ? WHERE driveId = ?', [vehicleId, id]);
    // One that nobody named has nothing to stay for.
    const left = await manager.existsBy(DriveEntity, { vehicleId: from });
    if (!left) await manager.update(Vehicle, { id: from, name: NOT_NAMED }, { deletedAt: new Date() });
    await indexVehicles(manager, [from, vehicleId]);
    return openDrive(manager, id);
  });
}

/** The copy. */
async function duplicateDrive(data: DataSource, id: string): Promise<Opened> {
  const { name, document } = await openDrive(data.manager, id);
  const copy = await checkedDrive({ ...document, name: `${name} copy`.slice(0, 200) });
  return change(data, async (manager) => {
    await holdDrive(manager, id);
    const { vehicleId } = await openDrive(manager, id);
    const made = await createDrive(manager, vehicleId, copy);
    await indexVehicles(manager, [vehicleId]);
    return openDrive(manager, made);
  });
}

async function setDeleted(manager: EntityManager, id: string, deletedAt: Date | null): Promise<void> {
  const drive = (await holdDrive(manager, id))?.drive;
  // Deleted already, or brought back.
  if (!drive || (drive.deletedAt === null) === (deletedAt === null)) throw notFound('drive');
  await manager.update(DriveEntity, { id }, { deletedAt });
  await indexVehicles(manager, [drive.vehicleId]);
}

/** A vehicle for a drive that came without one. */
async function makeUnnamed(manager: EntityManager): Promise<string> {
  const row = newVehicle({ name: NOT_NAMED });
  await manager.insert(Vehicle, row);
  return row.id;
}
