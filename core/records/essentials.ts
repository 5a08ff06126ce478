import { type Belt, type Drive, pulleyLabel } from '../drive';
import { solveDrive } from '../path';
import { formatInches, grouped } from '../quantity';
import { puttingOn } from '../seating';
import { DRIVE_SIDE_WORDS, sectionFor } from '../section';
import { askForBelt, releaseWords } from '../size';

/** What a code on a card may hold and still be read by any telephone, characters. */
export const MOST_ESSENTIALS = 1200;

/** One belt on the glovebox card. */
export interface CardBelt {
  belt: string;
  /** What to ask for: the marking, the number on it. */
  ask: string;
  /** The length in both units, and whether it is marked or from the drawing. */
  length: string;
  route: string;
  lastOn: string | null;
  /** When it went on, and at what reading; null where nobody wrote it down. */
  fitted: string | null;
}

/** What the glovebox card says of each belt. */
export function cardBelts(drive: Drive): CardBelt[] {
  const { belts } = solveDrive(drive);
  return drive.belts.flatMap((belt, b): CardBelt[] => {
    if (belt.route.length === 0) return [];
    const { section, ribs = null, length, care } = belt;
    const drawn = belts[b]!.length;
    const lengthMm = length ?? drawn.mm;
    const kind = sectionFor(section)!.kind;
    const [marking] = length ? askForBelt(belt, length).markings : [];
    const size = marking?.text ?? (ribs === null ? section : `${ribs}-rib ${section}`);
    const last = puttingOn(drive, belt.id)!.lastOn;
    return [
      {
        belt: belt.id,
        ask: care?.number ? `${size}, number ${care.number}` : size,
        length:
          lengthMm === null
            ? 'no length yet'
            : `${Math.round(lengthMm)} mm (${formatInches(lengthMm)}) ${drawn.basis}${length ? '' : ', from the drawing'}`,
        route: belt.route
          .map(
            ({ pulley, side }) =>
              `${pulleyLabel(drive, pulley)} (${side === 'back' ? 'back' : DRIVE_SIDE_WORDS[kind]})`,
          )
          .join(', '),
        lastOn: last && pulleyLabel(drive, last.pulley),
        fitted: fittedWords(drive, belt),
      },
    ];
  });
}

function fittedWords(drive: Drive, { care }: Belt): string | null {
  const at =
    care?.fittedOdometer === undefined
      ? ''
      : `at ${grouped(care.fittedOdometer)} ${drive.inspect?.odometerUnit ?? ''}`.trim();
  const known = [care?.fittedAt?.slice(0, 10), at].filter(Boolean).join(' ');
  return known === '' ? null : `Fitted ${known}`;
}

/** How each arm of the drive is let go, once each. */
export function releasesOf(drive: Drive): string[] {
  const releases = new Map(
    drive.belts.flatMap(({ id }) => puttingOn(drive, id)?.release ?? []).map((release) => [release.station, release]),
  );
  return [...releases.values()].map((release) => releaseWords(drive, release));
}

/** Signs that print well, as every reader of a code has them. Names stay as they are written. */
const plainSigns = (text: string) =>
  text.replace(/ · /g, ', ').replace(/[’‘]/g, "'").replace(/[″“”]/g, '"').replace(/[−–‑]/g, '-');

/**
 * The drive's essentials as plain text, for a code that is read without a network: belts with what to ask for, route,
 * last rim, release. Cut off where it would no longer be read.
 */
export function essentialsOf(drive: Drive, vehicle: { name: string; plate: string }): string {
  const belts = cardBelts(drive);
  const lines = [
    [vehicle.name, vehicle.plate, drive.name ?? ''].filter(Boolean).join(' · '),
    ...belts.map(
      ({ ask, length, route, lastOn, fitted }, k) =>
        `${belts.length > 1 ? `Belt ${k + 1}` : 'Belt'}: ${ask}; ${length}. ${route}.${lastOn ? ` Last over ${lastOn}.` : ''}${fitted ? ` ${fitted}.` : ''}`,
    ),
    ...releasesOf(drive),
    'Key out, battery off. The service manual takes precedence.',
  ];
  const text = plainSigns(lines.join('\n'));
  return text.length <= MOST_ESSENTIALS ? text : `${text.slice(0, MOST_ESSENTIALS - 2)} …`;
}
