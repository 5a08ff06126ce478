import { Router, type Response } from 'express';
import papaparse from 'papaparse';
import { boolean } from 'yup';
import type { DataSource, EntityManager } from 'typeorm';
import { inTurns } from '../http/in-turns';
import { pageOf, type Page } from '../http/listing';
import { bodyOf, notFound } from '../http/problem';
import { rowsBody } from '../http/rows-body';
import { Vehicle } from '../vehicles/entity';
import { foldedAnywhere } from '../vehicles/folded';
import { lookAtHistory, MOST_HISTORY_ROWS, takeHistory } from './history';
import { calendarOf, type DueDated } from './calendar';
import { NO_DAY } from './remember';
import { allWords, joinWhose, WHOSE } from './whose';
import type {
  BeltOn,
  BeltsOnPage,
  DueListed,
  DuePage,
  LivesAnswer,
  RecordListed,
  RecordPage,
  WhoseDrive,
} from '@emery/core/api';
import { csvCell } from '@emery/core/quantity';
import {
  type BeltQuery,
  listedUntil,
  queryWords,
  readBeltQuery,
  soonFrom,
  STORY_COLUMNS,
  survivalOf,
} from '@emery/core/records';
import { SECTIONS } from '@emery/core/section';

/** More than this of what is due goes into no calendar, and of what happened into no file. */
const MOST_IN_CALENDAR = 600;
const MOST_IN_FILE = 50_000;
/** Words of a search that are looked for; more say nothing more. */
const MOST_WORDS = 8;

const historyBody = rowsBody(MOST_HISTORY_ROWS).shape({ look: boolean() });

/** What is due, what happened, which belts are on and how long they last: over all vehicles, or of one. */
export function recordRoutes(data: DataSource): Router {
  const router = Router();

  router.get('/due', async (request, response) => {
    response.json(await pageOfDues(data.manager, pageOf(request), today()));
  });

  router.get('/due.ics', async (request, response) => {
    const { dues } = await pageOfDues(data.manager, { search: '', limit: MOST_IN_CALENDAR, offset: 0 }, today());
    const calendar = await calendarOf(dues, `${request.protocol}://${request.get('host') ?? ''}`);
    response.type('text/calendar').set('Content-Disposition', 'attachment; filename="emery-due.ics"');
    response.send(calendar);
  });

  router.get('/belts', async (request, response) => {
    response.json(await pageOfBelts(data.manager, pageOf(request)));
  });

  router.get('/belts.csv', async (request, response) => {
    const belts = await allOf(
      data,
      async (manager, page) => (await pageOfBelts(manager, { ...pageOf(request), ...page })).belts,
    );
    await sendCsv(response, 'emery-belts-on.csv', BELT_COLUMNS, belts, beltCells);
  });

  router.get('/belts.json', async (request, response) => {
    const belts = await allOf(
      data,
      async (manager, page) => (await pageOfBelts(manager, { ...pageOf(request), ...page })).belts,
    );
    await sendJson(response, 'emery-belts-on.json', 'belts', belts);
  });

  // With `look` it is only told what would come in.
  router.post('/history', async (request, response) => {
    const { rows, look } = await bodyOf(historyBody, request.body);
    response.json(look === true ? await lookAtHistory(data.manager, rows) : await takeHistory(data, rows));
  });

  router.get('/lives', async (request, response) => {
    const { kind } = request.query;
    response.json(await livesOf(data.manager, typeof kind === 'string' && kind !== '' ? kind : null));
  });

  router.get('/', async (request, response) => {
    const { vehicle } = request.query;
    response.json(
      await pageOfRecords(data.manager, pageOf(request, 1000), typeof vehicle === 'string' ? vehicle : null),
    );
  });

  for (const type of ['csv', 'json'] as const)
    router.get(`/file.${type}`, async (request, response) => {
      const asked = request.query['vehicle'];
      const vehicle = typeof asked === 'string' ? await data.manager.findOneBy(Vehicle, { id: asked }) : null;
      if (typeof asked === 'string' && (!vehicle || vehicle.deletedAt)) throw notFound('vehicle');
      const records = await allOf(
        data,
        async (manager, page) =>
          (await pageOfRecords(manager, { ...pageOf(request), ...page }, vehicle?.id ?? null)).records,
      );
      if (type === 'json') await sendJson(response, 'emery-records.json', 'records', records);
      else await sendCsv(response, 'emery-records.csv', ['vehicle', 'plate', ...STORY_COLUMNS], records, recordCells);
    });

  return router;
}

