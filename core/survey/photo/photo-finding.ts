import type { Finding } from '../../finding';

export const PHOTO_FINDING_CODES = [
  'no-rims',
  'few-points',
  'no-known-diameter',
  'no-camera',
  'scale-unchecked',
  'known-disagrees',
  'knowns-differ',
  'middle-guessed',
  'steep',
  'point-off',
  'either-tilt',
  'depth-guessed',
] as const;
export type PhotoFindingCode = (typeof PHOTO_FINDING_CODES)[number];

/** What a picture says about itself, by its id. */
export type PhotoFinding = Finding<PhotoFindingCode, number> & { photo: string };
