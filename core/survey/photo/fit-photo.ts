import { CholeskyDecomposition, Matrix, LuDecomposition, solve } from 'ml-matrix';
import { combinedDiameter } from '../diameters';
import { type Drive, type PicturePoint, pulleysById, type SurveyPhoto } from '../../drive';
import { bodyRadiusMm, sectionFor } from '../../section';
import { type Camera, lineOfSight, tiltDeg, toPlane } from './camera';
import { type Ellipse, fitEllipse } from './ellipse';
import type { PhotoFinding, PhotoOwn } from './photo-finding';

export interface PhotoCircle {
  pulley: string;
  /** Centre in the camera's frame, mm. */
  x: number;
  y: number;
  /** One standard deviation of each, from the middle of all circles, mm. */
  plusMinus: number;
  diameter: number;
  diameterPlusMinus: number;
  /** The diameter was given, and helped to set the scale. */
  known: boolean;
  /** Points that lie too far off the rim to be meant for it, by their place in the rim's list. */
  off: number[];
}

export interface PhotoFit {
  photo: string;
  /** Null while the marks do not tell how the camera stood. */
  camera: Camera | null;
  circles: PhotoCircle[];
  /** Covariance of x and y of the circles in their order, mm². */
  covariance: number[][];
  /** At the crank's plane, in the picture's middle. */
  mmPerPx: number;
  /** One standard deviation of the scale, as a share of it. */
  scaleShare: number;
  tiltDeg: number;
  /** How well points were put on the rims, px. */
  pointPx: number;
  findings: PhotoFinding[];
}

/** A phone's main lens: focal length over the picture's long side, and how far a lens may be from that. Defaults. */
export const DEFAULT_FOCAL_SHARE = 0.75;
const FOCAL_DOUBT = 0.25;
/** A camera distance that was given is good to this share of it. Default. */
export const DEFAULT_DISTANCE_SHARE = 0.05;
/** A diameter that no reading vouches for is good to this, mm. Default. */
const DIAMETER_DOUBT = 1;
/**
 * How far the camera's axis may be from the picture's middle, as a share of its long side: whole as it was taken, cut
 * down since, and where nobody says. Defaults.
 */
export const MIDDLE_DOUBT = { whole: 0.01, cropped: 0.3, unsaid: 0.1 };
/** Nobody takes a useful picture from further round than this, radians; it only steadies what the rims leave open. */
const TILT_DOUBT = 0.6;
/** How well a point is put on a rim until the points themselves tell, as a share of the picture's long side. */
const POINT_SHARE = 0.001;
const KNOWN_OFF_AT = 3.29;
/** Step of a numeric slope, radians or log. */
const NUDGE = 1e-6;
/** Planes closer than this are one, mm. */
const SAME_PLANE = 0.5;

interface Rim {
  pulley: string;
  points: PicturePoint[];
  /** Places of `points` in the rim's own list. */
  index: number[];
  z: number;
  ellipse: Ellipse;
  /** Radius and its standard deviation where it is known, mm. */
  known: { radius: number; sigma: number } | null;
}

/**
 * Camera (pitch, yaw, log focal, log distance, and where its axis meets the picture, from the middle as a share of the
 * long side), then x, y and radius of each rim.
 */
type Unknowns = number[];
const CAMERA = 6;

/**
 * How the camera stood, and where the marked rims lie, by least squares over all points at once: every point's ray
 * meets its pulley's plane on a circle. Known diameters give the scale, the shape of the rims the tilt, planes and
 * camera distance the depth. Where no distance is given, a usual lens is assumed, loosely. Needs five points on a rim;
 * never throws on a drive that `readDrive` accepts.
 */
