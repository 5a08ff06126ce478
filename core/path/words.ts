import { type Drive, obstacleLabel, pulleyLabel } from '../drive';
import { type FindingWords, inOneLine } from '../finding';
import { formatLength, formatMm, type LengthUnit } from '../quantity';
import type { PathFinding, PathFindingCode } from './finding';

interface Telling {
  name: string;
  other: string;
  span: string;
  obstacle: string;
  length: (key: string) => string;
  degrees: (key: string) => string;
  figure: (key: string) => string | number;
}

const WAYS: Record<string, string> = { cw: 'clockwise', ccw: 'counter-clockwise' };
const FACES: Record<string, string> = {
  ribbed: 'a ribbed face',
  vee: 'a V groove',
  smooth: 'a smooth face',
  toothed: 'a toothed face',
};

/** Tells a finding in the shop's unit. */
export function findingWords(drive: Drive, finding: PathFinding, unit: LengthUnit = 'mm'): FindingWords {
  const label = (id: string | undefined) => (id === undefined ? 'the pulley' : pulleyLabel(drive, id));
  const number = (key: string) => Number(finding.figures?.[key] ?? 0);
  return WORDS[finding.code]({
    name: label(finding.pulley),
    other: label(finding.other),
    span: finding.span ? `${label(finding.span.from)} to ${label(finding.span.to)}` : 'the span',
    obstacle: obstacleLabel(drive, finding.obstacle),
    length: (key) => (unit === 'mm' ? formatMm(number(key)) : formatLength(number(key), unit)),
    degrees: (key) => `${number(key) < 10 ? number(key).toFixed(1) : Math.round(number(key))}°`,
    figure: (key) => finding.figures?.[key] ?? '',
  });
}

/** The same on one line, in mm. */
export function findingMessage(drive: Drive, finding: PathFinding): string {
  return inOneLine(findingWords(drive, finding));
}

