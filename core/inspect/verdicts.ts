import {
  type Belt,
  type Check,
  checkRules,
  type Drive,
  findPulley,
  type InspectFinding,
  momentOf,
  seenTrack,
  type SprungArm,
  stationOf,
} from '../drive';
import { tensionOf } from '../loads';
import { type ArmHealth, armHealthRead } from '../tension';
import { findingsOf, isOf, latestOfEach, type PartName } from './latest';
import { ageOf, type BeltAge, type Life, lifeOf } from './life';
import { gradeByKind } from './kinds';
import {
  type Grade,
  graded,
  type Limits,
  limitsOf,
  oddFigure,
  sigmaOfFinding,
  TOOTH_SIGMA,
  DEFAULT_MATERIAL,
} from './limits';
import { checksOf, kindOf, partsOf } from './parts';
import { type Wear, wearOf } from './wear';
import { besideAngle } from '../numeric';

export const VERDICTS = ['replace', 'watch', 'keep', 'not looked at'] as const;
export type Verdict = (typeof VERDICTS)[number];

/** What speaks for a verdict: a check, the spring that Tension measured, a belt that has had its life or its years. */
export type ReasonCode = Check | 'spring' | 'default-life' | 'default-age';

/** What one check says of its part. */
export interface Judged {
  code: ReasonCode;
  grade: Grade;
  /** What was found, where an inspection found it. */
  finding?: InspectFinding;
  /** The figure that was judged: a belt's length as percent of growth. */
  value?: number;
  limits?: Limits;
  /** Why it says nothing: a figure that can hardly be so, and what it can be; or the kind of pulley must be known. */
  odd?: { from: number; to: number };
  asksKind?: true;
  /** Whose it is. */
  from: 'inspect' | 'align' | 'tension';
  /** Of the spring, what Tension makes of the arm. */
  arm?: ArmHealth;
}

/** A part of the drive, and what is to be done with it. */
export interface InspectItem extends PartName {
  verdict: Verdict;
  /** What speaks for it, worst first; nothing for a part that is kept, or was not looked at. */
  reasons: ReasonCode[];
  /** All that was found, in the order of the checks. */
  judged: Judged[];
  /** The checks that nobody made. */
  missing: Check[];
  /** When it was passed over, without anything found since; empty where no day was kept. Null for one that was not. */
  skipped: string | null;
  /** Of a belt. */
  wear: Wear | null;
  life: Life | null;
  /** Of a belt: how old it may grow. */
  age: BeltAge | null;
  /** Of a belt: the day its end is due, of its wear and its age the sooner; null where neither is known. */
  due: { day: string; by: 'wear' | 'age' } | null;
}

/**
 * Everything in a drive that can be kept or changed, as the walk meets it. `odometer` is where it stands now.
 */
export function inspectDrive(drive: Drive, odometer?: number): InspectItem[] {
  const springs = springsOf(drive);
  return partsOf(drive).map((part) => itemOf(drive, part, springs, odometer));
}

function itemOf(
  drive: Drive,
  part: PartName,
  springs: ReadonlyMap<string, ArmHealth>,
  odometer: number | undefined,
): InspectItem {
  const { checks, telling } = checksOf(drive, part);
  const { all, belt, material, judged: found } = foundOf(drive, part);
  const track = fromAlign(drive, part);
  const judged = [
    ...found.filter(({ code }) => code !== 'track' || !track),
    ...(track ? [track] : []),
    ...fromTension(drive, part, springs),
  ];
  const order = (code: ReasonCode) => (checks as readonly ReasonCode[]).indexOf(code);
  judged.sort((a, b) => order(a.code) - order(b.code));
  const made = new Set(judged.map(({ code }) => code));
  const wear = belt ? wearOf(drive, belt, all, { now: odometer, material }) : null;
  const age = belt ? ageOf(belt, material, all) : null;
  const life = belt && !wear?.line ? lifeOf(drive, belt, material, odometer ?? lastOdometer(all)) : null;
  const outlived = life?.left !== null && life?.left !== undefined && life.left <= 0;
  const bad = (grade: Grade) => judged.filter((judgement) => judgement.grade === grade).map(({ code }) => code);
  const known = judged.some(
    ({ code, grade, from }) =>
      grade === 'sound' && (from === 'tension' || (telling as readonly ReasonCode[]).includes(code)),
  );
  const [replace, watch] = [bad('replace'), bad('watch')];
  const verdict = ((): Verdict => {
    if (replace.length > 0) return 'replace';
    if (watch.length > 0 || (known && (outlived || age?.over))) return 'watch';
    return known ? 'keep' : 'not looked at';
  })();
  const looked = verdict !== 'not looked at';
  const past: ReasonCode[] = [
    ...(outlived && looked ? (['default-life'] as const) : []),
    ...(age?.over && looked ? (['default-age'] as const) : []),
  ];
  return {
    ...part,
    verdict,
    reasons: [...new Set([...replace, ...watch, ...past])],
    judged,
    missing: checks.filter((check) => !made.has(check) && isWorthIt(check, material, belt)),
    skipped: found.length > 0 ? null : skippedAt(drive, part),
    wear,
    life,
    age,
    due: dueOf(wear, age),
  };
}