export function fitPhoto(drive: Drive, photo: SurveyPhoto): PhotoFit {
  const rims = rimsOf(drive, photo);
  const before = aboutRims(photo, rims);
  const nothing = (more: readonly PhotoOwn[]): PhotoFit => ({
    photo: photo.id,
    camera: null,
    circles: [],
    covariance: [],
    mmPerPx: 0,
    scaleShare: 0,
    tiltDeg: 0,
    pointPx: 0,
    findings: ofPhoto(photo, [...before, ...more]),
  });
  if (rims.length === 0) return nothing([]);
  if (!rims.some(({ known }) => known)) return nothing([{ code: 'no-known-diameter', severity: 'fault' }]);

  const { cleaned, sigma, agreed } = solved(photo, rims);
  const [best] = agreed.found as [Refined];
  const { covariance, findings: tilts } = centresKnown(photo, agreed);
  if (!covariance.every((row, k) => row.every(Number.isFinite) && row[k]! > 0) || !best.unknowns.every(Number.isFinite))
    // Points all over the place come to no camera at all.
    return nothing([...tilts, { code: 'no-camera', severity: 'fault' }]);
  const camera = cameraOf(photo, best.unknowns);
  const circles = circlesOf(photo, agreed, covariance);
  const scale = best.covariance;
  const logScale = scale.get(3, 3) + scale.get(2, 2) - 2 * scale.get(2, 3);
  return {
    photo: photo.id,
    camera,
    circles,
    covariance,
    findings: ofPhoto(photo, [
      ...before,
      ...tilts,
      ...aboutCircles(circles, agreed),
      ...aboutCamera(photo, camera, cleaned, agreed.rims),
    ]),
    mmPerPx: camera.distance / camera.focal,
    scaleShare: Math.sqrt(Math.max(0, agreed.excess * logScale)),
    tiltDeg: tiltDeg(camera),
    pointPx: sigma,
  };
}

/** The picture stands before what is said of it; with that, it is the same finding. */
const ofPhoto = ({ id }: SurveyPhoto, findings: readonly PhotoOwn[]): PhotoFinding[] =>
  findings.map(({ code, severity, ...more }) => ({ code, severity, photo: id, ...more }) as PhotoFinding);

const markedIn = ({ rims }: SurveyPhoto) => (rims ?? []).filter(({ points }) => points.length > 0);

/** Rims with too few points to be one, and none at all. */
function aboutRims(photo: SurveyPhoto, rims: readonly Rim[]): PhotoOwn[] {
  const marked = markedIn(photo);
  if (marked.length === 0) return [{ code: 'no-rims', severity: 'note' }];
  return marked
    .filter(({ pulley }) => !rims.some((rim) => rim.pulley === pulley))
    .map(({ pulley, points }) => ({
      code: 'few-points',
      severity: 'note',
      pulley,
      figures: { points: points.length },
    }));
}

/** Rims without points that slipped, how well points were put on them, px, and the camera that they agree on. */
function solved(photo: SurveyPhoto, rims: readonly Rim[]): { cleaned: Rim[]; sigma: number; agreed: Agreed } {
  const roughly = POINT_SHARE * Math.max(photo.width, photo.height);
  const from = (found: readonly Refined[]) => found.map(({ unknowns }) => unknowns);
  const first = outcomes(photo, rims, roughly, starts(photo, rims));
  const cleaned = withoutStrays(photo, rims, first[0]!.unknowns);
  // How well points were put is told with one known diameter, for several that contradict one another would pull
  // circles off their points.
  const freed = cleaned.map((rim, k) =>
    k === cleaned.findIndex(({ known }) => known) ? rim : { ...rim, known: null },
  );
  const again = outcomes(photo, freed, roughly, from(first));
  const spare = cleaned.reduce((sum, rim) => sum + rim.points.length, 0) - 3 * cleaned.length - 3;
  // Enough spare points tell how well they were put; few of them do not.
  const sigma =
    spare >= 8
      ? Math.max(0.2, roughly * Math.sqrt(pointCost(photo, freed, again[0]!.unknowns, roughly) / spare))
      : roughly;
  return { cleaned, sigma, agreed: agreeing(photo, cleaned, sigma, from(again)) };
}

