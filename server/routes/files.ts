import { Router, type Response } from 'express';
import { strToU8, zipSync } from 'fflate';
import { IsNull, type DataSource, type EntityManager } from 'typeorm';
import { array, object, string } from 'yup';
import { DRIVE_FILE_EXTENSION, parseDrive, writeDrive, type Drive } from '@emery/core/drive';
import { createDrive, openDrive } from '../drive-store';
import { DriveEntity, Vehicle } from '../entities';
import { bodyOf, Problem } from '../problem';
import { newVehicle, vehicleBody, type VehicleBody } from './vehicles';

const importBody = object({
  files: array()
    .of(object({ name: string().required().max(300), text: string().required() }).required())
    .min(1, 'is empty: choose one file or more')
    .max(500, 'holds more than 500 files: import them in parts')
    .required('is missing'),
}).required();

const MOST_EXPORTED = 2000;

/** Drive files in and out, one or many. An exported file carries its vehicle as the extra field `vehicle`; an import finds or makes it. */
export function fileRoutes(data: DataSource): Router {
  const router = Router();

  router.get('/drives/:id/file', async (request, response) => {
    const { name, text } = await exported(data.manager, request.params.id);
    attach(response, name, 'application/json').send(text);
  });

  router.get('/export', async (request, response) => {
    const wanted = typeof request.query['drives'] === 'string' ? request.query['drives'].split(',') : await everyDrive(data);
    if (wanted.length > MOST_EXPORTED) throw new Problem(422, 'Too many', `One export holds ${MOST_EXPORTED} drives at most; these are ${wanted.length}.`);
    const files: Record<string, Uint8Array> = {};
    for (const id of wanted) {
      const { name, text } = await exported(data.manager, id);
      files[freeName(files, name)] = strToU8(text);
    }
    attach(response, 'emery-drives.zip', 'application/zip').send(Buffer.from(zipSync(files)));
  });

  router.post('/import', async (request, response) => {
    const { files } = await bodyOf(importBody, request.body);
    const read = files.map(({ name, text }, index) => {
      const reading = parseDrive(text);
      if (reading.ok) return { drive: reading.drive, vehicle: vehicleOf(reading.drive, name) };
      const errors = reading.problems.map(({ path, message }) => ({ path: path === '' ? `files[${index}]` : `files[${index}].${path}`, message }));
      const { path, message } = reading.problems[0]!;
      throw new Problem(422, 'Not an Emery drive', `${name}: ${path} ${message}`.replace(/ {2,}/g, ' '), errors);
    });
    // All or none: half an import would leave the user guessing which half.
    const drives = await data.transaction(async (manager) => {
      const made: { id: string; vehicleId: string }[] = [];
      for (const { drive, vehicle } of read) {
        const vehicleId = await findOrMake(manager, vehicle);
        const { vehicle: _vehicle, ...document } = drive;
        made.push({ id: await createDrive(manager, vehicleId, document as unknown as Drive), vehicleId });
      }
      return made;
    });
    response.status(201).json({ drives });
  });

  return router;
}

async function exported(manager: EntityManager, id: string): Promise<{ name: string; text: string }> {
  const { document, vehicleId, vehicleName, name } = await openDrive(manager, id);
  const { plate, odometer, odometerUnit, notes } = await manager.findOneByOrFail(Vehicle, { id: vehicleId });
  const vehicle = { name: vehicleName, plate, odometer, odometerUnit, notes };
  return { name: `${fileName(`${vehicleName} ${name}`)}${DRIVE_FILE_EXTENSION}`, text: writeDrive({ ...document, vehicle }) };
}

async function everyDrive(data: DataSource): Promise<string[]> {
  const rows = await data
    .getRepository(DriveEntity)
    .createQueryBuilder('drive')
    .innerJoin('vehicle', 'vehicle', 'vehicle.id = drive.vehicleId AND vehicle.deletedAt IS NULL')
    .where('drive.deletedAt IS NULL')
    .orderBy('drive.id')
    .getMany();
  return rows.map(({ id }) => id);
}

/** The vehicle a file names, as far as it can be read; a file without one gets a vehicle of the drive's own name. */
function vehicleOf(drive: Drive, file: string): Partial<VehicleBody> & { name: string } {
  const given = drive['vehicle'];
  if (vehicleBody.isValidSync(given, { strict: true })) return given;
  return { name: (drive.name?.trim() || file.replace(DRIVE_FILE_EXTENSION, '')).slice(0, 120) };
}

async function findOrMake(manager: EntityManager, vehicle: Partial<VehicleBody> & { name: string }): Promise<string> {
  const same = await manager.findOneBy(Vehicle, { name: vehicle.name, plate: vehicle.plate ?? '', deletedAt: IsNull() });
  if (same) return same.id;
  const made = newVehicle(vehicle);
  await manager.insert(Vehicle, made);
  return made.id;
}

function attach(response: Response, name: string, type: string): Response {
  return response.type(type).set('Content-Disposition', `attachment; filename="${name}"`);
}

/** Letters, digits and dashes: safe in a header and on any disk. */
function fileName(text: string): string {
  const plain = text.normalize('NFKD').replace(/[^\w]+/g, '-').replace(/^-+|-+$/g, '');
  return plain.slice(0, 80).toLowerCase() || 'drive';
}

function freeName(files: Record<string, unknown>, name: string): string {
  for (let n = 1; ; n += 1) {
    const candidate = n === 1 ? name : name.replace(DRIVE_FILE_EXTENSION, `-${n}${DRIVE_FILE_EXTENSION}`);
    if (!(candidate in files)) return candidate;
  }
}
