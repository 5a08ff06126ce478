import * as is from './fields';
import { type AdjusterState, type Lay, LAYS, STATES, type Tool, TOOLS } from './measuring';
import { type TriedBelt, triedBelt } from './tried';
import { type BeltCare, beltCare, type TensionReading, tensionReading } from './tension';
import {
  BELT_BUILDS,
  type BeltBuild,
  OVERRIDABLE,
  SECTION_NAMES,
  sectionFor,
  type SectionOverrides,
  type Side,
} from '../section';

/**
 * One way a length was measured. `mm` is what the tape (or the print) said; for a gauge the distance of its wheels'
 * centres.
 */
export interface Measurement {
  readonly id: string;
  readonly tool: Tool;
  readonly mm: number;
  /** Where the adjuster stood with the tool laid on. */
  readonly state?: AdjusterState;
  /**
   * Where a string, rope or wire lay on grooved pulleys; in the grooves where nobody says and nothing speaks for the
   * rims.
   */
  readonly lay?: Lay;
  /** The loop lay doubled on the bench: the tape read half of it. */
  readonly doubled?: boolean;
  readonly thickness?: number;
  /** How much longer it was while pulled round than on the bench, as a fraction. */
  readonly stretch?: number;
  /** How much a used belt has grown, as a fraction. */
  readonly worn?: number;
  /** Around a gauge's wheel, on the line that is marked on belts, mm. */
  readonly circumference?: number;
  readonly plusMinus?: number;
  /** When it was measured, ISO 8601. */
  readonly at?: string;
}

const measurement = is.item<Measurement>({
  id: is.named('id', is.id()),
  tool: is.named('tool', is.needed(is.oneOf(TOOLS))),
  mm: is.named('reading', is.needed(is.size()), 'mm'),
  state: is.named('adjuster position', is.oneOf(STATES)),
  lay: is.named('how it lay', is.oneOf(LAYS)),
  doubled: is.named('belt doubled', is.yesOrNo()),
  thickness: is.named('thickness', is.size(), 'mm'),
  stretch: is.named('stretch', is.fraction(0.2)),
  worn: is.named('growth of a worn belt', is.fraction(0.2)),
  circumference: is.named('round a wheel', is.size(), 'mm'),
  plusMinus: is.named('±', is.plusMinus(), 'mm'),
  at: is.named('date', is.text(40)),
});

export interface RouteStop {
  readonly pulley: string;
  readonly side: Side;
  /**
   * Grooves counted free in front of the belt there, below zero where ribs hang over; as many as the first groove
   * leaves where it is left out.
   */
  readonly front?: number;
}

const routeStop = is.item<RouteStop>({
  pulley: is.named('pulley', is.id()),
  side: is.named('side', is.needed(is.oneOf(['drive', 'back']))),
  front: is.named(
    'grooves free in front',
    is.finite('a whole number of grooves', 60).integer('must be a whole number of grooves'),
  ),
});

export interface Belt {
  readonly id: string;
  readonly section: string;
  readonly ribs?: number;
  /** What its marking says besides: ribs on both sides, made to stretch on over fixed centres, or notched. */
  readonly build?: BeltBuild;
  /** The shaft that tightens it, where it runs on two that could; Emery's choice where it is left out. */
  readonly adjuster?: string;
  /** Marked length in mm in the section's own basis; null while it is not known. */
  readonly length?: number | null;
  readonly sectionOverrides?: SectionOverrides;
  /** Kept of the length for seating and stretch, as a fraction; Emery's default where it is not given. */
  readonly reserve?: number;
  /** What was measured of the length itself: a string, an old belt. */
  readonly measurements?: readonly Measurement[];
  /** Belts that were held against the engine, and what happened. */
  readonly tried?: readonly TriedBelt[];
  /** The pulleys a search for routes puts it on; every fitting one in its plane where it is left out. */
  readonly carries?: readonly string[];
  /** At rest, where a person sets it, N. */
  readonly staticTension?: number;
  /** kg of a metre of it, weighed; Emery's default for its section where it is left out. */
  readonly kgPerMetre?: number;
  readonly tensionReadings?: readonly TensionReading[];
  readonly care?: BeltCare;
  /** Up to which angles, in degrees, its runs are good, and to be watched; else as its section says. */
  readonly runAngle?: { readonly good: number; readonly watch: number };
  readonly route: readonly RouteStop[];
}

