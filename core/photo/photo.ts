import type { Drive } from '../drive/types';

/** A point of a picture, px from its top left corner, y down. */
export type PicturePoint = readonly [x: number, y: number];

/** Points put round one pulley's rim. */
export interface PhotoRim {
  readonly pulley: string;
  readonly points: readonly PicturePoint[];
  /** The pulley's diameter is known and gives the scale; otherwise the picture tells it. */
  readonly known?: boolean;
  readonly [unknown: string]: unknown;
}

/** A picture of the drive. `hash` is the SHA-256 of the file as the server keeps it. */
export interface SurveyPhoto {
  readonly id: string;
  readonly hash: string;
  readonly width: number;
  readonly height: number;
  /** From the lens to the crank's belt plane, mm, where it was measured. */
  readonly cameraDistance?: number;
  /** The picture was cut down since it was taken, or was not; so its middle is not, or is, where the camera looked. */
  readonly cropped?: boolean;
  readonly rims?: readonly PhotoRim[];
  readonly [unknown: string]: unknown;
}

export function photosOf(drive: Drive): readonly SurveyPhoto[] {
  return drive.survey?.photos ?? [];
}
