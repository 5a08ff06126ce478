import { type Check, checkRules, type Drive, INSPECT_CHECK_NAMES, pulleyLabel, type PulleyKind } from '../drive';
import { type FindingWords, inOneLine, type WordsByCode, wordsOf } from '../finding';
import { capital, formatLength, type LengthUnit, uncapital, fixed, grouped } from '../quantity';
import { type ArmHealth } from '../tension';
import type { InspectTold } from './finding';
import type { PartName } from './latest';
import { type Limits, unitOf } from './limits';
import { against, type InspectItem, type Judged, type Verdict } from './verdicts';
import type { Left, Wear } from './wear';

/** Behind the figure of a check, by what it is counted in. */
export const UNIT_WORDS: Readonly<Record<NonNullable<ReturnType<typeof unitOf>>, string>> = {
  mm: 'mm',
  degrees: '°',
  cracks: 'per rib',
  percent: '%',
};

/** How one check is asked for, how it is made, and what could hurt at it. */
export interface CheckWords {
  ask: string;
  how: string;
  outcomes?: Readonly<Record<string, string>>;
  caution?: string;
}

const KEY_OUT = 'Key out and battery off before a hand goes in.';
const yesNo = { no: 'No', yes: 'Yes' };

export const CHECK_WORDS: Record<Check, CheckWords> = {
  material: {
    ask: 'What is it made of?',
    how: 'EPDM is matt and feels dry; it wears like a tyre. Neoprene is older, and cracks. Not sure? Leave it: EPDM is assumed.',
    outcomes: { epdm: 'EPDM', neoprene: 'Neoprene' },
    caution: KEY_OUT,
  },
  'rib-depth': {
    ask: 'Rib depth?',
    how: 'Set the gauge square into a groove, at the worst place. No gauge? Use Close-up.',
    caution: KEY_OUT,
  },
  profile: {
    ask: 'Shape of its grooves?',
    how: 'Bend the belt back on itself and look along the ribs. V: the floor is a line. U: the floor is wide, and the belt bottoms.',
    outcomes: { v: 'V', worn: 'Between V and U', u: 'U' },
  },
  cracks: {
    ask: 'How many cracks in a rib?',
    how: 'Mark off 75 mm with chalk and count in the worst rib. On EPDM, no cracks proves nothing.',
  },
  ride: {
    ask: 'Ride below the rim?',
    how: 'Straightedge across the rim, a rule down to the belt’s top. Enter minus where the belt is above the rim.',
    caution: KEY_OUT,
  },
  slot: {
    ask: 'Slot left?',
    how: 'From the bolt to the end of the slot it is tightened toward.',
  },
  length: {
    ask: 'Length now?',
    how: 'Off the engine, on the basis printed on it. Emery compares it with its length under Size.',
  },
  chunks: { ask: 'Pieces of rib missing?', how: 'Look along the whole belt.', outcomes: yesNo },
  frayed: { ask: 'Edge frayed, cord showing?', how: 'Run a rag, not a finger, along both edges.', outcomes: yesNo },
  glazed: { ask: 'Ribs glazed?', how: 'A shine like glass on the flanks.', outcomes: yesNo },
  pilling: {
    ask: 'Rubber rolled up in the grooves?',
    how: 'Look for beads of rubber between the ribs.',
    outcomes: yesNo,
  },
  oil: { ask: 'Oil or coolant on it?', how: 'Check the ribs and the back; a rag shows it.', outcomes: yesNo },
  stroke: {
    ask: 'How does the arm move through its stroke?',
    how: 'By wrench, from stop to stop and back, slowly. Feel where it binds.',
    outcomes: { smooth: 'Smooth', binds: 'Binds', stuck: 'Stuck' },
    caution: 'A sprung arm snaps back: keep fingers out and let it return slowly.',
  },
  'by-hand': {
    ask: 'Can you push the arm by hand?',
    how: 'Push hard at the roller, belt on. A hand cannot move a sound spring.',
    outcomes: yesNo,
    caution: KEY_OUT,
  },
  pointer: {
    ask: 'Pointer angle?',
    how: 'Degrees as drawn. Between its marks is right.',
  },
  cocked: {
    ask: 'Does the roller lean?',
    how: 'Sight along the roller against the edge of the belt.',
    outcomes: yesNo,
    caution: KEY_OUT,
  },
  spin: {
    ask: 'Spun by hand, belt off?',
    how: 'Grinding is dirt. A long free spin means it has lost its grease.',
    outcomes: { quiet: 'Quiet', grinds: 'Grinds', freewheels: 'Long free spin' },
    caution: KEY_OUT,
  },
  rock: {
    ask: 'Play at its rim?',
    how: 'Hold the rim at two sides and rock it; a dial, or your eye against a rule. A pump that does not leak may still have play.',
    caution: KEY_OUT,
  },
  'run-out': {
    ask: 'Runout of its rim?',
    how: 'Turn it by hand against a fixed pointer: largest minus smallest.',
    caution: KEY_OUT,
  },
  grooves: {
    ask: 'What is in its grooves?',
    how: 'A lamp and a mirror: paint, grit or rust, dents.',
    outcomes: { clean: 'Clean', paint: 'Paint', grit: 'Grit or rust', dent: 'Dent' },
    caution: KEY_OUT,
  },
  track: {
    ask: 'Track off the middle?',
    how: 'Where the belt has polished it. Enter minus toward the engine.',
  },
  clutch: {
    ask: 'One-way clutch?',
    how: 'Belt off, hold the rotor and turn the pulley both ways: it should lock one way and turn free the other.',
    outcomes: { holds: 'One way only', locked: 'Locked both ways', slips: 'Free both ways' },
    caution: KEY_OUT,
  },
};

