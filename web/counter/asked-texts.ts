/** What is written into each field of the counter, by its name. It stands in the address, so that a link carries it. */
export type AskedTexts = Readonly<Record<string, string | undefined>>;

/** A link carries no more than this. */
const MOST_NAMES = 40;
const MOST_LETTERS = 120;

export function textsOf(search: string): AskedTexts {
  const pairs = [...new URLSearchParams(search)].slice(0, MOST_NAMES);
  return Object.fromEntries(pairs.map(([name, text]) => [name, text.slice(0, MOST_LETTERS)]));
}

export function searchOf(texts: AskedTexts): string {
  const pairs = Object.entries(texts).filter((pair): pair is [string, string] => (pair[1] ?? '') !== '');
  return pairs.length === 0 ? '' : `?${new URLSearchParams(pairs).toString()}`;
}
