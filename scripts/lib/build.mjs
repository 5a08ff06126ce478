import { createHash } from 'node:crypto';
import {
  cpSync,
  existsSync,
  mkdirSync,
  readdirSync,
  readFileSync,
  renameSync,
  rmSync,
  statSync,
  symlinkSync,
  writeFileSync,
} from 'node:fs';
import path from 'node:path';
import { promisify } from 'node:util';
import { brotliCompress } from 'node:zlib';
import { ROOT, STATE } from './paths.mjs';
import { run, SetupProblem, step } from './run.mjs';

const BUILDS = path.join(STATE, 'builds');
const SHARED = ['core', 'package-lock.json', 'tsconfig.base.json'];

/** The folder of the built interface; it is built where this source has not been built yet. */
export function buildInterface() {
  return built('interface', ['web', ...SHARED], async (folder) => {
    const vite = path.join(ROOT, 'node_modules', 'vite', 'bin', 'vite.js');
    const { code, output } = await run(
      process.execPath,
      [vite, 'build', path.join(ROOT, 'web'), '--outDir', folder, '--emptyOutDir', '--logLevel', 'warn'],
      { quiet: true, cwd: ROOT },
    );
    if (code !== 0) throw new SetupProblem(`the interface could not be built:\n${output.trim()}`);
    await pack(path.join(folder, 'assets'));
  });
}

/**
 * Packs code and style sheets once, as tightly as it goes, beside themselves: nobody waits for that when they are asked
 * for.
 */
async function pack(folder) {
  const names = readdirSync(folder).filter((name) => /\.(js|css)$/.test(name));
  await Promise.all(
    names.map(async (name) => {
      const file = path.join(folder, name);
      writeFileSync(`${file}.br`, await promisify(brotliCompress)(readFileSync(file)));
    }),
  );
}

/** The file of the built command line, one module with all it needs; it is built where that has not been done yet. */
export async function buildCommandLine() {
  const folder = await built(
    'command line',
    ['cli', ...SHARED],
    async (making) => {
      const { build } = await import('esbuild');
      await build({
        entryPoints: [path.join(ROOT, 'cli', 'main.ts')],
        outfile: path.join(making, 'emery.mjs'),
        bundle: true,
        minify: true,
        platform: 'node',
        format: 'esm',
        logLevel: 'silent',
      }).catch((error) => {
        throw new SetupProblem(`the command line could not be built:\n${error.message}`);
      });
    },
    { quickly: true },
  );
  return path.join(folder, 'emery.mjs');
}

/** The file of the built server: half of a start is over before the first line of ours where it comes as one file. */
export const buildServer = () => serverProgram('server', 'main.ts');

/** The same server with a door for the browser tests, which opens as many shops as it is asked for. */
export const buildTestShops = () => serverProgram('test shops', path.join('test', 'shops.ts'));

/** Backup, restore and doctor as one file. */
export const buildKeep = () => serverProgram('keep', path.join('keep', 'main.ts'));

/**
 * A program of the server as one file, `server/shop/main.mjs` of its folder: the demo shop and the packages stand where
 * they stand beside the source.
 */
async function serverProgram(what, entry) {
  const folder = await built(
    what,
    ['server', 'demo', ...SHARED],
    async (making) => {
      const { build } = await import('esbuild');
      await build({
        entryPoints: [
          { in: path.join(ROOT, 'server', entry), out: 'main' },
          { in: path.join(ROOT, 'server', 'check', 'worker.ts'), out: 'start-worker' },
        ],
        outdir: path.join(making, 'server', 'shop'),
        outExtension: { '.js': '.mjs' },
        bundle: true,
        platform: 'node',
        format: 'esm',
        // A migration is known by the name of its class.
        keepNames: true,
        logLevel: 'silent',
        plugins: [packagesBeside],
      }).catch((error) => {
        throw new SetupProblem(`the ${what} could not be built:\n${error.message}`);
      });
      cpSync(path.join(ROOT, 'demo'), path.join(making, 'demo'), { recursive: true });
      symlinkSync(path.join(ROOT, 'node_modules'), path.join(making, 'node_modules'));
    },
    { quickly: true },
  );
  return path.join(folder, 'server', 'shop', 'main.mjs');
}

/** Packages stay what they are; core, which is a package by its name alone, goes in. */
const packagesBeside = {
  name: 'packages beside',
  setup: ({ onResolve }) =>
    onResolve({ filter: /^[^./]/ }, ({ path: name, kind }) =>
      kind === 'entry-point' || name.startsWith('@emery/') ? undefined : { path: name, external: true },
    ),
};

/**
 * A folder that `make` fills, made anew where its sources have changed. A build is named by what it was built from, and
 * moved into place whole, so that two runs side by side never see half of one.
 */
async function built(what, sources, make, { quickly = false } = {}) {
  const target = path.join(BUILDS, `${what.replaceAll(' ', '-')}-${fingerprint(sources)}`);
  if (existsSync(target)) return target;
  const making = `${target}-${process.pid}`;
  mkdirSync(BUILDS, { recursive: true });
  if (quickly) await make(making);
  else await step(`Building the ${what}`, () => make(making));
  try {
    renameSync(making, target);
  } catch {
    // Somebody built the same source meanwhile; theirs is as good.
    rmSync(making, { recursive: true, force: true });
  }
  clearOldBuilds();
  return target;
}

function fingerprint(sources) {
  const hash = createHash('sha256');
  const add = (file) => {
    if (statSync(file).isDirectory()) {
      for (const name of readdirSync(file).sort())
        if (name !== 'node_modules' && !/\.test\.tsx?$/.test(name)) add(path.join(file, name));
    } else hash.update(path.relative(ROOT, file)).update('\0').update(readFileSync(file)).update('\0');
  };
  for (const source of sources) add(path.join(ROOT, source));
  return hash.digest('hex').slice(0, 20);
}

/** Keeps the last few: a running server may still hand out an older one. */
function clearOldBuilds(keep = 24) {
  const byAge = readdirSync(BUILDS)
    .map((name) => ({ folder: path.join(BUILDS, name), at: statSync(path.join(BUILDS, name)).mtimeMs }))
    .sort((a, b) => b.at - a.at);
  for (const { folder, at } of byAge.slice(keep))
    if (at < Date.now() - 3_600_000) rmSync(folder, { recursive: true, force: true });
}
