import { Router } from 'express';
import papaparse from 'papaparse';
import { boolean } from '../http/fields';
import type { DataSource, EntityManager } from 'typeorm';
import { pageOf, type Page } from '../http/listing';
import { bodyOf, notFound } from '../http/problem';
import { rowsBody } from '../http/rows-body';
import { sendFile } from '../http/send-file';
import { inSnapshot } from '../storage/snapshot';
import { Vehicle } from '../vehicles/entity';
import { foldedAnywhere } from '../vehicles/folded';
import { lookAtHistory, MOST_HISTORY_ROWS, takeHistory } from './history';
import { pageOfDues } from './page-of-dues';
import { sendCalendar } from './send-calendar';
import { allWords, joinWhose, MOST_WORDS, WHOSE, whoseOf, wordsIn } from './whose';
import type { BeltOn, BeltsOnPage, GrowthAnswer, LivesAnswer, RecordListed, RecordPage } from '@emery/core/api';
import { csvCell, DAY_MS } from '@emery/core/quantity';
import { type BeltQuery, queryWords, readBeltQuery, STORY_COLUMNS, survivalOf } from '@emery/core/records';
import { type Section, SECTIONS } from '@emery/core/section';
import { learnedGrowth, MOST_SITTINGS, type Sitting } from '@emery/core/size';
import { today } from './dues';

const historyBody = rowsBody(MOST_HISTORY_ROWS).shape({ look: boolean() });

