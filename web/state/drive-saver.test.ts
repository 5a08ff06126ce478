import { ApiProblem } from '../api/client';
import { DriveSaver } from './drive-saver';
import type { Draft } from './draft-store';
import { type Drive, newDrive } from '@emery/core/drive';
import { merged, changesBetween, type Patch, type PatchAnswer, startDevice, type Version } from '@emery/core/together';

Object.defineProperty(globalThis, 'crypto', { value: { randomUUID: () => `id-${Math.random()}` } });

const drawn = (name: string): Drive => newDrive(name);
const until = async (holds: () => boolean) => {
  for (let tries = 0; tries < 400 && !holds(); tries += 1) await new Promise((resolve) => setTimeout(resolve, 5));
  expect(holds()).toBe(true);
};

/** A server of one drive that saves as the real one does, and can be told to fail before or after it has written. */
function setUp({ atFieldSince = () => null as number | null } = {}) {
  const server = {
    revision: 1,
    document: drawn('start'),
    versions: [] as Version[],
    mode: 'up' as 'up' | 'down' | 'loses-answers' | 'refuses' | 'hangs-up',
    room: true,
    requests: [] as Patch[],
    /** Somebody else saves. */
    elsewhere: (document: Drive, by = 'Anna'): Version => take(changesBetween(server.document, document), 'other', by),
  };
  const take = (changes: Patch['changes'], saveId: string, by: string): Version => {
    const { drive, clashes } = merged(server.document, changes);
    lastClashes = clashes;
    const version = {
      revision: server.revision + 1,
      changes: changesBetween(server.document, drive),
      by,
      at: '',
      saveId,
    };
    if (version.changes.length === 0) return version;
    Object.assign(server, { revision: version.revision, document: drive });
    server.versions.push(version);
    return version;
  };
  let lastClashes: PatchAnswer['clashes'] = [];
  let draft: Draft | null = null;
  const since = (after: number) => server.versions.filter(({ revision }) => revision > after);
  const send = async (patch: Patch): Promise<PatchAnswer> => {
    server.requests.push(patch);
    await Promise.resolve();
    if (server.mode === 'down') throw new ApiProblem(0, 'No answer', 'away');
    if (server.mode === 'hangs-up') throw new TypeError('terminated');
    if (server.mode === 'refuses') throw new ApiProblem(422, 'Not accepted', 'belts must be a list');
    if (!server.versions.some(({ saveId }) => saveId === patch.saveId)) take(patch.changes, patch.saveId, '');
    if (server.mode === 'loses-answers') throw new ApiProblem(0, 'No answer', 'lost');
    return {
      ...{ revision: server.revision, updatedAt: '2026-01-01T10:00:00Z', since: since(patch.revision) },
      clashes: lastClashes,
    };
  };
  const screen = { present: drawn('start'), told: [] as Version[] };
  const saver: DriveSaver = new DriveSaver({
    device: startDevice(1, server.document),
    draft: {
      write: (d) => {
        if (server.room) draft = d;
        return server.room;
      },
      clear: () => (draft = null),
    },
    send,
    read: (after) => Promise.resolve({ revision: server.revision, updatedAt: '', since: since(after) }),
    merged: (drive, versions) => {
      screen.present = drive;
      screen.told.push(...versions);
    },
    decided: (drive) => saver.change((screen.present = drive)),
    atFieldSince,
    gather: 5,
    still: 20,
    retry: { first: 10, max: 20 },
  });
  const change = (document: Drive) => saver.change((screen.present = document));
  const all = { server, saver, screen, change, draft: () => draft };
  return { ...all, saved: () => saver.getState().kind === 'saved' && !saver.isDirty() };
}

test('a change is in the browser at once, on the server soon, and then no longer in the browser', async () => {
  const { server, change, draft, saved } = setUp();
  change(drawn('one'));
  expect(draft()).toMatchObject({ kept: { revision: 1, changes: [{ at: ['name'], now: 'one' }] } });
  await until(saved);
  expect(server.document.name).toBe('one');
  expect(draft()).toBeNull();
});

test('many changes in a row become few saves, and the last one stands', async () => {
  const { server, change, saved } = setUp();
  for (let k = 0; k < 50; k += 1) change(drawn(`change ${k}`));
  await until(saved);
  expect(server.document.name).toBe('change 49');
  expect(server.requests.length).toBeLessThan(4);
});

test('while the server is away the draft stays, and it is saved when the server is back', async () => {
  const { server, saver, change, draft, saved } = setUp();
  server.mode = 'down';
  change(drawn('kept'));
  await until(() => saver.getState().kind === 'waiting');
  change(drawn('kept and more'));
  expect(draft()).toMatchObject({
    kept: { sent: { changes: [{ now: 'kept' }] }, changes: [{ now: 'kept and more' }] },
  });
  server.mode = 'up';
  await until(saved);
  expect(server.document.name).toBe('kept and more');
});

test('a save whose answer was lost is no conflict with itself, even with newer changes waiting', async () => {
  const { server, change, saved } = setUp();
  server.mode = 'loses-answers';
  change(drawn('first'));
  await until(() => server.requests.length > 0);
  change(drawn('second'));
  await until(() => server.requests.length > 2);
  expect(new Set(server.requests.map(({ saveId }) => saveId)).size).toBe(1);
  server.mode = 'up';
  await until(saved);
  expect(server.document.name).toBe('second');
  expect(server.revision).toBe(3);
});

