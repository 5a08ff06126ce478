import { existsSync, readFileSync } from 'node:fs';
import path from 'node:path';
import { socketName, withLock } from './lock.mjs';
import { ROOT } from './paths.mjs';
import { run, SetupProblem, step } from './run.mjs';

/** What Emery runs from Debian, by the program that shows the package is there. */
const PROGRAMS = {
  mariadbd: 'mariadb-server-core',
  'mariadb-install-db': 'mariadb-server-core',
  my_print_defaults: 'mariadb-client-core',
  setpriv: 'util-linux',
  openssl: 'openssl',
  curl: 'curl',
  certutil: 'libnss3-tools',
  chromium: 'chromium',
  'chromium-headless-shell': 'chromium-headless-shell',
};
const FOLDERS = ['/usr/sbin', '/usr/bin', '/sbin', '/bin', '/usr/local/sbin', '/usr/local/bin'];

export const DATABASE_PROGRAMS = ['mariadbd', 'mariadb-install-db', 'my_print_defaults', 'setpriv'];
/**
 * What the tests run beside them: what makes and reads certificates apart from Emery, what asks as an outsider, and
 * what has a browser trust an authority.
 */
export const TEST_PROGRAMS = [...DATABASE_PROGRAMS, 'openssl', 'curl', 'certutil'];

/** Where a program is, looking also where a plain user's PATH does not. Null where it is nowhere. */
export function findProgram(name) {
  const folders = [...(process.env.PATH ?? '').split(':').filter(Boolean), ...FOLDERS];
  return folders.map((folder) => path.join(folder, name)).find((file) => existsSync(file)) ?? null;
}

/** Installs the npm packages of the lock file where they are not all there already. */
export async function ensureNpmPackages() {
  // npm writes its list of what it installed last of all, so a whole list means a whole folder, and nobody need wait
  // for a lock.
  if (npmPackagesPresent()) return;
  const lock = socketName('install', ROOT);
  await withLock(
    lock,
    () => process.stderr.write('Another Emery is installing packages here; waiting …\n'),
    async () => {
      if (npmPackagesPresent()) return;
      await step('Installing npm packages', async () => {
        const install = () =>
          run('npm', ['ci', '--ignore-scripts', '--prefer-offline', '--no-audit', '--no-fund'], {
            cwd: ROOT,
            quiet: true,
          });
        const first = await install();
        // An install that was cut off may still be writing; the second finds a quiet folder.
        const { code, output } = first.code === 0 ? first : await install();
        if (code !== 0)
          throw new SetupProblem(
            `the npm packages could not be installed:\n${output.trim().split('\n').slice(-8).join('\n')}`,
          );
      });
    },
  );
}

function npmPackagesPresent() {
  const installed = path.join(ROOT, 'node_modules', '.package-lock.json');
  if (!existsSync(installed)) return false;
  const wanted = JSON.parse(readFileSync(path.join(ROOT, 'package-lock.json'), 'utf8')).packages;
  let present;
  try {
    present = JSON.parse(readFileSync(installed, 'utf8')).packages;
  } catch {
    // Being written, or cut off while it was.
    return false;
  }
  return Object.entries(wanted).every(
    ([name, { version, optional, link, devOptional, peer }]) =>
      !name.startsWith('node_modules/') ||
      optional ||
      devOptional ||
      peer ||
      link ||
      present[name]?.version === version,
  );
}

/**
 * Installs the Debian packages behind these programs where a program is missing. As a plain user without sudo, says
 * which.
 */
export async function ensurePrograms(names) {
  const missing = () => [...new Set(names.filter((name) => !findProgram(name)).map((name) => PROGRAMS[name]))];
  const packages = missing();
  if (packages.length === 0) return;
  const prefix =
    process.getuid() === 0
      ? []
      : (await run('sudo', ['-n', 'true'], { quiet: true })).code === 0
        ? ['sudo', '-n']
        : null;
  const byHand = `as root: apt-get update && apt-get install --no-install-recommends ${packages.join(' ')}`;
  if (!prefix) throw new SetupProblem(`missing Debian package ${packages.join(', ')}. Install it once ${byHand}`);
  await step(`Installing Debian packages ${packages.join(', ')}`, async () => {
    await apt(prefix, ['update']);
    const { output } = await apt(prefix, ['install', '-y', '--no-install-recommends', ...packages]);
    const still = missing();
    if (still.length > 0)
      throw new SetupProblem(
        `Debian package ${still.join(', ')} could not be had. Try ${byHand}\n${output.trim().split('\n').slice(-5).join('\n')}`,
      );
  });
}

/** The browser of the tests: Debian's Chromium without a window of its own where it is there, else the whole one. */
export const findBrowser = () => findProgram('chromium-headless-shell') ?? findProgram('chromium');

/** Installs it where it is missing; with the whole one there already, nobody is held up where it cannot be had. */
export async function ensureBrowser() {
  const whole = findProgram('chromium') !== null;
  await ensurePrograms(['chromium-headless-shell']).catch((error) => {
    if (!whole) throw error;
    process.stderr.write(`The tests use the whole Chromium, which takes a third longer: ${error.message}\n`);
  });
}

/** apt-get, tried again while another one holds its lock. */
async function apt(prefix, args) {
  const [command, ...rest] = [...prefix, 'apt-get', '-o', 'DPkg::Lock::Timeout=120', ...args];
  for (let tries = 0; ; tries += 1) {
    const done = await run(command, rest, { quiet: true, env: { ...process.env, DEBIAN_FRONTEND: 'noninteractive' } });
    if (done.code === 0 || tries >= 20 || !/could not get lock|unable to lock/i.test(done.output)) return done;
    await new Promise((resolve) => setTimeout(resolve, 3000));
  }
}