/** What is due, what happened, which belts are on and how long they last: over all vehicles, or of one. */
export function recordRoutes(data: DataSource): Router {
  const router = Router();

  router.get('/due', async (request, response) => {
    response.json(await pageOfDues(data.manager, pageOf(request), today()));
  });

  router.get('/due.ics', async (request, response) => {
    await sendCalendar(data.manager, request, response);
  });

  router.get('/belts', async (request, response) => {
    response.json(await pageOfBelts(data.manager, pageOf(request)));
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

  router.get('/growth', async (request, response) => {
    const { section, not } = request.query;
    const known = SECTIONS.find(({ name }) => name === section);
    const answer: GrowthAnswer = {
      growth: known ? await growthOf(data.manager, known, typeof not === 'string' ? not : '') : null,
    };
    response.json(answer);
  });

  router.get('/', async (request, response) => {
    const { vehicle } = request.query;
    response.json(
      await pageOfRecords(data.manager, pageOf(request, 1000), typeof vehicle === 'string' ? vehicle : null),
    );
  });

  fileRoutes(router, data);
  return router;
}

/** The belts that are on, and the records, as files. */
function fileRoutes(router: Router, data: DataSource): void {
  router.get('/belts.csv', async (request, response) => {
    const belts = inSnapshot(data, (manager) => allBelts(manager, pageOf(request).search));
    await sendFile(response, { name: 'emery-belts-on.csv', type: 'text/csv' }, csvOf(BELT_COLUMNS, belts, beltCells));
  });

  router.get('/belts.json', async (request, response) => {
    const belts = inSnapshot(data, (manager) => allBelts(manager, pageOf(request).search));
    await sendFile(response, { name: 'emery-belts-on.json', type: 'json' }, jsonOf('belts', belts));
  });

  for (const type of ['csv', 'json'] as const)
    router.get(`/file.${type}`, async (request, response) => {
      const asked = request.query['vehicle'];
      const vehicle = typeof asked === 'string' ? await data.manager.findOneBy(Vehicle, { id: asked }) : null;
      if (typeof asked === 'string' && (!vehicle || vehicle.deletedAt)) throw notFound('vehicle');
      const records = inSnapshot(data, (manager) => allRecords(manager, pageOf(request).search, vehicle?.id ?? null));
      await sendFile(
        response,
        { name: `emery-records.${type}`, type: type === 'json' ? 'json' : 'text/csv' },
        type === 'json'
          ? jsonOf('records', records)
          : csvOf(['vehicle', 'plate', ...STORY_COLUMNS], records, recordCells),
      );
    });
}

/** By all drives but one: what is read of that itself is weighed there. */
async function growthOf(manager: EntityManager, { name, kind }: Section, not: string) {
  const rows = await manager.query<{ sitting: string }[]>(
    `SELECT sitting FROM belt_life FORCE INDEX (life_sat) WHERE sat = ? AND driveId <> ?
     ORDER BY id DESC LIMIT ${MOST_SITTINGS}`,
    [name, not],
  );
  const sittings = rows.flatMap(({ sitting }) => JSON.parse(sitting) as Sitting[]);
  return learnedGrowth(kind, sittings);
}

/** Rows read, and written, between two looks at what else is asked of the server. */
const PAGE = 200;

/** Rows as CSV, as they come. */
async function* csvOf<T>(
  columns: readonly string[],
  pages: AsyncGenerator<readonly T[]>,
  cellsOf: (row: T) => (string | number)[],
): AsyncGenerator<string> {
  // The head goes with the first of them: until there is one, what goes wrong can still be told.
  let head = papaparse.unparse([[...columns]]);
  for await (const rows of pages) {
    const cells = rows.map((row) => cellsOf(row).map((cell) => (typeof cell === 'string' ? csvCell(cell) : cell)));
    yield `${head}\r\n${papaparse.unparse(cells)}`;
    head = '';
  }
  if (head !== '') yield head;
}

/** Rows as one JSON object with a list in it, as they come. */
async function* jsonOf(what: string, pages: AsyncGenerator<readonly object[]>): AsyncGenerator<string> {
  let before = `{"${what}":[`;
  for await (const rows of pages) {
    yield before + rows.map((row) => JSON.stringify(row)).join(',');
    before = ',';
  }
  yield before === ',' ? ']}' : `${before}]}`;
}

const whereOf = (conditions: readonly string[]) => (conditions.length === 0 ? '' : `WHERE ${conditions.join(' AND ')}`);

type LifeRow = Omit<BeltOn, 'id'> & { id: string };

/** The sections of one kind. */
const sectionsOf = (kind: BeltQuery['kind']) =>
  SECTIONS.filter((section) => section.kind === kind).map(({ name }) => name);

/** What is asked of the belts that are on. All of it stands in the index that the list goes by. */
function beltsAsked(search: string): { query: BeltQuery; from: string; where: string; values: unknown[] } {
  const query = readBeltQuery(search);
  const asked: [string, unknown][] = [];
  if (query.ribs !== null) asked.push(['ribs = ?', query.ribs]);
  if (query.section !== null) asked.push(['section = ?', query.section]);
  if (query.kind !== null) asked.push(['section IN (?)', sectionsOf(query.kind)]);
  if (query.overKm !== null) asked.push(['ranKm >= ?', query.overKm]);
  if (query.underKm !== null) asked.push(['ranKm <= ?', query.underKm]);
  if (query.overDays !== null) asked.push(['fromAt <= ?', new Date(Date.now() - query.overDays * DAY_MS)]);
  for (const word of query.words.slice(0, MOST_WORDS)) asked.push(['text LIKE ?', foldedAnywhere(word)]);
  return {
    query,
    from: `belt_life FORCE INDEX (${asked.length === 0 ? 'life_on' : 'life_listed'})`,
    where: whereOf(['isOn = 1', ...asked.map(([condition]) => condition)]),
    values: asked.map(([, value]) => value),
  };
}

/** Belts of the list by what chooses them: their rows are looked at once it is known which they are. */
async function beltsChosen(manager: EntityManager, chosen: string, values: readonly unknown[]): Promise<BeltOn[]> {
  const rows = await manager.query<LifeRow[]>(
    `SELECT belt_life.id, belt_life.belt, belt_life.section, belt_life.ribs, belt_life.kind, belt_life.lengthMm,
       belt_life.number, belt_life.fromAt AS fittedAt, belt_life.fromOdometer AS fittedOdometer, belt_life.unit,
       belt_life.ranKm, ${WHOSE}
     FROM (SELECT id FROM ${chosen}) AS page
     STRAIGHT_JOIN belt_life ON belt_life.id = page.id ${joinWhose('belt_life')}
     ORDER BY belt_life.ranKm DESC, belt_life.id DESC`,
    [...values],
  );
  return rows.map((row) => {
    const { belt, section, ribs, kind, lengthMm, number, fittedAt, fittedOdometer, unit, ranKm } = row;
    const own = { belt, section, ribs, kind, lengthMm, number, fittedAt, fittedOdometer, unit, ranKm };
    return { id: Number(row.id), ...own, ...whoseOf(row) };
  });
}

async function pageOfBelts(manager: EntityManager, { search, limit, offset }: Page): Promise<BeltsOnPage> {
  const { query, from, where, values } = beltsAsked(search);
  return {
    total: await totalOf(manager, `${from} ${where}`, values),
    belts: await beltsChosen(manager, `${from} ${where} ORDER BY ranKm DESC, id DESC LIMIT ? OFFSET ?`, [
      ...values,
      limit,
      offset,
    ]),
    understood: queryWords(query),
  };
}

/** All of them, a page at a time, each going on where the last one ended. */
async function* allBelts(manager: EntityManager, search: string): AsyncGenerator<BeltOn[]> {
  const { from, where, values } = beltsAsked(search);
  for (let after: [string, unknown[]] = ['', []]; ;) {
    const [condition, cut] = after;
    const chosen = `${from} ${where} ${condition} ORDER BY ranKm DESC, id DESC LIMIT ${PAGE}`;
    const page = await beltsChosen(manager, chosen, [...values, ...cut]);
    if (page.length > 0) yield page;
    if (page.length < PAGE) return;
    after = behind('ranKm', page.at(-1)!.ranKm, page.at(-1)!.id);
  }
}

/** What comes behind a row in a list that falls by a column and then by id; what has no such figure comes last. */
function behind(column: string, value: unknown, id: number): [string, unknown[]] {
  return value === null
    ? [`AND ${column} IS NULL AND id < ?`, [id]]
    : [`AND (${column} < ? OR (${column} = ? AND id < ?) OR ${column} IS NULL)`, [value, value, id]];
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
    kinds: kinds.map((kind) => ({ kind: kind.kind, belts: Number(kind.belts), ended: Number(kind.ended) })),
    kind,
    survival: survivalOf(
      lives.map(({ km, ended, belts }) => ({ km: Number(km), ended: Number(ended) === 1, count: Number(belts) })),
    ),
  };
}

async function totalOf(manager: EntityManager, from: string, values: readonly unknown[]): Promise<number> {
  const [counted] = await manager.query<{ total: string }[]>(`SELECT COUNT(*) AS total FROM ${from}`, [...values]);
  return Number(counted!.total);
}

type RecordRow = Omit<RecordListed, 'id' | 'pictures'> & { id: string; pictures: string | null };

/** What is asked of the story: of one vehicle by its own few, of the shop by the index that the list goes by. */
function recordsAsked(search: string, vehicleId: string | null): { from: string; where: string; values: unknown[] } {
  const words = allWords(wordsIn(search), foldedAnywhere, 'text');
  const inWhole = words.values.length === 0 ? 'record_recent' : 'record_listed';
  return {
    from: `record FORCE INDEX (${vehicleId !== null ? 'record_of_vehicle' : inWhole})`,
    where: whereOf([...(vehicleId === null ? ['TRUE'] : ['vehicleId = ?']), ...words.conditions]),
    values: [...(vehicleId === null ? [] : [vehicleId]), ...words.values],
  };
}

/** Entries of the story by what chooses them: their rows are looked at once it is known which they are. */
async function recordsChosen(
  manager: EntityManager,
  chosen: string,
  values: readonly unknown[],
): Promise<RecordListed[]> {
  const rows = await manager.query<RecordRow[]>(
    `SELECT record.id, record.jobId, record.kind, record.at, record.odometer AS readingAt, record.unit, record.belt,
       record.title, record.detail, record.pictures, ${WHOSE}
     FROM (SELECT id FROM ${chosen}) AS page STRAIGHT_JOIN record ON record.id = page.id ${joinWhose('record')}
     ORDER BY record.at DESC, record.id DESC`,
    [...values],
  );
  return rows.map((row) => {
    const { jobId, kind, at, readingAt, unit, belt, title, detail, pictures } = row;
    const own = { jobId, kind, at, readingAt, unit, belt, title, detail };
    const kept = pictures === null ? [] : (JSON.parse(pictures) as RecordListed['pictures']);
    return { id: Number(row.id), ...own, pictures: kept, ...whoseOf(row) };
  });
}

async function pageOfRecords(
  manager: EntityManager,
  { search, limit, offset }: Page,
  vehicleId: string | null,
): Promise<RecordPage> {
  const { from, where, values } = recordsAsked(search, vehicleId);
  return {
    records: await recordsChosen(manager, `${from} ${where} ORDER BY at DESC, id DESC LIMIT ? OFFSET ?`, [
      ...values,
      limit,
      offset,
    ]),
    total: await totalOf(manager, `${from} ${where}`, values),
  };
}

/** All of them, a page at a time, each going on where the last one ended. */
async function* allRecords(
  manager: EntityManager,
  search: string,
  vehicleId: string | null,
): AsyncGenerator<RecordListed[]> {
  const { from, where, values } = recordsAsked(search, vehicleId);
  for (let after: [string, unknown[]] = ['', []]; ;) {
    const [condition, cut] = after;
    const page = await recordsChosen(manager, `${from} ${where} ${condition} ORDER BY at DESC, id DESC LIMIT ${PAGE}`, [
      ...values,
      ...cut,
    ]);
    if (page.length > 0) yield page;
    if (page.length < PAGE) return;
    after = behind('at', page.at(-1)!.at, page.at(-1)!.id);
  }
}

const recordCells = (record: RecordListed): (string | number)[] => [
  ...[record.vehicleName, record.plate, record.at === null ? '' : new Date(record.at).toISOString().slice(0, 10)],
  ...[record.readingAt ?? '', record.readingAt === null ? '' : (record.unit ?? record.odometerUnit)],
  ...[record.driveName, record.kind, record.title, record.detail],
];
