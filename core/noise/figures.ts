import { marksOf } from '../accessory';
import { type Belt, type Drive, momentOf, type NoiseCause } from '../drive';
import { chanceBelow } from '../numeric';
import { alignmentOf, worseOf } from '../planes';
import { solveDrive } from '../path';
import { sizeBelt } from '../seating';
import { runDrive, SAFE_MARGIN, SITUATIONS, statesThatMatter, tensionOf, windowOf, worstOf } from '../loads';
import { type ArmHealth, armHealthRead, measuredTension } from '../tension';
import { partOf } from './asks';
import { BY_FIGURE, type FigureCode } from './likelihoods';
import { type Suspect, suspectsOf } from './suspects';
import { DAY_MS } from '../quantity';

/** The stage that a figure comes from. */
export type FigureStage = 'align' | 'tension' | 'size' | 'route';

/** A figure of the drive that makes a cause likelier at a part, or less so. */
export interface DriveFigure {
  code: FigureCode;
  stage: FigureStage;
  cause: NoiseCause;
  id: string;
  factor: number;
  /** What it is, for the words. */
  figures: Readonly<Record<string, number>>;
}

/** A suspect with what the figures of its drive make of it: the factor on its weight. */
export interface PricedSuspect extends Suspect {
  factor: number;
}

const YOUNG_DAYS = 120;
const OLD_DAYS = 4 * 365;

/** Everything the drive's own figures say of causes of noise. A belt that cannot lie on its route says nothing. */
export function figuresOf(drive: Drive): DriveFigure[] {
  return [...runFigures(drive), ...tensionFigures(drive), ...sizeFigures(drive), ...routeFigures(drive)];
}

/** The suspects of a drive, weighed by its figures. */
export function pricedSuspects(drive: Drive, figures: readonly DriveFigure[] = figuresOf(drive)): PricedSuspect[] {
  return suspectsOf(drive).map((suspect) => ({
    ...suspect,
    factor: ofSuspect(figures, suspect).reduce((product, { factor }) => product * factor, 1),
  }));
}

/** The figures that speak of a suspect: of one said twice, as for two belts on a shaft, the one that says more. */
export function ofSuspect(
  figures: readonly DriveFigure[],
  { cause, id }: Pick<Suspect, 'cause' | 'id'>,
): DriveFigure[] {
  const max = new Map<FigureCode, DriveFigure>();
  for (const figure of figures) {
    if (figure.cause !== cause || figure.id !== id) continue;
    const other = max.get(figure.code);
    if (!other || Math.abs(Math.log(figure.factor)) > Math.abs(Math.log(other.factor))) max.set(figure.code, figure);
  }
  return [...max.values()];
}

const fixed = (
  code: Exclude<FigureCode, 'run-off'>,
  stage: FigureStage,
  cause: NoiseCause,
  id: string,
  figures: DriveFigure['figures'] = {},
): DriveFigure => ({ code, stage, cause, id, factor: BY_FIGURE[code].factor, figures });

/** By the runs that were read: the worse of those that a pulley guides, and how sure it is to be beyond the limit. */
function runFigures(drive: Drive): DriveFigure[] {
  const worst = new Map<string, { deg: number; plusMinusDeg: number; limitDeg: number }>();
  for (const { id } of drive.belts) {
    const alignment = alignmentOf(drive, id);
    for (const run of alignment?.runs ?? []) {
      if (!run.read) continue;
      const bend = { deg: worseOf(run), plusMinusDeg: run.plusMinusDeg, limitDeg: alignment!.limits.good };
      for (const pulley of [run.from, run.to].map((end) => partOf(drive, end)))
        if (Math.abs(bend.deg) > Math.abs(worst.get(pulley)?.deg ?? 0) || !worst.has(pulley)) worst.set(pulley, bend);
    }
  }
  return [...worst].map(([pulley, bend]): DriveFigure => {
    const size = Math.abs(bend.deg);
    const off = chanceBelow((size - bend.limitDeg) / Math.max(1e-6, bend.plusMinusDeg));
    const more = Math.min(BY_FIGURE['run-off'].most, (2.5 * size) / Math.max(1e-6, bend.limitDeg));
    return {
      code: off >= 0.5 ? 'run-off' : 'run-good',
      stage: 'align',
      cause: 'misaligned',
      id: pulley,
      factor: off * Math.max(1, more) + (1 - off) * BY_FIGURE['run-good'].factor,
      figures: bend,
    };
  });
}