const today = () => new Date().toISOString().slice(0, 10);

const attached = (response: Response, name: string) =>
  response.set('Content-Disposition', `attachment; filename="${name}"`);

/** Rows read from the database at a time. */
const PAGE = 500;

/** All that a file holds, read a page at a time as it was at one moment. */
function allOf<T>(
  data: DataSource,
  read: (manager: EntityManager, page: { limit: number; offset: number }) => Promise<T[]>,
): Promise<T[]> {
  return data.transaction('REPEATABLE READ', async (manager) => {
    const all: T[] = [];
    for (let offset = 0; offset < MOST_IN_FILE; offset += PAGE) {
      const rows = await read(manager, { limit: PAGE, offset });
      all.push(...rows);
      if (rows.length < PAGE) break;
    }
    return all;
  });
}

/** Rows written between two looks at what else is asked of the server. */
const WRITTEN_AT_ONCE = 200;

async function sendCsv<T>(
  response: Response,
  name: string,
  columns: readonly string[],
  rows: readonly T[],
  cellsOf: (row: T) => (string | number)[],
): Promise<void> {
  const lines = await inTurns(rows, WRITTEN_AT_ONCE, (row) =>
    papaparse.unparse([cellsOf(row).map((cell) => (typeof cell === 'string' ? csvCell(cell) : cell))]),
  );
  attached(response, name)
    .type('text/csv')
    .send([papaparse.unparse([[...columns]]), ...lines].join('\r\n'));
}

async function sendJson(response: Response, name: string, what: string, rows: readonly object[]): Promise<void> {
  const written = await inTurns(rows, WRITTEN_AT_ONCE, (row) => JSON.stringify(row));
  attached(response, name)
    .type('json')
    .send(`{"${what}":[${written.join(',')}]}`);
}

/** Words of a search that each row must hold. */
const wordsIn = (search: string) =>
  search
    .split(/\s+/)
    .filter((word) => word !== '')
    .slice(0, MOST_WORDS);

const whereOf = (conditions: readonly string[]) => (conditions.length === 0 ? '' : `WHERE ${conditions.join(' AND ')}`);

function whoseOf(row: WhoseDrive): WhoseDrive {
  const { vehicleId, vehicleName, plate, vehicleOdometer, odometerUnit, driveId, driveName } = row;
  return { vehicleId, vehicleName, plate, vehicleOdometer, odometerUnit, driveId, driveName };
}

type DueRow = Omit<DueListed, 'from' | 'odometer' | 'id' | 'key'> & {
  id: string;
  name: string;
  changedAt: Date;
  source: DueListed['from'];
  dueOdometer: number | null;
  expected: string;
};

/** A page of what is due, with when each last changed. */
type DuesDated = Omit<DuePage, 'dues'> & { dues: DueDated[] };

async function pageOfDues(manager: EntityManager, { search, limit, offset }: Page, day: string): Promise<DuesDated> {
  const words = allWords(wordsIn(search), foldedAnywhere, 'due.search');
  const from = `due ${whereOf(['(due.expected <= ? OR due.expected = ?)', ...words.conditions])}`;
  const values = [listedUntil(day), NO_DAY, ...words.values];
  const [counted] = await manager.query<{ total: string; due: string | null; soon: string | null }[]>(
    `SELECT COUNT(*) AS total, SUM(due.expected <= ?) AS due, SUM(due.expected > ? AND due.expected <= ?) AS soon
     FROM ${from}`,
    [day, day, soonFrom(day), ...values],
  );
  const rows = await manager.query<DueRow[]>(
    `SELECT page.*, ${WHOSE} FROM (
       SELECT due.id, due.kind, due.text, due.belt, due.day, due.odometer AS dueOdometer, due.unit, due.source,
         due.plusMinus, due.expected, due.name, due.changedAt, due.vehicleId AS ofVehicle, due.driveId AS ofDrive
       FROM ${from} ORDER BY due.expected, due.id LIMIT ? OFFSET ?) AS page
     JOIN vehicle ON vehicle.id = page.ofVehicle JOIN drive ON drive.id = page.ofDrive ORDER BY page.expected, page.id`,
    [...values, limit, offset],
  );
  return {
    dues: rows.map((row) => ({ ...dueOf(row), ...whoseOf(row), id: Number(row.id), changedAt: row.changedAt })),
    total: Number(counted!.total),
    due: Number(counted!.due ?? 0),
    soon: Number(counted!.soon ?? 0),
  };
}

