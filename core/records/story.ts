import {
  type Belt,
  type Drive,
  type InspectFinding,
  itemsOf,
  type KeptPicture,
  momentOf,
  NOISE_TEST_NAMES,
  type NoiseTest,
  type OdometerUnit,
  pulleyLabel,
} from '../drive';
import { inspectedLabel } from '../inspect';
import { CAUSE_WORDS, partLabel } from '../noise';
import { tensionOf } from '../loads';
import { combineReadings, meaningsOf, sittingsOf } from '../tension';
import { namedBelt, namedBeltOn } from './belt-names';

export const STORY_KINDS = ['belt', 'part', 'tension', 'inspection', 'alignment', 'noise', 'job'] as const;
export type StoryKind = (typeof STORY_KINDS)[number];

/** One thing that happened to a drive, as it is remembered. */
export interface StoryEntry {
  kind: StoryKind;
  /** ISO 8601, or null where nobody wrote it down. */
  at: string | null;
  odometer: number | null;
  /** Null where the drive does not say: then the vehicle's. */
  unit: OdometerUnit | null;
  title: string;
  detail: string;
  belt: string | null;
  pictures: KeptPicture[];
}

/** Everything that a drive remembers, latest first; what has no date comes last, in the order of the file. */
export function storyOf(drive: Drive): StoryEntry[] {
  const unit = drive.inspect?.odometerUnit ?? null;
  const entries = [
    ...drive.belts.flatMap((belt) => beltStory(drive, belt)),
    ...changedStory(drive),
    ...tensionStory(drive),
    ...inspectionStory(drive),
    ...alignmentStory(drive),
    ...noiseStory(drive),
  ].map((entry): StoryEntry => ({
    odometer: null,
    belt: null,
    pictures: [],
    detail: '',
    ...entry,
    unit: entry.unit ?? unit,
  }));
  return latestFirst(entries);
}

/** By the day, latest first; undated ones last. */
function latestFirst<T extends { at: string | null }>(entries: readonly T[]): T[] {
  const time = ({ at }: T) => momentOf(at ?? undefined) ?? -Infinity;
  return [...entries].sort((a, b) => (time(a) === time(b) ? 0 : time(b) - time(a)));
}

type Told = Pick<StoryEntry, 'kind' | 'at' | 'title'> & Partial<StoryEntry>;

function beltStory(drive: Drive, belt: Belt): Told[] {
  const { care } = belt;
  if (!care) return [];
  const name = namedBelt(drive, belt);
  const common = { kind: 'belt' as const, belt: belt.id };
  return [
    ...(care.fittedAt !== undefined || care.fittedOdometer !== undefined || care.number !== undefined
      ? [
          {
            ...common,
            at: care.fittedAt ?? null,
            odometer: care.fittedOdometer ?? null,
            title: `${name}: fitted`,
            detail: care.number === undefined ? '' : `number ${care.number}`,
          },
        ]
      : []),
    ...(care.setAgainAt !== undefined
      ? [{ ...common, at: care.setAgainAt, title: `${name}: set again after its run-in` }]
      : []),
  ];
}

/** Why a belt came off, as the story tells it. */
export const WHY_WORDS = { worn: 'worn out', broke: 'broke', 'in-passing': 'still good, changed in passing' } as const;

function changedStory(drive: Drive): Told[] {
  return itemsOf(drive, 'inspect.changed').map(({ on, target, at, odometer, why, careBefore }): Told => {
    const number = careBefore?.number;
    return {
      kind: on === 'belt' ? 'belt' : 'part',
      at: at ?? null,
      odometer: odometer ?? null,
      belt: on === 'belt' ? target : null,
      title: `${inspectedLabel(drive, { on, target })}${on === 'belt' ? ': the old one taken off' : ' changed'}`,
      detail: [why && WHY_WORDS[why], number && `number ${number}`].filter(Boolean).join(', '),
    };
  });
}

/** Half a day: what is nearer together happened in one go. */
const ONE_GO_MS = 12 * 3600 * 1000;

/** Items of one go together, in the order of the file. */
function goes<T>(items: readonly T[], dateOf: (item: T) => string | undefined): T[][] {
  return items.reduce<T[][]>((all, entry) => {
    const last = all.at(-1);
    const [a, b] = [last && momentOf(dateOf(last[0]!)), momentOf(dateOf(entry))];
    const together = a === b || (typeof a === 'number' && b !== null && Math.abs(a - b) <= ONE_GO_MS);
    if (last && together) last.push(entry);
    else all.push([entry]);
    return all;
  }, []);
}

