import { type Drive, pulleyLabel, type Role, stationLabel } from '../drive';
import { capital, type LengthUnit } from '../quantity';
import { forceFigure } from '../tension';
import type { TightWay } from './held';
import type { StepTold } from './step';
import { beltName } from './words';
import { stepsBy } from './held';

/* What the words of several steps are put together from. */

/** A step with the names of all that it is about. */
export interface Telling {
  drive: Drive;
  step: StepTold;
  unit: LengthUnit;
  belt: string;
  Belt: string;
  station: string;
  pulley: string | null;
  /** The bolts as they are tightened, and as they are undone: without torque. */
  bolts: string;
  undone: string;
}

const TURN_WORDS = { cw: 'clockwise', ccw: 'counter-clockwise' } as const;
export const turnOf = ({ release }: StepTold) => TURN_WORDS[release?.turn ?? 'cw'];

/** The eight ways on the drawing, from the right on, counter-clockwise. */
const WAYS = [
  'to the right',
  'up and to the right',
  'up',
  'up and to the left',
  'to the left',
  'down and to the left',
  'down',
  'down and to the right',
] as const;

/** Moves an adjuster one way or the other, said as it is seen on the drawing: `Swing Alternator clockwise, down`. */
export function movedWords({ station, step: { way, by } }: Telling, toward: 'slack' | 'tight'): string {
  const { verb: named, what: moved } = stepsBy(by)?.moves ?? { verb: 'Move', what: (name: string) => name };
  // One that swings is only said to where the drawing shows about what.
  const verb = named === 'Swing' && !way?.turn ? 'Move' : named;
  if (!way) return `${verb} ${station}`;
  const along = WAYS[Math.round(((way.angleDeg + (toward === 'tight' ? 0 : 180)) % 360) / 45 + 8) % 8]!;
  const turn = way.turn && TURN_WORDS[toward === 'tight' ? way.turn : otherTurn(way.turn)];
  return `${verb} ${moved(station)} ${turn ? `${turn} about its pivot, ` : ''}${along} on the drawing`;
}
const otherTurn = (turn: NonNullable<TightWay['turn']>) => (turn === 'cw' ? 'ccw' : 'cw');

export const listed = (names: readonly string[]): string =>
  names.length < 2 ? names.join('') : `${names.slice(0, -1).join(', ')} and ${names.at(-1)!}`;
/** Each belt with the rim that it goes over last. */
export const rimsOf = ({ drive, step: { rims = [] } }: Telling) =>
  listed(
    rims.map(
      ({ belt, pulley }) =>
        `${beltName(drive, belt)} over ${pulley === null ? 'its last pulley' : pulleyLabel(drive, pulley)}`,
    ),
  );
export const hangLoose = (telling: Telling) =>
  `${beltsOf(telling)} ${telling.step.belts?.length === 1 ? 'hangs' : 'hang'} loose`;
export const beltsOf = ({ drive, step: { belts = [] } }: Telling) => listed(belts.map((id) => beltName(drive, id)));

/** Other belts that the same adjuster lets go: they stay on, loose. */
export function slackToo({ drive, step: { slackToo: others = [] } }: Telling): string {
  if (others.length === 0) return '';
  const names = capital(listed(others.map((id) => beltName(drive, id))));
  return others.length === 1
    ? ` ${names} goes slack with it and stays on: keep it in its grooves.`
    : ` ${names} go slack with it and stay on: keep them in their grooves.`;
}

/** What stands behind every figure of Tension. */
export const BY_DEFAULTS = 'Worked out under Tension with defaults: the manual’s figure takes precedence.';

/** `450 N; belt 2 then reads about 380 N`; null where no figure is known. */
export function targetWords({ drive, unit, step: { figures = [] } }: Telling): string | null {
  const known = figures.filter(({ newtons }) => newtons !== null);
  if (known.length === 0) return null;
  return known
    .map(({ belt, newtons }, k) =>
      k === 0
        ? forceFigure(newtons!, unit)
        : `${beltName(drive, belt)} then reads about ${forceFigure(newtons!, unit)}`,
    )
    .join('; ');
}

/** Between which readings a belt is right: `, in range from 310 N to 690 N`. */
export function rightBetween({ unit, step: { figures = [] } }: Telling): string {
  const [figure] = figures;
  if (!figure?.leastN) return '';
  const max = figure.mostN === null ? 'up' : `to ${forceFigure(figure.mostN, unit)}`;
  return `, in range from ${forceFigure(figure.leastN, unit)} ${max}`;
}

/** How an adjuster is set, the figure first: what the belts are to read, and which way it is moved for that. */
export function setWords(telling: Telling, again: boolean): string {
  const { bolts, step, belt } = telling;
  const several = (step.belts?.length ?? 0) > 1;
  const once = again ? ' again' : '';
  const target = targetWords(telling);
  return [
    target
      ? `Set ${belt}${once} to ${target}.`
      : `Set ${beltsOf(telling)}${once} to the tension of the service manual.`,
    several
      ? `One adjuster sets ${step.belts!.length === 2 ? 'both' : 'them all'}${target ? `: set it for ${belt}, which needs more` : ''}, then read each.`
      : '',
    `${movedWords(telling, 'tight')}.`,
    bolts === '' ? '' : `Turn the ${bolts}.`,
    target ? BY_DEFAULTS : '',
  ]
    .filter(Boolean)
    .join(' ');
}

/** How a split sheave tightens a belt: by the shims between its halves. */
export function shimWords(telling: Telling, again: boolean): string {
  const { station, belt } = telling;
  const target = targetWords(telling);
  const until = ` until ${belt} reads ${target ?? 'the tension of the service manual'}`;
  const close =
    'The belt hangs slack while the outer half goes on; tighten its nut a little at a time and turn the sheave by hand meanwhile, so that the belt climbs and nothing is pinched.';
  return again
    ? `Set ${belt} again by its shims: take the outer half of ${station} off, put a shim from between the halves outside to tighten, or one back in to slacken, and close it${until}. ${close}${target ? ` ${BY_DEFAULTS}` : ''}`
    : `Close the split sheave of ${station} with the shims between its halves as they were, the spare ones outside. ${close} Then take shims out of the middle to tighten, or put them in to slacken,${until}.${target ? ` ${BY_DEFAULTS}` : ''}`;
}

/** What is switched on to load the drive: what it turns, and no more. */
const LOADS: readonly (readonly [roles: readonly Role[], words: string])[] = [
  [['alternator', 'generator'], 'lights and heater fan'],
  [['ac-compressor'], 'air conditioning'],
  [['power-steering'], 'steering to the stop'],
  [['air-pump'], 'air pump under pressure'],
  [['supercharger'], 'blower engaged'],
];
export function loadWords({ stations }: Drive): string {
  const on = LOADS.flatMap(([roles, words]) => (stations.some(({ role }) => roles.includes(role)) ? [words] : []));
  return on.length === 0 ? 'Load it as it works.' : `Everything on: ${listed(on)}.`;
}

/** Why a belt comes off that is itself not changed. */
export function first({ drive, step: { gives } }: Telling): string {
  if (!gives) return '';
  const at = gives.station ? drive.stations.find(({ id }) => id === gives.station) : undefined;
  return ` It comes off first because it runs in front of ${beltName(drive, gives.belt)}${at ? ` at ${stationLabel(at)}` : ''}.`;
}

/** Whether a hydraulic strut pushes the arm. */
export function strutOf({ drive, step }: Telling): boolean {
  const adjuster = drive.stations.find(({ id }) => id === step.station)?.adjuster;
  return adjuster?.kind === 'sprung-arm' && adjuster.strut !== undefined;
}
