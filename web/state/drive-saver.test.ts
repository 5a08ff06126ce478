import { ApiProblem } from '../api/client';
import { DriveSaver, type SaveRequest } from './drive-saver';
import type { Draft } from './draft-store';
import type { DriveOpened } from '@emery/core/api';
import { type Drive, newDrive } from '@emery/core/drive';

Object.defineProperty(globalThis, 'crypto', { value: { randomUUID: () => `id-${Math.random()}` } });

const drawn = (name: string): Drive => newDrive(name);
const until = async (holds: () => boolean) => {
  for (let tries = 0; tries < 400 && !holds(); tries += 1) await new Promise((resolve) => setTimeout(resolve, 5));
  expect(holds()).toBe(true);
};

/** A server of one drive that saves as the real one does, and can be told to fail before or after it has written. */
function setUp() {
  const server = {
    revision: 1,
    document: drawn('start'),
    saveId: '',
    mode: 'up' as 'up' | 'down' | 'loses-answers' | 'refuses' | 'hangs-up',
    room: true,
    requests: [] as SaveRequest[],
  };
  let draft: Draft | null = null;
  const send = async (request: SaveRequest) => {
    server.requests.push(request);
    await Promise.resolve();
    if (server.mode === 'down') throw new ApiProblem(0, 'No answer', 'away');
    if (server.mode === 'hangs-up') throw new TypeError('terminated');
    if (server.mode === 'refuses') throw new ApiProblem(422, 'Not accepted', 'belts must be a list');
    if (request.revision === server.revision)
      Object.assign(server, { revision: server.revision + 1, document: request.document, saveId: request.saveId });
    else if (request.saveId !== server.saveId) {
      throw new ApiProblem(409, 'Saved elsewhere', 'newer', [], {
        current: { revision: server.revision, document: server.document, updatedAt: '2026-01-01' },
      });
    }
    if (server.mode === 'loses-answers') throw new ApiProblem(0, 'No answer', 'lost');
    return { revision: server.revision, updatedAt: '2026-01-01T10:00:00Z' };
  };
  const saver = new DriveSaver({
    revision: 1,
    draft: {
      write: (d) => {
        if (server.room) draft = d;
        return server.room;
      },
      clear: () => (draft = null),
    },
    send,
    gather: 5,
    retry: { first: 10, max: 20 },
  });
  return { server, saver, draft: () => draft, saved: () => saver.getState().kind === 'saved' && !saver.isDirty() };
}

test('a change is in the browser at once, on the server soon, and then no longer in the browser', async () => {
  const { server, saver, draft, saved } = setUp();
  saver.change(drawn('one'));
  expect(draft()).toMatchObject({ revision: 1, document: { name: 'one' } });
  await until(saved);
  expect(server.document.name).toBe('one');
  expect(draft()).toBeNull();
});

test('many changes in a row become few saves, and the last one stands', async () => {
  const { server, saver, saved } = setUp();
  for (let k = 0; k < 50; k += 1) saver.change(drawn(`change ${k}`));
  await until(saved);
  expect(server.document.name).toBe('change 49');
  expect(server.requests.length).toBeLessThan(4);
});

test('while the server is away the draft stays, and it is saved when the server is back', async () => {
  const { server, saver, draft, saved } = setUp();
  server.mode = 'down';
  saver.change(drawn('kept'));
  await until(() => saver.getState().kind === 'waiting');
  saver.change(drawn('kept and more'));
  expect(draft()).toMatchObject({ document: { name: 'kept and more' } });
  server.mode = 'up';
  await until(saved);
  expect(server.document.name).toBe('kept and more');
});

test('a save whose answer was lost is no conflict with itself, even with newer changes waiting', async () => {
  const { server, saver, saved } = setUp();
  server.mode = 'loses-answers';
  saver.change(drawn('first'));
  await until(() => server.requests.length > 0);
  saver.change(drawn('second'));
  await until(() => server.requests.length > 2);
  expect(new Set(server.requests.map(({ saveId }) => saveId)).size).toBe(1);
  server.mode = 'up';
  await until(saved);
  expect(server.document.name).toBe('second');
  expect(server.revision).toBe(3);
});

test('a browser that keeps no draft still has it sent; while it is unsent that is said, and closing the page would lose it', async () => {
  const { server, saver, draft, saved } = setUp();
  server.room = false;
  server.mode = 'down';
  saver.change(drawn('in this page alone'));
  expect([saver.isKept(), saver.isAtRisk(), draft()]).toEqual([false, true, null]);
  server.mode = 'up';
  await until(saved);
  expect([server.document.name, saver.isKept(), saver.isAtRisk()]).toEqual(['in this page alone', true, false]);
});

test.each(['refuses', 'hangs-up'] as const)('a server that %s once is asked again by itself', async (mode) => {
  const { server, saver, saved } = setUp();
  server.mode = mode;
  saver.change(drawn('kept'));
  await until(() => saver.getState().kind === (mode === 'refuses' ? 'refused' : 'waiting'));
  expect(saver.isAtRisk()).toBe(true);
  server.mode = 'up';
  await until(saved);
  expect(server.document.name).toBe('kept');
});

test('a listener that fails keeps the news from no other, and nothing from being sent', async () => {
  const { server, saver, saved } = setUp();
  const heard = jest.fn();
  const report = jest.fn();
  Object.defineProperty(globalThis, 'reportError', { configurable: true, value: report });
  saver.subscribe(() => {
    throw new Error('a fault on the screen');
  });
  saver.subscribe(heard);
  saver.change(drawn('sent'));
  expect(heard).toHaveBeenCalled();
  await until(saved);
  expect(report).toHaveBeenCalled();
  expect(server.document.name).toBe('sent');
});

describe('a save from elsewhere', () => {
  const conflict = async () => {
    const all = setUp();
    Object.assign(all.server, { revision: 2, document: drawn('theirs'), saveId: 'other' });
    all.saver.change(drawn('mine'));
    await until(() => all.saver.getState().kind === 'conflict');
    return all;
  };

  test('stops saving, keeps the draft, and shows the newer one', async () => {
    const { server, saver, draft } = await conflict();
    expect(saver.getState()).toMatchObject({
      theirs: { revision: 2, document: { name: 'theirs' } as Drive } as DriveOpened,
    });
    saver.change(drawn('mine still'));
    await new Promise((resolve) => setTimeout(resolve, 40));
    expect(server.document.name).toBe('theirs');
    expect(draft()).toMatchObject({ document: { name: 'mine still' } });
  });

  test('keep mine: saved over the revision that was shown', async () => {
    const { server, saver, saved } = await conflict();
    saver.keepMine(drawn('mine'));
    await until(saved);
    expect(server).toMatchObject({ revision: 3, document: { name: 'mine' } });
  });

  test('take theirs: nothing is sent and the draft is gone', async () => {
    const { server, saver, draft } = await conflict();
    saver.takeTheirs();
    expect(draft()).toBeNull();
    expect(server.requests).toHaveLength(1);
    saver.change(drawn('next'));
    await until(() => server.revision === 3);
  });
});
