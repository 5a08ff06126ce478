import * as is from './fields';
import { ODOMETER_UNITS, type OdometerUnit } from './odometer';
import { PULLEY_KINDS, type PulleyKind } from './station';
import { type BeltCare, beltCare } from './tension';
import { keptPicture, type KeptPicture, type PicturePoint, picturePoints } from './survey';

/** What is looked at: a belt, a pulley with its bearing, or the arm that a pulley stands on. */
export const INSPECTED = ['belt', 'pulley', 'arm'] as const;
export type Inspected = (typeof INSPECTED)[number];

/** A check gives a figure, or one of a few outcomes; with both, the figure says where, and may be missing. */
interface CheckRules {
  on: Inspected;
  outcomes?: readonly string[];
  /** What the figure is in, and what it may be. */
  figure?: { unit: 'mm' | 'degrees' | 'cracks'; min: number; max: number };
}
const YES_NO = ['yes', 'no'] as const;
const mm = (min: number, max: number) => ({ unit: 'mm', min, max }) as const;
const degrees = { unit: 'degrees', min: -3600, max: 3600 } as const;

/** Every check of an inspection, in the order in which they are made at one part. */
export const CHECKS = {
  material: { on: 'belt', outcomes: ['epdm', 'neoprene'] },
  'rib-depth': { on: 'belt', figure: mm(0, 30) },
  profile: { on: 'belt', outcomes: ['v', 'worn', 'u'] },
  cracks: { on: 'belt', figure: { unit: 'cracks', min: 0, max: 1000 } },
  ride: { on: 'belt', figure: mm(-30, 30) },
  slot: { on: 'belt', figure: mm(0, 1000) },
  length: { on: 'belt', figure: mm(0, 100_000) },
  chunks: { on: 'belt', outcomes: YES_NO },
  frayed: { on: 'belt', outcomes: YES_NO },
  glazed: { on: 'belt', outcomes: YES_NO },
  pilling: { on: 'belt', outcomes: YES_NO },
  oil: { on: 'belt', outcomes: YES_NO },
  stroke: { on: 'arm', outcomes: ['smooth', 'binds', 'stuck'], figure: degrees },
  'by-hand': { on: 'arm', outcomes: YES_NO },
  pointer: { on: 'arm', figure: degrees },
  cocked: { on: 'arm', outcomes: YES_NO },
  spin: { on: 'pulley', outcomes: ['quiet', 'grinds', 'freewheels'] },
  rock: { on: 'pulley', figure: mm(0, 50) },
  'run-out': { on: 'pulley', figure: mm(0, 50) },
  grooves: { on: 'pulley', outcomes: ['clean', 'paint', 'grit', 'dent'] },
  track: { on: 'pulley', figure: mm(-200, 200) },
  clutch: { on: 'pulley', outcomes: ['holds', 'locked', 'slips'] },
} as const satisfies Record<string, CheckRules>;
export type Check = keyof typeof CHECKS;
export const CHECK_NAMES = Object.keys(CHECKS) as Check[];
export const checkRules = (check: Check): CheckRules => CHECKS[check];

/** Marks in a close-up of ribs: where their tips and valleys are, px from the top left corner, y down. */
export interface RibMarks {
  readonly tips: readonly PicturePoint[];
  readonly valleys: readonly PicturePoint[];
  /** One standard deviation of a mark, px; a hand's where it is left out. */
  readonly sigmaPx?: number;
  /**
   * How much taller than wide the picture shows things, as the flanks' own angle tells it: 1 where it was taken square
   * on; with one standard deviation.
   */
  readonly stretch?: { readonly at: number; readonly plusMinus: number };
}

/** What was found of a belt, a pulley or an arm by one check. */
export interface InspectFinding {
  readonly id: string;
  readonly on: Inspected;
  /** A belt; or a pulley, for an arm the one that stands on it. */
  readonly target: string;
  readonly check: Check;
  readonly value?: number;
  readonly outcome?: string;
  /** One standard deviation of the value; a default of the check's where it is left out. */
  readonly plusMinus?: number;
  /** When it was looked at, ISO 8601. */
  readonly at?: string;
  readonly odometer?: number;
  /** Found of a part that has been changed since: kept for the record, and it counts no more. */
  readonly past?: boolean;
  /** Where along the belt, mm from the chalk mark on it, the way the belt travels. */
  readonly places?: readonly number[];
  readonly photo?: KeptPicture;
  /** Where the picture shows ribs: the marks that the figure follows from. */
  readonly marks?: RibMarks;
}

