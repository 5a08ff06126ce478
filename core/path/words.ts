import { type Drive, obstacleLabel, type Pulley, pulleyLabel } from '../drive';
import { type FindingWords, inOneLine, type WordsByCode, wordsOf } from '../finding';
import { formatLength, formatMm, type LengthUnit, fixed } from '../quantity';
import type { ClosingCure, PathFinding } from './finding';

/** What a row of the table is told with: names, and figures in the shop's unit. */
interface Telling {
  name: (pulley: string | undefined) => string;
  run: (span: { from: string; to: string }) => string;
  obstacle: (id: string) => string;
  length: (mm: number) => string;
}

const WAYS: Record<Drive['crankRotation'], string> = { cw: 'clockwise', ccw: 'counter-clockwise' };
const FACES: Record<Pulley['surface'], string> = {
  ribbed: 'a ribbed face',
  vee: 'a V groove',
  smooth: 'a smooth face',
  toothed: 'a toothed face',
};

const degrees = (angle: number) => `${angle < 10 ? fixed(angle, 1) : Math.round(angle)}°`;

const PATH_WORDS: WordsByCode<PathFinding, Telling> = {
  'no-route': () => ({
    title: 'The belt has no route yet.',
    why: 'No pulley is on it.',
    todo: 'Tap the pulleys in the order the belt meets them.',
  }),
  'one-pulley': ({ pulley }, { name }) => ({
    title: 'One pulley makes no loop.',
    why: `Only ${name(pulley)} is on the belt.`,
    todo: 'Put at least one more pulley on it.',
  }),
  'pulley-twice': ({ pulley }, { name }) => ({
    title: `${name(pulley)} is listed twice in a row.`,
    why: 'A belt that leaves a pulley meets another before it comes back.',
    todo: 'Take one of the two off the route.',
  }),
  'no-size': ({ pulley, figures: { diameterMm } }, { name, length }) => ({
    title: `${name(pulley)} has no size to run on.`,
    why: `Its diameter is entered as ${length(diameterMm)}.`,
    todo: 'Measure it and enter it.',
  }),
  'absurd-size': ({ pulley }, { name }) => ({
    title: `${name(pulley)} is larger or farther away than any engine.`,
    why: 'Its size or position is entered as more than 100 m.',
    todo: 'Check the figure and its unit.',
  }),
  'doubtful-size': ({ pulley, figures: { diameterMm } }, { name, length }) => ({
    title: `${name(pulley)} measures ${length(diameterMm)}.`,
    why: 'That is unusual for an accessory drive. An inch entered as a millimetre looks like this.',
    todo: 'Check the reading and its unit.',
  }),
  'same-centre': ({ pulley, other }, { name }) => ({
    title: `${name(pulley)} and ${name(other)} have the same centre.`,
    why: 'No belt runs between two pulleys on one centre.',
    todo: 'Move one of them, or take one off the route.',
  }),
  'circles-overlap': ({ pulley, other, figures: { overlapMm } }, { name, length }) => ({
    title: `${name(pulley)} and ${name(other)} overlap by ${length(overlapMm)}.`,
    why: 'Two pulleys cannot share the same space.',
    todo: 'Measure their positions and diameters again; pulleys in different planes may overlap.',
  }),
  'no-room': ({ span, figures: { distanceMm, neededMm } }, { run, length }) => ({
    title: `No straight belt fits from ${run(span)}.`,
    why: `The centres are ${length(distanceMm)} apart and the belt needs more than ${length(neededMm)}.`,
    todo: 'Move them apart or change the side the belt rides on.',
  }),
  'not-closed': ({ pulley, figures: { turns, cure } }, { name }) => ({
    title: 'The belt does not close.',
    why: `Its bends add up to ${turns === 0 ? 'no turn' : `${turns} turns`}; a closed belt makes exactly one.`,
    todo: CLOSING_CURES[cure](name(pulley)),
  }),
  'crosses-itself': ({ pulley, other, span }, { name, run }) => ({
    title: 'The belt crosses itself.',
    why:
      other === undefined || span === undefined
        ? `It lies twice on the same part of ${name(pulley)}.`
        : `${run(span)} cuts through ${name(pulley)} to ${name(other)}.`,
    todo: 'Change the order of the pulleys, or the side at one of them.',
  }),
  'span-through-pulley': ({ pulley, span }, { name, run }) => ({
    title: `The belt runs through ${name(pulley)}.`,
    why: `${run(span)} passes inside its rim, in the same plane.`,
    todo: `Take the belt round ${name(pulley)}, move it, or set its plane if it sits farther in or out.`,
  }),
  'span-rubs': ({ pulley, other, span }, { name, run }) => ({
    title: `The belt brushes ${name(pulley)}.`,
    why:
      span === undefined
        ? `Where it lies on ${name(other)}, its outer face reaches ${name(pulley)}.`
        : `${run(span)} passes closer than the belt is thick.`,
    todo: 'Check the positions. A belt that rubs burns through.',
  }),
  'strands-rub': ({ pulley, other, span, figures: { rubMm } }, { name, run, length }) => ({
    title: 'The belt rubs on itself.',
    why: `${strandsMeeting(name(pulley), other && name(other), span && run(span))} overlap by ${length(rubMm)}.`,
    todo: 'Move one of the pulleys. A belt that rubs burns through.',
  }),
  'low-wrap': ({ pulley, figures: { wrapDeg, leastDeg } }, { name }) => ({
    title: `${name(pulley)} has ${degrees(wrapDeg)} of wrap.`,
    why: `Emery looks for ${degrees(leastDeg)} or more there, a default and not a specification.`,
    todo: 'If it slips or chirps, move an idler closer or change the route.',
  }),
  'wrong-surface': ({ pulley, figures: { side, surface, wanted } }, { name }) => ({
    title: `${name(pulley)} has the wrong face for this side of the belt.`,
    why: `The ${side === 'back' ? 'belt’s back' : 'drive side'} meets ${FACES[surface]}; it needs ${FACES[wanted]}.`,
    todo: 'Flip the side, or correct the surface.',
  }),
  'wrong-way-round': ({ pulley, figures: { turns, requires } }, { name }) => ({
    title: `${name(pulley)} turns ${WAYS[turns]}.`,
    why: `It has to turn ${WAYS[requires]}.`,
    todo: 'Route the belt round its other side, and check the marking on the part itself.',
  }),
  fights: ({ pulley, figures: { way } }, { name }) => ({
    title: `Two belts turn ${name(pulley)} opposite ways.`,
    why: `This belt turns it ${WAYS[way]}.`,
    todo: 'Change the side of one of them.',
  }),
  'ratios-fight': ({ pulley, figures: { percent } }, { name }) => ({
    title: `Two belts turn ${name(pulley)} at different speeds.`,
    why: `This belt would turn it ${fixed(Math.abs(percent), 2)} % ${percent < 0 ? 'slower' : 'faster'} than the other.`,
    todo: 'One of them must slip all the time. Measure the pulleys of both again, or change one until the ratios agree.',
  }),
  'rib-count': ({ pulley, figures: { grooves, ribs } }, { name }) => ({
    title: `${name(pulley)} has ${grooves} grooves for ${ribs} ribs.`,
    why: 'A rib off the edge ruins a belt in a minute.',
    todo: 'Count again, then change the belt or the pulley.',
  }),
  'grooves-unknown': ({ pulley }, { name }) => ({
    title: `${name(pulley)}: grooves not counted.`,
    why: 'Emery cannot check whether every rib sits in a groove.',
    todo: 'Count them and enter the number.',
  }),
  'planes-apart': ({ span, figures: { offsetMm, angleDeg } }, { run, length }) => ({
    title: `${run(span)} runs ${degrees(angleDeg)} off.`,
    why: `The planes are ${length(offsetMm)} apart along that span.`,
    todo: 'Check the planes; up to 0.5° is taken as good, a default.',
  }),
  'no-crank': () => ({
    title: 'No crank is drawn.',
    why: 'Without it the speeds and directions are not known.',
    todo: 'Add the crankshaft pulley.',
  }),
  'second-crank': ({ pulley }, { name }) => ({
    title: `${name(pulley)} is a second crank.`,
    why: 'An engine has one, and the drive has one already.',
    todo: 'Change the role of this one.',
  }),
  'not-driven': () => ({
    title: 'Nothing drives this belt yet.',
    why: 'It meets neither the crank nor a shaft that another belt turns.',
    todo: 'Put the crank or a driven jackshaft on it. Its speeds stay open until then.',
  }),
  'hits-obstacle': ({ obstacle: id, pulley, span, figures: { depthMm } }, { name, run, obstacle, length }) => ({
    title: `The belt runs into ${obstacle(id)}.`,
    why:
      span === undefined
        ? `It is ${length(depthMm)} in the way round ${name(pulley)}.`
        : `${run(span)} would cut ${length(depthMm)} into it.`,
    todo: 'Route around it, or move it.',
  }),
  'near-obstacle': ({ obstacle: id, span, figures: { clearanceMm } }, { run, obstacle, length }) => ({
    title: `The belt passes ${obstacle(id)} by ${length(clearanceMm)}.`,
    why: `${span === undefined ? 'The span' : run(span)} flaps more than that when it runs.`,
    todo: 'Give it more room.',
  }),
};