/** Something due out of its row. */
function dueOf({ name, kind, text, belt, day, dueOdometer, unit, source, plusMinus, expected }: DueRow) {
  return {
    ...{ key: name, kind, text, belt, day, odometer: dueOdometer, unit, from: source, plusMinus },
    expected: expected === NO_DAY ? null : expected,
  };
}

/** What is due on some drives, the first to come first. */
export async function duesOfDrives(manager: EntityManager, ids: readonly string[]) {
  if (ids.length === 0) return [];
  const rows = await manager.query<DueRow[]>(
    `SELECT driveId, name, kind, text, belt, day, odometer AS dueOdometer, unit, source, plusMinus, expected
     FROM due WHERE driveId IN (?) AND (expected <= ? OR expected = ?) ORDER BY expected, id`,
    [ids, listedUntil(today()), NO_DAY],
  );
  return rows.map((row) => ({ driveId: row.driveId, due: dueOf(row) }));
}

type LifeRow = Omit<BeltOn, 'id'> & { id: string };

/** The sections of one kind. */
const sectionsOf = (kind: BeltQuery['kind']) =>
  SECTIONS.filter((section) => section.kind === kind).map(({ name }) => name);

async function pageOfBelts(manager: EntityManager, { search, limit, offset }: Page): Promise<BeltsOnPage> {
  const query = readBeltQuery(search);
  const asked: [string, unknown][] = [];
  if (query.ribs !== null) asked.push(['belt_life.ribs = ?', query.ribs]);
  if (query.section !== null) asked.push(['belt_life.section = ?', query.section]);
  if (query.kind !== null) asked.push(['belt_life.section IN (?)', sectionsOf(query.kind)]);
  if (query.overKm !== null) asked.push(['belt_life.ranKm >= ?', query.overKm]);
  if (query.underKm !== null) asked.push(['belt_life.ranKm <= ?', query.underKm]);
  if (query.overDays !== null)
    asked.push(['belt_life.fromAt <= ?', new Date(Date.now() - query.overDays * 86_400_000)]);
  for (const word of query.words.slice(0, MOST_WORDS)) asked.push(['belt_life.text LIKE ?', foldedAnywhere(word)]);
  const where = whereOf(['belt_life.isOn = 1', ...asked.map(([condition]) => condition)]);
  const values = asked.map(([, value]) => value);
  const total = await totalOf(manager, `belt_life ${where}`, values);
  const rows = await manager.query<LifeRow[]>(
    `SELECT belt_life.id, belt_life.belt, belt_life.section, belt_life.ribs, belt_life.kind, belt_life.lengthMm,
       belt_life.number, belt_life.fromAt AS fittedAt, belt_life.fromOdometer AS fittedOdometer, belt_life.unit,
       belt_life.ranKm, ${WHOSE}
     FROM belt_life ${joinWhose('belt_life')} ${where} ORDER BY belt_life.ranKm DESC, belt_life.id LIMIT ? OFFSET ?`,
    [...values, limit, offset],
  );
  return {
    belts: rows.map((row) => {
      const { belt, section, ribs, kind, lengthMm, number, fittedAt, fittedOdometer, unit, ranKm } = row;
      const own = { belt, section, ribs, kind, lengthMm, number, fittedAt, fittedOdometer, unit, ranKm };
      return { id: Number(row.id), ...own, ...whoseOf(row) };
    }),
    total,
    understood: queryWords(query),
  };
}

const BELT_COLUMNS = [
  'vehicle',
  'plate',
  'drive',
  'belt',
  'length mm',
  'number',
  'fitted',
  'at odometer',
  'odometer unit',
  'ran km',
];
const beltCells = (belt: BeltOn): (string | number)[] => [
  ...[belt.vehicleName, belt.plate, belt.driveName, belt.kind, belt.lengthMm ?? '', belt.number ?? ''],
  belt.fittedAt === null ? '' : new Date(belt.fittedAt).toISOString().slice(0, 10),
  ...[belt.fittedOdometer ?? '', belt.fittedOdometer === null ? '' : (belt.unit ?? belt.odometerUnit)],
  belt.ranKm === null ? '' : Math.round(belt.ranKm),
];