/** Kinds of pulley, and how each is told from the others by hand. */
export const PULLEY_KIND_WORDS: Record<PulleyKind, { name: string; how: string }> = {
  solid: { name: 'Solid', how: 'fixed to its shaft: it turns with the rotor both ways' },
  'one-way': { name: 'One-way', how: 'runs free ahead of its shaft, and drives it the other way' },
  decoupling: { name: 'Decoupling', how: 'one-way, with a spring: it gives a little before it drives its shaft' },
  'magnetic-clutch': { name: 'Magnetic clutch', how: 'turns free until its coil has power' },
};

export const VERDICT_WORDS: Record<Verdict, string> = {
  keep: 'Keep',
  watch: 'Watch',
  replace: 'Replace',
  'not looked at': 'Not inspected',
};

export const WHOSE_WORDS: Record<Limits['from'], string> = {
  default: 'a default',
  'shop-wide': 'the shop’s limit for every drive',
  shop: 'this drive’s own limit',
  manual: 'the manual’s',
};

const FROM_WORDS: Record<Judged['from'], string> = {
  inspect: '',
  align: ' (read under Align)',
  tension: ' (measured under Tension)',
};

/** A part by its name: the belt, a pulley, the arm of one. */
export function inspectedLabel(drive: Drive, { on, target }: PartName): string {
  if (on === 'belt') return beltLabel(drive, target);
  return on === 'arm' ? `${pulleyLabel(drive, target)}, arm` : pulleyLabel(drive, target);
}

const beltLabel = (drive: Drive, id: string) =>
  drive.belts.length === 1 ? 'Belt' : `Belt ${drive.belts.findIndex((belt) => belt.id === id) + 1}`;

/** A figure of a check as people say it. */
export function checkFigure(check: Check, value: number, unit: LengthUnit = 'mm'): string {
  const signed = (text: string) => text.replace(/^-/, '−');
  switch (unitOf(check)) {
    case 'degrees':
      return signed(`${fixed(value, 0)}°`);
    case 'cracks':
      return `${Number(value.toFixed(1))} ${value === 1 ? 'crack' : 'cracks'}`;
    case 'percent':
      return signed(`${fixed(value, 1)} % longer`);
    default:
      // Wear is told in mm, to the tenth and less; only what is taped is told in the shop's own unit.
      return check === 'slot' ? formatLength(value, unit) : signed(`${Number(value.toFixed(2))} mm`);
  }
}

