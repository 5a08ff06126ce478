import { type Check, checkRules, type Drive, INSPECT_CHECK_NAMES, pulleyLabel, type PulleyKind } from '../drive';
import { type FindingWords, inOneLine } from '../finding';
import { formatLength, type LengthUnit } from '../quantity';
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
    how: 'EPDM is matt and feels dry; it wears like a tyre. Neoprene is older, and cracks. Not sure? Leave it: EPDM is taken.',
    outcomes: { epdm: 'EPDM', neoprene: 'Neoprene' },
    caution: KEY_OUT,
  },
  'rib-depth': {
    ask: 'How deep are its grooves?',
    how: 'Set the gauge square into a groove, at the worst place. No gauge? Use Close-up.',
    caution: KEY_OUT,
  },
  profile: {
    ask: 'What shape are its grooves?',
    how: 'Bend the belt back on itself and look along the ribs. V: the floor is a line. U: the floor is wide, and the belt bottoms.',
    outcomes: { v: 'V', worn: 'Between V and U', u: 'U' },
  },
  cracks: {
    ask: 'How many cracks in a rib?',
    how: 'Mark off 75 mm with chalk and count in the worst rib. On EPDM none proves nothing.',
  },
  ride: {
    ask: 'How far below the rim does it ride?',
    how: 'A straightedge across the rim, a rule down to the belt’s top. Standing above the rim is below zero.',
    caution: KEY_OUT,
  },
  slot: {
    ask: 'How much of the slot is left?',
    how: 'From the bolt to the end of the slot it is tightened toward.',
  },
  length: {
    ask: 'How long is it now?',
    how: 'Off the engine, in the basis that is printed on it. It is held against its length under Size.',
  },
  chunks: { ask: 'Pieces of rib missing?', how: 'Look along the whole belt.', outcomes: yesNo },
  frayed: { ask: 'Edge frayed, cord showing?', how: 'Run a rag, not a finger, along both edges.', outcomes: yesNo },
  glazed: { ask: 'Ribs glazed?', how: 'A shine like glass on the flanks.', outcomes: yesNo },
  pilling: {
    ask: 'Rubber rolled up in the grooves?',
    how: 'Look for beads of rubber between the ribs.',
    outcomes: yesNo,
  },
  oil: { ask: 'Oil or coolant on it?', how: 'Look at the ribs and the back; a rag shows it.', outcomes: yesNo },
  stroke: {
    ask: 'How does the arm go through its stroke?',
    how: 'By wrench, from stop to stop and back, slowly. Feel where it binds.',
    outcomes: { smooth: 'Smooth', binds: 'Binds', stuck: 'Stuck' },
    caution: 'A sprung arm bites: keep fingers out and let it down slowly.',
  },
  'by-hand': {
    ask: 'Can you push the arm by hand?',
    how: 'Push hard at the roller, belt on. A sound spring does not give to a hand.',
    outcomes: yesNo,
    caution: KEY_OUT,
  },
  pointer: {
    ask: 'Where does its pointer stand?',
    how: 'In degrees as drawn. Between its marks is right.',
  },
  cocked: {
    ask: 'Does the roller lean?',
    how: 'Sight along the roller against the edge of the belt.',
    outcomes: yesNo,
    caution: KEY_OUT,
  },
  spin: {
    ask: 'Spun by hand, belt off?',
    how: 'Grinding is dirt. One that spins on and on has lost its grease.',
    outcomes: { quiet: 'Quiet', grinds: 'Grinds', freewheels: 'Spins on' },
    caution: KEY_OUT,
  },
  rock: {
    ask: 'How far does its rim rock?',
    how: 'Hold the rim at two sides and rock it; a dial, or your eye against a rule. A pump that does not leak may still rock.',
    caution: KEY_OUT,
  },
  'run-out': {
    ask: 'How far does its rim run out?',
    how: 'Turn it by hand against a fixed pointer: most less least.',
    caution: KEY_OUT,
  },
  grooves: {
    ask: 'What is in its grooves?',
    how: 'A lamp and a mirror: paint, grit or rust, dents.',
    outcomes: { clean: 'Clean', paint: 'Paint', grit: 'Grit or rust', dent: 'Dent' },
    caution: KEY_OUT,
  },
  track: {
    ask: 'How far off its middle is the track?',
    how: 'Where the belt has polished it. Toward the engine is below zero.',
  },
  clutch: {
    ask: 'Has it a one-way clutch? How does it hold?',
    how: 'Belt off, hold the rotor and turn the pulley both ways: it should lock one way and turn free the other.',
    outcomes: { holds: 'One way only', locked: 'Locked both ways', slips: 'Free both ways' },
    caution: KEY_OUT,
  },
};