/** How well the centres are known, mm²; where the camera may have stood in two ways, with what differs between them. */
function centresKnown(
  photo: SurveyPhoto,
  { rims, found, excess }: Agreed,
): { covariance: number[][]; findings: PhotoOwn[] } {
  const [best, other] = found as [Refined, Refined | undefined];
  const centre = (matrix: Matrix, i: number, j: number) =>
    matrix.get(CAMERA + 3 * (i >> 1) + (i & 1), CAMERA + 3 * (j >> 1) + (j & 1));
  const covariance = Array.from({ length: 2 * rims.length }, (_, i) =>
    Array.from({ length: 2 * rims.length }, (_, j) => excess * centre(best.covariance, i, j)),
  );
  if (!other || other.cost >= best.cost + 8) return { covariance, findings: [] };
  const apart = awayFrom(best.unknowns, other.unknowns, rims.length);
  const chance = 1 / (1 + Math.exp((other.cost - best.cost) / 2));
  apart.forEach((a, i) => apart.forEach((b, j) => (covariance[i]![j]! += chance * a * b)));
  if (Math.hypot(...apart) <= 1) return { covariance, findings: [] };
  const figures = { tilt: tiltDeg(cameraOf(photo, best.unknowns)), mm: Math.max(...apart.map(Math.abs)) };
  return { covariance, findings: [{ code: 'either-tilt', severity: 'watch', figures }] };
}

function circlesOf(photo: SurveyPhoto, { rims, found, excess }: Agreed, covariance: number[][]): PhotoCircle[] {
  const [best] = found as [Refined];
  const marked = markedIn(photo);
  return rims.map((rim, k): PhotoCircle => {
    const [x, y, radius] = best.unknowns.slice(CAMERA + 3 * k, CAMERA + 3 * k + 3) as [number, number, number];
    const at = CAMERA + 3 * k + 2;
    return {
      pulley: rim.pulley,
      x,
      y,
      diameter: 2 * radius,
      known: rim.known !== null,
      plusMinus: spreadFromMiddle(covariance, k),
      diameterPlusMinus: 2 * Math.sqrt(excess * best.covariance.get(at, at)),
      off: marked
        .find(({ pulley }) => pulley === rim.pulley)!
        .points.flatMap((_, index) => (rim.index.includes(index) ? [] : [index])),
    };
  });
}

/** Points off their rim, and known diameters that the picture contradicts. */
function aboutCircles(circles: readonly PhotoCircle[], { rims, released, unclear }: Agreed): PhotoOwn[] {
  const findings = circles
    .filter(({ off }) => off.length > 0)
    .map(({ pulley, off }): PhotoOwn => ({
      code: 'point-off',
      severity: 'watch',
      pulley,
      figures: { points: off.length },
    }));
  for (const { pulley, known } of released) {
    const seen = circles.find((circle) => circle.pulley === pulley)!;
    const figures = { given: 2 * known!.radius, seen: seen.diameter };
    findings.push({ code: 'known-disagrees', severity: 'fault', pulley, figures });
  }
  if (unclear.length > 0)
    findings.push({ code: 'knowns-differ', severity: 'fault', pulleys: unclear.map(({ pulley }) => pulley) });
  const scaled = rims.filter(({ known }) => known);
  if (scaled.length === 1) findings.push({ code: 'scale-unchecked', severity: 'note', pulley: scaled[0]!.pulley });
  return findings;
}

/** What was guessed of the camera, and how steeply it looked. */
function aboutCamera(photo: SurveyPhoto, camera: Camera, cleaned: readonly Rim[], used: readonly Rim[]): PhotoOwn[] {
  const findings: PhotoOwn[] = [];
  const deep = (rims: readonly Rim[]) => rims.some(({ z }) => Math.abs(z - rims[0]!.z) > SAME_PLANE);
  if (photo.cameraDistance === undefined && deep(cleaned))
    findings.push({ code: 'depth-guessed', severity: 'watch', figures: { distance: camera.distance } });
  if (tiltDeg(camera) > 25) findings.push({ code: 'steep', severity: 'watch', figures: { tilt: tiltDeg(camera) } });
  if (photo.cropped === undefined && deep(used)) findings.push({ code: 'middle-guessed', severity: 'watch' });
  return findings;
}

/** The known diameters that agree, and what the picture comes to with them. */
interface Agreed {
  rims: Rim[];
  found: Refined[];
  /** Rims whose known diameter the others contradict: they give no scale. */
  released: Rim[];
  /** Rims of which one contradicts the others and nothing tells which. */
  unclear: Rim[];
  /** By how much variances grow where the known ones differ for good. */
  excess: number;
}