/** What was found, in a line: `Rib depth 1.9 mm`. */
export function foundWords({ code, finding, value, arm }: Judged, unit?: LengthUnit): string {
  if (code === 'spring') return `Spring: ${SPRING_WORDS[arm?.verdict ?? 'cannot-say']}${left(arm)}`;
  if (code === 'default-life') return 'Expected life reached';
  if (code === 'default-age') return 'Age limit reached';
  const name = INSPECT_CHECK_NAMES[code];
  const outcome = finding?.outcome;
  if (outcome !== undefined && checkRules(code).outcomes) {
    const where = finding!.value === undefined ? '' : ` at ${checkFigure(code, finding!.value)}`;
    return `${name}: ${(CHECK_WORDS[code].outcomes?.[outcome] ?? outcome).replace(/^([A-Z])(?=[a-z])/, (letter) => letter.toLowerCase())}${where}`;
  }
  const at = value ?? finding?.value;
  if (at === undefined) return name;
  return `${name} ${checkFigure(code, at, unit)}`;
}

const left = (arm: ArmHealth | undefined) =>
  arm?.left ? `, ${Math.round(100 * arm.left.at)} % of its force left` : '';
const SPRING_WORDS: Record<ArmHealth['verdict'], string> = {
  good: 'good',
  weak: 'weak',
  strong: 'stronger than it should be',
  binding: 'binds',
  stuck: 'stuck',
  'wrong-length': 'held by a belt of the wrong length',
  'cannot-say': 'not enough readings',
};

/** What it was held against: `at or under 2 mm it is done (a default)`; nothing where there is no limit. */
export function limitWords({ code, grade, limits, odd, asksKind }: Judged, unit?: LengthUnit): string {
  if (asksKind) return 'choose the kind of pulley first';
  if (!limits || code === 'spring' || code === 'default-life' || code === 'default-age') return '';
  if (odd && grade === 'nothing')
    return `not judged: the possible range is ${checkFigure(code, odd.from)} to ${checkFigure(code, odd.to)}`;
  const { lowIsWorn, watch, replace, fresh, from } = limits;
  const [under, figure] = [lowIsWorn ? 'at or under' : 'from', (at: number) => checkFigure(code, at, unit)];
  const done = replace !== null ? `worn out ${under} ${figure(replace)}, ` : '';
  // Of what wears down it is said what a new one has.
  const start = lowIsWorn && fresh !== null ? `new ${figure(fresh)}, ` : '';
  return `${start}${done}watch ${under} ${figure(watch)} (${WHOSE_WORDS[from]})`;
}

/** A line that speaks for a verdict: what was found, and the limit it was held against. */
export function judgedWords(judged: Judged, unit?: LengthUnit): string {
  const limit = limitWords(judged, unit);
  return `${foundWords(judged, unit)}${FROM_WORDS[judged.from]}${limit === '' ? '' : `: ${limit}`}.`;
}

/** Why a part gets its verdict, worst first; for one that is kept, what was found sound. */
export function reasonLines(item: InspectItem, unit?: LengthUnit): string[] {
  const bad = item.reasons
    .flatMap((code) => against(item, code) ?? [])
    .map((judgement) => judgedWords(judgement, unit));
  if (item.reasons.includes('default-life'))
    bad.push(
      `Expected life reached: ${distanceFigure(item.life!.distance)} ${item.life!.unit} (${WHOSE_WORDS[item.life!.from]}).`,
    );
  if (item.reasons.includes('default-age'))
    bad.push(`It is ${item.age!.years} years old or more, the age limit (a default).`);
  if (bad.length > 0 || item.verdict === 'not looked at') return bad;
  return item.judged.filter(({ grade }) => grade === 'sound').map((judgement) => judgedWords(judgement, unit));
}

export const distanceFigure = (distance: number) => grouped(roundToTwo(distance));

