import { newDrive } from '@emery/core/drive';
import { openDraftStore, takeLeftDraft } from './draft-store';

const held = (...names: string[]) => Object.defineProperty(navigator, 'locks', { configurable: true, value: { query: () => Promise.resolve({ held: names.map((name) => ({ name })) }) } });
const draft = (name: string, at: string) => ({ revision: 3, document: newDrive(name), at });

beforeEach(() => {
  localStorage.clear();
  held();
});

test('a draft left by a page that is gone is taken once', async () => {
  openDraftStore('drive', 'page-a').write(draft('left', '2026-01-01T10:00:00Z'));
  expect(await takeLeftDraft('drive')).toMatchObject({ revision: 3, document: { name: 'left' } });
  expect(await takeLeftDraft('drive')).toBeNull();
});

test('a page that lives keeps its own', async () => {
  openDraftStore('drive', 'page-a').write(draft('still open', '2026-01-01T10:00:00Z'));
  held('emery-draft:page-a');
  expect(await takeLeftDraft('drive')).toBeNull();
  expect(localStorage).toHaveLength(1);
});

test('of several the newest is taken, and drafts of other drives are left alone', async () => {
  openDraftStore('drive', 'page-a').write(draft('older', '2026-01-01T10:00:00Z'));
  openDraftStore('drive', 'page-b').write(draft('newer', '2026-01-01T11:00:00Z'));
  openDraftStore('other', 'page-a').write(draft('other', '2026-01-01T12:00:00Z'));
  expect((await takeLeftDraft('drive'))!.document.name).toBe('newer');
  expect((await takeLeftDraft('other'))!.document.name).toBe('other');
});

test('an acknowledged draft is cleared, and rubbish in the storage is no draft', async () => {
  const store = openDraftStore('drive', 'page-a');
  store.write(draft('done', '2026-01-01T10:00:00Z'));
  store.clear();
  localStorage.setItem('emery-draft:drive:page-b', '{"revision":"x"');
  localStorage.setItem('emery-draft:drive:page-c', '{"revision":1,"document":{}}');
  expect(await takeLeftDraft('drive')).toBeNull();
});
