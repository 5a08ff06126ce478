import {
  adjusterKind,
  fractionFor,
  lengthCurve,
  type LengthCurve,
  pathLength,
  stiffnessN,
  stretchTension,
  travelOf,
} from '../adjuster';
import { type Adjuster, type Belt, type Drive, findPulley } from '../drive';
import { cordRadiusMm, markedLengthMm } from '../section';
import { sectionOf, type StaticBelt, staticBeltOf } from '../loads';

/** A pry bar: hand to fulcrum, and fulcrum to where it bears, mm. Defaults. */
export const DEFAULT_BAR = { lengthMm: 450, tipMm: 40 };

export interface Bar {
  lengthMm: number;
  tipMm: number;
}

/** How to get a belt from one tension to another by its adjuster. */
export interface Setting {
  kind: Adjuster['kind'];
  station: string;
  /** What a mm of the adjuster does now, N: of the slot or slide, of the link's length, of shims taken out. */
  perMm: number;
  /** How far for the change asked for, mm, from slack toward tight; null past the end of the adjuster. */
  mm: number | null;
  /** The same in turns of the screw or link; null where it has no thread. */
  turns: number | null;
  pitches: readonly number[];
  pitchGiven: boolean;
  /** What the hand puts on a bar to hold the tension asked for, N; null where no bar is used. */
  barN: number | null;
  /** Of a split sheave: what each shim does. */
  shims: { out: number; addsN: number; ratioPercent: number }[] | null;
}

/**
 * How far a belt's adjuster is to be moved to go from the tension it stands at to another, N. The cords' stiffness is a
 * default, and brackets give: a way to start from, with a check after. Null without an adjuster, and for a sprung arm,
 * which is not set.
 */
export function settingFor(drive: Drive, standing: StaticBelt, toN: number, bar: Bar = DEFAULT_BAR): Setting | null {
  const { belt, cordLength } = standing;
  const curve = lengthCurve(drive, belt);
  const adjuster = curve && drive.stations.find(({ id }) => id === curve.travel.station)?.adjuster;
  const byHand = adjuster && adjusterKind(adjuster.kind).setting;
  if (!curve || !adjuster || !byHand) return null;
  const { travel } = curve;
  const grows = growthPerMm(curve, belt);
  if (!(grows > 1e-6)) return null;
  const stiffness = stiffnessN(belt);
  // Where the path is as long as the belt itself is under that tension: what hangs loose is taken up first.
  const stretched = ownCordLength(standing) * (1 + toN / stiffness);
  const there = fractionFor(curve, belt, markedLengthMm(stretched, sectionOf(belt)));
  const mm = there === null ? null : travel.readingAt(there) - travel.readingAt(travel.now);
  const { mm: pitches, given: pitchGiven } = byHand.pitches(adjuster) ?? { mm: [], given: false };
  const shims = byHand.shims(adjuster);
  const turn = pitches.reduce((sum, pitch) => sum + pitch, 0);
  return {
    kind: travel.kind,
    station: travel.station,
    perMm: (stiffness * grows) / cordLength,
    mm,
    turns: mm === null || turn === 0 ? null : mm / turn,
    pitches,
    pitchGiven,
    // By virtual work the shaft is pulled along its way with T·dL/ds; the bar's arms share it out.
    barN: byHand.barred ? (toN * grows * bar.tipMm) / bar.lengthMm : null,
    shims: shims && shimSteps(drive, belt, curve, shims, stiffness / cordLength),
  };
}

/**
 * How long a belt's cord is with nothing pulling it, mm: what its stretch leaves of the path it lies on; of one that
 * hangs loose its own marked length, and the path where nobody knows that.
 */
function ownCordLength({ belt, cordLength, tensionN }: StaticBelt): number {
  if (tensionN > 0) return cordLength / (1 + tensionN / stiffnessN(belt));
  const marked = belt.length ? belt.length - markedLengthMm(0, sectionOf(belt)) : cordLength;
  return Math.max(cordLength, marked);
}

