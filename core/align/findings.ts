import { type Belt, type Drive, findPulley } from '../drive';
import type { Severity } from '../finding';
import { type Alignment, datumOf, guides, readingsOf, runOutOf, type RunVerdict, worseOf, worstFirst } from '../planes';
import { bodyRadiusMm } from '../section';
import { blundersOf } from './blunders';
import type { AlignFinding } from './finding';
import { grooveCounts, ribsOff } from './grooves';
import { movedUnderLoad } from './loaded';
import { groovesThere, type PlanSearch } from './plan';
import { onAnArm, rollerTracks, TRACK_WORTH_A_WORD } from './rollers';
import { planeOfStack, type SetSearch, stacksOf, withoutDepth } from './stacks';

/** Planes of one belt further apart than this are told, mm. A default. */
const STACKS_APART = 1;

const RUN_SEVERITY: Record<RunVerdict, Severity> = { good: 'note', watch: 'watch', wrong: 'fault' };

/** What is to be said of how a belt lies: its runs, the worst first, its grooves, readings and rollers. */
export function alignFindings(drive: Drive, belt: Belt, alignment: Alignment | null): AlignFinding[] {
  if (!alignment) return [{ code: 'no-path', severity: 'fault', belt: belt.id }];
  const { runs } = alignment;
  const few: AlignFinding[] = runs.length === 0 ? [{ code: 'few-guides', severity: 'note', belt: belt.id }] : [];
  return [
    ...few,
    ...runFindings(alignment),
    ...grooveFindings(drive, alignment),
    ...readingFindings(drive, belt, alignment),
    ...rollerFindings(drive, alignment),
    ...loadFindings(drive, belt),
  ];
}

/** Runs that are not good, the worst first. */
function runFindings({ belt, runs, limits }: Alignment): AlignFinding[] {
  return worstFirst(runs)
    .filter(({ verdict }) => verdict !== 'good')
    .map((run) => ({
      code: run.verdict === 'wrong' ? 'run-wrong' : 'run-watch',
      // What only a drawing says stops nobody.
      severity: run.read ? RUN_SEVERITY[run.verdict] : 'note',
      belt: belt.id,
      span: { from: run.from, to: run.to },
      pulley: Math.abs(run.leaveDeg) >= Math.abs(run.arriveDeg) ? run.from : run.to,
      figures: { deg: worseOf(run), plusMinusDeg: run.plusMinusDeg, limitDeg: limits.good, read: Number(run.read) },
    }));
}

function grooveFindings(drive: Drive, alignment: Alignment): AlignFinding[] {
  const { belt } = alignment;
  const where = { belt: belt.id, severity: 'fault' as const };
  const counted = grooveCounts(drive, belt).flatMap(({ pulley, counted: front, off, grooves }): AlignFinding[] => {
    const behind = front === null ? 0 : grooves - (belt.ribs ?? 0) - front;
    const hangs = behind < 0 || (front ?? 0) < 0 || grooves < (belt.ribs ?? 0);
    if (hangs) return [{ ...where, code: 'hangs-over', pulley, figures: { off, grooves } }];
    return off === 0 ? [] : [{ ...where, code: 'rib-off', pulley, figures: { ribs: off } }];
  });
  const stands = ribsOff(drive, alignment).map(({ pulley, ribs, free }): AlignFinding => ({
    ...where,
    code: 'stands-a-rib-off',
    pulley,
    figures: { ribs, free: Number(free) },
  }));
  // A groove that somebody listed as a cure, and that the pulley has not.
  const listed = (drive.align?.moves ?? []).flatMap((move): AlignFinding[] =>
    move.kind === 'groove' &&
    belt.route.some(({ pulley }) => pulley === move.pulley) &&
    groovesThere(drive, alignment, move).length === 0
      ? [{ ...where, severity: 'watch', code: 'groove-not-there', pulley: move.pulley }]
      : [],
  );
  return [...counted, ...stands, ...listed];
}