/** A belt is due by its wear or by its age, whichever is first. */
function dueOf(wear: Wear | null, age: BeltAge | null): InspectItem['due'] {
  const days = [
    ...(wear?.left?.day ? [{ day: wear.left.day, by: 'wear' as const }] : []),
    ...(age?.day ? [{ day: age.day, by: 'age' as const }] : []),
  ];
  return days.sort((a, b) => (a.day < b.day ? -1 : 1))[0] ?? null;
}

/** What an inspection found of a part as it is on now: all of it, and what the last look of each check says. */
export function foundOf(drive: Drive, part: PartName) {
  const belt = part.on === 'belt' ? drive.belts.find(({ id }) => id === part.target) : undefined;
  const all = findingsOf(drive, part);
  const latest = latestOfEach(all);
  const said = latest.filter(({ check }) => check === 'material').map(({ outcome }) => outcome);
  // Where it is said to be both, cracks prove nothing.
  const material = said.length > 0 && !said.includes(DEFAULT_MATERIAL) ? said[0]! : DEFAULT_MATERIAL;
  return { belt, all, material, judged: latest.map((finding) => judge(drive, finding, belt, material)) };
}

/** EPDM seldom cracks and its length need not be taped: what nobody made of these is no gap. */
const isWorthIt = (check: Check, material: string, belt: Belt | undefined) =>
  check !== 'length' && (check !== 'cracks' || material === 'neoprene' || kindOf(belt) === 'toothed');

const lastOdometer = (findings: readonly InspectFinding[]) =>
  findings.reduce<number | undefined>(
    (last, { odometer: o }) => (o === undefined ? last : Math.max(last ?? 0, o)),
    undefined,
  );

function skippedAt(drive: Drive, part: PartName): string | null {
  const skipped = (drive.inspect?.skipped ?? []).filter((skip) => isOf(drive, part, skip));
  return skipped.length === 0 ? null : (skipped[skipped.length - 1]!.at ?? '');
}

/** What speaks against a part by one check; of several findings the worst. */
export function against({ judged }: Pick<InspectItem, 'judged'>, code: ReasonCode): Judged | undefined {
  const graded = (grade: Grade) => judged.find((judgement) => judgement.code === code && judgement.grade === grade);
  return graded('replace') ?? graded('watch');
}

/** How bad each outcome is. */
const OUTCOMES: { readonly [C in Check]?: Readonly<Record<string, Grade>> } = {
  material: { epdm: 'nothing', neoprene: 'nothing' },
  profile: { v: 'sound', worn: 'watch', u: 'replace' },
  chunks: { no: 'sound', yes: 'replace' },
  frayed: { no: 'sound', yes: 'replace' },
  glazed: { no: 'sound', yes: 'replace' },
  pilling: { no: 'sound', yes: 'replace' },
  oil: { no: 'sound', yes: 'replace' },
  stroke: { smooth: 'sound', binds: 'replace', stuck: 'replace' },
  'by-hand': { no: 'sound', yes: 'replace' },
  cocked: { no: 'sound', yes: 'replace' },
  spin: { quiet: 'sound', grinds: 'replace', freewheels: 'replace' },
  grooves: { clean: 'sound', paint: 'watch', grit: 'watch', dent: 'replace' },
  clutch: { holds: 'sound', locked: 'replace', slips: 'replace' },
};