/** To two figures: a forecast is no better than that. */
function roundToTwo(value: number): number {
  if (Math.abs(value) < 10) return Math.round(value);
  const step = 10 ** (Math.floor(Math.log10(Math.abs(value))) - 1);
  return Math.round(value / step) * step;
}

/** A reading of the odometer that a forecast comes to: no finer than a tenth of its ±. */
export function readingFigure(odometer: number, plusMinus: number): string {
  const step = 10 ** Math.max(0, Math.floor(Math.log10(Math.max(1, plusMinus))) - 1);
  return grouped(Math.round(odometer / step) * step);
}

/** How fast it wears, in a line: `0.1 mm in 10,000 km`. */
export function rateFigure({ line }: Pick<Wear, 'line'>, unit: string): string {
  const per = unit === 'h' ? 100 : 10_000;
  return `${Number((Math.abs(line!.rate) * per).toPrecision(2))} mm in ${grouped(per)} ${unit}`;
}

/** How far it still goes, in a line: `9,400 km, ± 2,100`. */
export function leftFigure({ distance, plusMinus }: Pick<Left, 'distance' | 'plusMinus'>, unit: string): string {
  return `${distanceFigure(distance)} ${unit}, ± ${distanceFigure(plusMinus)}`;
}

/** Where that lies nineteen times in twenty. */
export function leftSpan({ from, to }: Pick<Left, 'from' | 'to'>, unit: string): string {
  return to === null
    ? `at least ${distanceFigure(from)} ${unit}, 19 times in 20; no upper limit`
    : `${distanceFigure(from)} to ${distanceFigure(to)} ${unit}, 19 times in 20`;
}

/** What a row of the table is told with. `the` and `The`: a belt in a sentence, and at its beginning. */
interface Telling {
  name: (pulley: string) => string;
  the: (belt: string | undefined) => string;
  The: (belt: string | undefined) => string;
  list: (pulleys: readonly string[]) => string;
  length: (mm: number) => string;
}

