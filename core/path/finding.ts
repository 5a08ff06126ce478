/** fault: cannot be run as drawn. watch: runs, but look at it. note: something left open. */
export type Severity = 'fault' | 'watch' | 'note';

export type FindingCode =
  | 'no-route'
  | 'one-pulley'
  | 'pulley-twice'
  | 'no-size'
  | 'absurd-size'
  | 'doubtful-size'
  | 'same-centre'
  | 'circles-overlap'
  | 'no-room'
  | 'not-closed'
  | 'crosses-itself'
  | 'span-through-pulley'
  | 'span-rubs'
  | 'strands-rub'
  | 'low-wrap'
  | 'wrong-surface'
  | 'wrong-way-round'
  | 'fights'
  | 'ratios-fight'
  | 'rib-count'
  | 'grooves-unknown'
  | 'planes-apart'
  | 'no-crank'
  | 'second-crank'
  | 'not-driven'
  | 'hits-obstacle'
  | 'near-obstacle';

/**
 * Something to tell the user, as data: what, how bad, where, and the figures that show it. `pulley` and `span` name
 * pulleys by id; `other` is the second pulley of a pair. The words are made in `core/words`.
 */
export interface Finding {
  code: FindingCode;
  severity: Severity;
  pulley?: string;
  span?: { from: string; to: string };
  other?: string;
  /** The obstacle meant, by id. */
  obstacle?: string;
  figures?: Readonly<Record<string, number | string>>;
}