const WORDS: Record<PathFindingCode, (telling: Telling) => FindingWords> = {
  'no-route': () => ({
    title: 'The belt has no route yet.',
    why: 'No pulley is on it.',
    todo: 'Tap the pulleys in the order the belt meets them.',
  }),
  'one-pulley': ({ name }) => ({
    title: 'One pulley makes no loop.',
    why: `Only ${name} is on the belt.`,
    todo: 'Put at least one more pulley on it.',
  }),
  'pulley-twice': ({ name }) => ({
    title: `${name} comes twice in a row.`,
    why: 'A belt that leaves a pulley meets another before it comes back.',
    todo: 'Take one of the two off the route.',
  }),
  'no-size': ({ name, length }) => ({
    title: `${name} has no size to run on.`,
    why: `Its diameter reads ${length('diameterMm')}.`,
    todo: 'Measure it and write it in.',
  }),
  'absurd-size': ({ name }) => ({
    title: `${name} is larger or farther away than any engine.`,
    why: 'A size or a position over 100 m was written.',
    todo: 'Check the figure and its unit.',
  }),
  'doubtful-size': ({ name, length }) => ({
    title: `${name} measures ${length('diameterMm')}.`,
    why: 'That is unusual for an accessory drive; an inch read as a millimetre looks like this.',
    todo: 'Check the reading and its unit.',
  }),
  'same-centre': ({ name, other }) => ({
    title: `${name} and ${other} have the same centre.`,
    why: 'No belt runs between two pulleys on one spot.',
    todo: 'Move one of them, or take one off the route.',
  }),
  'circles-overlap': ({ name, other, length }) => ({
    title: `${name} and ${other} overlap by ${length('overlapMm')}.`,
    why: 'Two pulleys cannot share the same space.',
    todo: 'Measure their positions and diameters again; different planes do not count as overlap.',
  }),
  'no-room': ({ span, length }) => ({
    title: `No straight belt fits from ${span}.`,
    why: `The centres are ${length('distanceMm')} apart and the belt needs more than ${length('neededMm')}.`,
    todo: 'Move them apart or change the side the belt rides on.',
  }),
  'not-closed': ({ name, figure }) => ({
    title: 'The belt does not close.',
    why: `Its bends add up to ${figure('turns') === 0 ? 'no turn' : `${figure('turns')} turns`}; a belt that goes round makes exactly one.`,
    todo: CURES[String(figure('cure'))]!(name),
  }),
  'crosses-itself': ({ name, other, span }) => ({
    title: 'The belt crosses itself.',
    why:
      other === 'the pulley'
        ? `It lies twice on the same part of ${name}.`
        : `${span} cuts through ${name} to ${other}.`,
    todo: 'Change the order of the pulleys, or the side at one of them.',
  }),
  'span-through-pulley': ({ name, span }) => ({
    title: `The belt runs through ${name}.`,
    why: `${span} passes inside its rim, in the same plane.`,
    todo: `Take the belt round ${name}, move it, or set its plane if it sits farther in or out.`,
  }),
  'span-rubs': ({ name, other, span }) => ({
    title: `The belt brushes ${name}.`,
    why:
      span === 'the span'
        ? `Where it lies on ${other}, its outer face reaches ${name}.`
        : `${span} passes closer than the belt is thick.`,
    todo: 'Check the positions. A belt that rubs burns through.',
  }),
  'strands-rub': ({ name, other, span, length }) => ({
    title: 'The belt rubs on itself.',
    why: `${strandsMeeting(name, other, span)} meet by ${length('rubMm')}.`,
    todo: 'Move one of the pulleys. A belt that rubs burns through.',
  }),
  'hits-obstacle': ({ obstacle, span, name, length }) => ({
    title: `The belt runs into ${obstacle}.`,
    why: `${span === 'the span' ? `It lies ${length('depthMm')} in the way round ${name}` : `${span} would cut ${length('depthMm')} into it`}.`,
    todo: 'Route around it, or move it.',
  }),
  'near-obstacle': ({ obstacle, span, length }) => ({
    title: `The belt passes ${obstacle} by ${length('clearanceMm')}.`,
    why: `${span} flaps more than that when it runs.`,
    todo: 'Give it more room.',
  }),
  'low-wrap': ({ name, degrees }) => ({
    title: `${name} has ${degrees('wrapDeg')} of wrap.`,
    why: `Emery looks for ${degrees('leastDeg')} or more there, a default and not a specification.`,
    todo: 'If it slips or chirps, bring an idler closer or change the route.',
  }),
  'wrong-surface': ({ name, figure }) => ({
    title: `${name} shows the belt the wrong face.`,
    why: `The ${figure('side') === 'back' ? "belt's back" : 'drive side'} meets ${FACES[String(figure('surface'))]}; it wants ${FACES[String(figure('wanted'))]}.`,
    todo: 'Flip the side, or correct the surface.',
  }),
  'wrong-way-round': ({ name, figure }) => ({
    title: `${name} turns ${WAYS[String(figure('turns'))]}.`,
    why: `It has to turn ${WAYS[String(figure('requires'))]}.`,
    todo: 'Bring the belt round its other side, and check what the part itself is marked.',
  }),
  fights: ({ name, figure }) => ({
    title: `Two belts turn ${name} opposite ways.`,
    why: `This one wants it ${WAYS[String(figure('way'))]}.`,
    todo: 'Change the side of one of them.',
  }),
  'ratios-fight': ({ name, figure }) => ({
    title: `Two belts fight over ${name}.`,
    why: `This one would turn it ${Math.abs(Number(figure('percent'))).toFixed(2)} % ${Number(figure('percent')) < 0 ? 'slower' : 'faster'} than the other does.`,
    todo: 'One of them must slip all the time. Measure the pulleys of both again, or change one until the ratios agree.',
  }),
  'rib-count': ({ name, figure }) => ({
    title: `${name} has ${figure('grooves')} grooves for ${figure('ribs')} ribs.`,
    why: 'A rib off the edge ruins a belt in a minute.',
    todo: 'Count again, then change the belt or the pulley.',
  }),
  'grooves-unknown': ({ name }) => ({
    title: `${name}: grooves not counted.`,
    why: 'Emery cannot tell whether all ribs sit in a groove.',
    todo: 'Count them and write them in.',
  }),
  'planes-apart': ({ span, length, degrees }) => ({
    title: `${span} runs at ${degrees('angleDeg')}.`,
    why: `The planes are ${length('offsetMm')} apart along that span.`,
    todo: 'Check the planes; up to 0.5° is taken as good, a default.',
  }),
  'no-crank': () => ({
    title: 'No crank is drawn.',
    why: 'Without it nothing says which way things turn, nor how fast.',
    todo: 'Add the crankshaft pulley.',
  }),
  'second-crank': ({ name }) => ({
    title: `${name} is a second crank.`,
    why: 'An engine has one; the first is taken.',
    todo: 'Change the role of this one.',
  }),
  'not-driven': () => ({
    title: 'Nothing drives this belt yet.',
    why: 'It meets neither the crank nor a shaft that another belt turns.',
    todo: 'Put the crank or a driven jackshaft on it. Its speeds stay open until then.',
  }),
};

/** Two spans, a span and the belt on a pulley, or the belt on two pulleys. */
function strandsMeeting(name: string, other: string, span: string): string {
  if (span === 'the span') return `The belt on ${name} and on ${other}`;
  return other === 'the pulley' ? `${span} and the belt on ${name}` : `${span} and ${name} to ${other}`;
}

const CURES: Record<string, (name: string) => string> = {
  reverse: () => 'The pulleys are listed against the crank: turn the order round.',
  flip: (name) => `Try the other side of the belt at ${name}.`,
  remove: (name) => `${name} stands clear of the belt there: move it in, or take it off.`,
  none: (name) => `Look at ${name} first, then at the order of the others.`,
};
