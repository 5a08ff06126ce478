import { forgetDraft, leftDrafts, openDraftStore } from './draft-store';
import { newDrive } from '@emery/core/drive';

const held = (...names: string[]) =>
  Object.defineProperty(navigator, 'locks', {
    configurable: true,
    value: { query: () => Promise.resolve({ held: names.map((name) => ({ name })) }) },
  });
const draft = (name: string, at: string) => ({ revision: 3, document: newDrive(name), at });

beforeEach(() => {
  localStorage.clear();
  held();
});

test('a draft left by a page that is gone is found, and stays until it is let go', async () => {
  openDraftStore('drive', 'page-a').write(draft('left', '2026-01-01T10:00:00Z'));
  const [left] = await leftDrafts('drive');
  expect(left).toMatchObject({ revision: 3, document: { name: 'left' } });
  expect(await leftDrafts('drive')).toHaveLength(1);
  forgetDraft(left!.key);
  expect(await leftDrafts('drive')).toEqual([]);
});

test('a page that lives keeps its own', async () => {
  openDraftStore('drive', 'page-a').write(draft('still open', '2026-01-01T10:00:00Z'));
  held('emery-draft:page-a');
  expect(await leftDrafts('drive')).toEqual([]);
  expect(localStorage).toHaveLength(1);
});

test('all that were left are found, newest first, and those of other drives are not', async () => {
  openDraftStore('drive', 'page-a').write(draft('older', '2026-01-01T10:00:00Z'));
  openDraftStore('drive', 'page-b').write(draft('newer', '2026-01-01T11:00:00Z'));
  openDraftStore('other', 'page-a').write(draft('other', '2026-01-01T12:00:00Z'));
  expect((await leftDrafts('drive')).map(({ document }) => document.name)).toEqual(['newer', 'older']);
  expect((await leftDrafts('other')).map(({ document }) => document.name)).toEqual(['other']);
});

test('an acknowledged draft is cleared, and rubbish in the storage is no draft', async () => {
  const store = openDraftStore('drive', 'page-a');
  store.write(draft('done', '2026-01-01T10:00:00Z'));
  store.clear();
  localStorage.setItem('emery-draft:drive:page-b', '{"revision":"x"');
  localStorage.setItem('emery-draft:drive:page-c', '{"revision":1,"document":{}}');
  expect(await leftDrafts('drive')).toEqual([]);
});

test('a full or forbidden storage is told, not thrown, and what was kept before stays', async () => {
  const store = openDraftStore('drive', 'page-a');
  expect(store.write(draft('kept', '2026-01-01T10:00:00Z'))).toBe(true);
  const full = jest.spyOn(Storage.prototype, 'setItem').mockImplementation(() => {
    throw new DOMException('full', 'QuotaExceededError');
  });
  expect(store.write(draft('not kept', '2026-01-01T10:00:01Z'))).toBe(false);
  full.mockRestore();
  expect((await leftDrafts('drive')).map(({ document }) => document.name)).toEqual(['kept']);
  const forbidden = jest.spyOn(globalThis, 'localStorage', 'get').mockImplementation(() => {
    throw new DOMException('no', 'SecurityError');
  });
  expect(openDraftStore('drive', 'page-a').write(draft('nowhere', '2026-01-01T10:00:00Z'))).toBe(false);
  expect(await leftDrafts('drive')).toEqual([]);
  forbidden.mockRestore();
});