/** A part that was passed over in a walk, and when. */
export interface SkippedPart {
  readonly on: Inspected;
  readonly target: string;
  readonly at?: string;
}

/** Worn out, broken on the road, or still good and changed in passing: that one had not come to its end. */
export const CHANGED_WHY = ['worn', 'broke', 'in-passing'] as const;
export type ChangedWhy = (typeof CHANGED_WHY)[number];

/** A part that was changed for a new one. */
export interface ChangedPart {
  readonly id: string;
  readonly on: Inspected;
  readonly target: string;
  readonly at?: string;
  readonly odometer?: number;
  /** Why it came off; worn out where nobody says. */
  readonly why?: ChangedWhy;
  /** Of a belt: the care of the one that came off, for when that is taken back. */
  readonly careBefore?: BeltCare;
  /** Of a belt: what the one that came off was set to, N. */
  readonly staticBefore?: number;
}

/** A limit in place of Emery's default, and whose it is. */
export interface InspectLimit {
  readonly check: Check;
  readonly from: 'shop' | 'manual';
  readonly replace: number;
  readonly watch?: number;
  /** What a new one has; of a rib's depth only. */
  readonly new?: number;
}

/** A limit that the shop holds for every drive, or for those belts and pulleys that it names. */
export interface ShopLimit {
  readonly check: Check;
  /** A belt's section, and what it is made of; a pulley's kind. Any where left out. */
  readonly section?: string;
  readonly material?: string;
  readonly kind?: PulleyKind;
  readonly replace: number;
  readonly watch?: number;
  /** What a new one has; of a rib's depth only. */
  readonly new?: number;
}

export interface Inspect {
  readonly odometerUnit?: OdometerUnit;
  readonly findings?: readonly InspectFinding[];
  readonly skipped?: readonly SkippedPart[];
  readonly changed?: readonly ChangedPart[];
  readonly limits?: readonly InspectLimit[];
  /** What the shop held for every drive when this one was last opened or saved: its settings write it here. */
  readonly shop?: readonly ShopLimit[];
  /** How far a belt of this drive lasts, in the odometer's unit, and who says so. */
  readonly life?: { readonly distance: number; readonly from: 'shop' | 'manual' };
}

/** More of the belt than any engine has is no place on one, mm. */
const place = () => is.needed(is.length().min(0, 'must be 0 mm or more'));
const odometer = () => is.finite('a reading of the odometer', 1e7).min(0, 'must be 0 or more');
const ribMarks = is.record<RibMarks>({
  tips: is.named('tips', picturePoints(80)),
  valleys: is.named('valleys', picturePoints(80)),
  sigmaPx: is.named('±', is.finite('a number of px', 1000).moreThan(0, 'must be more than 0 px'), 'px'),
  stretch: is.named(
    'squareness',
    is.record<NonNullable<RibMarks['stretch']>>({
      at: is.named('ratio', is.needed(is.finite().min(0.2, 'must be 0.2 or more').max(5, 'must be 5 at most'))),
      plusMinus: is.named('±', is.needed(is.plusMinus())),
    }),
  ),
});

const anyFinding = {
  id: is.named('id', is.id()),
  on: is.named('part checked', is.needed(is.oneOf(INSPECTED))),
  target: is.named('part', is.id()),
  value: is.named('value', is.finite()),
  outcome: is.named('outcome', is.text(40)),
  plusMinus: is.named('±', is.finite().min(0, 'must be 0 or more')),
  at: is.named('date', is.text(40)),
  odometer: is.named('odometer', odometer()),
  past: is.named('removed', is.yesOrNo()),
  places: is.named('places along the belt', is.optionalList(place(), 60)),
  photo: is.named('picture', is.record<KeptPicture>(keptPicture)),
  marks: is.named('marks in the picture', ribMarks),
};
const UNIT_WORDS = { mm: 'a number of millimetres', degrees: 'a number of degrees', cracks: 'a number of cracks' };