test('a browser that keeps no draft still has it sent; while it is unsent that is said, and closing the page would lose it', async () => {
  const { server, saver, change, draft, saved } = setUp();
  server.room = false;
  server.mode = 'down';
  change(drawn('in this page alone'));
  expect([saver.isKept(), saver.isAtRisk(), draft()]).toEqual([false, true, null]);
  server.mode = 'up';
  await until(saved);
  expect([server.document.name, saver.isKept(), saver.isAtRisk()]).toEqual(['in this page alone', true, false]);
});

test.each(['refuses', 'hangs-up'] as const)('a server that %s once is asked again by itself', async (mode) => {
  const { server, saver, change, saved } = setUp();
  server.mode = mode;
  change(drawn('kept'));
  await until(() => saver.getState().kind === (mode === 'refuses' ? 'refused' : 'waiting'));
  expect(saver.isAtRisk()).toBe(true);
  server.mode = 'up';
  await until(saved);
  expect(server.document.name).toBe('kept');
});

test('a listener that fails keeps the news from no other, and nothing from being sent', async () => {
  const { server, saver, change, saved } = setUp();
  const heard = jest.fn();
  const report = jest.fn();
  Object.defineProperty(globalThis, 'reportError', { configurable: true, value: report });
  saver.subscribe(() => {
    throw new Error('a fault on the screen');
  });
  saver.subscribe(heard);
  change(drawn('sent'));
  expect(heard).toHaveBeenCalled();
  await until(saved);
  expect(report).toHaveBeenCalled();
  expect(server.document.name).toBe('sent');
});

describe('a save from elsewhere', () => {
  const both = (name: string, crankRotation: 'cw' | 'ccw'): Drive => ({ ...drawn(name), crankRotation });

  test('of another field comes in, and nobody is asked', async () => {
    const { server, saver, screen, change, saved } = setUp();
    change(drawn('mine'));
    saver.hear(server.elsewhere(both('start', 'ccw')));
    await until(() => saved() && screen.present.crankRotation === 'ccw');
    expect(screen.present).toEqual(both('mine', 'ccw'));
    expect(server.document).toEqual(both('mine', 'ccw'));
    expect(saver.getQuestions()).toEqual([]);
    expect(screen.told.map(({ by }) => by)).toContain('Anna');
  });

  test('of the same field is asked about: theirs stands, mine is one answer away and survives the page', async () => {
    const { server, saver, screen, change, draft, saved } = setUp();
    server.elsewhere(drawn('theirs'));
    change(drawn('mine'));
    await until(saved);
    expect([server.document.name, screen.present.name]).toEqual(['theirs', 'theirs']);
    const [question] = saver.getQuestions();
    expect(question).toMatchObject({ by: 'Anna', why: 'changed', changes: [{ at: ['name'], now: 'mine' }] });
    // All is saved, and the question is kept all the same.
    expect(draft()?.kept).toMatchObject({ changes: [], questions: [question] });
    saver.answer(question!.id, 'mine');
    await until(() => server.document.name === 'mine');
    expect([screen.present.name, saver.getQuestions()]).toEqual(['mine', []]);
    await until(() => draft() === null);
  });

  test('theirs kept is nothing to send', async () => {
    const { server, saver, change, draft, saved } = setUp();
    server.elsewhere(drawn('theirs'));
    change(drawn('mine'));
    await until(saved);
    const before = server.requests.length;
    saver.answer(saver.getQuestions()[0]!.id, 'theirs');
    await new Promise((resolve) => setTimeout(resolve, 40));
    expect([server.requests.length, draft()]).toEqual([before, null]);
  });

  test('comes in once hands are still, and versions that were missed are asked for', async () => {
    const { server, saver, screen, change } = setUp();
    server.elsewhere(both('start', 'ccw'));
    const second = server.elsewhere({ ...both('start', 'ccw'), speeds: { idle: 700 } });
    change(drawn('typing'));
    saver.hear(second);
    expect(screen.present.crankRotation).toBe('cw');
    await until(() => screen.present.speeds?.idle === 700);
    expect(screen.present).toMatchObject({ name: 'typing', crankRotation: 'ccw' });
  });

  test('under the hands of somebody who writes in that field is asked about as well', async () => {
    let since: number | null = null;
    const { server, saver, screen, change, saved } = setUp({ atFieldSince: () => since });
    since = Date.now() - 1;
    saver.hear(server.elsewhere(drawn('theirs')));
    await until(() => screen.present.name === 'theirs');
    change({ ...screen.present, name: 'mine', crankRotation: 'ccw' });
    await until(saved);
    expect(server.document).toMatchObject({ name: 'theirs', crankRotation: 'ccw' });
    expect(saver.getQuestions()).toMatchObject([{ changes: [{ at: ['name'], now: 'mine' }] }]);
    since = Date.now() + 1;
    change({ ...screen.present, name: 'seen and changed' });
    await until(() => server.document.name === 'seen and changed');
    // One's own, saved while one writes on, is no change of somebody else.
    since = Date.now() - 1000;
    await until(saved);
    change({ ...screen.present, speeds: { idle: 7 } });
    await until(saved);
    change({ ...screen.present, speeds: { idle: 75 } });
    await until(() => saved() && server.document.speeds?.idle === 75);
  });

  test('while the server is away each works on, and both are one when it is back', async () => {
    const { server, saver, screen, change, saved } = setUp();
    server.mode = 'down';
    change({ ...drawn('a day out'), speeds: { idle: 650 } });
    await until(() => saver.getState().kind === 'waiting');
    server.elsewhere(both('start', 'ccw'));
    server.mode = 'up';
    saver.nudge();
    await until(saved);
    expect(server.document).toEqual({ ...both('a day out', 'ccw'), speeds: { idle: 650 } });
    expect(screen.present).toEqual(server.document);
  });
});