/** What a finding says of its part by its limits, which may be the manual's or the shop's own. */
function judge(drive: Drive, finding: InspectFinding, belt: Belt | undefined, material: string): Judged {
  const { check, outcome, value, target } = finding;
  const given = { code: check, finding, from: 'inspect' as const };
  if (checkRules(check).outcomes) {
    const byKind = finding.on === 'pulley' ? gradeByKind(drive, target, check, outcome) : null;
    if (byKind === 'ask') return { ...given, grade: 'nothing', asksKind: true };
    return { ...given, grade: byKind ?? OUTCOMES[check]?.[outcome ?? ''] ?? 'nothing' };
  }
  if (value === undefined) return { ...given, grade: 'nothing' };
  if (check === 'pointer') return { ...given, value, grade: pointerGrade(drive, finding) };
  const pulley = finding.on === 'pulley' ? target : undefined;
  const limits = limitsOf(drive, check, { belt, material, pulley });
  if (!limits) return { ...given, value, grade: 'nothing' };
  const toothed = check === 'cracks' && kindOf(belt) === 'toothed' && finding.plusMinus === undefined;
  const sigma = toothed ? TOOTH_SIGMA : sigmaOfFinding(finding);
  if (check === 'length') {
    // Grown by so many percent over what is printed on it.
    if (!belt?.length) return { ...given, grade: 'nothing' };
    const grown = (100 * (value - belt.length)) / belt.length;
    return { ...given, value: grown, limits, grade: graded(grown, (100 * sigma) / belt.length, limits) };
  }
  const odd = oddFigure(check, value, limits);
  const grade = graded(check === 'track' ? Math.abs(value) : value, sigma, limits);
  // EPDM wears without a crack: none is no sign that it is sound.
  const blind = check === 'cracks' && grade === 'sound' && material === 'epdm' && kindOf(belt) !== 'toothed';
  // A figure that can hardly be calls nothing sound; one that condemns does so until it is read again.
  if (odd) return { ...given, value, limits, grade: grade === 'replace' ? grade : 'nothing', odd };
  return { ...given, value, limits, grade: blind ? 'nothing' : grade };
}

/** A pointer between its marks says little of the arm; one past them, that it or its belt is not right. */
function pointerGrade(drive: Drive, { target, value }: InspectFinding): Grade {
  const adjuster = stationOf(drive, target)?.adjuster;
  if (adjuster?.kind !== 'sprung-arm') return 'nothing';
  const within = inWindow(adjuster, value!);
  if (within === null) return 'nothing';
  return within ? 'sound' : 'watch';
}

function inWindow({ shortMark, longMark }: SprungArm, degrees: number): boolean | null {
  if (shortMark === undefined || longMark === undefined) return null;
  const at = besideAngle(degrees, (shortMark + longMark) / 2);
  return at >= Math.min(shortMark, longMark) && at <= Math.max(shortMark, longMark);
}

/** Where a track was last read under Align, it counts in place of an older one that was found here. */
function fromAlign(drive: Drive, { on, target }: PartName): Judged | null {
  const seen = on === 'pulley' && findPulley(drive, target)?.surface === 'smooth' ? seenTrack(drive, target) : null;
  if (seen?.from !== 'align') return null;
  const limits = limitsOf(drive, 'track')!;
  const grade = graded(Math.abs(seen.mm), 0, limits);
  return { code: 'track', value: seen.mm, limits, grade, from: 'align' };
}

/** What Tension's last sitting makes of each sprung arm that it measured, by the id of its shaft. */
function springsOf(drive: Drive): Map<string, ArmHealth> {
  const read = drive.belts.filter(({ tensionReadings }) => tensionReadings?.some(({ way }) => way === 'pointer'));
  const found = new Map<string, ArmHealth>();
  if (read.length === 0) return found;
  for (const standing of tensionOf(drive).staticBelts) {
    if (!standing || standing.arm === null || !read.some(({ id }) => id === standing.belt.id)) continue;
    const { station, pulley } = standing.contacts[standing.arm]!;
    const health = changedSince(drive, pulley, standing.belt) ? null : armHealthRead(drive, standing);
    if (health) found.set(station, health);
  }
  return found;
}

/** Whether another arm went on after its belt was last measured. */
function changedSince(drive: Drive, pulley: string, { tensionReadings }: Belt): boolean {
  const arm = { on: 'arm', target: pulley } as const;
  const last = momentOf(tensionReadings?.[tensionReadings.length - 1]?.at);
  return (drive.inspect?.changed ?? []).some((part) => {
    const at = momentOf(part.at);
    return isOf(drive, arm, part) && at !== null && last !== null && at > last;
  });
}

const ARM_GRADES: Readonly<Record<ArmHealth['verdict'], Grade>> = {
  good: 'sound',
  weak: 'replace',
  binding: 'replace',
  stuck: 'replace',
  // Told under Tension: they are no fault of the arm, or say nothing of it.
  strong: 'nothing',
  'wrong-length': 'nothing',
  'cannot-say': 'nothing',
};

function fromTension(drive: Drive, { on, target }: PartName, springs: ReadonlyMap<string, ArmHealth>): Judged[] {
  const arm = on === 'arm' ? springs.get(stationOf(drive, target)?.id ?? '') : undefined;
  return arm ? [{ code: 'spring', grade: ARM_GRADES[arm.verdict], from: 'tension', arm }] : [];
}