function shapeOf(check: Check) {
  const { on, outcomes, figure } = checkRules(check);
  const number = (unit: keyof typeof UNIT_WORDS, { min, max }: { min: number; max: number }) =>
    is.finite(UNIT_WORDS[unit], Math.max(-min, max)).min(min, `must be ${min} or more`);
  const value = figure && number(figure.unit, figure);
  return {
    ...anyFinding,
    // Named above, where it may be any of them.
    on: { schema: is.needed(is.oneOf([on])) },
    // With outcomes a figure only says where; without, it is the finding.
    value: value ? { ...anyFinding.value, schema: outcomes ? value : is.needed(value) } : is.ignored(),
    outcome: outcomes ? { ...anyFinding.outcome, schema: is.needed(is.oneOf(outcomes)) } : is.ignored(),
  };
}

const finding = is.variants<InspectFinding, 'check'>(
  'check',
  'check',
  anyFinding,
  // Each check by its own rules: the table above is what ties them to the type.
  Object.fromEntries(CHECK_NAMES.map((check) => [check, shapeOf(check)])) as never,
  { order: ['id', 'on', 'target', 'check'] },
);

/** A limit of the shop, as its settings hold it and as a drive carries it. */
export const shopLimit = is.item<ShopLimit>({
  check: is.named('check', is.needed(is.oneOf(CHECK_NAMES))),
  section: is.named('section', is.text(40)),
  material: is.named('material', is.oneOf(CHECKS.material.outcomes)),
  kind: is.named('kind of pulley', is.oneOf(PULLEY_KINDS)),
  replace: is.named('worn out at', is.needed(is.finite())),
  watch: is.named('watch from', is.finite()),
  new: is.named('when new', is.finite().min(0, 'must be 0 or more')),
});
export const MOST_SHOP_LIMITS = 60;

const WHOSE = ['shop', 'manual'] as const;
export const inspect = is.record<Inspect>({
  odometerUnit: is.named('odometer unit', is.oneOf(ODOMETER_UNITS)),
  findings: is.named('findings', is.optionalList(finding, 1000)),
  skipped: is.named(
    'parts skipped',
    is.optionalList(
      is.item<SkippedPart>({
        on: is.named('part checked', is.needed(is.oneOf(INSPECTED))),
        target: is.named('part', is.id()),
        at: is.named('date', is.text(40)),
      }),
      200,
    ),
  ),
  changed: is.named(
    'parts changed',
    is.optionalList(
      is.item<ChangedPart>({
        id: is.named('id', is.id()),
        on: is.named('part changed', is.needed(is.oneOf(INSPECTED))),
        target: is.named('part', is.id()),
        at: is.named('date', is.text(40)),
        odometer: is.named('odometer', odometer()),
        why: is.named('reason for removal', is.oneOf(CHANGED_WHY)),
        careBefore: is.named('service record of the old belt', beltCare),
        staticBefore: is.named('static tension of the old one', is.force(), 'N'),
      }),
      400,
    ),
  ),
  limits: is.named(
    'limits',
    is.optionalList(
      is.item<InspectLimit>({
        check: is.named('check', is.needed(is.oneOf(CHECK_NAMES))),
        from: is.named('source of the limit', is.needed(is.oneOf(WHOSE))),
        replace: is.named('worn out at', is.needed(is.finite())),
        watch: is.named('watch from', is.finite()),
        new: is.named('when new', is.finite().min(0, 'must be 0 or more')),
      }),
      40,
    ),
  ),
  shop: is.named('limits of the shop', is.optionalList(shopLimit, MOST_SHOP_LIMITS)),
  life: is.named(
    'expected belt life',
    is.record<NonNullable<Inspect['life']>>({
      distance: is.named('distance', is.needed(is.finite('a distance', 1e7).moreThan(0, 'must be more than 0'))),
      from: is.named('source of the figure', is.needed(is.oneOf(WHOSE))),
    }),
  ),
});
