import { readdirSync, readFileSync } from 'node:fs';
import path from 'node:path';

/* The contrast of every pair of tokens that stands together as text and ground, in each light, by WCAG 2's own sum. */

const sheet = readFileSync(path.join(__dirname, 'tokens.css'), 'utf8');

const tokensOf = (block: string): Map<string, string> =>
  new Map([...block.matchAll(/(--[\w-]+):\s*([^;]+);/g)].map(([, name, value]) => [name!, value!.trim()]));
const blockAfter = (head: string): string => {
  const from = sheet.indexOf(head);
  return sheet.slice(from, sheet.indexOf('}', from));
};
const day = tokensOf(blockAfter(':root {'));
const LIGHTS = {
  day,
  night: new Map([...day, ...tokensOf(blockAfter(":root[data-light='night']"))]),
  sun: new Map([...day, ...tokensOf(blockAfter(":root[data-light='sun']"))]),
};

/** Relative luminance (WCAG 2.2, from sRGB as IEC 61966-2-1 has it). */
function luminance(colour: string): number {
  const hex = /^#([0-9a-f]{3}|[0-9a-f]{6})$/i.exec(colour)?.[1];
  if (!hex) throw new Error(`${colour} is no plain colour`);
  const six = hex.length === 3 ? [...hex].map((digit) => digit + digit).join('') : hex;
  const [r, g, b] = [0, 2, 4].map((at) => {
    const share = parseInt(six.slice(at, at + 2), 16) / 255;
    return share <= 0.04045 ? share / 12.92 : ((share + 0.055) / 1.055) ** 2.4;
  });
  return 0.2126 * r! + 0.7152 * g! + 0.0722 * b!;
}
const contrast = (a: string, b: string): number => {
  const [high, low] = [luminance(a), luminance(b)].sort((x, y) => y - x);
  return (high! + 0.05) / (low! + 0.05);
};

const TINTS = ['sheet', 'marking-tint', 'brass-tint', 'lead-tint', 'enamel-tint', 'note-tint', 'hover-tint'];
/** What is read on what. */
const TEXTS: readonly (readonly [text: string, grounds: readonly string[]])[] = [
  ['ink', [...TINTS, 'zinc', 'dim', 'metal', 'marking-held']],
  ['muted', ['sheet', 'zinc', 'note-tint', 'marking-tint', 'metal']],
  ['placeholder', ['sheet']],
  ['enamel', ['sheet', 'enamel-tint']],
  ['marking', ['sheet', 'marking-tint', 'metal']],
  ['brass', ['sheet', 'brass-tint']],
  ['on-brass-tint', ['brass-tint']],
  ['lead', ['sheet', 'lead-tint']],
  ['on-enamel', ['enamel', 'enamel-deep']],
  ['on-marking', ['marking']],
  ['on-band', ['band', 'band-deep']],
  ['band-faint', ['band']],
  ['band', ['on-band']],
];
/** Lines and edges that say something, against what they lie on. */
const LINES: readonly (readonly [line: string, ground: string])[] = [
  ['rubber', 'sheet'],
  ['metal-edge', 'sheet'],
  ['field-edge', 'sheet'],
  ['marking', 'sheet'],
  ['lead', 'sheet'],
  ['brass', 'sheet'],
  ['enamel', 'sheet'],
];

test.each([
  ['day', 4.5],
  ['night', 4.5],
  ['sun', 7],
] as const)('in the %s every text stands out %s to 1, and every line 3 to 1', (light, least) => {
  const tokens = LIGHTS[light];
  const colour = (name: string) => tokens.get(`--${name}`)!;
  const short = TEXTS.flatMap(([text, grounds]) =>
    grounds.flatMap((ground) => {
      const found = contrast(colour(text), colour(ground));
      return found < least ? [`${text} on ${ground}: ${found.toFixed(2)}`] : [];
    }),
  );
  const faint = LINES.flatMap(([line, ground]) => {
    const found = contrast(colour(line), colour(ground));
    return found < 3 ? [`${line} on ${ground}: ${found.toFixed(2)}`] : [];
  });
  expect([...short, ...faint]).toEqual([]);
});

test('both other lights and the forced colours say every colour that the day says', () => {
  const colours = [...day.keys()].filter(
    (name) => !/^--(frame|on-picture|picture-|paper|heavy|corner|target|font)/.test(name),
  );
  for (const head of [":root[data-light='night']", ":root[data-light='sun']"]) {
    const own = tokensOf(blockAfter(head));
    // What they leave out is the same as by day, on purpose.
    const left = colours.filter((name) => !own.has(name));
    expect({ head, left }).toEqual({ head, left: head.includes('sun') ? ['--on-marking'] : [] });
  }
});

test('no sheet but the one of tokens has a colour of its own, nor a size of text in px', () => {
  const web = path.join(__dirname, '..');
  const found = readdirSync(web, { recursive: true, encoding: 'utf8' })
    .filter((file) => file.endsWith('.css') && !/node_modules|-print\.|routing-card|tokens/.test(file))
    .flatMap((file) => {
      const text = readFileSync(path.join(web, file), 'utf8').replace(/\.job-paper[^}]*}/g, '');
      const own = [...text.matchAll(/#[0-9a-f]{3,8}\b|\brgba?\(|font-size: \d+(?:\.\d+)?px/gi)];
      return own.map(([what]) => `${file}: ${what}`);
    });
  expect(
    found.filter((line) => !/anticon|strip-tool|bench\.css: font-size: 18px|jobs\.css: font-size: 11px/.test(line)),
  ).toEqual([]);
});
