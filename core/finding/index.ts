/** What the sums have to tell a user, as data, and the form in which it is put into words. */

/** fault: cannot be run as drawn. watch: runs, but look at it. note: something left open. */
export type Severity = 'fault' | 'watch' | 'note';

/**
 * Something to tell the user: what, how bad, where, and the figures that show it. All places are ids of the drive file.
 * The words are made in the `words.ts` of the folder that made the finding.
 */
export interface Finding<Code extends string = string, Figure extends number | string = number | string> {
  code: Code;
  severity: Severity;
  belt?: string;
  pulley?: string;
  /** The second pulley of a pair. */
  other?: string;
  /** Several pulleys that are meant together. */
  pulleys?: readonly string[];
  span?: { from: string; to: string };
  obstacle?: string;
  /** The reading meant; of several that cannot be told apart, the first. */
  reading?: string;
  readings?: readonly string[];
  /** Of contradictory ones: pulleys whose diameter, or whose circle in a picture, may be the wrong one as well. */
  diameters?: readonly string[];
  circles?: readonly string[];
  photo?: string;
  figures?: Readonly<Record<string, Figure>>;
}

/** One finding as the ledger tells it: the verdict, why, and what to do about it. */
export interface FindingWords {
  title: string;
  why: string;
  todo: string;
}

/** The same on one line. */
export function inOneLine({ title, why, todo }: FindingWords): string {
  return `${title} ${why} ${todo}`.trim();
}