/** Kinds of pulley, and how each is told from the others by hand. */
export const PULLEY_KIND_WORDS: Record<PulleyKind, { name: string; how: string }> = {
  solid: { name: 'Solid', how: 'fixed to its shaft: it turns with the rotor both ways' },
  'one-way': { name: 'One-way', how: 'runs on ahead of its shaft, and takes it along the other way' },
  decoupling: { name: 'Decoupling', how: 'one-way, with a spring: it gives a little before it takes its shaft along' },
  'magnetic-clutch': { name: 'Magnetic clutch', how: 'turns free until its coil is fed' },
};

export const VERDICT_WORDS: Record<Verdict, string> = {
  keep: 'Keep',
  watch: 'Watch',
  replace: 'Replace',
  'not looked at': 'Not looked at',
};

export const WHOSE_WORDS: Record<Limits['from'], string> = {
  default: 'a default',
  'shop-wide': 'the shop’s for every drive',
  shop: 'the shop’s own',
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
      return signed(`${value.toFixed(0)}°`);
    case 'cracks':
      return `${Number(value.toFixed(1))} ${value === 1 ? 'crack' : 'cracks'}`;
    case 'percent':
      return signed(`${value.toFixed(1)} % longer`);
    default:
      // Wear is told in mm, to the tenth and less; only what is taped is told in the shop's own unit.
      return check === 'slot' ? formatLength(value, unit) : signed(`${Number(value.toFixed(2))} mm`);
  }
}

/** What was found, in a line: `Rib depth 1.9 mm`. */
export function foundWords({ code, finding, value, arm }: Judged, unit?: LengthUnit): string {
  if (code === 'spring') return `Spring: ${SPRING_WORDS[arm?.verdict ?? 'cannot-say']}${left(arm)}`;
  if (code === 'default-life') return 'It has had the life a belt is held to have';
  if (code === 'default-age') return 'It is as old as a belt is held to grow';
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
  'cannot-say': 'cannot be told',
};

/** What it was held against: `at or under 2 mm it is done (a default)`; nothing where there is no limit. */
export function limitWords({ code, grade, limits, odd, asksKind }: Judged, unit?: LengthUnit): string {
  if (asksKind) return 'say first which kind of pulley it is';
  if (!limits || code === 'spring' || code === 'default-life' || code === 'default-age') return '';
  if (odd && grade === 'nothing')
    return `not judged, for it can be ${checkFigure(code, odd.from)} to ${checkFigure(code, odd.to)}`;
  const { lowIsWorn, watch, replace, fresh, from } = limits;
  const [under, figure] = [lowIsWorn ? 'at or under' : 'from', (at: number) => checkFigure(code, at, unit)];
  const done = replace !== null ? `done ${under} ${figure(replace)}, ` : '';
  // Of what wears down it is said what a new one has.
  const start = lowIsWorn && fresh !== null ? `new ${figure(fresh)}, ` : '';
  return `${start}${done}watched ${under} ${figure(watch)} (${WHOSE_WORDS[from]})`;
}

/** A line that speaks for a verdict: what was found, and the limit it was held against. */
export function judgedWords(judged: Judged, unit?: LengthUnit): string {
  const limit = limitWords(judged, unit);
  return `${foundWords(judged, unit)}${FROM_WORDS[judged.from]}${limit === '' ? '' : `: ${limit}`}.`;
}

