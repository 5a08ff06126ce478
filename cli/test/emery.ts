import { spawnSync } from 'node:child_process';

/** Calls the command line as a person does, from the folder of the project. */
export const emery = (...args: string[]) =>
  spawnSync(process.execPath, ['scripts/emery.mjs', ...args], {
    encoding: 'utf8',
    env: { ...process.env, INIT_CWD: process.cwd() },
  });
