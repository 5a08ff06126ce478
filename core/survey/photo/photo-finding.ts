import type { Finding } from '../../finding';

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

/** What a picture says about itself, by its id. */
export type PhotoFinding = Finding<PhotoFindingCode, number> & { photo: string };