const INSPECT_WORDS: WordsByCode<InspectTold, Telling> = {
  'no-parts': () => ({
    title: 'Nothing to inspect yet.',
    why: 'No parts are drawn.',
    todo: 'Draw the drive first, under Survey.',
  }),
  'nothing-looked-at': () => ({
    title: 'Nothing inspected yet.',
    why: 'Emery never calls a part sound that nobody has checked.',
    todo: 'Go round the drive: one tap or one figure for each check.',
  }),
  'stop-wobble': ({ pulley, figures: { mm } }, { name }) => ({
    title: `Stop: the rim of ${name(pulley)} has ${checkFigure('run-out', mm)} of runout.`,
    why: 'Its rubber ring may be letting go.',
    todo: 'Do not run the engine until it is replaced.',
  }),
  'cracks-blind': ({ belt }, { the }) => ({
    title: `Few cracks do not make ${the(belt)} sound.`,
    why: 'EPDM wears away without cracking, and nearly all belts are EPDM now.',
    todo: 'Gauge its grooves, or check their shape.',
  }),
  'depth-and-profile': ({ belt }, { The }) => ({
    title: `${The(belt)} has depth left, but U-shaped grooves.`,
    why: 'With wide floors it bottoms in the pulleys and slips, whatever the gauge says.',
    todo: 'Go by the shape: replace it.',
  }),
  rocks: ({ pulley, figures: { mm } }, { name }) => ({
    title: `${name(pulley)} has ${checkFigure('rock', mm)} of play.`,
    why: 'A bearing can rock long before it leaks or is heard.',
    todo: 'Check it on its own before the new belt goes on.',
  }),
  repeats: ({ pulley, figures: { turnMm, byChance } }, { name, length }) => ({
    title: `The damage repeats once each turn of ${name(pulley)}.`,
    why: `That is every ${length(turnMm)} of belt. Random marks fit this well ${chance(byChance)}.`,
    todo: 'Check its grooves for a nick or a stone before a new belt goes on.',
  }),
  'one-reading': ({ figures: { distance, unit, from, left } }) => ({
    title: `One reading gives no wear rate: expected life is ${distanceFigure(distance)} ${unit} (${WHOSE_WORDS[from]}).`,
    why:
      left === undefined
        ? 'The date of fitting is not recorded, so what is left of that is not known.'
        : `Going by when it was fitted, ${distanceFigure(Math.max(0, left))} ${unit} are left.`,
    todo: 'Read it again later, with the odometer: two readings give a rate.',
  }),
  'no-wear': ({ belt }, { the }) => ({
    title: `No wear between the readings of ${the(belt)}.`,
    why: 'It is less than the gauge can show, or one reading is wrong.',
    todo: 'Read it again after more distance.',
  }),
  'odometer-doubted': ({ figures: { odometer, before } }) => ({
    title: `Odometer ${grouped(odometer)} after ${grouped(before)}: is one of them a typing mistake?`,
    why: 'No wear can be worked out from these two readings.',
    todo: 'Correct the odometer of the wrong reading.',
  }),
  'uneven-wear': ({ belt }, { the }) => ({
    title: `The readings of ${the(belt)} do not fit one line.`,
    why: 'They miss it by more than their ±, so the forecast is less certain than shown.',
    todo: 'Gauge the same place each time, and look for what changed.',
  }),
  'sprang-back': ({ belt }, { the }) => ({
    title: `Older readings of ${the(belt)} are left out.`,
    why: 'The grooves were less worn after them than before: another belt was fitted.',
    todo: 'Record belt changes under Verdicts.',
  }),
  'far-end-open': ({ belt }, { the }) => ({
    title: `The readings of ${the(belt)} cannot limit how long it lasts.`,
    why: 'The wear between them is hardly more than their ±.',
    todo: 'Plan for the near end, and read it again.',
  }),
  outlived: ({ belt, figures: { distance, unit } }, { The }) => ({
    title: `${The(belt)}: expected life reached, ${distanceFigure(distance)} ${unit}.`,
    why: 'That is a default, and nothing measured says otherwise.',
    todo: 'Measure its wear twice, or change it.',
  }),
  aged: ({ belt, figures: { years } }, { The }) => ({
    title: `${The(belt)} is ${years} years old or more.`,
    why: 'Rubber ages with time as well, however little it runs. The years are a default.',
    todo: 'Change it, or enter what the manual says.',
  }),
  'wear-bends': ({ belt, figures: { power } }, { the }) => ({
    title: `The wear of ${the(belt)} ${power > 1 ? 'is speeding up' : 'is slowing down'}.`,
    why: `Its readings fit use to the power ${fixed(power, 1)} better than a straight line, and the forecast goes by that.`,
    todo: power > 1 ? 'Find the cause, and check again sooner.' : 'Read it again later.',
  }),
  'odd-figure': ({ belt, pulley, figures: { check, value, from, to, condemns } }, { name, the }) => ({
    title: `${INSPECT_CHECK_NAMES[check]} of ${pulley === undefined ? the(belt) : name(pulley)}: ${checkFigure(check, value)}?`,
    why: `The possible range is ${checkFigure(check, from)} to ${checkFigure(check, to)}${
      condemns === 1 ? '. Until it is read again the part counts as worn out' : ', so no verdict uses it'
    }.`,
    todo:
      check === 'rib-depth'
        ? 'Read it again, in the groove alone; or enter under Limits what a new belt has.'
        : 'Read it again.',
  }),
  'ask-kind': ({ pulley }, { name }) => ({
    title: `Which kind of pulley is on ${name(pulley)}?`,
    why: 'A plain one is locked both ways and spins on with its rotor; a one-way pulley is worn out once it is locked.',
    todo: 'Choose it at that pulley to get a verdict.',
  }),
  'change-with-arm': ({ belt, figures: { offered } }, { the }) => ({
    title: `Change ${the(belt)} and the tensioner together.`,
    why: 'Arm, roller and belt wear together: a weak spring ruins a new belt, and a worn belt hides a weak spring.',
    todo:
      offered > 0 ? 'The sound one is optional: offer it to the owner, and record the choice.' : 'Both are worn out.',
  }),
  'change-with-idler': ({ belt, pulleys }, { the, list }) => ({
    title: `Change ${list(pulleys)} with ${the(belt)}.`,
    why: 'The belt is off anyway, and a worn roller ruins the new one.',
    todo: 'Fit them in one go.',
  }),
  'change-pair': () => ({
    title: 'Change both belts of the pair together.',
    why: 'A new belt beside an old one is shorter, and carries the load alone.',
    todo: 'Buy them as a matched set.',
  }),
  'cure-oil': ({ belt }, { the }) => ({
    title: 'Find the leak first.',
    why: `Oil or coolant softens ${the(belt)}, and the new one as well.`,
    todo: 'Repair it and clean every pulley before the new belt goes on.',
  }),
  'cure-line': ({ belt, pulley, figures }, { name, the }) =>
    pulley === undefined
      ? {
          title: 'Find what is out of line first.',
          why: `An edge frays where ${the(belt)} rubs a flange or climbs.`,
          todo: 'Read the pulleys under Align.',
        }
      : {
          title: `The belt runs off the middle of ${name(pulley)}.`,
          why:
            figures?.arm === 1
              ? 'Likely cause: a cocked arm, a worn roller bearing or a pulley out of line.'
              : 'Likely cause: a pulley out of line, or this roller’s bearing.',
          todo: 'Read the pulleys under Align.',
        },
  'cure-slip': () => ({
    title: 'Find why it slips first.',
    why: 'Glaze and rolled-up rubber are left by slip.',
    todo: 'Measure under Tension, and read the pulleys under Align.',
  }),
  'cure-chunks': () => ({
    title: 'Find what tore it first.',
    why: 'A stone or a nick in a groove tears the next belt too.',
    todo: 'Check every groove, and mark along the belt where it is torn.',
  }),
  'cure-grooves': ({ pulley, figures: { outcome } }, { name }) =>
    outcome === 'dent'
      ? {
          title: `The grooves of ${name(pulley)} are dented.`,
          why: 'A dent cuts a new belt once a turn.',
          todo: 'Replace the pulley.',
        }
      : {
          title: `Clean the grooves of ${name(pulley)}.`,
          why: outcome === 'paint' ? 'On paint a belt slips until it is worn through.' : 'Grit grinds the ribs away.',
          todo: 'Use a stiff brush, and no solvent on the belt.',
        },
  'cure-arm': ({ pulley }, { name }) => ({
    title: `The arm of ${name(pulley)} is worn out.`,
    why: 'It no longer holds the belt as it should.',
    todo: 'Replace the whole tensioner, and never set it by bending it.',
  }),
  'cure-bearing': ({ pulley }, { name }) => ({
    title: `The bearing or clutch of ${name(pulley)} is worn out.`,
    why: 'A seized bearing burns through a new belt in minutes.',
    todo: 'Replace it before the new belt goes on.',
  }),
};

/** One finding of Inspect: the verdict, why, and what to do. */
export function inspectWords(drive: Drive, finding: InspectTold, unit: LengthUnit = 'mm'): FindingWords {
  const the = (belt: string | undefined) =>
    belt === undefined || drive.belts.length === 1 ? 'the belt' : uncapital(beltLabel(drive, belt));
  return wordsOf(INSPECT_WORDS, finding, {
    name: (pulley) => pulleyLabel(drive, pulley),
    the,
    The: (belt) => capital(the(belt)),
    list: (pulleys) => pulleys.map((id) => pulleyLabel(drive, id)).join(' and '),
    length: (mm) => formatLength(mm, unit),
  });
}

const chance = (share: number) =>
  share < 0.001 ? 'less than 1 time in 1,000' : `1 time in ${Math.max(2, Math.round(1 / share))}`;

export function inspectMessage(drive: Drive, finding: InspectTold): string {
  return inOneLine(inspectWords(drive, finding));
}
