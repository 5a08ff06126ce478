import { fireEvent } from '@testing-library/react';
import { existsSync, mkdirSync, readFileSync, writeFileSync } from 'node:fs';
import path from 'node:path';
import { onBench, settle } from './bench-page';
import { seen } from './seen';
import { tryAll } from './try-all';
import type { Drive } from '@emery/core/drive';

/**
 * Holds what is seen against the file of that name in `web/test/seen`, as it was read; `EMERY_WRITE_ANSWERS=1` writes
 * it.
 */
export function heldSeen(name: string, lines: readonly string[]): void {
  const file = path.join(__dirname, 'seen', `${name}.txt`);
  const text = `${lines.join('\n')}\n`;
  if (process.env['EMERY_WRITE_ANSWERS'] === '1') {
    mkdirSync(path.dirname(file), { recursive: true });
    writeFileSync(file, text);
  }
  expect(text).toBe(existsSync(file) ? readFileSync(file, 'utf8') : '');
}

/**
 * Every view of a stage with a drive on the bench: what is read and drawn, and what everything in it does that a hand
 * can do.
 */
export async function viewsOf(stage: string, drive: Drive, unit: 'mm' | 'in', most = 30): Promise<string[]> {
  const bench = await onBench(drive, stage, unit);
  const ledger = () => bench.part('ledger');
  const chooser = () => ledger().querySelector('.ant-segmented');
  const views = () => [...(chooser()?.querySelectorAll('input') ?? [])];
  const around = ['header', 'nav.rail'].flatMap((part) => seen(bench.page.querySelector(part)!));
  const lines = ['=== Around it', ...around, '=== The drawing', ...bench.seen('front')];
  let chart = '';
  for (let at = 0; at < Math.max(1, views().length); at += 1) {
    const take = async () => {
      const view = views()[at];
      if (view) fireEvent.click(view);
      await settle();
    };
    await take();
    lines.push(`=== ${views()[at]?.parentElement?.textContent ?? stage}`, ...bench.seen('ledger'));
    const drawn = bench.seen('chart');
    if (drawn.join() !== chart) lines.push('--- the chart', ...drawn);
    chart = drawn.join();
    lines.push(
      '--- what everything does',
      ...(await tryAll({
        bench,
        roots: () => [ledger(), bench.part('chart')],
        most,
        back: take,
        letBe: (element) => element.closest('.ant-segmented') === chooser(),
      })),
    );
  }
  return lines;
}
