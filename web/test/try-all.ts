import { fireEvent } from '@testing-library/react';
import { type OnPage, settle } from './bench-page';
import { controlsOf, namer, overPage, seen } from './seen';
import type { Drive } from '@emery/core/drive';

/*
 * Everything a hand can do in a view, each thing once: what it does to the drive, what is then read that was not
 * before, and what the server is told. Written down, it is what the view does; a change of it is read like any other.
 */

type Leaves = Map<string, string>;

function leavesOf(value: unknown, path = '', into: Leaves = new Map()): Leaves {
  if (typeof value !== 'object' || value === null) into.set(path, JSON.stringify(value) ?? 'undefined');
  else
    for (const [key, child] of Object.entries(value)) {
      const id =
        Array.isArray(value) && typeof (child as { id?: unknown })?.id === 'string'
          ? (child as { id: string }).id
          : key;
      leavesOf(child, path === '' ? id : `${path}.${id}`, into);
    }
  return into;
}

/** What differs between two drives, a line each. */
export function differences(before: Drive, after: Drive): string[] {
  const [was, is] = [leavesOf(before), leavesOf(after)];
  const shorter = (text = '') => (text.length > 70 ? `${text.slice(0, 70)}…` : text);
  return [
    ...[...is]
      .filter(([key, value]) => was.get(key) !== value)
      .map(([key, value]) => `${key}: ${shorter(was.get(key)) || '-'} -> ${shorter(value)}`),
    ...[...was.keys()].filter((key) => !is.has(key)).map((key) => `${key}: gone`),
  ];
}

const few = (lines: readonly string[], most: number): string[] =>
  lines.length > most ? [...lines.slice(0, most), `and ${lines.length - most} more`] : [...lines];

const isChoice = (element: Element) =>
  element.matches('input[role="combobox"], .ant-select input') || element.closest('.ant-select') !== null;
const isText = (element: Element): element is HTMLInputElement | HTMLTextAreaElement =>
  (element instanceof HTMLTextAreaElement || element instanceof HTMLInputElement) &&
  !element.matches('[type="radio"], [type="checkbox"]');

/** Does to a control what a hand does, and says it. */
async function handle(element: Element): Promise<string> {
  if (isChoice(element)) {
    const holder = element.closest('.ant-select')!;
    fireEvent.mouseDown(holder.querySelector('input') ?? holder);
    await settle(2);
    const options = [
      ...document.querySelectorAll('.ant-select-dropdown:not(.ant-select-dropdown-hidden) .ant-select-item-option'),
    ];
    const other = options.filter((option) => !option.classList.contains('ant-select-item-option-selected')).at(-1);
    if (!other) return 'has nothing else to choose';
    fireEvent.click(other);
    return `takes ${other.textContent} of ${options.length}`;
  }
  if (isText(element)) {
    const text =
      element instanceof HTMLTextAreaElement || /name|note|remark|label|who|marking|number/i.test(namer()(element))
        ? 'Seven 7'
        : '7';
    fireEvent.focus(element);
    fireEvent.change(element, { target: { value: text } });
    fireEvent.keyDown(element, { key: 'Enter' });
    fireEvent.blur(element);
    return `is written "${text}"`;
  }
  if (element.matches('[role="slider"]')) {
    fireEvent.keyDown(element, { key: 'ArrowUp' });
    return 'goes up';
  }
  if (element.matches('svg [role="button"]')) {
    fireEvent.keyDown(element, { key: 'Enter' });
    fireEvent.click(element);
    return 'is tapped';
  }
  fireEvent.click(element);
  return 'is pressed';
}

/** What cannot be read into a field stays there, and is told. */
async function refuse(element: Element): Promise<string[]> {
  if (!isText(element) || element instanceof HTMLTextAreaElement || isChoice(element)) return [];
  const before = element.value;
  fireEvent.focus(element);
  fireEvent.change(element, { target: { value: 'x?' } });
  fireEvent.keyDown(element, { key: 'Enter' });
  fireEvent.blur(element);
  await settle(1);
  const told = [...document.querySelectorAll('[role="alert"]')].map(({ textContent }) => `! ${textContent}`);
  const kept = element.isConnected ? element.value : 'gone';
  fireEvent.change(element, { target: { value: before } });
  fireEvent.keyDown(element, { key: 'Escape' });
  await settle(1);
  return told.length === 0 && kept === 'x?' ? [] : [`with "x?" it holds "${kept}"`, ...few(told, 2)];
}

export interface Tried {
  /** Where to look: what is acted on, and what is read. */
  bench: OnPage;
  roots: () => readonly Element[];
  /** Never touched: the views' own switch, and what leaves the page. */
  letBe?: (element: Element) => boolean;
  /** So many things are done at most. */
  most: number;
  /** Comes back to what is tried, from another page or stage. */
  back: () => Promise<void>;
}

/** Uses every control of some parts of the page once, by its name. */
export async function tryAll({ bench, roots, letBe = () => false, most, back }: Tried): Promise<string[]> {
  const done = new Set<string>();
  const lines: string[] = [];
  const open = () =>
    [...roots(), ...overPage()]
      .flatMap(controlsOf)
      .filter((element) => !letBe(element) && !element.matches('a[href], .ant-select-input-clear'));
  const keyOf = (element: Element, nameOf = namer()) =>
    `${element.tagName} ${nameOf(element).replace(/[\d.,/″"¼½¾⅛⅜⅝⅞]+/g, '#')}`;
  const next = () => {
    const nameOf = namer();
    return open().find((element) => !done.has(keyOf(element, nameOf)));
  };
  const read = () =>
    [...roots(), ...overPage()]
      .flatMap((root) => seen(root, { drawings: false }))
      .filter((line) => !line.startsWith('.'));
  /** What the server was told since, but the drive itself. */
  const sentSince = (from: number) =>
    bench.server.sent
      .slice(from)
      .filter(({ path }) => !/^\/drives\/[^/]+$/.test(path))
      .map(({ method, path, body }) => `    sends ${method} ${path} ${JSON.stringify(body ?? null).slice(0, 160)}`);
  for (let element = next(); element && done.size < most; element = next()) {
    done.add(keyOf(element));
    const name = namer()(element) || element.getAttribute('placeholder') || element.tagName;
    const wrong = await refuse(element);
    if (!element.isConnected) continue;
    const [drive, text, told] = [bench.drive(), new Set(read()), bench.server.sent.length];
    const before = open().length;
    const start = bench.place();
    const how = await handle(element);
    await settle(2);
    if (bench.place() !== start) {
      lines.push(`${name} ${how}`, `    leads to ${bench.place()}`, ...sentSince(told));
      await bench.undoAll();
      await bench.go(start);
      await back();
      continue;
    }
    lines.push(
      `${name} ${how}`,
      ...wrong.map((line) => `    ${line}`),
      ...few(differences(drive, bench.drive()), 8).map((line) => `    ${line}`),
      ...few(
        read().filter((line) => !text.has(line)),
        4,
      ).map((line) => `    reads: ${line.slice(0, 160)}`),
      ...sentSince(told),
    );
    // What came up with it is tried before it is taken back.
    if (open().length <= before || !next()) {
      await bench.undoAll();
      for (const cross of document.querySelectorAll('.ant-modal-close')) fireEvent.click(cross);
      await settle(1);
    }
  }
  await bench.undoAll();
  return lines.map((line) => line.replace(/[0-9a-f]{8}-[0-9a-f-]{27}/g, '(id)'));
}
