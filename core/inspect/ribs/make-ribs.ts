import type { PicturePoint } from '../../drive';
import { normals } from '../../numeric';
import type { GreyPicture } from './frame';

/** How a made-up close-up of ribs is to be. Lengths in mm, angles in degrees. */
export interface RibsAsked {
  ribs: number;
  pitchMm: number;
  depthMm: number;
  /** The flat of a groove's floor, and how round its corners and those of the tips are. */
  floorMm: number;
  floorRoundMm: number;
  tipRoundMm: number;
  /** From the floor of the grooves to the back. */
  backMm: number;
  width: number;
  height: number;
  pxPerMm: number;
  /** Turned in the picture, about the belt's height, and about its width. */
  rollDeg: number;
  yawDeg: number;
  tiltDeg: number;
  /** From the lens to the cut. */
  distanceMm: number;
  blurPx: number;
  /** One standard deviation, grey levels. */
  noise: number;
  seed: number;
  /** The cut ends of its cords show light in the back. */
  cords?: boolean;
  /** A shadow over the right of the picture takes this part of its light. */
  shadow?: number;
}

/** A made-up close-up with its known answer. */
export interface MadeRibs {
  picture: GreyPicture;
  /** The middles of tips and of floors, px. */
  tips: PicturePoint[];
  valleys: PicturePoint[];
}

export const RIBS_AS_NEW: RibsAsked = {
  ribs: 6,
  pitchMm: 3.56,
  depthMm: 2.9,
  floorMm: 0.35,
  floorRoundMm: 0.2,
  tipRoundMm: 0.2,
  backMm: 2,
  width: 900,
  height: 420,
  pxPerMm: 34,
  rollDeg: 0,
  yawDeg: 0,
  tiltDeg: 0,
  distanceMm: 160,
  blurPx: 1.2,
  noise: 4,
  seed: 1,
};

// Looked up once: these are called for every pixel.
const { abs, ceil, exp, floor, hypot, max, min, sqrt } = Math;

const RUN = Math.tan((20 * Math.PI) / 180);
const RUBBER = 38;
const PAPER = 214;
const CORD = 185;
/** From one cord to the next, mm. */
const CORDS_APART = 0.95;
/** So many looks into each pixel, each way. */
const LOOKS = 3;

/** A picture of the cut end of a ribbed belt on paper, with where its tips and valleys are. */
export function makeRibs(asked: RibsAsked): MadeRibs {
  const { width, height, seed, noise } = asked;
  const sharp = new Float32Array(width * height);
  const view = viewOf(asked);
  for (let y = 0; y < height; y += 1)
    for (let x = 0; x < width; x += 1) {
      let [rubber, cord] = [0, 0];
      for (let look = 0; look < LOOKS ** 2; look += 1) {
        const [along, into] = view.onBelt([
          x + ((look % LOOKS) + 0.5) / LOOKS - 0.5,
          y + (floor(look / LOOKS) + 0.5) / LOOKS - 0.5,
        ]);
        if (!isRubber(asked, along, into)) continue;
        if (asked.cords && isCord(asked, along, into)) cord += 1;
        else rubber += 1;
      }
      // Light falls from the left.
      const paper = PAPER * (1 - 0.12 * (x / width));
      const grey = paper + ((RUBBER - paper) * rubber + (CORD - paper) * cord) / LOOKS ** 2;
      sharp[y * width + x] = grey * (1 - (asked.shadow ?? 0) / (1 + exp((0.6 * width - x) / 20)));
    }
  const data = blurred(sharp, width, height, asked.blurPx);
  const normal = normals(seed);
  for (let k = 0; k < data.length; k += 1) data[k] = max(0, min(255, data[k]! + noise * normal()));
  const half = (asked.ribs - 1) / 2;
  return {
    picture: { width, height, data },
    tips: Array.from({ length: asked.ribs }, (_, k) => view.inPicture((k - half) * asked.pitchMm, 0)),
    valleys: Array.from({ length: asked.ribs - 1 }, (_, k) =>
      view.inPicture((k - half + 0.5) * asked.pitchMm, asked.depthMm),
    ),
  };
}

/** Whether a point of the cut's plane is rubber: mm along the ribs from the middle, and in from their tips. */
function isRubber(
  { ribs, pitchMm, depthMm, floorMm, floorRoundMm, tipRoundMm, backMm }: RibsAsked,
  along: number,
  into: number,
) {
  if (into < 0 || into > depthMm + backMm) return false;
  const shifted = along / pitchMm + ribs / 2;
  if (shifted < 0 || shifted > ribs) return false;
  // From the middle of the nearest groove; the belt's own two sides are cut through the middle of one.
  const fromFloor = abs(shifted - floor(shifted + 0.5)) * pitchMm;
  return into >= grooveAt(fromFloor, depthMm, floorMm, pitchMm, floorRoundMm, tipRoundMm);
}

