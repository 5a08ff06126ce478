import { spawnSync } from 'node:child_process';
import { endOf } from '../run-command';

/** A call of the command line without a process of its own. */
export const emery = (...args: string[]) => endOf(args);

/** The same in a process, from the folder of the project. */
export const emeryProcess = (...args: string[]) =>
  spawnSync(process.execPath, ['scripts/emery.mjs', ...args], {
    encoding: 'utf8',
    env: { ...process.env, INIT_CWD: process.cwd() },
  });

/** The same as the README has it. */
export const emeryByNpm = (...args: string[]) =>
  spawnSync('npm', ['run', '--silent', 'emery', '--', ...args], { encoding: 'utf8' });
