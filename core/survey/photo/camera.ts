import type { PicturePoint } from '../../drive';
import { toDegrees } from '../../numeric';

/**
 * A pinhole camera before the drive. Its frame is the belt plane of the crank: origin where the optical axis meets it,
 * x right, y up, z toward the camera, mm. `pitch` turns the plane about x and `yaw` about y, radians, both 0 for a
 * picture taken head-on. The picture's upright is the frame's.
 */
export interface Camera {
  pitch: number;
  yaw: number;
  /** Focal length, px. */
  focal: number;
  /** Along the optical axis, mm. */
  distance: number;
  /** The picture's middle, px. */
  cx: number;
  cy: number;
}

type Rows = readonly [number, number, number, number, number, number, number, number, number];

function rotation({ pitch, yaw }: Camera): Rows {
  const [sa, ca, sb, cb] = [Math.sin(pitch), Math.cos(pitch), Math.sin(yaw), Math.cos(yaw)];
  return [cb, 0, sb, sa * sb, ca, -sa * cb, -ca * sb, sa, ca * cb];
}

/** Where the camera sees the point x, y of plane `z`. */
export function toPicture(camera: Camera, x: number, y: number, z = 0): [number, number] {
  const r = rotation(camera);
  const [px, py, pz] = [x, -y, -z];
  const depth = camera.distance + r[6] * px + r[7] * py + r[8] * pz;
  return [
    camera.cx + (camera.focal * (r[0] * px + r[1] * py + r[2] * pz)) / depth,
    camera.cy + (camera.focal * (r[3] * px + r[4] * py + r[5] * pz)) / depth,
  ];
}

/** The place in plane `z` seen at a point of the picture. */
export function toPlane(camera: Camera, [u, v]: PicturePoint, z = 0): [number, number] {
  return lineOfSight(camera)(u, v, z);
}

/** `toPlane` for many points of one camera. */
export function lineOfSight(camera: Camera): (u: number, v: number, z: number) => [number, number] {
  const r = rotation(camera);
  const { focal, distance, cx, cy } = camera;
  return (u, v, z) => {
    const [dx, dy] = [(u - cx) / focal, (v - cy) / focal];
    // The ray turned back into the drive's own axes, and how far along it the plane lies.
    const along = (distance * r[8] - z) / (r[2] * dx + r[5] * dy + r[8]);
    return [
      along * (r[0] * dx + r[3] * dy + r[6]) - distance * r[6],
      distance * r[7] - along * (r[1] * dx + r[4] * dy + r[7]),
    ];
  };
}

/** How far from head-on, degrees. */
export function tiltDeg({ pitch, yaw }: Camera): number {
  return toDegrees(Math.acos(Math.min(1, Math.cos(pitch) * Math.cos(yaw))));
}

/**
 * The squaring-up of the picture onto the crank's plane as a homography, row by row: px (u, v, 1) to mm (x, y, 1) times
 * a common factor.
 */
export function squareUp(camera: Camera): Rows {
  const r = rotation(camera);
  const { focal, cx, cy, distance } = camera;
  const row = (a: number, b: number, c: number): [number, number, number] => [
    a / focal,
    b / focal,
    c - (a * cx + b * cy) / focal,
  ];
  const weight = row(r[2], r[5], r[8]);
  const lift = distance * r[8];
  const x = row(r[0], r[3], r[6]).map((value, k) => lift * value - distance * r[6] * weight[k]!) as [
    number,
    number,
    number,
  ];
  const y = row(r[1], r[4], r[7]).map((value, k) => distance * r[7] * weight[k]! - lift * value) as [
    number,
    number,
    number,
  ];
  return [...x, ...y, ...weight];
}