/**
 * A known diameter is named only if without it the rest fit better by so much, in sums of squares, than without any
 * other.
 */
const LEAST_MARGIN = 4;

/**
 * Lets go of the known diameter that the others contradict most, fits again, and so on for as long as one stands out.
 * Of two that differ nobody knows which is wrong.
 */
function agreeing(photo: SurveyPhoto, start: readonly Rim[], sigma: number, from: readonly Unknowns[]): Agreed {
  let rims = [...start];
  let found = outcomes(photo, rims, sigma, from);
  const released: Rim[] = [];
  for (;;) {
    const scaled = rims.filter(({ known }) => known);
    if (scaled.length < 2 || Math.max(...rims.map((rim, k) => offKnown(rim, found[0]!, k))) < KNOWN_OFF_AT)
      return { rims, found, released, unclear: [], excess: 1 };
    const starts = found.map(({ unknowns }) => unknowns);
    const tries = scaled
      .map((rim) => {
        const without = rims.map((other) => (other === rim ? { ...rim, known: null } : other));
        return { rim, without, outcome: outcomes(photo, without, sigma, starts) };
      })
      .sort((a, b) => a.outcome[0]!.cost - b.outcome[0]!.cost);
    const min = tries[0]!.outcome[0]!.cost;
    const alike = tries.filter(({ outcome }) => outcome[0]!.cost < min + LEAST_MARGIN);
    if (alike.length > 1)
      return {
        rims,
        found,
        released,
        unclear: alike.map(({ rim }) => rim),
        excess: Math.max(1, (found[0]!.cost - min) / (scaled.length - 1)),
      };
    released.push(tries[0]!.rim);
    rims = tries[0]!.without;
    found = tries[0]!.outcome;
  }
}

/**
 * How far a known diameter lies from what the rest of the picture makes it, without the pull of its own claim, in
 * standard deviations; 0 where nothing checks it.
 */
function offKnown({ known }: Rim, { unknowns, covariance }: Refined, k: number): number {
  if (!known) return 0;
  const at = CAMERA + 3 * k + 2;
  const own = covariance.get(at, at) / known.sigma ** 2;
  return own < 0.999 ? Math.abs((unknowns[at]! - known.radius) / known.sigma) / Math.sqrt(1 - own) : 0;
}

/**
 * A point further outside the picture than half its long side was never put on a rim: it is told as off, and nothing is
 * worked out from it.
 */
function isNear({ width, height }: SurveyPhoto, [x, y]: PicturePoint): boolean {
  const margin = Math.max(width, height) / 2;
  return x >= -margin && y >= -margin && x <= width + margin && y <= height + margin;
}

function rimsOf(drive: Drive, photo: SurveyPhoto): Rim[] {
  const pulleys = pulleysById(drive);
  const crank = drive.stations.find(({ role }) => role === 'crankshaft') ?? drive.stations[0];
  const datum = crank?.pulleys[0]?.plane ?? 0;
  return (photo.rims ?? []).flatMap(({ pulley: id, points, known }) => {
    const placed = pulleys.get(id);
    const index = points.flatMap((point, k) => (isNear(photo, point) ? [k] : []));
    const near = index.map((k) => points[k]!);
    const ellipse = fitEllipse(near);
    if (!placed || !ellipse || ellipse.b < 1) return [];
    const belt = drive.belts.find(({ route }) => route.some((stop) => stop.pulley === id)) ?? drive.belts[0];
    const radius = bodyRadiusMm(placed.pulley, belt ? sectionFor(belt.section, belt.sectionOverrides) : null);
    const sigma = (combinedDiameter(drive, id)?.plusMinus ?? DIAMETER_DOUBT) / 2;
    return [
      {
        pulley: id,
        points: near,
        index,
        z: (placed.pulley.plane ?? 0) - datum,
        ellipse,
        known: known && radius > 0 ? { radius, sigma } : null,
      },
    ];
  });
}

function cameraOf(photo: SurveyPhoto, unknowns: Unknowns): Camera {
  const [pitch, yaw, focal, distance, right, down] = unknowns as [number, number, number, number, number, number];
  const long = Math.max(photo.width, photo.height);
  return {
    pitch,
    yaw,
    focal: Math.exp(focal),
    distance: Math.exp(distance),
    cx: photo.width / 2 + right * long,
    cy: photo.height / 2 + down * long,
  };
}