/** How long belts last: of one kind, of all where none is named. */
async function livesOf(manager: EntityManager, kind: string | null): Promise<LivesAnswer> {
  const kinds = await manager.query<{ kind: string; belts: string; ended: string }[]>(
    `SELECT kind, COUNT(*) AS belts, SUM(isOn = 0 AND why <> 'in-passing') AS ended FROM belt_life
     WHERE ranKm IS NOT NULL GROUP BY kind ORDER BY belts DESC, kind LIMIT 200`,
  );
  // To the whole km, so that a large shop's belts come together.
  const lives = await manager.query<{ km: string; ended: string; belts: string }[]>(
    `SELECT ROUND(ranKm) AS km, (isOn = 0 AND why <> 'in-passing') AS ended, COUNT(*) AS belts FROM belt_life
     WHERE ranKm IS NOT NULL ${kind === null ? '' : 'AND kind = ?'} GROUP BY km, ended`,
    kind === null ? [] : [kind],
  );
  return {
    kinds: kinds.map((one) => ({ kind: one.kind, belts: Number(one.belts), ended: Number(one.ended) })),
    kind,
    survival: survivalOf(
      lives.map(({ km, ended, belts }) => ({ km: Number(km), ended: Number(ended) === 1, count: Number(belts) })),
    ),
  };
}

/** So few found that they are put in order once all are found. */
const FEW = 2000;

async function totalOf(manager: EntityManager, from: string, values: readonly unknown[]): Promise<number> {
  const [counted] = await manager.query<{ total: string }[]>(`SELECT COUNT(*) AS total FROM ${from}`, [...values]);
  return Number(counted!.total);
}

type RecordRow = Omit<RecordListed, 'id' | 'pictures'> & { id: string; pictures: string | null };

async function pageOfRecords(
  manager: EntityManager,
  { search, limit, offset }: Page,
  vehicleId: string | null,
): Promise<RecordPage> {
  const words = allWords(wordsIn(search), foldedAnywhere, 'record.text');
  const where = whereOf([...(vehicleId === null ? [] : ['record.vehicleId = ?']), ...words.conditions]);
  const values = [...(vehicleId === null ? [] : [vehicleId]), ...words.values];
  // Few are found by one walk through them all, and put in order afterwards; many by going down the days.
  const found =
    values.length === 0
      ? null
      : await manager.query<{ id: string }[]>(
          `SELECT id FROM record IGNORE INDEX (record_recent) ${where} LIMIT ${FEW + 1}`,
          values,
        );
  const few = found !== null && found.length <= FEW ? found.map(({ id }) => id) : null;
  const total = few ? few.length : await totalOf(manager, `record ${where}`, values);
  const chosen = few ? `WHERE id IN (${few.length === 0 ? 'NULL' : '?'})` : where;
  const rows = await manager.query<RecordRow[]>(
    `SELECT record.id, record.jobId, record.kind, record.at, record.odometer AS readingAt, record.unit, record.belt,
       record.title, record.detail, record.pictures, ${WHOSE}
     FROM (SELECT id FROM record ${chosen} ORDER BY record.at DESC, record.id DESC LIMIT ? OFFSET ?) AS page
     JOIN record ON record.id = page.id ${joinWhose('record')} ORDER BY record.at DESC, record.id DESC`,
    [...(few ? (few.length === 0 ? [] : [few]) : values), limit, offset],
  );
  return {
    records: rows.map((row) => {
      const { jobId, kind, at, readingAt, unit, belt, title, detail, pictures } = row;
      const own = { jobId, kind, at, readingAt, unit, belt, title, detail };
      return {
        ...{ id: Number(row.id), ...own, pictures: pictures === null ? [] : (JSON.parse(pictures) as never) },
        ...whoseOf(row),
      };
    }),
    total,
  };
}

const recordCells = (record: RecordListed): (string | number)[] => [
  ...[record.vehicleName, record.plate, record.at === null ? '' : new Date(record.at).toISOString().slice(0, 10)],
  ...[record.readingAt ?? '', record.readingAt === null ? '' : (record.unit ?? record.odometerUnit)],
  ...[record.driveName, record.kind, record.title, record.detail],
];
