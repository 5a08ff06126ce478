import type { PicturePoint, RibMarks } from '../../drive';
import { type RibCell, type CellFit, fitCell } from './cell';
import {
  contourOf,
  evenly,
  type Frame,
  greyIn,
  type GreyPicture,
  inPicture,
  smaller,
  threshold,
  withoutSpots,
} from './frame';
import { topBeside } from '../../numeric';

/** Ribs found in a close-up: marks on them, and their profile. */
export interface FoundRibs {
  ok: true;
  marks: RibMarks;
  /** The groove between two ribs, as `profile` has it; null where its floor cannot be told. */
  profile: 'v' | 'worn' | 'u';
  /** How wide the groove is near its floor, mm, and one standard deviation of it. */
  floorMm: number;
  floorSigmaMm: number;
  /** How blurred the picture is, mm on the belt. */
  blurMm: number;
}
export interface NoRibsFound {
  ok: false;
  why: 'no-contrast' | 'no-ribs' | 'not-ribs' | 'too-few-ribs' | 'too-small' | 'too-blurred';
}

/** The coarse look is taken at about so many px across, the fine one at most. */
const COARSE_PX = 360;
const FINE_PX = 2000;
/** Fewer ribs than these are no row. */
const LEAST_RIBS = 3;
/** A pitch of fewer px than this shows no depth. */
const LEAST_PITCH_PX = 14;
/** Of a pitch, a contour of ribs is at least and at most so deep. */
const DEPTHS = { least: 0.2, most: 1.3 };
/** A coarse contour repeats at least so well (its correlation with itself one pitch on). */
const LIKE_ITSELF = 0.55;
/** What repeats and is further from the shape of ribs than this is something else: a thread, a cog, a wave. */
const MOST_UNLIKE = 0.6;
/** A picture more blurred than this, of a pitch, hides the floor of a groove. */
const MOST_BLUR = 0.12;
/** The groove's width near its floor from which a profile is worn, and U, mm of a PK belt. Defaults. */
const FLOORS = { worn: 1, u: 1.5 };

/**
 * Finds the ribs of a belt in a close-up of its end or of a cut, dark on a light ground, whichever way up: where their
 * tips and valleys are, how blurred and how square it is, and the grooves' profile. `pitchMm` is the section's.
 */
export function findRibs(
  picture: GreyPicture,
  pitchMm: number,
  onProgress: (share: number) => void = () => undefined,
): FoundRibs | NoRibsFound {
  const longest = Math.max(picture.width, picture.height);
  const by = Math.max(1, Math.ceil(longest / FINE_PX));
  const asIs = smaller(picture, by);
  const coarseBy = Math.max(1, Math.round(longest / by / COARSE_PX));
  if (threshold(smaller(asIs, coarseBy)) === null) return { ok: false, why: 'no-contrast' };
  const full = evenly(asIs);
  const level = threshold(smaller(full, coarseBy));
  if (level === null) return { ok: false, why: 'no-contrast' };
  // The ends of the cords are light in the dark of the belt, and are no ground.
  const fine = withoutSpots(full, level);
  const coarse = smaller(fine, coarseBy);
  onProgress(0.1);
  const seen = rowIn(coarse, level);
  if (!seen) return { ok: false, why: 'no-ribs' };
  onProgress(0.3);
  // A pixel's middle is half a pixel in, at every size.
  const up = (at: number) => (at + 0.5) * coarseBy - 0.5;
  const frame = { x: up(seen.frame.x), y: up(seen.frame.y), turn: seen.frame.turn };
  const row = crossingsIn(fine, frame, seen.pitch * coarseBy, seen.from * coarseBy, seen.to * coarseBy, level);
  if (!row) return { ok: false, why: 'no-ribs' };
  if (row.pitch < LEAST_PITCH_PX) return { ok: false, why: 'too-small' };
  if (row.tips.length < LEAST_RIBS) return { ok: false, why: 'too-few-ribs' };
  const cell = cellOf(fine, row);
  onProgress(0.5);
  const fit = fitCell(cell, (share) => onProgress(0.5 + 0.5 * share));
  if (!fit) return { ok: false, why: 'no-ribs' };
  if (fit.misfit > MOST_UNLIKE) return { ok: false, why: 'not-ribs' };
  if (fit.blur > MOST_BLUR) return { ok: false, why: 'too-blurred' };
  const floorMm = fit.floor * pitchMm;
  const profile = profileOf(floorMm / (pitchMm / PK_PITCH));
  return {
    ok: true,
    marks: marksOf(row, fit, by),
    profile,
    floorMm,
    floorSigmaMm: fit.floorSigma * pitchMm,
    blurMm: fit.blur * pitchMm,
  };
}

const PK_PITCH = 3.56;

