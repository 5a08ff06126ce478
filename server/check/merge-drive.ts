import { drawn, type CheckedDrive } from './check-drive';
import { withShopLimits } from '../drives/shop-limits';
import { type Drive, type DriveProblem, fullWords, readDrive, type ShopLimit, withinLists } from '@emery/core/drive';
import { type Change, changesBetween, type Clash, digest, merged, withMine } from '@emery/core/together';

/** A drive as it is stored, and what somebody did to a version of it. */
export interface DrivePatch {
  document: string;
  limits: readonly ShopLimit[] | null;
  changes: readonly Change[];
  /** Nobody else changed it since: what is wrong is wrong with the changes alone. */
  alone: boolean;
}

export type DriveMerge =
  | { ok: true; checked: CheckedDrive | null; asked: string; changes: Change[]; clashes: readonly Clash[] }
  | { ok: false; full: string }
  | { ok: false; full: null; problems: DriveProblem[] };

/** One drive from both; `checked` is null where nothing is another than before, `asked` names what was asked for. */
export function mergeDrive({ document, limits, changes, alone }: DrivePatch): DriveMerge {
  const before = withShopLimits(JSON.parse(document) as Drive, limits);
  const { drive, clashes } = merged(before, changes);
  if (alone && clashes.some(({ why }) => why === 'unfit' || why === 'full')) return refusal(before, changes);
  const done = changesBetween(before, drive);
  const asked = digest(changes);
  return { ok: true, checked: done.length === 0 ? null : drawn(drive), asked, changes: done, clashes };
}

/** Why changes that nobody else had a part in cannot be taken. */
function refusal(before: Drive, changes: readonly Change[]): DriveMerge {
  const wanted = withMine(before, changes);
  const { full } = withinLists(before, wanted);
  if (full) return { ok: false, full: fullWords(full) };
  const reading = readDrive(wanted);
  return { ok: false, full: null, problems: reading.ok ? [] : reading.problems };
}
