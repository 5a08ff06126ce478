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

/** Tiles along the longer side that tell how the ground is lit; one darker than this part of the lightest is belt. */
const TILES = 18;
const LIT_PART = 0.5;

/** The picture as if its ground were lit evenly: shadows and a lamp at one side are taken out of it. */
export function evenly(picture: GreyPicture): GreyPicture {
  const { width, height, data } = picture;
  const size = max(4, round(max(width, height) / TILES));
  const [across, down] = [Math.ceil(width / size), Math.ceil(height / size)];
  const tiles = Array.from({ length: across * down }, (_, t) => {
    const [left, top] = [(t % across) * size, floor(t / across) * size];
    const greys: number[] = [];
    for (let y = top; y < min(height, top + size); y += 1)
      for (let x = left; x < min(width, left + size); x += 1) greys.push(data[y * width + x]!);
    greys.sort((a, b) => a - b);
    return greys[floor(0.97 * (greys.length - 1))]!;
  });
  const highest = max(...tiles);
  const lit = tiles.map((tile) => tile > LIT_PART * highest);
  // Where there is only belt, the ground about it says how it is lit: the nearer, the more.
  const ground = tiles.map((tile, t) => {
    if (lit[t]) return tile;
    let [sum, weight] = [0, 0];
    tiles.forEach((other, o) => {
      if (!lit[o]) return;
      const share = 1 / (((t % across) - (o % across)) ** 2 + (floor(t / across) - floor(o / across)) ** 2);
      sum += share * other;
      weight += share;
    });
    return weight > 0 ? sum / weight : highest;
  });
  const at = (x: number, y: number) => ground[max(0, min(down - 1, y)) * across + max(0, min(across - 1, x))]!;
  const out = new Float32Array(data.length);
  for (let y = 0; y < height; y += 1)
    for (let x = 0; x < width; x += 1) {
      const [u, v] = [(x + 0.5) / size - 0.5, (y + 0.5) / size - 0.5];
      const [i, j] = [floor(u), floor(v)];
      const [p, q] = [u - i, v - j];
      const light =
        (1 - q) * ((1 - p) * at(i, j) + p * at(i + 1, j)) + q * ((1 - p) * at(i, j + 1) + p * at(i + 1, j + 1));
      out[y * width + x] = min(255, (data[y * width + x]! * highest) / max(1, light));
    }
  return { width, height, data: out };
}

/** Light spots in the belt are no larger than this part of the picture: the ends of its cords. */
const SPOT_PART = 0.004;
/** So far beyond a spot's edge its blur reaches, as a part of its width. */
const HALO = 0.25;

/**
 * The picture with the light ends of cords filled as dark as the belt round them: spots of light that the ground does
 * not reach. What is light up to the picture's edge, or large, is ground.
 */
export function withoutSpots(picture: GreyPicture, level: number): GreyPicture {
  const { width, height, data } = picture;
  const highest = SPOT_PART * width * height;
  const out = Float32Array.from(data);
  const seen = new Uint8Array(width * height);
  const stack: number[] = [];
  for (let start = 0; start < data.length; start += 1) {
    if (seen[start] || data[start]! < level) continue;
    const spot: number[] = [];
    let ground = false;
    let [left, right, top, bottom] = [width, 0, height, 0];
    seen[start] = 1;
    stack.push(start);
    while (stack.length > 0) {
      const at = stack.pop()!;
      const [x, y] = [at % width, floor(at / width)];
      if (spot.length <= highest) spot.push(at);
      if (x === 0 || y === 0 || x === width - 1 || y === height - 1) ground = true;
      [left, right, top, bottom] = [min(left, x), max(right, x), min(top, y), max(bottom, y)];
      for (const next of [x > 0 ? at - 1 : -1, x < width - 1 ? at + 1 : -1, at - width, at + width])
        if (next >= 0 && next < data.length && !seen[next] && data[next]! >= level) {
          seen[next] = 1;
          stack.push(next);
        }
    }
    if (ground || spot.length > highest) continue;
    const reach = max(2, round(HALO * max(right - left, bottom - top)) + 1);
    fill(out, picture, { left: left - reach, right: right + reach, top: top - reach, bottom: bottom + reach }, spot);
  }
  return { width, height, data: out };
}

/** Fills a spot, and what its blur lightens of the belt about it, with the dark at the edge of its box. */
function fill(
  out: Float32Array,
  { width, height, data }: GreyPicture,
  box: { left: number; right: number; top: number; bottom: number },
  spot: readonly number[],
): void {
  const [left, right] = [max(0, box.left), min(width - 1, box.right)];
  const [top, bottom] = [max(0, box.top), min(height - 1, box.bottom)];
  const edge: number[] = [];
  for (let x = left; x <= right; x += 1) edge.push(data[top * width + x]!, data[bottom * width + x]!);
  for (let y = top; y <= bottom; y += 1) edge.push(data[y * width + left]!, data[y * width + right]!);
  const dark = edge.sort((a, b) => a - b)[edge.length >> 2]!;
  for (const at of spot) out[at] = dark;
  // Only what lies round the spot: a ring of its own width.
  const mine = new Set(spot);
  const reach = max(2, (right - left) >> 2);
  for (const at of spot)
    for (let dy = -reach; dy <= reach; dy += 1)
      for (let dx = -reach; dx <= reach; dx += 1) {
        const [x, y] = [(at % width) + dx, floor(at / width) + dy];
        if (x < left || x > right || y < top || y > bottom || dx * dx + dy * dy > reach * reach) continue;
        const next = y * width + x;
        if (!mine.has(next) && out[next]! > dark) out[next] = dark;
      }
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