/** A row of ribs as the coarse look has it: its frame, and how far it reaches along it, px. */
interface SeenRow {
  frame: Frame;
  pitch: number;
  from: number;
  to: number;
}

/** Looks from four sides for a contour that repeats, and turns with it until it lies level. */
function rowIn(picture: GreyPicture, level: number): SeenRow | null {
  const middle = { x: (picture.width - 1) / 2, y: (picture.height - 1) / 2 };
  const reach = Math.ceil(Math.hypot(picture.width, picture.height) / 2);
  let best: (SeenRow & { score: number }) | null = null;
  for (const side of [0, 1, 2, 3]) {
    let frame: Frame = { ...middle, turn: (side * Math.PI) / 2 };
    for (let look = 0; look < 3; look += 1) {
      const contour = contourOf(picture, frame, level, reach, 3);
      const body = bodyOf(contour);
      if (!body) break;
      const found = repeatIn(body.heights);
      const { slope, height } = lineOf(body.heights);
      const half = (body.heights.length - 1) / 2;
      const [x, y] = inPicture(frame, body.from - reach + half, height);
      frame = { x, y, turn: frame.turn + Math.atan(slope) };
      if (found && look === 2) {
        const profile = {
          frame,
          pitch: found.pitch,
          from: -half,
          to: half,
          score: found.alike * Math.min(1, body.heights.length / (5 * found.pitch)),
        };
        if (!best || profile.score > best.score) best = profile;
      }
    }
  }
  return best;
}

/** The longest stretch of a contour without a gap or a step as large as a belt's end. */
function bodyOf(contour: readonly (number | null)[]): { from: number; heights: number[] } | null {
  const known = contour.filter((height) => height !== null).sort((a, b) => a - b);
  if (known.length < 24) return null;
  // Where most of it lies; a belt's ends fall away to the ground behind it.
  const [low, high] = [known[Math.floor(0.1 * known.length)]!, known[Math.floor(0.9 * known.length)]!];
  const room = Math.max(4, 0.8 * (high - low));
  let best: { from: number; heights: number[] } | null = null;
  let now: number[] = [];
  contour.forEach((height, at) => {
    if (height !== null && height > low - room && height < high + room) now.push(height);
    if (height === null || height <= low - room || height >= high + room || at === contour.length - 1) {
      if (now.length > (best?.heights.length ?? 23)) {
        const ended = height !== null && height > low - room && height < high + room ? at + 1 : at;
        best = { from: ended - now.length, heights: now };
      }
      now = [];
    }
  });
  return best;
}

function lineOf(heights: readonly number[]): { slope: number; height: number } {
  const half = (heights.length - 1) / 2;
  const height = heights.reduce((sum, height) => sum + height, 0) / heights.length;
  const spread = heights.reduce((sum, _, k) => sum + (k - half) ** 2, 0);
  return { height, slope: heights.reduce((sum, value, k) => sum + (k - half) * (value - height), 0) / spread };
}

/** The shortest length after which a contour is like itself, px. */
function repeatIn(heights: readonly number[]): { pitch: number; alike: number } | null {
  const { slope, height } = lineOf(heights);
  const half = (heights.length - 1) / 2;
  const flat = heights.map((value, k) => value - height - slope * (k - half));
  const alike = (lag: number) => {
    let [sum, a, b] = [0, 0, 0];
    for (let k = 0; k + lag < flat.length; k += 1) {
      sum += flat[k]! * flat[k + lag]!;
      a += flat[k]! ** 2;
      b += flat[k + lag]! ** 2;
    }
    return sum / (Math.sqrt(a * b) || 1);
  };
  const max = Math.floor(flat.length / 2.4);
  const curve = Array.from({ length: max + 1 }, (_, lag) => (lag < 4 ? -1 : alike(lag)));
  const peaks = curve.flatMap((value, lag) =>
    lag > 4 && lag < max && value > curve[lag - 1]! && value >= curve[lag + 1]! && value > LIKE_ITSELF ? [lag] : [],
  );
  const top = Math.max(...peaks.map((lag) => curve[lag]!));
  const lag = peaks.find((peak) => curve[peak]! > top - 0.15);
  if (lag === undefined) return null;
  const sorted = [...flat].sort((a, b) => a - b);
  const deep = sorted[Math.floor(0.95 * sorted.length)]! - sorted[Math.floor(0.05 * sorted.length)]!;
  if (deep < DEPTHS.least * lag || deep > DEPTHS.most * lag) return null;
  const at = curve[lag]!;
  return { pitch: lag + topBeside(curve[lag - 1]!, at, curve[lag + 1]!), alike: at };
}

/** A row of ribs to a part of a pixel: where each tip's and valley's middle is along the line of half height. */
interface FineRow {
  frame: Frame;
  pitch: number;
  tips: number[];
  valleys: number[];
}

