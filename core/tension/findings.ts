import { limitOrDefault } from '../accessory';
import type { MarkedMisfit } from '../seating';
import {
  type BeltRunning,
  type DriveRunning,
  type DriveTension,
  SAFE_MARGIN,
  sectionOf,
  type StaticBelt,
  type TensionWindow,
  worstOf,
} from '../loads';
import type { TensionFinding } from './finding';

/** Fewer teeth in mesh than this carry less than the belt's rating. A default. */
export const LEAST_TEETH = 6;

/**
 * What is to be said of a belt at rest. `misfit` is Size's answer on its marked length (`markedMisfitOf`), undefined
 * while it is worked out: then nothing is said of how such a belt hangs either.
 */
export function restFindings(
  { drive, staticBelts, lines }: DriveTension,
  beltId: string,
  misfit: MarkedMisfit | null | undefined,
): TensionFinding[] {
  const b = lines.findIndex(({ id }) => id === beltId);
  const standing = staticBelts[b];
  if (!standing) return [{ code: 'no-path', severity: 'fault', belt: beltId }];
  const belt = drive.belts.find(({ id }) => id === beltId)!;
  const found: TensionFinding[] = [];
  const at = { belt: beltId };
  if (standing.noPlace)
    found.push({ code: 'no-place', severity: 'watch', ...at, figures: { lengthMm: belt.length ?? 0 } });
  else if (misfit)
    found.push({
      code: 'marked-misfit',
      severity: 'fault',
      ...at,
      figures: { lengthMm: misfit.lengthMm, long: Number(misfit.verdict === 'out-of-travel') },
    });
  else if (misfit === null && standing.from === 'stretch' && standing.tensionN === 0)
    found.push({ code: 'hangs-loose', severity: 'fault', ...at, figures: { lengthMm: belt.length ?? 0 } });
  if (standing.from === 'default')
    found.push({ code: 'default-tension', severity: 'note', ...at, figures: { tensionN: standing.tensionN } });
  if (standing.beltSpeedPerRpm === 0) found.push({ code: 'not-driven', severity: 'note', ...at, figures: {} });
  return [...found, ...teethFindings(standing)];
}

/** Teeth of each toothed pulley that the belt's teeth sit in, and those with too few. */
export function teethInMesh(standing: StaticBelt): { pulley: string; teeth: number }[] {
  const { pitch, kind } = sectionOf(standing.belt);
  if (kind !== 'toothed' || pitch <= 0) return [];
  return standing.contacts.flatMap(({ pulley, gripExponent, arc }) =>
    gripExponent === null ? [{ pulley, teeth: arc / pitch }] : [],
  );
}

/** What each toothed pulley's teeth carry: the pull it takes, over the teeth in mesh, N. */
export function toothLoads(
  standing: StaticBelt,
  { pulleys }: Pick<BeltRunning, 'pulleys'>,
): { pulley: string; teeth: number; pullN: number; perToothN: number }[] {
  const taken = new Map([...pulleys].reverse().map((running) => [running.contact.pulley, running]));
  return teethInMesh(standing).map(({ pulley, teeth }) => {
    const { torqueNm, contact } = taken.get(pulley)!;
    const pullN = Math.abs((torqueNm * 1000) / contact.cordRadius);
    return { pulley, teeth, pullN, perToothN: pullN / Math.max(1, Math.floor(teeth)) };
  });
}

function teethFindings(standing: StaticBelt): TensionFinding[] {
  return teethInMesh(standing).flatMap(({ pulley, teeth }): TensionFinding[] =>
    teeth < LEAST_TEETH
      ? [
          {
            code: 'few-teeth',
            severity: 'watch',
            belt: standing.belt.id,
            pulley,
            figures: { teeth, least: LEAST_TEETH },
          },
        ]
      : [],
  );
}

/** What is to be said of a belt that runs in one state, the worst pulley first. */
export function runningFindings(
  { drive, staticBelts, lines }: DriveTension,
  { running, belts, shafts }: DriveRunning,
  beltId: string,
): TensionFinding[] {
  const b = lines.findIndex(({ id }) => id === beltId);
  const [standing, run] = [staticBelts[b], belts[b]];
  if (!standing || !run) return [];
  const { rpm } = running;
  const { contacts } = standing;
  const found: TensionFinding[] = [];
  const worst = worstOf(run);
  if (worst && worst.margin < SAFE_MARGIN)
    found.push({
      code: worst.margin < 0 ? 'slips' : 'little-margin',
      severity: worst.margin < 0 ? 'fault' : 'watch',
      belt: beltId,
      pulley: worst.pulley,
      figures: { margin: worst.margin, rpm },
    });
  for (const { contact, arrivesN, leavesN } of run.pulleys) {
    const effectiveN = leavesN - run.centrifugalN;
    // Told once: at the pulley whose slack side it is.
    if (effectiveN > 0 || effectiveN > arrivesN - run.centrifugalN) continue;
    found.push({
      code: contact.gripExponent === null ? 'jumps' : 'slack-side',
      severity: 'fault',
      belt: beltId,
      pulley: contact.pulley,
      span: { from: contact.leaves.from, to: contact.leaves.to },
      figures: { effectiveN, rpm },
    });
  }
  for (const { station, pulley } of contacts) {
    const shaft = drive.stations.find(({ id }) => id === station)!;
    const limit = limitOrDefault(shaft);
    const load = shafts.get(station)!;
    const loadN = Math.hypot(load.x, load.y);
    if (
      limit === undefined ||
      loadN <= limit ||
      found.some((finding) => finding.code === 'too-much-load' && finding.pulley === pulley)
    )
      continue;
    // A default is a reason to look, not to stop.
    const severity = shaft.hubLoadLimit === undefined ? 'watch' : 'fault';
    found.push({
      code: 'too-much-load',
      severity,
      belt: beltId,
      pulley,
      figures: { loadN, limit, rpm, written: Number(shaft.hubLoadLimit !== undefined) },
    });
  }
  return found;
}

/** What a window says of where the belt stands. */
export function windowFindings(standing: StaticBelt, window: TensionWindow): TensionFinding[] {
  const belt = standing.belt.id;
  const { tensionN } = standing;
  if (window.never.length > 0)
    return [...new Map(window.never.map((never) => [never.pulley, never])).values()].map(({ pulley }) => ({
      code: 'no-tension-holds',
      severity: 'fault',
      belt,
      pulley,
      figures: {},
    }));
  const { least, most, leastN, mostN } = window;
  if (leastN !== null && mostN !== null && leastN > mostN)
    return [
      {
        code: 'window-empty',
        severity: 'fault',
        belt,
        pulley: least!.pulley,
        other: most!.pulley,
        figures: { leastN, mostN },
      },
    ];
  if (leastN !== null && tensionN < leastN)
    return [
      {
        code: 'below-window',
        severity: 'watch',
        belt,
        pulley: least!.pulley,
        figures: { tensionN, leastN, byN: leastN - tensionN },
      },
    ];
  if (mostN !== null && tensionN > mostN)
    return [
      {
        code: 'above-window',
        severity: 'watch',
        belt,
        pulley: most!.pulley,
        figures: { tensionN, mostN, byN: tensionN - mostN },
      },
    ];
  return [];
}