function tensionStory(drive: Drive): Told[] {
  return tensionSittings(drive).map(({ belt, at, odometer, readings, tension }): Told => {
    const figure = tension ? `, ${Math.round(tension.at)} ± ${Math.round(tension.plusMinus)} N` : '';
    return {
      kind: 'tension',
      at,
      odometer,
      belt,
      title: `${namedBeltOn(
        drive,
        drive.belts.find(({ id }) => id === belt)!,
        at,
      )}: tension read${figure}`,
      detail: readings === 1 ? '1 reading' : `${readings} readings`,
    };
  });
}

/** One sitting at which a belt's tension was read, and what it came to, N. */
export interface TensionSitting {
  belt: string;
  at: string | null;
  odometer: number | null;
  readings: number;
  tension: { at: number; plusMinus: number } | null;
}

/** Every sitting at which a belt was read, in the order of the file: what is drawn over the distance. */
export function tensionSittings(drive: Drive): TensionSitting[] {
  if (drive.belts.every(({ tensionReadings }) => !tensionReadings?.length)) return [];
  const { staticBelts } = tensionOf(drive);
  return drive.belts.flatMap(({ id, tensionReadings = [] }, b) =>
    sittingsOf(tensionReadings).map((sitting): TensionSitting => {
      const standing = staticBelts[b];
      const combined = standing ? combineReadings(meaningsOf(drive, standing, sitting)) : null;
      return {
        belt: id,
        at: sitting.find(({ at }) => at !== undefined)?.at ?? null,
        odometer: sitting.find(({ odometer }) => odometer !== undefined)?.odometer ?? null,
        readings: sitting.length,
        tension: combined && { at: combined.at, plusMinus: combined.sigma },
      };
    }),
  );
}

function inspectionStory(drive: Drive): Told[] {
  return goes(itemsOf(drive, 'inspect.findings'), ({ at }) => at).map((findings): Told => {
    const parts = new Set(findings.map(({ on, target }) => `${on} ${target}`)).size;
    return {
      kind: 'inspection',
      at: findings[0]!.at ?? null,
      odometer: findings.find(({ odometer }) => odometer !== undefined)?.odometer ?? null,
      title: 'Inspection',
      detail: `${findings.length === 1 ? '1 check' : `${findings.length} checks`} of ${parts === 1 ? '1 part' : `${parts} parts`}`,
      pictures: findings.flatMap(({ photo }: InspectFinding) => photo ?? []),
    };
  });
}

function alignmentStory(drive: Drive): Told[] {
  const readings = goes(itemsOf(drive, 'align.readings'), ({ date }) => date).map((taken): Told => {
    const pulleys = new Set(taken.map(({ pulley }) => pulley)).size;
    return {
      kind: 'alignment',
      at: taken[0]!.date ?? null,
      title: 'Alignment measured',
      detail: `${taken.length === 1 ? '1 reading' : `${taken.length} readings`} at ${pulleys === 1 ? '1 pulley' : `${pulleys} pulleys`}`,
    };
  });
  const done = itemsOf(drive, 'align.done').map(({ pulley, date }): Told => ({
    kind: 'alignment',
    at: date ?? null,
    title: `${pulleyLabel(drive, pulley)} aligned`,
  }));
  return [...readings, ...done];
}

function noiseStory(drive: Drive): Told[] {
  const { evidence = [], cures = [] } = drive.noise ?? {};
  const clues = goes(evidence, ({ at }) => at).map((found): Told => ({
    kind: 'noise',
    at: found[0]!.at ?? null,
    odometer: found.find(({ odometer }) => odometer !== undefined)?.odometer ?? null,
    title: 'Noise checked',
    detail: [...new Set(found.map(({ test }) => NOISE_TEST_NAMES[test as NoiseTest] ?? test))].join(', '),
  }));
  const cured = cures.flatMap(({ cause, part, at, odometer, odometerUnit, note, listened = [] }): Told[] => [
    {
      kind: 'noise',
      at: at ?? null,
      odometer: odometer ?? null,
      ...(odometerUnit && { unit: odometerUnit }),
      title: `Repaired: ${CAUSE_WORDS[cause].name.toLowerCase()}, ${partLabel(drive, part)}`,
      detail: note ?? '',
    },
    ...listened.map(({ outcome, at: heard }): Told => ({
      kind: 'noise',
      at: heard ?? null,
      title: outcome === 'back' ? 'Listened again: the noise came back' : 'Listened again: quiet',
    })),
  ]);
  return [...clues, ...cured];
}

/** The columns of a story as a table. */
export const STORY_COLUMNS = ['date', 'odometer', 'unit', 'drive', 'kind', 'what', 'detail'] as const;
