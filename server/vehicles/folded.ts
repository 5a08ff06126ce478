/** Text as searches compare it: small letters without accents. */
export function folded(text: string): string {
  return text.normalize('NFKD').replace(/\p{M}/gu, '').toLowerCase();
}

/** A pattern that finds `text` anywhere in what was folded, its own % and _ taken literally. */
export function foldedAnywhere(text: string): Buffer {
  return Buffer.from(`%${folded(text).replace(/[\\%_]/g, (sign) => `\\${sign}`)}%`);
}
