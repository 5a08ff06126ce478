import { grouped } from './habits';
/** A text that begins a sentence. */
export const capital = (text: string): string => text.replace(/^./u, (first) => first.toUpperCase());
/** A text that goes on within one. */
export const uncapital = (text: string): string => text.replace(/^./u, (first) => first.toLowerCase());
/** A count with its noun: `1 pulley`, `3 pulleys`; give the plural where it does not end in s. */
export const plural = (count: number, noun: string, nouns = `${noun}s`): string =>
  `${grouped(count)} ${count === 1 ? noun : nouns}`;
