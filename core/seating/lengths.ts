import type { Section } from '../section';

/**
 * Steps in which shops commonly stock a kind of belt, mm: 5 for ribbed, half an inch for V, one tooth for toothed. A
 * default where no stock is kept.
 */
export function commonStep(section: Section): number {
  if (section.kind === 'toothed') return section.pitch;
  return section.kind === 'ribbed' ? 5 : 12.7;
}

/** Lengths worth a look about a window, mm: of those that can be had where a list is kept, else of the common ones. */
export function lengthsAbout(section: Section, from: number, to: number, stock: readonly number[] = []): number[] {
  return stock.length > 0 ? aboutWindow(stock, from, to) : commonLengths(section, from, to);
}

/** Of the lengths in stock those in a window, and two to either side. */
function aboutWindow(stock: readonly number[], from: number, to: number): number[] {
  const sorted = [...new Set(stock)].sort((a, b) => a - b);
  const below = sorted.filter((mm) => mm < from).slice(-2);
  const within = sorted.filter((mm) => mm >= from && mm <= to);
  const every = Math.max(1, Math.ceil(within.length / 40));
  return [...below, ...within.filter((_, k) => k % every === 0), ...sorted.filter((mm) => mm > to).slice(0, 2)];
}

/** Common lengths about a window: two steps below it to two above, forty at most about its middle. */
export function commonLengths(section: Section, shortest: number, longest: number): number[] {
  if (!Number.isFinite(shortest) || !(longest > 0)) return [];
  const step = commonStep(section);
  const first = Math.max(1, Math.floor(shortest / step) - 1);
  const last = Math.ceil(longest / step) + 1;
  const every = Math.max(1, Math.ceil((last - first + 1) / 40));
  return Array.from(
    { length: Math.max(0, Math.floor((last - first) / every) + 1) },
    (_, k) => Math.round((first + k * every) * step * 100) / 100,
  );
}