function middleDoubt({ cropped }: SurveyPhoto): number {
  if (cropped === undefined) return MIDDLE_DOUBT.unsaid;
  return cropped ? MIDDLE_DOUBT.cropped : MIDDLE_DOUBT.whole;
}

interface Refined {
  unknowns: Unknowns;
  cost: number;
  covariance: Matrix;
}

/**
 * Head-on and either tilt that the largest rim's shape allows: one flattened circle alone cannot tell from which side
 * it is seen.
 */
function starts(photo: SurveyPhoto, rims: readonly Rim[]): Unknowns[] {
  const { a, b, angle } = rims.reduce((best, rim) => (rim.ellipse.b > best.ellipse.b ? rim : best)).ellipse;
  const tilt = Math.min(0.8, Math.acos(Math.min(1, b / a)));
  const [dx, dy] = [-Math.sin(angle), Math.cos(angle)];
  return [0, tilt, -tilt].map((turn) => startAt(photo, rims, -turn * dy, turn * dx));
}

/** What the starts come to, the best first, each way the camera may have stood once. */
function outcomes(photo: SurveyPhoto, rims: readonly Rim[], sigma: number, from: readonly Unknowns[]): Refined[] {
  const found = from.map((start) => refine(photo, rims, start, sigma)).sort((a, b) => a.cost - b.cost);
  const apart = (a: Refined, b: Refined) =>
    Math.hypot(a.unknowns[0]! - b.unknowns[0]!, a.unknowns[1]! - b.unknowns[1]!) > 0.03;
  return found.filter((fit, k) => found.slice(0, k).every((better) => apart(fit, better)));
}

function startAt(photo: SurveyPhoto, rims: readonly Rim[], pitch: number, yaw: number): Unknowns {
  const known = rims.filter((rim) => rim.known);
  const perPx = known.reduce((sum, rim) => sum + rim.known!.radius / rim.ellipse.a, 0) / known.length;
  const focal =
    photo.cameraDistance === undefined
      ? DEFAULT_FOCAL_SHARE * Math.max(photo.width, photo.height)
      : photo.cameraDistance / perPx;
  const unknowns = [pitch, yaw, Math.log(focal), Math.log(perPx * focal), 0, 0];
  const camera = cameraOf(photo, unknowns);
  for (const { ellipse, z, known: size } of rims)
    unknowns.push(...toPlane(camera, [ellipse.x, ellipse.y], z), size?.radius ?? ellipse.a * perPx);
  return unknowns;
}

/** Levenberg–Marquardt on the normal equations; the covariance is their inverse at the end. */
function refine(photo: SurveyPhoto, rims: readonly Rim[], start: Unknowns, sigma: number): Refined {
  let unknowns = start;
  let { slopes, misfit } = linearised(photo, rims, unknowns, sigma);
  let cost = sumOfSquares(misfit);
  let damping = 1e-3;
  for (let step = 0; step < 60; step += 1) {
    const normal = slopes.transpose().mmul(slopes);
    const pull = slopes.transpose().mmul(Matrix.columnVector(misfit));
    const damped = normal.clone();
    for (let k = 0; k < damped.rows; k += 1) damped.set(k, k, damped.get(k, k) * (1 + damping) + 1e-12);
    const change = new CholeskyDecomposition(damped).solve(pull).getColumn(0);
    const tried = unknowns.map((value, k) => value - change[k]!);
    const next = linearised(photo, rims, tried, sigma);
    const nextCost = sumOfSquares(next.misfit);
    if (Number.isFinite(nextCost) && nextCost <= cost) {
      const settled = cost - nextCost < 1e-6 * (1 + cost);
      [unknowns, cost, damping] = [tried, nextCost, Math.max(1e-9, damping / 8)];
      ({ slopes, misfit } = next);
      if (settled) break;
    } else if ((damping *= 6) > 1e8) break;
  }
  const normal = slopes.transpose().mmul(slopes);
  // Points may say nothing at all of one of the unknowns: then nobody knows how well any is known.
  const [lu, size] = [new LuDecomposition(normal), normal.rows];
  const covariance = lu.isSingular() ? Matrix.zeros(size, size).fill(Number.NaN) : lu.solve(Matrix.eye(size));
  return { unknowns, cost, covariance };
}