const runAngle = () => is.finite('a number of degrees', 10).moreThan(0, 'must be more than 0°');

/** What no belt's section goes beyond: past these a sum would tell a slack below nothing, or none. */
const OVERRIDES: Record<
  (typeof OVERRIDABLE)[number],
  readonly [label: string, least: number, most: number, unit: 'mm' | '°']
> = {
  cordDepth: ['cord below the top', 0, 40, 'mm'],
  driveOffset: ['cord above the face', -40, 60, 'mm'],
  backOffset: ['cord below the back', -40, 60, 'mm'],
  markedOffset: ['marked line from the cord', -60, 60, 'mm'],
  thickness: ['thickness', 0.5, 60, 'mm'],
  width: ['width', 0.5, 300, 'mm'],
  grooveAngle: ['groove angle', 5, 120, '°'],
  pitch: ['pitch', 0.5, 100, 'mm'],
};
const overrides = Object.fromEntries(
  OVERRIDABLE.map((key) => {
    const [label, min, max, unit] = OVERRIDES[key];
    const accepted = `must be from ${min} to ${max} ${unit === '°' ? 'degrees' : unit}`;
    return [key, is.named(label, is.finite().min(min, accepted).max(max, accepted), unit)];
  }),
) as unknown as is.Fields<SectionOverrides>;

/** The cord lies inside the belt: a thickness that leaves nothing between it and the inner face is a slip. */
const overridden = is
  .record<SectionOverrides>(overrides)
  .test('inside', 'must leave the cord inside the belt', function (value) {
    const belt = this.parent as Pick<Belt, 'section'>;
    const section = value && typeof belt.section === 'string' ? sectionFor(belt.section, value) : null;
    if (!section || section.thickness > section.backOffset) return true;
    return this.createError({
      path: `${this.path}.thickness`,
      message: `must be more than ${section.backOffset} mm, where the cord lies below the back`,
    });
  });

export const belt = is.item<Belt>({
  id: is.named('id', is.id()),
  section: is.named(
    'section',
    is
      .needed(is.text(40))
      .test(
        'known',
        `must be one of ${SECTION_NAMES.join(', ')}`,
        (value) => value === undefined || sectionFor(value) !== null,
      ),
  ),
  ribs: is.named('ribs', is.wholeNumber('a whole number of ribs', 60)),
  build: is.named('build', is.oneOf(BELT_BUILDS)),
  adjuster: is.named('shaft that tightens it', is.text(80)),
  length: is.named('length', is.size().nullable(), 'mm'),
  reserve: is.named('reserve for seating', is.fraction(0.05)),
  measurements: is.named('measurements', is.optionalList(measurement, 40)),
  tried: is.named('belts tried on', is.optionalList(triedBelt, 40)),
  carries: is.named('pulleys on the belt', is.optionalList(is.id(), 128)),
  sectionOverrides: is.named("section's figures", overridden),
  staticTension: is.named('static tension', is.force(), 'N'),
  kgPerMetre: is.named(
    'mass of a metre',
    is.finite('a mass in kg per metre', 10).moreThan(0, 'must be more than 0 kg/m'),
    'kg/m',
  ),
  tensionReadings: is.named('tension readings', is.optionalList(tensionReading, 200)),
  care: is.named("belt's service record", beltCare),
  runAngle: is.named(
    'limits of its runs',
    is.record<NonNullable<Belt['runAngle']>>({
      good: is.named('good up to', is.needed(runAngle()), '°'),
      watch: is.named('watch up to', is.needed(runAngle()), '°'),
    }),
  ),
  route: is.named('route', is.list(routeStop, 128)),
});
