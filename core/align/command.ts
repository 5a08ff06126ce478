import { type Command, noBelt } from '../command';
import type { Drive } from '../drive';
import { type Alignment, alignmentOf, steepnessDeg, worstDeg } from '../planes';
import type { AlignFinding } from './finding';
import { alignFindings, planFindings, stackFindings } from './findings';
import { movedUnderLoad } from './loaded';
import { nextReadings } from './next-reading';
import { type Plan, planFor, type PlannedMove } from './plan';
import { rollerTracks } from './rollers';
import { planeOfStack, searchSets, stacksOf } from './stacks';
import { alignMessage } from './words';
import { toDegrees } from '../numeric';

/** `align FILE --belt ID`: planes from readings, the angles of the runs, the fewest moves, and parts that agree. */
export const alignCommand: Command<Drive> = {
  name: 'align',
  usage: 'emery align FILE --belt ID',
  options: ['belt'],
  prepare: ({ belt }, usage) => {
    if (belt === undefined) throw usage;
    return (drive) => answer(drive, belt);
  },
};

function answer(drive: Drive, beltId: string) {
  const belt = drive.belts.find(({ id }) => id === beltId);
  if (!belt) throw noBelt(beltId, drive);
  const withWords = (list: readonly AlignFinding[]) =>
    list.map((finding) => ({ ...finding, message: alignMessage(drive, finding) }));
  const alignment = alignmentOf(drive, beltId);
  const stacks = stacksOf(drive, beltId);
  const sets = searchSets(stacks);
  const parts = partsOf(stacks, sets);
  const ofParts = stackFindings(drive, belt, sets);
  if (!alignment)
    return {
      pulleys: [],
      runs: [],
      plan: [],
      after: { worstDeg: null },
      ...parts,
      findings: withWords([...alignFindings(drive, belt, null), ...ofParts]),
    };
  const search = planFor(drive, alignment);
  const [best] = search.plans;
  const good = best !== undefined && search.limitDeg === alignment.limits.good;
  return {
    pulleys: pulleysOf(alignment),
    runs: runsOf(alignment),
    rollers: rollerTracks(drive, alignment).map(({ at: _, ...roller }) => roller),
    loaded: movedUnderLoad(drive, beltId),
    next: nextReadings(drive, alignment).slice(0, 3),
    plan: good ? toldMoves(best) : [],
    after: good ? outcome(best) : { worstDeg: worstDeg(alignment.runs) },
    // What brings no run to good, but none is wrong after it.
    ...(best && !good && { watchPlan: toldMoves(best), afterWatchPlan: outcome(best) }),
    ...parts,
    findings: withWords([...alignFindings(drive, belt, alignment), ...planFindings(alignment, search), ...ofParts]),
  };
}

const partsOf = (stacks: ReturnType<typeof stacksOf>, { sets }: ReturnType<typeof searchSets>) => ({
  stacks: stacks.map((stack) => {
    const { id, planeMm, plusMinusMm, worstMm } = planeOfStack(stack, sets[0]?.choice);
    return { id, planeMm, plusMinusMm, worstMm };
  }),
  combinations: sets.map(({ choice, spreadMm, plusMinusMm, changed, price }) => ({
    choice,
    spreadMm,
    plusMinusMm,
    changed,
    price,
  })),
});

/** Each pulley once, also where the belt meets it twice. */
const pulleysOf = ({ planes }: Alignment) =>
  [...new Map(planes.map((plane) => [plane.pulley, plane])).values()].map(
    ({ pulley, offset, covariance, tilt, readings, wobble }) => {
      const [tiltXDeg, tiltYDeg] = tilt.map((slope) => toDegrees(Math.atan(slope)) + 0);
      return {
        pulley,
        offsetMm: offset + 0,
        plusMinusMm: Math.sqrt(covariance[0]!),
        tiltXDeg,
        tiltYDeg,
        readings: readings.length,
        ...(wobble && { wobbleDeg: steepnessDeg([wobble.x, wobble.y]) }),
      };
    },
  );

const runsOf = ({ runs }: Alignment) =>
  runs.map(({ from, to, over, lengthMm, leaveDeg, arriveDeg, plusMinusDeg, verdict, read }) => ({
    from,
    to,
    over,
    lengthMm,
    leaveDeg: leaveDeg + 0,
    arriveDeg: arriveDeg + 0,
    plusMinusDeg,
    verdict,
    read,
  }));

const outcome = ({ worstDeg: planned, likely, others }: Plan) => ({
  worstDeg: planned,
  likelyDeg: likely.deg,
  plusMinusDeg: likely.plusMinusDeg,
  otherBelts: others,
});

const toldMoves = ({ moves }: Plan) =>
  moves.map(({ pulley, kind, mm, steps, name }): PlannedMove => ({
    pulley,
    kind,
    ...(mm !== undefined && { mm }),
    ...(steps !== undefined && { steps }),
    ...(name !== undefined && { name }),
  }));
