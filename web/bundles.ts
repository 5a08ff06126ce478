import { build, type InlineConfig, type Rolldown } from 'vite';

/*
 * Which modules come in one file. Left to itself the bundler makes a file for every set of pages that share something:
 * 240 files, most of them under a kilobyte, and a phone waits for each. Here modules that the same pages need come
 * together: what a page fetches before it can be used is all its own, and the whole is some thirty files.
 */

/** The pages that are waited for, each with all that it needs to stand there. */
const WAITED_FOR = ['counter', 'shop', 'bench'] as const;

/** What is fetched together, by the module that is asked for; the first that fits. */
const ASKED_FOR: readonly (readonly [RegExp, string | ((match: RegExpExecArray) => string)])[] = [
  [/\/web\/(main\.tsx|index\.html)$/, 'main'],
  [/\/web\/counter\/CounterPage/, 'counter'],
  [/\/web\/counter\//, 'counter-later'],
  [/\/web\/shop\/ShopPage/, 'shop'],
  [/\/web\/shop\//, 'shop-later'],
  [/\/web\/bench\/BenchPage/, 'bench'],
  [/\/web\/bench\//, 'bench-later'],
  [/\/web\/stages\/(\w+)\//, ([, stage]) => `stage-${stage}`],
  [/\/web\/(records|stock)\//, 'records'],
  [/\/web\/(devices|access)\//, 'access'],
  [/\/web\/(jobs|card)\//, 'jobs'],
  [/\/web\/paper\/pdf/, 'pdf'],
];

/** What both stand in: each asks for it. */
const DRESS = /\/web\/theme\/Dress/;

function askersOf(id: string): readonly string[] {
  if (DRESS.test(id)) return ['shop', 'bench'];
  for (const [pattern, name] of ASKED_FOR) {
    const match = pattern.exec(id);
    if (match) return [typeof name === 'string' ? name : name(match)];
  }
  return ['other'];
}

/**
 * The file that a module comes in, from all that ask for it. What a module imports is asked for by whoever asks for the
 * module, and more; the names follow that order, so no two files ever need each other.
 */
export function bundleOf(askers: ReadonlySet<string>): string {
  if (askers.has('main')) return 'main';
  const [only] = askers;
  if (askers.size === 1) return only!;
  const waiting = WAITED_FOR.filter((page) => askers.has(page));
  if (waiting.length === WAITED_FOR.length) return 'all';
  const stages = [...askers].some((name) => name.startsWith('stage-'));
  if (waiting.length > 0) return [...waiting, stages ? 'stages' : 'more'].join('-');
  if (!stages) return 'more';
  // Route is what the bench opens with; Survey and Size come next; the others are for later.
  if (askers.has('stage-route')) return 'stages-first';
  return askers.has('stage-survey') || askers.has('stage-size') ? 'stages-early' : 'stages-late';
}

/**
 * The name of each module's file, by its id, of the interface that `config` builds. It is built once as the bundler has
 * it, for nobody else knows which modules are left once what is not used is taken out.
 */
export async function bundleNames(config: InlineConfig): Promise<(id: string) => string | null> {
  const first = await build({
    ...config,
    configFile: false,
    logLevel: 'error',
    build: { ...config.build, write: false, minify: false, cssCodeSplit: false },
  });
  const chunks = new Map(
    (first as Rolldown.RolldownOutput).output.flatMap((file) => (file.type === 'chunk' ? [[file.fileName, file]] : [])),
  );
  const askers = new Map<string, Set<string>>();
  const walk = (name: string, file: string, seen: Set<string>): void => {
    const chunk = chunks.get(file);
    if (!chunk || seen.has(file)) return;
    seen.add(file);
    for (const id of Object.keys(chunk.modules)) askers.set(id, (askers.get(id) ?? new Set()).add(name));
    for (const needed of chunk.imports) walk(name, needed, seen);
  };
  for (const { fileName, facadeModuleId, isEntry, isDynamicEntry } of chunks.values())
    if (isEntry || isDynamicEntry) for (const asker of askersOf(facadeModuleId ?? '')) walk(asker, fileName, new Set());
  return (id) => {
    const known = askers.get(id);
    return known ? bundleOf(known) : null;
  };
}