/** Where the flanks cross half height: blur and the shape of tip and floor move these least. */
function crossingsIn(
  picture: GreyPicture,
  start: Frame,
  pitch: number,
  from: number,
  to: number,
  level: number,
): FineRow | null {
  let frame = start;
  let row: FineRow | null = null;
  for (let look = 0; look < 3; look += 1) {
    const edges = flanksAlong(picture, frame, from - pitch, to + pitch, level);
    const crossings = spacedOut(edges, pitch);
    if (crossings.length < 4) return row;
    const tips: number[] = [];
    const valleys: number[] = [];
    for (let k = 1; k < crossings.length; k += 1) {
      const [a, b] = [crossings[k - 1]!, crossings[k]!];
      // A belt's own sides are no ribs.
      if (b.at - a.at > 0.85 * pitch) continue;
      if (a.dark !== b.dark) (a.dark ? tips : valleys).push((a.at + b.at) / 2);
    }
    if (tips.length < 2 || valleys.length < 2) return null;
    const longest = runOf(tips, valleys, pitch);
    row = { frame, pitch: pitchOf(longest.tips, longest.valleys), ...longest };
    pitch = row.pitch;
    frame = levelled(picture, row, level);
  }
  return row;
}

/** Every place along a frame where light turns to dark or back, px. */
function flanksAlong(picture: GreyPicture, frame: Frame, from: number, to: number, level: number) {
  const edges: { at: number; dark: boolean }[] = [];
  const greyAt = greyIn(picture, frame);
  let before: number | null = null;
  for (let along = Math.floor(from); along <= Math.ceil(to); along += 1) {
    const grey = greyAt(along, 0);
    if (grey !== null && before !== null && grey < level !== before < level)
      edges.push({ at: along - (level - grey) / (before - grey), dark: grey < level });
    before = grey;
  }
  return edges;
}

/** Edges without those of specks: pairs nearer together than any rib or groove is wide. */
function spacedOut(edges: readonly { at: number; dark: boolean }[], pitch: number) {
  const kept: { at: number; dark: boolean }[] = [];
  for (const edge of edges) {
    const last = kept[kept.length - 1];
    if (last && edge.at - last.at < 0.12 * pitch && edge.dark !== last.dark) kept.pop();
    else kept.push(edge);
  }
  return kept;
}

/** The longest run of tips and valleys that follow one another half a pitch apart, give or take. */
function runOf(tips: readonly number[], valleys: readonly number[], pitch: number) {
  const all = [...tips.map((at) => ({ at, tip: true })), ...valleys.map((at) => ({ at, tip: false }))].sort(
    (a, b) => a.at - b.at,
  );
  let best: typeof all = [];
  let now: typeof all = [];
  for (const mark of all) {
    const last = now[now.length - 1];
    if (last && (last.tip === mark.tip || Math.abs(mark.at - last.at - pitch / 2) > 0.25 * pitch)) now = [];
    now = [...now, mark];
    if (now.length > best.length) best = now;
  }
  return {
    tips: best.filter(({ tip }) => tip).map(({ at }) => at),
    valleys: best.filter(({ tip }) => !tip).map(({ at }) => at),
  };
}

const pitchOf = (tips: readonly number[], valleys: readonly number[]) => {
  const gaps = [tips, valleys].flatMap((row) =>
    row.length > 1 ? [(row[row.length - 1]! - row[0]!) / (row.length - 1)] : [],
  );
  return gaps.reduce((sum, gap) => sum + gap, 0) / gaps.length;
};

/** The frame turned and moved so that tips and valleys lie level, and half height on its axis. */
function levelled(picture: GreyPicture, { frame, pitch, tips, valleys }: FineRow, level: number): Frame {
  const greyAt = greyIn(picture, frame);
  const depthAt = (along: number) => {
    let before: number | null = null;
    for (let into = -pitch; into <= pitch; into += 1) {
      const grey = greyAt(along, into);
      if (grey !== null && before !== null && before >= level && grey < level)
        return into - (level - grey) / (before - grey);
      before = grey ?? before;
    }
    return null;
  };
  const rows = [tips, valleys].map((row) =>
    row.flatMap((along) => {
      const into = depthAt(along);
      return into === null ? [] : [{ along, into }];
    }),
  );
  if (rows.some((row) => row.length < 2)) return frame;
  const means = rows.map((row) => ({
    along: row.reduce((sum, point) => sum + point.along, 0) / row.length,
    into: row.reduce((sum, point) => sum + point.into, 0) / row.length,
  }));
  let [top, bottom] = [0, 0];
  rows.forEach((row, k) =>
    row.forEach(({ along, into }) => {
      top += (along - means[k]!.along) * (into - means[k]!.into);
      bottom += (along - means[k]!.along) ** 2;
    }),
  );
  const slope = top / bottom;
  // Half height, on the axis: the mean of both lines at along 0.
  const half = means.reduce((sum, { along, into }) => sum + into - slope * along, 0) / 2;
  const [x, y] = inPicture(frame, 0, half);
  return { x, y, turn: frame.turn + Math.atan(slope) };
}

