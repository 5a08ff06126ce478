import { forgetDraft, isOldDraft, type LeftDraft, leftDrafts, openDraftStore } from './draft-store';
import { newDrive } from '@emery/core/drive';

const held = (...names: string[]) =>
  Object.defineProperty(navigator, 'locks', {
    configurable: true,
    value: { query: () => Promise.resolve({ held: names.map((name) => ({ name })) }) },
  });
const draft = (name: string, at: string) => ({
  kept: { revision: 3, sent: null, changes: [{ at: ['name'], now: name }], questions: [] },
  at,
});
const nameIn = (left: LeftDraft) =>
  isOldDraft(left)
    ? left.document.name
    : left.kept.changes.flatMap((change) => ('now' in change ? [change.now] : []))[0];

beforeEach(() => {
  localStorage.clear();
  held();
});

test('a draft left by a page that is gone is found, and stays until it is let go', async () => {
  openDraftStore('drive', 'page-a').write(draft('left', '2026-01-01T10:00:00Z'));
  const [left] = await leftDrafts('drive');
  expect(left).toMatchObject({ kept: { revision: 3, changes: [{ now: 'left' }] } });
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
  expect((await leftDrafts('drive')).map(nameIn)).toEqual(['newer', 'older']);
  expect((await leftDrafts('other')).map(nameIn)).toEqual(['other']);
});

test('an acknowledged draft is cleared, and rubbish in the storage is no draft', async () => {
  const store = openDraftStore('drive', 'page-a');
  store.write(draft('done', '2026-01-01T10:00:00Z'));
  store.clear();
  localStorage.setItem('emery-draft:drive:page-b', '{"revision":"x"');
  localStorage.setItem('emery-draft:drive:page-c', '{"revision":1,"document":{}}');
  localStorage.setItem('emery-draft:drive:page-d', '{"kept":{"revision":1,"changes":[{}]},"at":"2026"}');
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
  expect((await leftDrafts('drive')).map(nameIn)).toEqual(['kept']);
  const forbidden = jest.spyOn(globalThis, 'localStorage', 'get').mockImplementation(() => {
    throw new DOMException('no', 'SecurityError');
  });
  expect(openDraftStore('drive', 'page-a').write(draft('nowhere', '2026-01-01T10:00:00Z'))).toBe(false);
  expect(await leftDrafts('drive')).toEqual([]);
  forbidden.mockRestore();
});

test('one that an older Emery wrote, the drive as a whole, is found as such', async () => {
  const old = { revision: 2, document: newDrive('old'), at: '2026-01-01T10:00:00Z' };
  localStorage.setItem('emery-draft:drive:page-a', JSON.stringify(old));
  const left = await leftDrafts('drive');
  expect(left.map((draft) => [isOldDraft(draft), nameIn(draft)])).toEqual([[true, 'old']]);
});