/** Why a part gets its verdict, worst first; for one that is kept, what was found sound. */
export function reasonLines(item: InspectItem, unit?: LengthUnit): string[] {
  const bad = item.reasons.flatMap((code) => against(item, code) ?? []).map((one) => judgedWords(one, unit));
  if (item.reasons.includes('default-life'))
    bad.push(
      `It has had the ${distanceFigure(item.life!.distance)} ${item.life!.unit} that a belt is held to last (${WHOSE_WORDS[item.life!.from]}).`,
    );
  if (item.reasons.includes('default-age'))
    bad.push(`It is ${item.age!.years} years old or more, and a belt is held to grow no older (a default).`);
  if (bad.length > 0 || item.verdict === 'not looked at') return bad;
  return item.judged.filter(({ grade }) => grade === 'sound').map((one) => judgedWords(one, unit));
}

export const distanceFigure = (distance: number) => roundToTwo(distance).toLocaleString('en');

/** To two figures: a forecast is no better than that. */
function roundToTwo(value: number): number {
  if (Math.abs(value) < 10) return Math.round(value);
  const step = 10 ** (Math.floor(Math.log10(Math.abs(value))) - 1);
  return Math.round(value / step) * step;
}

/** A reading of the odometer that a forecast comes to: no finer than a tenth of its ±. */
export function readingFigure(odometer: number, plusMinus: number): string {
  const step = 10 ** Math.max(0, Math.floor(Math.log10(Math.max(1, plusMinus))) - 1);
  return (Math.round(odometer / step) * step).toLocaleString('en');
}

/** How fast it wears, in a line: `0.1 mm in 10,000 km`. */
export function rateFigure({ line }: Pick<Wear, 'line'>, unit: string): string {
  const per = unit === 'h' ? 100 : 10_000;
  return `${Number((Math.abs(line!.rate) * per).toPrecision(2))} mm in ${per.toLocaleString('en')} ${unit}`;
}

/** How far it still goes, in a line: `9,400 km, ± 2,100`. */
export function leftFigure({ distance, plusMinus }: Pick<Left, 'distance' | 'plusMinus'>, unit: string): string {
  return `${distanceFigure(distance)} ${unit}, ± ${distanceFigure(plusMinus)}`;
}

/** Where that lies nineteen times in twenty. */
export function leftSpan({ from, to }: Pick<Left, 'from' | 'to'>, unit: string): string {
  return to === null
    ? `at least ${distanceFigure(from)} ${unit}, nineteen times in twenty; the far end is open`
    : `${distanceFigure(from)} to ${distanceFigure(to)} ${unit}, nineteen times in twenty`;
}

