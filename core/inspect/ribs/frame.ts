import type { PicturePoint } from '../../drive';

// Looked up once: these are called for every pixel.
const { cos, floor, max, min, round, sin } = Math;

/** A picture in grey: 0 is black, 255 white; row by row from the top left. */
export interface GreyPicture {
  width: number;
  height: number;
  data: Uint8Array | Uint8ClampedArray | Float32Array;
}

/**
 * Axes laid into a picture: `along` a belt's ribs, one after the other, and `into` the belt, from the ribs' tips to its
 * back. `turn` is how far they are turned, radians clockwise on the page.
 */
export interface Frame {
  x: number;
  y: number;
  turn: number;
}

/** The point of the picture so far along and into a frame, px. */
export function inPicture({ x, y, turn }: Frame, along: number, into: number): PicturePoint {
  const [c, s] = [cos(turn), sin(turn)];
  return [x + c * along - s * into, y + s * along + c * into];
}

/** The grey of a picture so far along and into a frame, between four pixels; null outside the picture. */
export function greyIn(
  { width, height, data }: GreyPicture,
  { x: startX, y: startY, turn }: Frame,
): (along: number, into: number) => number | null {
  const [c, s] = [cos(turn), sin(turn)];
  return (along, into) => {
    const x = startX + c * along - s * into;
    const y = startY + s * along + c * into;
    const left = floor(x);
    const top = floor(y);
    if (left < 0 || top < 0 || left + 1 >= width || top + 1 >= height) return null;
    const u = x - left;
    const v = y - top;
    const at = top * width + left;
    return (
      (1 - v) * ((1 - u) * data[at]! + u * data[at + 1]!) +
      v * ((1 - u) * data[at + width]! + u * data[at + width + 1]!)
    );
  };
}

/** A picture made smaller by a whole factor: each pixel the mean of a square of them. */
export function smaller({ width, height, data }: GreyPicture, by: number): GreyPicture {
  if (by <= 1) return { width, height, data };
  const [w, h] = [floor(width / by), floor(height / by)];
  const out = new Float32Array(w * h);
  for (let y = 0; y < h; y += 1)
    for (let x = 0; x < w; x += 1) {
      let sum = 0;
      for (let v = 0; v < by; v += 1) for (let u = 0; u < by; u += 1) sum += data[(y * by + v) * width + x * by + u]!;
      out[y * w + x] = sum / by ** 2;
    }
  return { width: w, height: h, data: out };
}

/** The grey that parts a dark thing from a light ground best (N. Otsu's threshold); null where all is alike. */
export function threshold({ data }: GreyPicture): number | null {
  const counts = new Float64Array(256);
  for (const value of data) counts[max(0, min(255, round(value)))]! += 1;
  const total = data.length;
  const sum = counts.reduce((all, count, grey) => all + count * grey, 0);
  let [best, at, darkCount, darkSum] = [0, -1, 0, 0];
  for (let grey = 0; grey < 255; grey += 1) {
    darkCount += counts[grey]!;
    darkSum += counts[grey]! * grey;
    if (darkCount === 0 || darkCount === total) continue;
    const apart = darkSum / darkCount - (sum - darkSum) / (total - darkCount);
    const between = darkCount * (total - darkCount) * apart ** 2;
    if (between > best) [best, at] = [between, grey + 0.5];
  }
  return at < 0 || best / total ** 2 < LEAST_CONTRAST ** 2 / 16 ? null : at;
}

/** A belt and its ground that differ by less than this cannot be told apart, grey levels. */
const LEAST_CONTRAST = 24;

/**
 * How far into the frame the first dark begins, for each step along it from −`reach` on; null where there is no light
 * before it, or no dark that lasts `lasts` px.
 */
export function contourOf(
  picture: GreyPicture,
  frame: Frame,
  level: number,
  reach: number,
  lasts: number,
): (number | null)[] {
  const grey = greyIn(picture, frame);
  return Array.from({ length: 2 * reach + 1 }, (_, k) => edgeAt(grey, level, k - reach, reach, lasts));
}

function edgeAt(
  greyAt: ReturnType<typeof greyIn>,
  level: number,
  along: number,
  reach: number,
  lasts: number,
): number | null {
  let before: number | null = null;
  for (let into = -reach; into <= reach; into += 1) {
    const grey = greyAt(along, into);
    if (grey === null) continue;
    if (grey >= level) {
      before = grey;
      continue;
    }
    if (before === null) return null;
    let dark = 0;
    for (let k = 1; k <= lasts; k += 1) {
      const next = greyAt(along, into + k);
      if (next !== null && next < level) dark += 1;
    }
    // A speck is passed over, and what was light before it stays so.
    if (dark >= 0.8 * lasts) return into - (level - grey) / (before - grey);
  }
  return null;
}
