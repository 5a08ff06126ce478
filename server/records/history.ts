import type { DataSource, EntityManager } from 'typeorm';
import { changeDrive } from '../drives/drive-store';
import { change } from '../storage/change';
import { inTurns } from '../http/in-turns';
import { folded } from '../vehicles/folded';
import type { HistoryAnswer, HistoryPlaced } from '@emery/core/api';
import type { Drive } from '@emery/core/drive';
import { beltName } from '@emery/core/job';
import { capital } from '@emery/core/quantity';
import {
  beltsMeant,
  HISTORY_COLUMNS,
  historyText,
  type HistoryColumn,
  type HistoryRow,
  readHistoryRow,
  withHistory,
} from '@emery/core/records';

/** So many rows are taken in at once. */
export const MOST_HISTORY_ROWS = 2000;
/** Rows placed, and drives read, between two looks at what else is asked of the server. */
const AT_ONCE = 50;
const DOCUMENTS_AT_ONCE = 20;
/** Vehicles looked up at a time. */
const NAMES_AT_ONCE = 50;

interface DriveRow {
  vehicleId: string;
  vehicleName: string;
  plate: string;
  driveId: string;
  driveName: string;
  document: Drive;
}
type Read = ReturnType<typeof readHistoryRow>;

/** What a list of old belts would bring: each row with its belt, or why it has none. */
export async function lookAtHistory(manager: EntityManager, cells: readonly unknown[]): Promise<HistoryAnswer> {
  const { rows } = await placed(manager, cells);
  return { rows: rows.map(({ told: row }) => row), taken: 0 };
}

/**
 * Takes them in, all that have a belt. A drive is held from before it is read until it is changed, each by itself; cut
 * off in between, the same list brought in again adds what is missing.
 */
export async function takeHistory(data: DataSource, cells: readonly unknown[]): Promise<HistoryAnswer> {
  const { rows } = await placed(data.manager, cells);
  const byDrive = new Map<string, { belt: string; row: HistoryRow }[]>();
  for (const { at } of rows) if (at) byDrive.set(at.driveId, [...(byDrive.get(at.driveId) ?? []), at]);
  for (const [driveId, own] of byDrive)
    await change(data, (manager) =>
      changeDrive(manager, driveId, (drive) =>
        own.reduce(
          (now, { belt, row }) => (now.belts.some(({ id }) => id === belt) ? withHistory(now, belt, [row]) : now),
          drive,
        ),
      ),
    );
  return { rows: rows.map(({ told: row }) => row), taken: rows.filter(({ told: row }) => row.ok && !row.there).length };
}

interface PlacedRow {
  told: HistoryPlaced;
  at: { driveId: string; belt: string; row: HistoryRow } | null;
}

async function placed(manager: EntityManager, cells: readonly unknown[]): Promise<{ rows: PlacedRow[] }> {
  const read = await inTurns(cells, AT_ONCE, (row) => readHistoryRow(cellsOf(row)));
  const drives = byName(await drivesOf(manager, read));
  return {
    rows: await inTurns(read, AT_ONCE, (row) => (row.ok ? place(row.row, drives) : { told: row, at: null })),
  };
}

/** The drives of each vehicle by what it may be called, its name or its plate, once each. */
function byName(drives: readonly DriveRow[]): ReadonlyMap<string, DriveRow[]> {
  const found = new Map<string, DriveRow[]>();
  for (const drive of drives)
    for (const name of new Set([folded(drive.vehicleName), folded(drive.plate)]))
      found.set(name, [...(found.get(name) ?? []), drive]);
  return found;
}

function cellsOf(row: unknown): Partial<Record<HistoryColumn, string>> {
  const given = (typeof row === 'object' && row !== null ? row : {}) as Record<string, unknown>;
  return Object.fromEntries(
    HISTORY_COLUMNS.flatMap((name) => {
      const value = given[name];
      return typeof value === 'string' ? [[name, value.slice(0, 200)]] : [];
    }),
  );
}

/** The drives of the vehicles that the rows name, by name or plate. */
async function drivesOf(manager: EntityManager, read: readonly Read[]): Promise<DriveRow[]> {
  const named = [...new Set(read.flatMap((row) => (row.ok ? [row.row.vehicle] : [])))];
  if (named.length === 0) return [];
  const drives = new Map<string, DriveRow>();
  for (let from = 0; from < named.length; from += NAMES_AT_ONCE) {
    const some = named.slice(from, from + NAMES_AT_ONCE);
    const rows = await manager.query<(Omit<DriveRow, 'document'> & { document: string })[]>(
      `SELECT vehicle.id AS vehicleId, vehicle.name AS vehicleName, vehicle.plate, drive.id AS driveId,
         drive.name AS driveName, drive_document.document
       FROM (SELECT id FROM vehicle WHERE name IN (?) UNION SELECT id FROM vehicle WHERE plate IN (?)) AS found
       STRAIGHT_JOIN vehicle ON vehicle.id = found.id STRAIGHT_JOIN drive ON drive.vehicleId = vehicle.id
       STRAIGHT_JOIN drive_document ON drive_document.driveId = drive.id
       WHERE vehicle.deletedAt IS NULL AND drive.deletedAt IS NULL`,
      [some, some],
    );
    await inTurns(rows, DOCUMENTS_AT_ONCE, (row) =>
      drives.set(row.driveId, { ...row, document: JSON.parse(row.document) as Drive }),
    );
  }
  return [...drives.values()].sort((a, b) => (a.driveId < b.driveId ? -1 : 1));
}

function place(row: HistoryRow, drives: ReadonlyMap<string, DriveRow[]>): PlacedRow {
  const bad = (problem: string): PlacedRow => ({ told: { ok: false, problem }, at: null });
  const own = drives.get(folded(row.vehicle)) ?? [];
  const vehicles = new Set(own.map(({ vehicleId }) => vehicleId));
  if (vehicles.size === 0) return bad(`vehicle: no vehicle with a drive is called "${row.vehicle}", by name or plate`);
  if (vehicles.size > 1) return bad(`vehicle: ${vehicles.size} are called "${row.vehicle}"; give the plate`);
  const meant = own.flatMap((drive) => beltsMeant(drive.document, row.belt).map((belt) => ({ drive, belt })));
  if (meant.length === 0) return bad(`belt: "${row.belt}" is none of this vehicle's belts`);
  if (meant.length > 1)
    return bad(
      row.belt === ''
        ? 'belt: is missing, and the vehicle has several; give its marking, or its number in the drive'
        : `belt: "${row.belt}" may be ${meant.length} of this vehicle's belts`,
    );
  const [{ drive, belt }] = meant as [(typeof meant)[number]];
  return {
    told: {
      ok: true,
      vehicle: drive.vehicleName,
      drive: drive.driveName,
      belt: capital(beltName(drive.document, belt.id)),
      text: historyText(row),
      there: withHistory(drive.document, belt.id, [row]) === drive.document,
    },
    at: { driveId: drive.driveId, belt: belt.id, row },
  };
}