/** By how tight the belts are, where somebody or something says it: what slips, what is loaded too far, the arm. */
function tensionFigures(drive: Drive): DriveFigure[] {
  const measured = Object.fromEntries(drive.belts.map((belt) => [belt.id, measuredTension(drive, belt)?.at]));
  const tension = tensionOf(drive, measured);
  const marks = marksOf(drive.speeds);
  const runs = SITUATIONS.map(({ choice, wet, rpm }) => ({
    wet,
    run: runDrive(tension, { ...choice, wet, rpm: rpm(marks) }),
  }));
  return tension.staticBelts.flatMap((standing, b) => {
    if (!standing) return [];
    const { belt } = standing;
    const margin = (wet: boolean) =>
      Math.min(
        ...runs.flatMap((run) => {
          const belt = run.run.belts[b];
          const worst = run.wet === wet && belt ? worstOf(belt) : null;
          return worst ? [worst.margin] : [];
        }),
      );
    const [dry, soaked] = [margin(false), margin(true)];
    const arm = armFigures(drive, belt, armHealthRead(drive, standing));
    // A tension that nobody knows proves nothing.
    if (standing.from === 'default' || !Number.isFinite(dry)) return arm;
    const max = windowOf(tension, belt.id, statesThatMatter(marks, { all: 'heaviest' }, false))?.mostN ?? null;
    return [
      fixed(slipCode(dry, soaked), 'tension', 'loose', belt.id, { dry, wet: soaked, tensionN: standing.tensionN }),
      ...(max === null
        ? []
        : [
            fixed(standing.tensionN > max ? 'over-limit' : 'under-limit', 'tension', 'tight', belt.id, {
              tensionN: standing.tensionN,
              mostN: max,
            }),
          ]),
      ...arm,
    ];
  });
}

function slipCode(dry: number, wet: number) {
  if (dry < 0) return 'slips';
  if (dry < SAFE_MARGIN) return 'little-margin';
  return wet < 0 ? 'slips-wet' : 'holds';
}

function armFigures(drive: Drive, { id, route }: Belt, health: ArmHealth | null): DriveFigure[] {
  const arm = drive.stations.find(
    ({ adjuster, pulleys }) =>
      adjuster?.kind === 'sprung-arm' && route.some((stop) => pulleys.some((pulley) => pulley.id === stop.pulley)),
  );
  const roller = arm && partOf(drive, arm.pulleys[0]!.id);
  if (!roller || !health) return [];
  const figures: DriveFigure['figures'] = health.left ? { left: health.left.at } : {};
  switch (health.verdict) {
    case 'weak':
      return [fixed('arm-weak', 'tension', 'arm-weak', roller, figures)];
    case 'binding':
    case 'stuck':
      return [fixed('arm-binding', 'tension', 'arm-stuck', roller, figures)];
    case 'wrong-length':
      return [fixed('past-marks', 'tension', 'wrong-length', id)];
    case 'good':
      return [
        fixed('arm-good', 'tension', 'arm-weak', roller, figures),
        fixed('arm-good', 'tension', 'arm-stuck', roller, figures),
      ];
    default:
      return [];
  }
}

/** By where a belt of its length stands on its adjuster. */
function sizeFigures(drive: Drive): DriveFigure[] {
  return drive.belts.flatMap((belt) => {
    if (!belt.length || belt.route.length < 2) return [];
    const candidate = sizeBelt(drive, belt.id, { lengths: [belt.length] })?.candidates.find(
      ({ lengthMm }) => lengthMm === belt.length,
    );
    // On fixed centres a length makes the belt tight or loose, and that is told by its tension.
    const byTension =
      candidate?.armAngle === undefined && (candidate?.verdict === 'tight' || candidate?.verdict === 'slack');
    if (!candidate || candidate.verdict === 'rubs' || candidate.verdict === 'not-known' || byTension) return [];
    const code = candidate.verdict === 'fits' ? 'between-marks' : 'past-marks';
    return [fixed(code, 'size', 'wrong-length', belt.id, { lengthMm: belt.length })];
  });
}

/** By the route itself, and by how old a belt was when the noise was looked into. */
function routeFigures(drive: Drive): DriveFigure[] {
  const grooves = new Map(
    drive.stations.flatMap(({ pulleys }) => pulleys.map((pulley) => [pulley.id, pulley.grooves] as const)),
  );
  const last = Math.max(...(drive.noise?.evidence ?? []).flatMap(({ at }) => momentOf(at) ?? []));
  const low = solveDrive(drive).belts.flatMap(({ id, findings }) => {
    const wrap = findings.find(({ code }) => code === 'low-wrap');
    return wrap ? [fixed('low-wrap', 'route', 'loose', id)] : [];
  });
  return [
    ...low,
    ...drive.belts.flatMap(({ id, ribs, route, care }) => {
      const full = route
        .filter(({ pulley }) => ribs && grooves.get(pulley) === ribs)
        .map(({ pulley }) => partOf(drive, pulley));
      const days = (last - (momentOf(care?.fittedAt) ?? NaN)) / DAY_MS;
      return [
        ...full.map((pulley) => fixed('no-spare-groove', 'route', 'wrong-groove', pulley)),
        ...(days >= 0 && days < YOUNG_DAYS ? [fixed('young-belt', 'tension', 'worn-belt', id, { days })] : []),
        ...(days > OLD_DAYS ? [fixed('old-belt', 'tension', 'worn-belt', id, { days })] : []),
      ];
    }),
  ];
}