/** One finding of Inspect: the verdict, why, and what to do. */
export function inspectWords(drive: Drive, finding: InspectTold, unit: LengthUnit = 'mm'): FindingWords {
  const { code, belt, pulley, pulleys = [], figures = {} } = finding;
  const n = (key: string) => Number(figures[key] ?? 0);
  const the =
    belt === undefined ? 'the belt' : drive.belts.length === 1 ? 'the belt' : beltLabel(drive, belt).toLowerCase();
  const The = the.charAt(0).toUpperCase() + the.slice(1);
  const name = pulley === undefined ? 'the pulley' : pulleyLabel(drive, pulley);
  const odometer = String(figures['unit'] ?? 'km');
  const whose = WHOSE_WORDS[(figures['from'] ?? 'default') as Limits['from']];
  switch (code) {
    case 'no-parts':
      return { title: 'Nothing to inspect yet.', why: '', todo: 'Draw the drive first, under Survey.' };
    case 'nothing-looked-at':
      return {
        title: 'Nothing was looked at yet.',
        why: 'A part that nobody looked at is not called sound here.',
        todo: 'Walk round the drive: it takes a tap or a figure at each check.',
      };
    case 'stop-wobble':
      return {
        title: `Stop: the rim of ${name} runs out by ${checkFigure('run-out', n('mm'))}.`,
        why: 'Its ring of rubber may be letting go.',
        todo: 'Do not run the engine until it is replaced.',
      };
    case 'cracks-blind':
      return {
        title: `Few cracks do not make ${the} sound.`,
        why: 'EPDM wears away without cracking, and nearly all belts are EPDM now.',
        todo: 'Gauge its grooves, or look at their shape.',
      };
    case 'depth-and-profile':
      return {
        title: `${The} has depth left, and grooves like a U.`,
        why: 'With wide floors it bottoms in the pulleys and slips, whatever the gauge says.',
        todo: 'Go by the shape: replace it.',
      };
    case 'rocks':
      return {
        title: `${name} rocks by ${checkFigure('rock', n('mm'))}.`,
        why: 'A bearing may rock long before it leaks or sounds.',
        todo: 'Look at it on its own before the new belt goes on.',
      };
    case 'repeats':
      return {
        title: `The damage comes back once each turn of ${name}.`,
        why: `That is every ${formatLength(n('turnMm'), unit)} of belt. Marks at random fit so well ${chance(n('byChance'))}.`,
        todo: 'Look in its grooves for a nick or a stone before a new belt goes on.',
      };
    case 'one-reading':
      return {
        title: `One reading makes no rate: ${distanceFigure(n('distance'))} ${odometer} is the life of such a belt (${whose}).`,
        why:
          figures['left'] === undefined
            ? 'When it was fitted is not written down, so what is left of that is not known.'
            : `By when it was fitted, ${distanceFigure(Math.max(0, n('left')))} ${odometer} of that are left.`,
        todo: 'Read it again later, with the odometer: two readings make a rate.',
      };
    case 'no-wear':
      return {
        title: `No wear shows between the readings of ${the}.`,
        why: 'It is less than the gauge can tell, or one of them is out.',
        todo: 'Read it again when it has gone further.',
      };
    case 'odometer-doubted': {
      const [odometer, before] = ['odometer', 'before'].map((key) => Number(figures?.[key] ?? 0).toLocaleString('en'));
      return {
        title: `Odometer ${odometer} after ${before}: is one of them a slip of the pen?`,
        why: 'By these two readings no wear can be worked out.',
        todo: 'Correct the odometer of the wrong reading.',
      };
    }
    case 'uneven-wear':
      return {
        title: `The readings of ${the} do not lie on one line.`,
        why: 'They miss it by more than their ±, so the forecast is worth less than it says.',
        todo: 'Gauge the same place each time, and look for what changed.',
      };
    case 'sprang-back':
      return {
        title: `Older readings of ${the} are left out.`,
        why: 'The grooves were less worn after them than before: another belt went on.',
        todo: 'Say so under Verdicts when a belt is changed.',
      };
    case 'far-end-open':
      return {
        title: `The readings of ${the} leave open how long it lasts.`,
        why: 'The wear between them is hardly more than their ±.',
        todo: 'Go by the near end, and read it again.',
      };
    case 'outlived':
      return {
        title: `${The} has had its ${distanceFigure(n('distance'))} ${odometer}.`,
        why: 'That is a default, and nothing measured says otherwise.',
        todo: 'Measure its wear twice, or change it.',
      };
    case 'aged':
      return {
        title: `${The} is ${n('years')} years old or more.`,
        why: 'Rubber ages by the year as well, however little it runs. The years are a default.',
        todo: 'Change it, or write down what the manual says.',
      };
    case 'wear-bends':
      return {
        title: n('power') > 1 ? `The wear of ${the} quickens.` : `The wear of ${the} slows.`,
        why: `Its readings lie better on use to the power ${n('power').toFixed(1)} than on a straight line, and what is left goes by that.`,
        todo: n('power') > 1 ? 'Look for what makes it, and look again sooner.' : 'Read it again later.',
      };
    case 'odd-figure': {
      const check = (figures['check'] ?? 'rib-depth') as Check;
      return {
        title: `${INSPECT_CHECK_NAMES[check]} of ${belt === undefined ? name : the}: ${checkFigure(check, n('value'))}?`,
        why: `It can be ${checkFigure(check, n('from'))} to ${checkFigure(check, n('to'))}${
          n('condemns') === 1 ? '. Until it is read again the part counts as done' : ', so nothing is judged by it'
        }.`,
        todo:
          check === 'rib-depth'
            ? 'Read it again, in the groove alone; or enter under Limits what a new one has.'
            : 'Read it again.',
      };
    }
    case 'ask-kind':
      return {
        title: `Which kind of pulley has ${name}?`,
        why: 'A plain one is locked both ways and spins on with its rotor; one that runs ahead is done when it is locked.',
        todo: 'Say it at that pulley, and it is judged.',
      };
    case 'change-with-arm':
      return {
        title: `Change ${the} and the tensioner together.`,
        why: 'Arm, roller and belt wear as one: a tired spring ruins a new belt, and a worn belt hides a tired spring.',
        todo:
          n('offered') > 0
            ? 'The sound one is an offer: say it to the owner, and write down the choice.'
            : 'Both are done.',
      };
    case 'change-with-idler':
      return {
        title: `Change ${listOf(drive, pulleys)} with ${the}.`,
        why: 'The belt is off anyway, and a worn roller takes the new one with it.',
        todo: 'Fit them in one go.',
      };
    case 'change-pair':
      return {
        title: 'Change both belts of the pair together.',
        why: 'A new belt beside an old one is the shorter, and carries the load alone.',
        todo: 'Buy them as a matched set.',
      };
    case 'cure-oil':
      return {
        title: 'Find the leak first.',
        why: `Oil or coolant softens ${the}, and the new one as well.`,
        todo: 'Cure it and clean every pulley before the new belt goes on.',
      };
    case 'cure-line':
      return pulley === undefined
        ? {
            title: 'Find what stands out of line first.',
            why: `An edge frays where ${the} rubs a flange or climbs.`,
            todo: 'Read the pulleys under Align.',
          }
        : {
            title: `The belt runs off the middle of ${name}.`,
            why:
              n('arm') === 1
                ? 'A cocked arm, a tired roller bearing or a pulley out of line does that.'
                : 'A pulley out of line, or this roller’s bearing, does that.',
            todo: 'Read the pulleys under Align.',
          };
    case 'cure-slip':
      return {
        title: 'Find why it slips first.',
        why: 'Glaze and rolled-up rubber are what slip leaves.',
        todo: 'Measure under Tension, and read the pulleys under Align.',
      };
    case 'cure-chunks':
      return {
        title: 'Find what tore it first.',
        why: 'A stone or a nick in a groove tears the next one too.',
        todo: 'Look into every groove, and mark along the belt where it is torn.',
      };
    case 'cure-grooves':
      return figures['outcome'] === 'dent'
        ? {
            title: `The grooves of ${name} are dented.`,
            why: 'A dent cuts a new belt once a turn.',
            todo: 'Replace the pulley.',
          }
        : {
            title: `Clean the grooves of ${name}.`,
            why:
              figures['outcome'] === 'paint'
                ? 'On paint a belt slips until it is worn through.'
                : 'Grit grinds the ribs away.',
            todo: 'A stiff brush, and no solvent on the belt.',
          };
    case 'cure-arm':
      return {
        title: `The arm of ${name} is done.`,
        why: 'It no longer holds the belt as it should.',
        todo: 'Replace it as a whole, and set nothing by bending it.',
      };
    case 'cure-bearing':
      return {
        title: `The bearing or clutch of ${name} is done.`,
        why: 'A seized bearing burns through a new belt in minutes.',
        todo: 'Replace it before the new belt goes on.',
      };
  }
}

const chance = (share: number) =>
  share < 0.001 ? 'less than once in a thousand times' : `once in ${Math.max(2, Math.round(1 / share))} times`;

const listOf = (drive: Drive, ids: readonly string[]) =>
  ids.length === 0 ? 'the idler' : ids.map((id) => pulleyLabel(drive, id)).join(' and ');

export function inspectMessage(drive: Drive, finding: InspectTold): string {
  return inOneLine(inspectWords(drive, finding));
}
