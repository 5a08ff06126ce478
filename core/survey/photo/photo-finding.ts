import type { AtPulley, Figures, FindingOf } from '../../finding';

/** What a picture says about itself, by code. Figures: mm, degrees, counts. */
interface PhotoCodes {
  'no-rims': object;
  'few-points': AtPulley<{ points: number }>;
  'no-known-diameter': object;
  'no-camera': object;
  'scale-unchecked': AtPulley;
  'known-disagrees': AtPulley<{ given: number; seen: number }>;
  'knowns-differ': { pulleys: readonly string[] };
  'middle-guessed': object;
  steep: Figures<{ tilt: number }>;
  'point-off': AtPulley<{ points: number }>;
  'either-tilt': Figures<{ tilt: number; mm: number }>;
  'depth-guessed': Figures<{ distance: number }>;
}

/** What a picture says about itself, before it is said which picture. */
export type PhotoOwn = FindingOf<PhotoCodes>;
/** What a picture says about itself, by its id. */
export type PhotoFinding = PhotoOwn & { photo: string };
export type PhotoFindingCode = PhotoFinding['code'];
