import {
  type ChangedWhy,
  changeBelt,
  type Check,
  type Drive,
  freeIdIn,
  type Inspect,
  type InspectFinding,
  type InspectLimit,
  itemsOf,
  type KeptPicture,
  putItem,
  removeItem,
  withItems,
} from '../drive';
import { isOf, isOneLook, type PartName } from './latest';
import { GLANCE } from './parts';

/* What the bench changes of an inspection. Each is a pure function from drive to drive. */

export const changeInspect = (drive: Drive, change: Partial<Inspect>): Drive => ({
  ...drive,
  inspect: { ...drive.inspect, ...change },
});

/** When a look is taken: the time (ISO 8601), and where the odometer stands. */
export interface Look {
  at: string;
  odometer?: number;
}

/** What was found by a check, without the part and the look it belongs to. */
export type Found = Pick<InspectFinding, 'check'> & Partial<Omit<InspectFinding, 'id' | 'on' | 'target' | 'check'>>;

/** What this look has found of a part by a check already. */
export function foundNow(drive: Drive, part: PartName, check: Check, look: Look): InspectFinding | undefined {
  return itemsOf(drive, 'inspect.findings').find(
    (finding) => finding.check === check && !finding.past && isOf(drive, part, finding) && isOneLook(finding, look),
  );
}

/** Writes down what a check found, in place of what this look had found by it. */
export function putFinding(drive: Drive, part: PartName, found: Found, look: Look): Drive {
  const old = foundNow(drive, part, found.check, look);
  const id = old?.id ?? freeIdIn('found', itemsOf(drive, 'inspect.findings'));
  // A figure read again leaves the old one's ± and marks behind, and keeps its picture and its places on the belt.
  const kept = old && { ...(old.photo && { photo: old.photo }), ...(old.places && { places: old.places }) };
  const finding = { id, ...part, ...kept, ...found, ...look };
  const skipped = (drive.inspect?.skipped ?? []).filter((skip) => !isOf(drive, part, skip));
  const cleared = drive.inspect?.skipped ? changeInspect(drive, { skipped }) : drive;
  return putItem(cleared, 'inspect.findings', finding);
}

/** Takes back what this look found by a check. */
export function takeBackFinding(drive: Drive, part: PartName, check: Check, look: Look): Drive {
  const old = foundNow(drive, part, check, look);
  return old ? removeItem(drive, 'inspect.findings', old.id) : drive;
}

/** Nothing else to be seen on a belt: every check of a glance that this look has not answered is answered with no. */
export function nothingElseSeen(drive: Drive, part: PartName, look: Look): Drive {
  return GLANCE.reduce(
    (now, check) => (foundNow(now, part, check, look) ? now : putFinding(now, part, { check, outcome: 'no' }, look)),
    drive,
  );
}

/** Lays a change over a finding; a field set to undefined is taken out. */
export function changeFinding(drive: Drive, id: string, change: Partial<InspectFinding>): Drive {
  const old = itemsOf(drive, 'inspect.findings').find((finding) => finding.id === id);
  if (!old) return drive;
  const next = Object.fromEntries(Object.entries({ ...old, ...change }).filter(([, value]) => value !== undefined));
  // Only what may be left out is set to undefined.
  return putItem(drive, 'inspect.findings', next as unknown as InspectFinding);
}

export const hangPicture = (drive: Drive, id: string, photo: KeptPicture | null): Drive =>
  changeFinding(drive, id, photo ? { photo } : { photo: undefined, marks: undefined });

/** Says where the odometer stands: for all that this look has found, too. */
export function readOdometer(drive: Drive, odometer: number | undefined, look: Look): Drive {
  const all = itemsOf(drive, 'inspect.findings');
  const ofLook = new Set(
    all.filter((finding) => !finding.past && finding.at !== undefined && isOneLook(finding, look)),
  );
  if (ofLook.size === 0) return drive;
  const findings = all.map((finding) => {
    if (!ofLook.has(finding)) return finding;
    const { odometer: _, ...rest } = finding;
    return odometer === undefined ? rest : { ...rest, odometer };
  });
  return withItems(drive, 'inspect.findings', findings);
}

/** Says that a part was passed over in this look. */
export function skipPart(drive: Drive, part: PartName, { at }: Look): Drive {
  const others = (drive.inspect?.skipped ?? []).filter((skip) => !isOf(drive, part, skip));
  return changeInspect(drive, { skipped: [...others, { on: part.on, target: part.target, at }] });
}

/**
 * Says that a part was changed for a new one: what was found of the old counts no more, and a belt's care begins anew.
 * What the old belt was set to is kept with the change, and is not the new one's.
 */
export function partChanged(drive: Drive, part: PartName, { at, odometer }: Look, why?: ChangedWhy): Drive {
  const findings = itemsOf(drive, 'inspect.findings').map((finding) =>
    isOf(drive, part, finding) ? { ...finding, past: true } : finding,
  );
  const id = freeIdIn('changed', itemsOf(drive, 'inspect.changed'));
  const { on, target } = part;
  const old = on === 'belt' ? drive.belts.find((belt) => belt.id === target) : undefined;
  const next = putItem(withItems(drive, 'inspect.findings', findings), 'inspect.changed', {
    id,
    on,
    target,
    at,
    ...(odometer !== undefined && { odometer }),
    ...(why && { why }),
    ...(old?.care && { careBefore: old.care }),
    ...(old?.staticTension !== undefined && { staticBefore: old.staticTension }),
  });
  if (on !== 'belt') return next;
  return changeBelt(next, target, {
    care: { fittedAt: at, ...(odometer !== undefined && { fittedOdometer: odometer }) },
    staticTension: undefined,
  });
}

/** Takes back that a part was changed: the last change of it. */
export function changeTakenBack(drive: Drive, part: PartName): Drive {
  const changes = itemsOf(drive, 'inspect.changed').filter((change) => isOf(drive, part, change));
  const last = changes.reduce<(typeof changes)[number] | undefined>(
    (latest, change) => (latest && (latest.at ?? '') > (change.at ?? '') ? latest : change),
    undefined,
  );
  if (!last) return drive;
  const before =
    changes
      .filter((other) => other !== last)
      .map(({ at = '' }) => at)
      .sort()
      .at(-1) ?? '';
  const findings = itemsOf(drive, 'inspect.findings').map((finding) => {
    if (
      !isOf(drive, part, finding) ||
      !finding.past ||
      (finding.at ?? '') < before ||
      (finding.at ?? '') > (last.at ?? '')
    )
      return finding;
    const { past: _, ...rest } = finding;
    return rest;
  });
  const next = removeItem(withItems(drive, 'inspect.findings', findings), 'inspect.changed', last.id);
  return part.on === 'belt'
    ? changeBelt(next, part.target, { care: last.careBefore, staticTension: last.staticBefore })
    : next;
}

/** Gives a check a limit in place of Emery's default; null goes back to that. */
export function putLimit(drive: Drive, check: Check, limit: Omit<InspectLimit, 'check'> | null): Drive {
  const others = (drive.inspect?.limits ?? []).filter((limit) => limit.check !== check);
  return changeInspect(drive, { limits: limit ? [...others, { check, ...limit }] : others });
}
