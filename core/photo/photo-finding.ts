import type { Severity } from '../path/finding';

export type PhotoFindingCode =
  | 'no-rims'
  | 'few-points'
  | 'no-known-diameter'
  | 'no-camera'
  | 'scale-unchecked'
  | 'known-disagrees'
  | 'knowns-differ'
  | 'middle-guessed'
  | 'steep'
  | 'point-off'
  | 'either-tilt'
  | 'depth-guessed';

/** Something a picture says about itself, as data; the words are made in `core/words`. */
export interface PhotoFinding {
  code: PhotoFindingCode;
  severity: Severity;
  /** Id of the picture. */
  photo: string;
  pulley?: string;
  /** Several pulleys that are meant together. */
  pulleys?: readonly string[];
  figures?: Readonly<Record<string, number>>;
}
