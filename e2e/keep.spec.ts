import { spawn, spawnSync } from 'node:child_process';
import { existsSync, readdirSync, renameSync, rmSync, writeFileSync } from 'node:fs';
import path from 'node:path';
import { expect, test } from '@playwright/test';
import { ownState } from './own-state';

/* The commands that keep a shop, as a person types them: each with its one line and its exit code. */
const ROOT = path.resolve(import.meta.dirname, '..');
test.describe.configure({ mode: 'serial', timeout: 240_000 });

let state: string;
test.beforeAll(() => {
  state = ownState();
});
test.afterAll(() => rmSync(state, { recursive: true, force: true, maxRetries: 20, retryDelay: 250 }));

const environment = () => ({ ...process.env, EMERY_STATE: state, EMERY_DATABASE_URL: '', EMERY_BACKUP_PASSPHRASE: '' });
function command(name: string, ...args: string[]) {
  const file = path.join(ROOT, 'scripts', `${name}.mjs`);
  const { status, stdout, stderr } = spawnSync(process.execPath, [file, ...args], {
    ...{ cwd: ROOT, encoding: 'utf8', env: environment() },
  });
  return { status, said: `${stdout}${stderr}` };
}
const at = (name: string) => path.join(state, name);
const FIXTURE = path.join(ROOT, 'server', 'keep', 'earlier', 'backup-1.zip');
const keptAside = () => readdirSync(state).filter((name) => name.startsWith('database-kept-'));
const shops = () => readdirSync(state).filter((name) => name.startsWith('database'));

test('without a shop there is nothing to back up, and what is asked wrongly is said in a line', () => {
  expect(command('backup', at('a.zip'))).toEqual({
    status: 1,
    said: expect.stringMatching(/^emery: there is no shop in/),
  });
  expect(existsSync(at('a.zip'))).toBe(false);
  for (const [name, args, says] of [
    ['backup', [], /name one file to write/],
    ['backup', ['--sealed', 'x'], /--sealed/],
    ['backup', ['x', '--seal'], /no passphrase: set EMERY_BACKUP_PASSPHRASE/],
    ['restore', [], /name one backup/],
    ['restore', [at('none.zip')], /none\.zip cannot be read \(ENOENT\)/],
    ['restore', [FIXTURE, '--look', '--drive', 'x'], /one thing at a time/],
    ['doctor', ['x'], /nothing is to be named/],
    ['soak', ['many'], /how many changes/],
  ] as const) {
    const { status, said } = command(name, ...args);
    expect([status, said.trim().split('\n')]).toEqual([1, [expect.stringMatching(says)]]);
  }
});

test('a backup restored into an empty folder is the shop; looked at, backed up again, doctored, and fetched from', () => {
  const look = command('restore', FIXTURE, '--look');
  expect(look).toEqual({ status: 0, said: expect.stringContaining('The backup is whole.') });
  expect(look.said).toMatch(/Tarnside Field Workshop: 7 vehicles, 8 drives, 1 picture/);
  expect(look.said).toContain('There is no shop here that it would replace. Nothing was changed.');
  expect(shops()).toEqual([]);
  expect(command('restore', FIXTURE)).toEqual({ status: 0, said: expect.stringContaining('The shop is as it was') });
  expect(shops()).toEqual(['database']);
  expect(command('doctor').said).toMatch(/Looked at .* 8 drives/);
  writeFileSync(at('passphrase'), 'three dry rags\n');
  const sealed = command('backup', at('a.age'), '--passphrase-file', at('passphrase'));
  expect(sealed).toEqual({ status: 0, said: expect.stringMatching(/sealed; written, read back and verified/) });
  expect(command('backup', at('a.age')).said).toMatch(/is there already\. Name another, or add --replace/);
  expect(command('restore', at('a.age'), '--look').said).toMatch(/sealed: its passphrase is needed/);
  const again = command('restore', at('a.age'), '--look', '--passphrase-file', at('passphrase'));
  expect(again.said).toMatch(/It would replace, and keep aside:\n {2}Tarnside Field Workshop: 7 vehicles, 8 drives/);
  expect(command('restore', FIXTURE, '--vehicle', 'Water carrier').said).toMatch(/^Water carrier, TF 44: /);
  expect(command('restore', FIXTURE, '--vehicle', 'e')).toEqual({
    status: 1,
    said: expect.stringMatching(/Name one by its id/),
  });
});

test('what was there is kept aside; a restore that is cut off leaves it, or is ended by whoever comes next', async () => {
  expect(command('restore', FIXTURE).said).toMatch(/The shop that stood here is kept in .*database-kept-/);
  expect(keptAside()).toHaveLength(1);
  // Cut off in the middle of it.
  const file = path.join(ROOT, 'scripts', 'restore.mjs');
  const running = spawn(process.execPath, [file, FIXTURE], { cwd: ROOT, env: environment(), stdio: 'ignore' });
  const ended = new Promise((resolve) => running.once('exit', resolve));
  // As soon as the new shop has a database, and long before it is whole.
  while (!shops().some((name) => name.startsWith('database-restoring-') && existsSync(at(`${name}/data`))))
    await new Promise((resolve) => setTimeout(resolve, 10));
  running.kill('SIGKILL');
  await ended;
  expect(command('doctor').said).toContain('8 drives');
  expect(keptAside()).toHaveLength(1);
  // Cut off between the two names: all of the new shop is there, and the old one is set aside already.
  renameSync(at('database'), at('database-restored-2026-12-02T10-00-00-000Z'));
  expect(command('doctor').said).toContain('8 drives');
  expect(shops().filter((name) => !name.startsWith('database-kept-'))).toEqual(['database']);
  const hurt = at('hurt.zip');
  writeFileSync(hurt, 'no backup');
  expect(command('restore', hurt)).toEqual({ status: 1, said: expect.stringMatching(/not a backup of Emery/) });
  expect(command('doctor').said).toContain('8 drives');
});

test('a shop whose server, database and keeper are killed at random, and that is restored in between, loses nothing', () => {
  const { status, said } = command('soak', '120');
  expect([status, said]).toEqual([0, expect.stringContaining('Nothing is lost, torn or too much.')]);
});
