import { momentOf, type Drive, type Inspected, type InspectFinding, stationOf } from '../drive';

/** Findings nearer together than this are of one look, ms. */
const ONE_LOOK_MS = 12 * 3600 * 1000;

const time = ({ at }: Pick<InspectFinding, 'at'>) => momentOf(at);

/** Whether one finding is of a later look than another; not where nothing tells. */
export function isLater(first: InspectFinding, second: InspectFinding): boolean {
  const [a, b] = [time(first), time(second)];
  if (a !== null && b !== null && Math.abs(a - b) > ONE_LOOK_MS) return a > b;
  return first.odometer !== undefined && second.odometer !== undefined && first.odometer > second.odometer;
}

/** Whether a finding belongs to a look that is being taken: of half a day, or of no day at all. */
export function isOneLook(finding: Pick<InspectFinding, 'at'>, look: { at: string }): boolean {
  const [a, b] = [time(finding), time(look)];
  return a === null || b === null || Math.abs(a - b) <= ONE_LOOK_MS;
}

/** A part that is inspected. */
export interface PartName {
  on: Inspected;
  target: string;
}

export const partKey = ({ on, target }: PartName) => `${on} ${target}`;

/** Whether a finding, or a part passed over, is of that part: any pulley that stands on an arm names the arm. */
export function isOf(drive: Drive, { on, target }: PartName, found: PartName): boolean {
  if (found.on !== on) return false;
  if (found.target === target) return true;
  return on === 'arm' && onOneShaft(drive, target, found.target);
}

export function onOneShaft(drive: Drive, a: string, b: string): boolean {
  const station = stationOf(drive, a);
  return station !== undefined && station === stationOf(drive, b);
}

/** All that was found of a part as it is on now: not of one that was changed since. */
export function findingsOf(drive: Drive, part: PartName): InspectFinding[] {
  const belt = part.on === 'belt' ? drive.belts.find(({ id }) => id === part.target) : undefined;
  const fittedAt = momentOf(belt?.care?.fittedAt);
  const fittedOdometer = belt?.care?.fittedOdometer;
  return (drive.inspect?.findings ?? []).filter((finding) => {
    if (finding.past || !isOf(drive, part, finding)) return false;
    const at = time(finding);
    if (fittedAt !== null && at !== null && at < fittedAt) return false;
    return fittedOdometer === undefined || finding.odometer === undefined || finding.odometer >= fittedOdometer;
  });
}

/** Of each check the findings of its last look: several, where it was made at several places. */
export function latestOfEach(findings: readonly InspectFinding[]): InspectFinding[] {
  return findings.filter(
    (finding) => !findings.some((other) => other.check === finding.check && isLater(other, finding)),
  );
}