/** One rib and half a groove at either side, the mean of all whole ones: grey from 1 (ground) to 0 (belt). */
function cellOf(picture: GreyPicture, { frame, tips, valleys, pitch }: FineRow): RibCell {
  const complete = tips.filter((tip) =>
    [-1, 1].every((way) => valleys.some((v) => Math.abs(v - tip - (way * pitch) / 2) < 0.3 * pitch)),
  );
  const used = complete.length > 0 ? complete : tips;
  const { across, deep, from, to } = CELL;
  const greyAt = greyIn(picture, frame);
  const sums = new Float64Array(across * deep);
  const counts = new Float64Array(across * deep);
  for (const tip of evenlyLit(used, (along) => greyAt(along, (from + 0.05) * pitch), pitch)) {
    const left = [...valleys].reverse().find((v) => v < tip) ?? tip - pitch / 2;
    const right = valleys.find((v) => v > tip) ?? tip + pitch / 2;
    const local = right - left;
    const grey = (t: number, v: number) => greyAt(tip + t * local, v * pitch);
    // How light the ground is above this rib, and how dark the belt below it.
    const light = mean([-0.5, -0.25, 0, 0.25, 0.5].flatMap((t) => [from + 0.02, from + 0.08].map((v) => grey(t, v))));
    const dark = mean([-0.25, 0, 0.25].flatMap((t) => [to - 0.08, to - 0.02].map((v) => grey(t, v))));
    if (light === null || dark === null || light - dark < 8) continue;
    for (let j = 0; j < deep; j += 1)
      for (let i = 0; i < across; i += 1) {
        const value = grey((i + 0.5) / across - 0.5, from + ((to - from) * (j + 0.5)) / deep);
        if (value === null) continue;
        sums[j * across + i]! += (value - dark) / (light - dark);
        counts[j * across + i]! += 1;
      }
  }
  return {
    ...CELL,
    values: Array.from(sums, (sum, k) => (counts[k]! > 0 ? sum / counts[k]! : null)),
    ribs: used.length,
  };
}

/** The ribs over which the ground is evenly lit: a shadow's edge is no part of a shape. All, if none is. */
function evenlyLit(
  tips: readonly number[],
  groundAt: (along: number) => number | null,
  pitch: number,
): readonly number[] {
  const even = tips.filter((tip) => {
    const [left, right] = [-1, 1].map((way) => mean([0.25, 0.4, 0.5].map((t) => groundAt(tip + way * t * pitch))));
    return left !== null && right !== null && Math.abs(left! - right!) < UNEVEN * Math.max(left!, right!);
  });
  return even.length > 0 ? even : tips;
}
const UNEVEN = 0.08;

/** A cell in steps across a pitch and into the belt, from above half height to below it, in pitches. */
const CELL = { across: 40, deep: 60, from: -0.75, to: 0.75 };

function mean(values: readonly (number | null)[]): number | null {
  const known = values.filter((value) => value !== null);
  return known.length === 0 ? null : known.reduce((sum, value) => sum + value, 0) / known.length;
}

/** The marks that the cell's fit puts on every tip and valley, in px of the picture as it came. */
function marksOf({ frame, tips, valleys, pitch }: FineRow, fit: CellFit, by: number): RibMarks {
  const put = (along: number, into: number): PicturePoint => {
    const [x, y] = inPicture(frame, along + fit.aside * pitch, into * pitch);
    return [tenths((x + 0.5) * by - 0.5), tenths((y + 0.5) * by - 0.5)];
  };
  return {
    tips: tips.map((along) => put(along, fit.top)),
    valleys: valleys.map((along) => put(along, fit.bottom)),
    // Every mark has its own noise, and all of them what the fit leaves open.
    sigmaPx: Math.max(0.15, (fit.depthSigma / 2) * Math.sqrt(tips.length + valleys.length) * pitch * by),
    stretch: { at: fit.stretch, plusMinus: fit.stretchSigma },
  };
}

const tenths = (px: number) => Math.round(20 * px) / 20;

/** The shape of a groove whose floor is so wide, mm on a belt of PK. */
function profileOf(floorMm: number): 'u' | 'worn' | 'v' {
  if (floorMm >= FLOORS.u) return 'u';
  return floorMm >= FLOORS.worn ? 'worn' : 'v';
}
