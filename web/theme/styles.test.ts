import { readdirSync, readFileSync } from 'node:fs';
import path from 'node:path';

const WEB = path.join(__dirname, '..');
const sheets = readdirSync(WEB, { recursive: true, encoding: 'utf8' })
  .filter((file) => file.endsWith('.css') && !/node_modules|-print\./.test(file))
  .map((file) => ({ file, text: readFileSync(path.join(WEB, file), 'utf8').replace(/\/\*[^]*?\*\//g, '') }));

/** The bench lays its three parts out; how each looks is its own sheet's. */
const LAID_OUT_BY_BENCH = ['.front-view', '.unrolled', '.ledger'];

test('what a class looks like stands in one sheet: of two, the one that comes last would win', () => {
  const places = new Map<string, Set<string>>();
  for (const { file, text } of sheets)
    for (const [, heads] of text.matchAll(/(?:^|})\s*([.][^{@}]*)\{/g))
      for (const selector of heads!.split(',').map((part) => part.trim()))
        if (/^\.[\w-]+$/.test(selector)) places.set(selector, (places.get(selector) ?? new Set()).add(file));
  expect(places.size).toBeGreaterThan(300);
  const twice = [...places].filter(([selector, files]) => files.size > 1 && !LAID_OUT_BY_BENCH.includes(selector));
  expect(twice.map(([selector, files]) => `${selector}: ${[...files].join(', ')}`)).toEqual([]);
});

test('a sheet dresses nothing that is not there any more', () => {
  const source = readdirSync(WEB, { recursive: true, encoding: 'utf8' })
    .filter((file) => /\.(tsx?|html)$/.test(file) && !/node_modules|\.test\./.test(file))
    .map((file) => readFileSync(path.join(WEB, file), 'utf8'))
    .join('\n');
  const words = new Set(source.match(/[a-z][\w-]*/gi));
  const dead = sheets.flatMap(({ file, text }) =>
    [...text.replace(/\{[^}]*\}/g, ' ').matchAll(/\.(-?[a-z][\w-]*)/gi)]
      .map(([, name]) => name!)
      // Made of a word of core's, as in `is-${verdict}`; or the component library's own.
      .filter((name) => !name.startsWith('is-') && !name.startsWith('ant-') && !words.has(name))
      .map((name) => `${file}: .${name}`),
  );
  expect(dead).toEqual([]);
});
