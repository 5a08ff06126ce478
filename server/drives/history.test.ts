import { randomUUID } from 'node:crypto';
import fc from 'fast-check';
import { DEMO } from '../../core/test/demo';
import { draws } from '../../core/test/draws';
import { running, type Running } from '../test/running';
import { EVERY_DAYS, thinPast } from './history';

let shop: Running;
beforeAll(async () => {
  shop = await running('empty');
});
afterAll(() => shop.stop());

const DAY_MS = 86_400_000;
const rename = (id: string, revision: number, was: string, now: string) =>
  shop.ask('PATCH', `/drives/${id}`, {
    ...{ revision, saveId: randomUUID(), by: 'Ann' },
    changes: [{ at: ['name'], was, now }],
  });

async function drawn(name: string): Promise<string> {
  const answer = await shop.ask('POST', '/drives', { document: { ...DEMO.groomer, name } });
  expect(answer.status).toBe(201);
  return answer.body.id as string;
}

test('every version that was saved is listed with who and when, and opens as it was', async () => {
  const id = await drawn('One');
  for (const [k, [was, now]] of [
    ['One', 'Two'],
    ['Two', 'Three'],
  ].entries())
    expect((await rename(id, k + 1, was!, now!)).status).toBe(200);
  const { versions, more } = (await shop.ask('GET', `/drives/${id}/past`)).body;
  expect(more).toBe(false);
  expect(versions.map(({ revision, by }: { revision: number; by: string }) => [revision, by])).toEqual([
    [3, 'Ann'],
    [2, 'Ann'],
    [1, ''],
  ]);
  const now = (await shop.ask('GET', `/drives/${id}`)).body.document;
  for (const [revision, name] of [
    [1, 'One'],
    [2, 'Two'],
    [3, 'Three'],
  ] as const) {
    const past = (await shop.ask('GET', `/drives/${id}/past/${revision}`)).body;
    expect(past).toMatchObject({ revision, at: versions[3 - revision].at });
    expect(past.document).toEqual({ ...now, name });
  }
  expect((await shop.ask('GET', `/drives/${id}/past?before=3`)).body.versions).toHaveLength(2);
});

test('a version that is not kept, and a number that is none, are refused by name', async () => {
  const id = await drawn('Alone');
  expect(await shop.ask('GET', `/drives/${id}/past/9`)).toMatchObject({ status: 404 });
  expect(await shop.ask('GET', `/drives/${randomUUID()}/past/1`)).toMatchObject({ status: 404 });
  for (const text of ['0', '-1', '1.5', 'x', '99999999999'])
    expect(await shop.ask('GET', `/drives/${id}/past/${text}`)).toMatchObject({ status: 422 });
});

test('a drive that was copied, and one of a shop from before, has the version that it begins with', async () => {
  const id = await drawn('Long ago');
  const copy = (await shop.ask('POST', `/drives/${id}/duplicate`)).body.id as string;
  expect((await shop.ask('GET', `/drives/${copy}/past`)).body.versions).toHaveLength(1);
  const past = (await shop.ask('GET', `/drives/${copy}/past/1`)).body;
  expect(past.document.name).toBe('Long ago copy');
});

/** What is left of versions saved at these moments, by the rule as people know it: written apart from the query. */
function expected(moments: readonly number[], now: number): number[] {
  const old = (at: number) => at < now - EVERY_DAYS * DAY_MS;
  const day = (at: number) => new Date(at).toDateString();
  return moments.filter((at, k) => !old(at) || k === moments.length - 1 || day(moments[k + 1]!) !== day(at));
}

test('every version stays for ninety days, and the last of each day after, however often it is thinned', async () => {
  const now = Date.now();
  await fc.assert(
    fc.asyncProperty(
      fc.array(fc.integer({ min: 0, max: 200 * 24 }), { minLength: 1, maxLength: 40 }),
      fc.integer({ min: 1, max: 3 }),
      async (hours, times) => {
        const id = await drawn('Worked on');
        await shop.data.query('DELETE FROM drive_version WHERE driveId = ?', [id]);
        const moments = [...new Set(hours)].sort((a, b) => b - a).map((hour) => now - hour * 3_600_000 - 1800_000);
        await shop.data.query(
          'INSERT INTO drive_version (driveId, revision, saveId, at, savedBy, asked, past) VALUES ?',
          [moments.map((at, k) => [id, k + 1, randomUUID(), new Date(at), '', '', Buffer.from('x')])],
        );
        for (let k = 0; k < times; k += 1) while (await thinPast(shop.data, now));
        const left = await shop.data.query<{ at: Date }[]>(
          'SELECT at FROM drive_version WHERE driveId = ? ORDER BY revision',
          [id],
        );
        expect(left.map(({ at }) => at.getTime())).toEqual(expected(moments, now));
      },
    ),
    { numRuns: draws(64) },
  );
});

test('a drive that is saved without end keeps a bounded number of versions, the latest of them all', async () => {
  const id = await drawn('Saved without end');
  const from = Date.now() - 1500 * 60_000;
  await shop.data.query('INSERT INTO drive_version (driveId, revision, saveId, at, savedBy, asked, past) VALUES ?', [
    Array.from({ length: 1400 }, (_, k) => [
      id,
      k + 2,
      randomUUID(),
      new Date(from + k * 60_000),
      '',
      '',
      Buffer.from('x'),
    ]),
  ]);
  while (await thinPast(shop.data));
  const rows = await shop.data.query<{ revision: number }[]>(
    'SELECT revision FROM drive_version WHERE driveId = ? ORDER BY revision DESC',
    [id],
  );
  expect(rows.length).toBeLessThan(1010);
  expect(rows.slice(0, 1000).map(({ revision }) => revision)).toEqual(Array.from({ length: 1000 }, (_, k) => 1401 - k));
});
