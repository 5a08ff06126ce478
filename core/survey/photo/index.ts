/** Pictures of a drive: rims marked in them, squared up into places in mm with their ±. */
export { photosOf } from './photo';
export { photoMessage, photoWords } from './words';
export { fitEllipse, type Ellipse } from './ellipse';
export { lineOfSight, squareUp, tiltDeg, toPicture, toPlane, type Camera } from './camera';
export { fitPhoto, DEFAULT_DISTANCE_SHARE, DEFAULT_FOCAL_SHARE, type PhotoCircle, type PhotoFit } from './fit-photo';
export type { PhotoFinding, PhotoFindingCode } from './photo-finding';