/** Whether a point of the rubber is the end of a cord: side by side, a little behind the floor of the grooves. */
function isCord({ ribs, pitchMm, depthMm }: RibsAsked, along: number, into: number): boolean {
  if (abs(along) > (ribs * pitchMm) / 2 - 0.6) return false;
  return hypot(along - CORDS_APART * floor(along / CORDS_APART + 0.5), into - depthMm - 0.55) < 0.33;
}

/** How far in from the tips the edge lies, so far from a groove's middle: floor, fillet, flank, fillet, tip. */
function grooveAt(x: number, depth: number, flat: number, pitch: number, asked: number, tipRound: number): number {
  const slope = 1 / RUN;
  const flank = (at: number) => depth - (at - flat / 2) * slope;
  // A fillet of radius r touches floor and flank: its middle lies r from both.
  const lean = hypot(1, slope);
  // No rounder than a narrow floor has room for.
  const floorRound = min(asked, (flat / 2) * (slope / (lean - 1)));
  const inFloor = flat / 2 - (floorRound * (lean - 1)) / slope;
  const onFlank = inFloor + (floorRound * slope) / lean;
  if (x < max(0, inFloor)) return depth;
  if (x < onFlank) return depth - floorRound + sqrt(max(0, floorRound ** 2 - (x - inFloor) ** 2));
  const tipEdge = flat / 2 + depth * RUN;
  const inTip = tipEdge + (tipRound * (lean - 1)) / slope;
  const offFlank = inTip - (tipRound * slope) / lean;
  if (x > inTip || x > pitch / 2) return 0;
  if (x > offFlank) return tipRound - sqrt(max(0, tipRound ** 2 - (x - inTip) ** 2));
  return flank(x);
}

/** From the plane of the cut to the picture and back, through a lens. */
function viewOf({ width, height, pxPerMm, rollDeg, yawDeg, tiltDeg, distanceMm, depthMm }: RibsAsked) {
  const [roll, yaw, tilt] = [rollDeg, yawDeg, tiltDeg].map((degrees) => (degrees * Math.PI) / 180);
  const [cr, sr, cy, sy, ct, st] = [
    Math.cos(roll!),
    Math.sin(roll!),
    Math.cos(yaw!),
    Math.sin(yaw!),
    Math.cos(tilt!),
    Math.sin(tilt!),
  ];
  const middle = depthMm / 2;
  // The plane's two axes as the camera sees them.
  const u = [cy, 0, sy];
  const v = [sy * st, ct, -cy * st];
  const focal = pxPerMm * distanceMm;
  const inPicture = (along: number, into: number): PicturePoint => {
    const [x, y, z] = [0, 1, 2].map((i) => along * u[i]! + (into - middle) * v[i]!);
    const near = focal / (distanceMm + z!);
    const [px, py] = [x! * near, y! * near];
    return [width / 2 + cr * px - sr * py, height / 2 + sr * px + cr * py];
  };
  const onBelt = ([x, y]: PicturePoint): [number, number] => {
    const [dx, dy] = [x - width / 2, y - height / 2];
    const [a, b] = [(cr * dx + sr * dy) / focal, (-sr * dx + cr * dy) / focal];
    // x = a (D + z), y = b (D + z) with z = along u₂ + into v₂: two equations for two unknowns.
    const [m11, m12, m21, m22] = [u[0]! - a * u[2]!, v[0]! - a * v[2]!, u[1]! - b * u[2]!, v[1]! - b * v[2]!];
    const [r1, r2] = [a * distanceMm, b * distanceMm];
    const det = m11 * m22 - m12 * m21;
    return [(r1 * m22 - r2 * m12) / det, (m11 * r2 - m21 * r1) / det + middle];
  };
  return { inPicture, onBelt };
}

/** A picture blurred by a bell curve of that standard deviation, px. */
function blurred(from: Float32Array, width: number, height: number, sigma: number): Float32Array {
  if (!(sigma > 0.05)) return from;
  const reach = ceil(3.2 * sigma);
  const weights = Array.from({ length: 2 * reach + 1 }, (_, k) => exp(-0.5 * ((k - reach) / sigma) ** 2));
  const total = weights.reduce((sum, weight) => sum + weight, 0);
  const along = (source: Float32Array, step: number, count: number, lines: number, lineStep: number) => {
    const out = new Float32Array(source.length);
    for (let line = 0; line < lines; line += 1)
      for (let k = 0; k < count; k += 1) {
        let sum = 0;
        for (let w = -reach; w <= reach; w += 1)
          sum += weights[w + reach]! * source[line * lineStep + max(0, min(count - 1, k + w)) * step]!;
        out[line * lineStep + k * step] = sum / total;
      }
    return out;
  };
  return along(along(from, 1, width, height, width), width, height, width, 1);
}