function readingFindings(drive: Drive, belt: Belt, { planes, section }: Alignment): AlignFinding[] {
  const datum = datumOf(drive, belt.id);
  const guiding = new Set(belt.route.filter((stop) => guides(drive, stop)).map(({ pulley }) => pulley));
  const unread = [...guiding].filter((pulley) => pulley !== datum && readingsOf(drive, pulley).length === 0);
  const on = new Map(planes.map((plane) => [plane.pulley, plane]));
  const where = { belt: belt.id };
  const each = [...on.values()].flatMap(({ pulley, wobble, outOfReach }): AlignFinding[] => {
    const { runOutMm, wobbles } = runOutOf(wobble, bodyRadiusMm(findPulley(drive, pulley)!, section));
    const all = [...readingsOf(drive, pulley), ...readingsOf(drive, pulley, 'load')];
    const mixed = new Set(all.map(({ simulated }) => simulated ?? false)).size > 1;
    return [
      ...blundersOf(drive, belt, pulley),
      ...(mixed ? [{ ...where, code: 'simulated-mixed', severity: 'watch', pulley } as const] : []),
      ...(outOfReach ? [{ ...where, code: 'straightedge-short', severity: 'watch', pulley } as const] : []),
      ...(wobbles ? [{ ...where, code: 'wobbles', severity: 'watch', pulley, figures: { runOutMm } } as const] : []),
    ];
  });
  const byHand = (drive.align?.readings ?? []).filter(
    ({ load, tool, past, pulley }) => load && !past && tool !== 'laser' && tool !== 'camera' && on.has(pulley),
  );
  return [
    ...each,
    ...byHand.map(({ id, pulley }): AlignFinding => ({
      ...where,
      code: 'load-by-hand',
      severity: 'fault',
      pulley,
      reading: id,
    })),
    ...(unread.length > 0
      ? [{ ...where, code: 'not-read', severity: 'note', pulley: unread[0]!, pulleys: unread } as const]
      : []),
  ];
}

function rollerFindings(drive: Drive, alignment: Alignment): AlignFinding[] {
  return rollerTracks(drive, alignment).flatMap(
    ({ pulley, steersDeg, trackMm, plusMinusMm, seenMm }): AlignFinding[] => {
      const where = { belt: alignment.belt.id, pulley, severity: 'watch' as const };
      const arm = Number(onAnArm(drive, pulley));
      const read = readingsOf(drive, pulley).length > 0;
      const found: AlignFinding[] = [];
      if (read && Math.abs(trackMm) > Math.max(TRACK_WORTH_A_WORD, 2 * plusMinusMm))
        found.push({ ...where, code: 'steers', figures: { steersDeg, trackMm, arm } });
      if (seenMm !== null && Math.abs(seenMm - trackMm) > Math.max(TRACK_WORTH_A_WORD, 2 * plusMinusMm))
        found.push({ ...where, code: 'track-differs', figures: { seenMm, trackMm, arm } });
      return found;
    },
  );
}

function loadFindings(drive: Drive, belt: Belt): AlignFinding[] {
  return movedUnderLoad(drive, belt.id)
    .filter(({ moved }) => moved)
    .map(({ pulley, movedMm, tiltDeg, suspects }) => ({
      code: 'moved-under-load',
      severity: 'watch',
      belt: belt.id,
      pulley,
      figures: { movedMm, tiltDeg, suspect: suspects[0]!, or: suspects[1] ?? '' },
    }));
}

/** What a search for a plan leaves to be said. */
export function planFindings({ belt, limits }: Pick<Alignment, 'belt' | 'limits'>, search: PlanSearch): AlignFinding[] {
  const { plans, limitDeg, worstDeg, stopped } = search;
  const where = { belt: belt.id };
  const found: AlignFinding[] = [];
  if (plans.length === 0 && worstDeg > limits.good + 1e-9)
    found.push({ ...where, code: 'no-cure', severity: 'watch', figures: { deg: worstDeg } });
  if (limitDeg !== null && limitDeg > limits.good)
    found.push({ ...where, code: 'only-watch', severity: 'watch', figures: { deg: plans[0]?.worstDeg ?? limitDeg } });
  if (stopped) found.push({ ...where, code: 'plan-stopped', severity: 'note' });
  return found;
}

/** What is to be said of the stacks of a belt. */
export function stackFindings(drive: Drive, belt: Belt, search: SetSearch): AlignFinding[] {
  const stacks = stacksOf(drive, belt.id);
  const where = { belt: belt.id };
  const found = stacks.flatMap((stack): AlignFinding[] =>
    withoutDepth(stack).map(({ name }) => ({
      ...where,
      code: 'piece-without-depth',
      severity: 'watch',
      pulley: stack.pulley,
      figures: { piece: name },
    })),
  );
  if (search.tooMany)
    found.push({ ...where, code: 'too-many-sets', severity: 'watch', figures: { count: search.count } });
  const planes = stacks.map((stack) => planeOfStack(stack, search.sets[0]?.choice));
  const high = planes.reduce((a, b) => (b.planeMm > a.planeMm ? b : a), planes[0]!);
  const low = planes.reduce((a, b) => (b.planeMm < a.planeMm ? b : a), planes[0]!);
  if (planes.length > 1 && high.planeMm - low.planeMm > STACKS_APART)
    found.push({
      ...where,
      code: 'stacks-apart',
      severity: 'watch',
      pulley: high.pulley,
      other: low.pulley,
      figures: { apartMm: high.planeMm - low.planeMm, plusMinusMm: Math.hypot(high.plusMinusMm, low.plusMinusMm) },
    });
  return found;
}