/** What is known of the camera and the rims before a point is looked at, each with one standard deviation. */
function knownBefore(photo: SurveyPhoto, rims: readonly Rim[]): { at: number; expected: number; doubt: number }[] {
  const middle = middleDoubt(photo);
  const focal = Math.log(DEFAULT_FOCAL_SHARE * Math.max(photo.width, photo.height));
  return [
    { at: 0, expected: 0, doubt: TILT_DOUBT },
    { at: 1, expected: 0, doubt: TILT_DOUBT },
    { at: 4, expected: 0, doubt: middle },
    { at: 5, expected: 0, doubt: middle },
    ...(photo.cameraDistance === undefined
      ? [{ at: 2, expected: focal, doubt: FOCAL_DOUBT }]
      : [
          // With the distance measured any lens will do: a crop, a zoom, a tablet.
          { at: 2, expected: focal, doubt: 1 },
          { at: 3, expected: Math.log(photo.cameraDistance), doubt: DEFAULT_DISTANCE_SHARE },
        ]),
    ...rims.flatMap(({ known }, k) =>
      known ? [{ at: CAMERA + 3 * k + 2, expected: known.radius, doubt: known.sigma }] : [],
    ),
  ];
}

/** Rows: each point's distance from its circle in px over `sigma`, then what is known beforehand over its own doubt. */
function linearised(
  photo: SurveyPhoto,
  rims: readonly Rim[],
  unknowns: Unknowns,
  sigma: number,
): { slopes: Matrix; misfit: number[] } {
  const size = CAMERA + 3 * rims.length;
  const rows: number[][] = [];
  const misfit: number[] = [];
  const seen = lineOfSight(cameraOf(photo, unknowns));
  const nudged = Array.from({ length: CAMERA }, (_, k) => {
    const at = (by: number) =>
      lineOfSight(
        cameraOf(
          photo,
          unknowns.map((value, i) => (i === k ? value + by : value)),
        ),
      );
    return { more: at(NUDGE), less: at(-NUDGE) };
  });
  rims.forEach(({ points, z }, k) => {
    const at = CAMERA + 3 * k;
    const [cx, cy, radius] = [unknowns[at]!, unknowns[at + 1]!, unknowns[at + 2]!];
    const reach = (sight: ReturnType<typeof lineOfSight>, u: number, v: number) => {
      const [x, y] = sight(u, v, z);
      return Math.hypot(x - cx, y - cy);
    };
    for (const [u, v] of points) {
      const [x, y] = seen(u, v, z);
      const far = Math.hypot(x - cx, y - cy);
      // Millimetres the reach grows for one px, in the direction in which it grows fastest.
      const perPx = Math.hypot(
        reach(seen, u + 0.5, v) - reach(seen, u - 0.5, v),
        reach(seen, u, v + 0.5) - reach(seen, u, v - 0.5),
      );
      const weight = 1 / Math.max(1e-9, perPx * sigma);
      const row = new Array<number>(size).fill(0);
      nudged.forEach(
        ({ more, less }, i) => (row[i] = ((reach(more, u, v) - reach(less, u, v)) / (2 * NUDGE)) * weight),
      );
      row[at] = (-(x - cx) / (far || 1)) * weight;
      row[at + 1] = (-(y - cy) / (far || 1)) * weight;
      row[at + 2] = -weight;
      rows.push(row);
      misfit.push((far - radius) * weight);
    }
  });
  for (const { at, expected, doubt } of knownBefore(photo, rims)) {
    const row = new Array<number>(size).fill(0);
    row[at] = 1 / doubt;
    rows.push(row);
    misfit.push((unknowns[at]! - expected) / doubt);
  }
  return { slopes: new Matrix(rows), misfit };
}

function pointCost(photo: SurveyPhoto, rims: readonly Rim[], unknowns: Unknowns, sigma: number): number {
  const points = rims.reduce((sum, rim) => sum + rim.points.length, 0);
  return sumOfSquares(linearised(photo, rims, unknowns, sigma).misfit.slice(0, points));
}