/** Path for each mm of what the adjuster reads, where it stands now. */
function growthPerMm({ travel }: Pick<LengthCurve, 'travel'>, belt: Belt): number {
  const step = 1e-3;
  const [from, to] = [travel.now - step, travel.now + step];
  const [less, more] = [pathLength(travel.at(from), belt), pathLength(travel.at(to), belt)];
  return less === null || more === null ? 0 : (more - less) / (travel.readingAt(to) - travel.readingAt(from));
}

/** What taking out one shim after another, the thinnest first, does to tension and ratio. */
function shimSteps(
  drive: Drive,
  belt: Belt,
  { travel }: Pick<LengthCurve, 'travel'>,
  shims: readonly number[],
  newtonsPerMm: number,
): { out: number; addsN: number; ratioPercent: number }[] {
  const section = sectionOf(belt);
  const sheave = belt.route.find(({ pulley }) =>
    drive.stations.some(
      ({ id, pulleys }) => id === travel.station && pulleys.some((candidate) => candidate.id === pulley),
    ),
  );
  const radius = (at: Drive) =>
    sheave ? cordRadiusMm(findPulley(at, sheave.pulley)!, sheave.side, section) : Number.NaN;
  const [span, before] = [travel.readingAt(1), pathLength(drive, belt)!];
  let out = 0;
  return [...shims]
    .sort((a, b) => a - b)
    .map((thickness) => {
      out += thickness;
      const at = travel.at(travel.now + out / span);
      const path = pathLength(at, belt) ?? before;
      return {
        out,
        addsN: newtonsPerMm * (path - before),
        // The sheave turns faster the smaller it is.
        ratioPercent: 100 * (radius(drive) / radius(at) - 1),
      };
    });
}

/** Another belt on the shaft that one belt's adjuster moves. */
export interface SharedSetting {
  belt: string;
  /** True where the other belt has no adjuster but this one. */
  sameAdjuster: boolean;
  /** What a mm of the adjuster does to the other belt, N; below zero where it slackens as this one tightens. */
  perMm: number;
  /** Where the other belt stands once this one is set, N; null where the adjuster has not that much left. */
  thenN: number | null;
}

/**
 * The other belts that a belt's adjuster moves too. Set first the belt whose adjuster moves a shaft they share: what
 * the others do afterwards, by adjusters of their own, does not move it again.
 */
export function sharedSettings(
  drive: Drive,
  standings: readonly (StaticBelt | null)[],
  beltId: string,
  setting: Pick<Setting, 'station' | 'mm'>,
): SharedSetting[] {
  const own = drive.belts.find(({ id }) => id === beltId)!;
  const travel = travelOf(drive, own);
  const curve = travel && lengthCurve(drive, own, 2);
  if (!curve) return [];
  const span = curve.travel.readingAt(1) - curve.travel.readingAt(0);
  const moved = setting.mm === null ? null : curve.travel.at(curve.travel.now + setting.mm / span);
  return drive.belts.flatMap((belt, b): SharedSetting[] => {
    const standing = standings[b];
    if (belt.id === beltId || !standing?.contacts.some(({ station }) => station === setting.station)) return [];
    const grows = growthPerMm(curve, belt);
    if (Math.abs(grows) < 1e-6) return [];
    const perMm = (stiffnessN(belt) * grows) / standing.cordLength;
    return [
      {
        belt: belt.id,
        sameAdjuster: travelOf(drive, belt)?.station === setting.station,
        perMm,
        thenN: moved && tensionMoved(moved, belt, standing),
      },
    ];
  });
}

/** What another belt stands at once the shaft has moved, N: by its own length, or by its arm; null without a path. */
function tensionMoved(moved: Drive, belt: Belt, standing: StaticBelt): number | null {
  const there = staticBeltOf(moved, belt.id);
  if (!there) return null;
  return standing.arm === null ? stretchTension(belt, there.cordLength, ownCordLength(standing)) : there.tensionN;
}
