import { bringIn, broughtInWords, type BroughtIn } from './read-files';

const asked: { path: string; body: unknown; type: string | undefined }[] = [];
const came = (drives: number, there = 0): BroughtIn => ({
  drives: Array<object>(drives).fill({}),
  vehicles: 0,
  pictures: 0,
  belts: 0,
  pulleys: 0,
  jobs: 0,
  there,
});
let signal: AbortSignal;

beforeEach(() => {
  asked.length = 0;
  signal = new AbortController().signal;
  globalThis.fetch = async (path: unknown, init?: RequestInit) => {
    asked.push({
      path: String(path),
      body: init?.body,
      type: (init?.headers as Record<string, string> | undefined)?.['content-type'],
    });
    return { ok: true, status: 201, text: () => Promise.resolve(JSON.stringify(came(1, 2))) } as Response;
  };
});
const file = (name: string, text: string) =>
  Object.assign(new File([text], name), { text: () => Promise.resolve(text) });

test('drive files go together, each archive by itself and as it is, whatever the case of its ending', async () => {
  const archive = file('Fleet.ZIP', 'PK');
  const brought = await bringIn([file('a.emery.json', '{}'), archive, file('b.emery.json', '[]')], signal);
  expect(asked.map(({ path }) => path)).toEqual(['/api/import', '/api/import/archive']);
  expect(JSON.parse(asked[0]!.body as string)).toEqual({
    files: [
      { name: 'a.emery.json', text: '{}' },
      { name: 'b.emery.json', text: '[]' },
    ],
  });
  expect(asked[1]).toMatchObject({ body: archive, type: 'application/zip' });
  expect(brought).toMatchObject({ drives: [{}, {}], there: 4 });
});

test('nothing to bring in, and too much at once, are told before anything is sent', async () => {
  await expect(bringIn([], signal)).rejects.toThrow('No .emery.json file and no archive among these files.');
  const large = file('large.emery.json', '');
  Object.defineProperty(large, 'size', { value: 21_000_000 });
  await expect(bringIn([large], signal)).rejects.toThrow(/hold 21 MB together/);
  expect(asked).toEqual([]);
});

test('what came in is told in a sentence', () => {
  expect(broughtInWords({ ...came(1), vehicles: 2, belts: 1200 })).toBe('1 drive, 2 vehicles, 1,200 belts');
  expect(broughtInWords({ ...came(0, 1) })).toBe('Nothing new; 1 drive was here already');
});