/**
 * A finger that slipped: one point at a time is left out that lies far outside what all others scatter, while five stay
 * on the rim.
 */
function withoutStrays(photo: SurveyPhoto, rims: readonly Rim[], unknowns: Unknowns): Rim[] {
  const camera = cameraOf(photo, unknowns);
  const sight = lineOfSight(camera);
  const mmPerPx = camera.distance / camera.focal;
  const off = (rim: Rim) =>
    fromCircle(rim.points.map(([u, v]) => sight(u, v, rim.z))).map((mm) => Math.abs(mm) / mmPerPx);
  const all = rims.flatMap(off).sort((a, b) => a - b);
  const limit = Math.max(5 * 1.4826 * all[all.length >> 1]!, 2 * POINT_SHARE * Math.max(photo.width, photo.height));
  return rims.map((rim) => {
    let kept = rim;
    while (kept.points.length > 5) {
      const far = off(kept);
      const worst = far.indexOf(Math.max(...far));
      if (far[worst]! <= limit) break;
      const points = kept.points.filter((_, k) => k !== worst);
      kept = {
        ...kept,
        points,
        index: kept.index.filter((_, k) => k !== worst),
        ellipse: fitEllipse(points) ?? kept.ellipse,
      };
    }
    return kept;
  });
}

/** How far each point lies outside the circle that fits them all (Kåsa: linear in x² + y²). */
function fromCircle(points: readonly (readonly [number, number])[]): number[] {
  const [mx, my] = [
    points.reduce((sum, [x]) => sum + x, 0) / points.length,
    points.reduce((sum, [, y]) => sum + y, 0) / points.length,
  ];
  const rows = points.map(([x, y]) => [x - mx, y - my, 1]);
  const [a, b, c] = solve(
    new Matrix(rows),
    Matrix.columnVector(rows.map(([x, y]) => x! * x! + y! * y!)),
    true,
  ).getColumn(0) as [number, number, number];
  const radius = Math.sqrt(Math.max(0, c + (a * a + b * b) / 4));
  return rows.map(([x, y]) => Math.hypot(x! - a / 2, y! - b / 2) - radius);
}

/** How the centres differ between two outcomes, once one is laid on the other: moved, and turned. */
function awayFrom(first: Unknowns, second: Unknowns, count: number): number[] {
  const centres = (unknowns: Unknowns) => {
    const list = Array.from(
      { length: count },
      (_, k) => [unknowns[CAMERA + 3 * k]!, unknowns[CAMERA + 3 * k + 1]!] as const,
    );
    const [mx, my] = [list.reduce((sum, [x]) => sum + x, 0) / count, list.reduce((sum, [, y]) => sum + y, 0) / count];
    return list.map(([x, y]) => [x - mx, y - my] as const);
  };
  const [a, b] = [centres(first), centres(second)];
  const turn = Math.atan2(
    b.reduce((sum, [x, y], k) => sum + x * a[k]![1] - y * a[k]![0], 0),
    b.reduce((sum, [x, y], k) => sum + x * a[k]![0] + y * a[k]![1], 0),
  );
  const [c, s] = [Math.cos(turn), Math.sin(turn)];
  return b.flatMap(([x, y], k) => [c * x - s * y - a[k]![0], s * x + c * y - a[k]![1]]);
}

/**
 * Standard deviation of a centre against the middle of all: what they share, a shift of the whole, is no doubt about
 * the drive.
 */
function spreadFromMiddle(covariance: readonly number[][], k: number): number {
  const count = covariance.length / 2;
  const share = Array.from({ length: count }, (_, i) => (i === k ? 1 : 0) - 1 / count);
  const along = (axis: number) =>
    share.reduce(
      (sum, a, i) => sum + share.reduce((part, b, j) => part + a * b * covariance[2 * i + axis]![2 * j + axis]!, 0),
      0,
    );
  return Math.sqrt(
    Math.max(0, count === 1 ? Math.max(covariance[0]![0]!, covariance[1]![1]!) : Math.max(along(0), along(1))),
  );
}

function sumOfSquares(values: readonly number[]): number {
  return values.reduce((sum, value) => sum + value * value, 0);
}