/** Tells a finding in the shop's unit. */
export function findingWords(drive: Drive, finding: PathFinding, unit: LengthUnit = 'mm'): FindingWords {
  const name = (id: string | undefined) => (id === undefined ? 'the pulley' : pulleyLabel(drive, id));
  return wordsOf(PATH_WORDS, finding, {
    name,
    run: ({ from, to }) => `${name(from)} to ${name(to)}`,
    obstacle: (id) => obstacleLabel(drive, id),
    length: (mm) => (unit === 'mm' ? formatMm(mm) : formatLength(mm, unit)),
  });
}

/** The same on one line, in mm. */
export function findingMessage(drive: Drive, finding: PathFinding): string {
  return inOneLine(findingWords(drive, finding));
}

/** Two spans, a span and the belt on a pulley, or the belt on two pulleys. */
function strandsMeeting(name: string, other: string | undefined, span: string | undefined): string {
  if (span === undefined) return `The belt on ${name} and on ${other}`;
  return other === undefined ? `${span} and the belt on ${name}` : `${span} and ${name} to ${other}`;
}

const CLOSING_CURES: Record<ClosingCure, (name: string) => string> = {
  reverse: () => 'The pulleys are listed against the crank’s rotation: reverse the order.',
  flip: (name) => `Try the other side of the belt at ${name}.`,
  remove: (name) => `The belt does not reach ${name} there: move it in, or take it off.`,
  none: (name) => `Check ${name} first, then the order of the others.`,
};
