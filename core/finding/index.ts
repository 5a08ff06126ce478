/** What the sums have to tell a user, as data, and the form in which it is put into words. */

/** fault: cannot be run as drawn. watch: runs, but look at it. note: something left open. */
export type Severity = 'fault' | 'watch' | 'note';

/** Where a finding lies. All are ids of the drive file. */
export interface FindingPlace {
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
}

/**
 * Something to tell the user: what, how bad, where, and the figures that show it. This is how those read it who list
 * findings of every folder; who makes one or puts it into words has the folder's own union, a `FindingOf`.
 */
export interface Finding extends FindingPlace {
  code: string;
  severity: Severity;
  figures?: object;
}

/** The figures of a code that needs none. */
export type NoFigures = Readonly<Record<string, never>>;

/**
 * A folder's findings, told apart by code: each row of `Codes` names what that code has beside its severity, its
 * figures and the places that it always names: `{ 'no-route': object; 'low-wrap': AtPulley<{ wrapDeg: number }> }`.
 */
export type FindingOf<Codes extends Record<keyof Codes, object>> = {
  [Code in keyof Codes & string]: { code: Code; severity: Severity } & FindingPlace &
    ('figures' extends keyof Codes[Code] ? Codes[Code] : Codes[Code] & { figures?: NoFigures });
}[keyof Codes & string];

/** A row with figures. */
export type Figures<Of extends object> = { figures: Readonly<Of> };
/** A row that always names its pulley, with its figures where it has some. */
export type AtPulley<Of extends object | null = null> = { pulley: string } & (Of extends object ? Figures<Of> : object);

/** The words of a folder: one row a code. A missing row, or a figure that its code has not, does not compile. */
export type WordsByCode<F extends Finding, Context> = {
  readonly [Code in F['code']]: (finding: Extract<F, { code: Code }>, context: Context) => FindingWords;
};

/** Puts one finding into the words of its row. */
export function wordsOf<F extends Finding, Context>(
  table: WordsByCode<F, Context>,
  finding: F,
  context: Context,
): FindingWords {
  // The row under a finding's own code takes that finding; the compiler cannot follow the two together.
  const row = table[finding.code as F['code']] as (finding: F, context: Context) => FindingWords;
  return row(finding, context);
}

/** The first finding of a code, with the figures that it has; undefined where there is none. */
export const withCode = <F extends Finding, Code extends F['code']>(findings: readonly F[], code: Code) =>
  findings.find((finding): finding is Extract<F, { code: Code }> => finding.code === code);

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
