import { type Check, CHECK_NAMES, type Drive, stationOf } from '../drive';
import type { DriveSolution } from '../path';
import type { InspectTold } from './finding';
import { findingsOf } from './latest';
import { placesOf, repeatOf } from './repeats';
import { replaceTogether } from './together';
import { against, type InspectItem, type ReasonCode } from './verdicts';

/** What is to be told of an inspection as a whole: what stops, what to change with what, what to cure first. */
export function inspectFindings(
  drive: Drive,
  items: readonly InspectItem[],
  { belts }: Pick<DriveSolution, 'belts'>,
): InspectTold[] {
  if (items.length === 0) return [{ code: 'no-parts', severity: 'note' }];
  if (items.every(({ judged }) => judged.length === 0)) return [{ code: 'nothing-looked-at', severity: 'note' }];
  return [
    ...items.flatMap((item) => (item.on === 'pulley' ? ofPulley(drive, item) : [])),
    ...items.flatMap((item) => (item.on === 'belt' ? ofBelt(item) : [])),
    ...items.flatMap(oddOf),
    ...belts.flatMap((belt): InspectTold[] => {
      const found = findingsOf(drive, { on: 'belt', target: belt.id });
      const repeat = repeatOf(belt, placesOf(found));
      return repeat
        ? [
            {
              code: 'repeats',
              severity: 'watch',
              belt: belt.id,
              pulley: repeat.pulley,
              figures: { turnMm: repeat.turnMm, byChance: repeat.byChance },
            },
          ]
        : [];
    }),
    ...replaceTogether(drive, items).map(({ targets: [belt, ...pulleys], why, offered }): InspectTold => {
      const at = { severity: 'note', belt: belt!, figures: { offered: offered.length } } as const;
      if (why === 'pair') return { ...at, code: 'change-pair' };
      return { ...at, code: why === 'arm' ? 'change-with-arm' : 'change-with-idler', pulley: pulleys[0]!, pulleys };
    }),
    ...curesOf(drive, items),
  ];
}

const isCheck = (code: ReasonCode): code is Check => (CHECK_NAMES as readonly string[]).includes(code);

/** Figures that can hardly be what they say: they are asked about, and judge nothing. */
const oddOf = ({ on, target, judged }: InspectItem): InspectTold[] =>
  judged.flatMap(({ code, value, odd, grade }) =>
    odd && isCheck(code)
      ? [
          {
            code: 'odd-figure',
            severity: 'watch',
            ...(on === 'belt' ? { belt: target } : { pulley: target }),
            figures: {
              ...{ check: code, value: value ?? 0, from: odd.from, to: odd.to },
              ...(grade === 'replace' && { condemns: 1 }),
            },
          } as const,
        ]
      : [],
  );

function ofPulley(drive: Drive, item: InspectItem): InspectTold[] {
  const { target: pulley, judged } = item;
  const wobble = against(item, 'run-out');
  const rocks = against(item, 'rock');
  return [
    ...(judged.some(({ asksKind }) => asksKind) ? [{ code: 'ask-kind', severity: 'watch', pulley } as const] : []),
    // A crank's rim sits on a ring of rubber, and what lets go there flies.
    ...(wobble?.grade === 'replace' && stationOf(drive, pulley)?.role === 'crankshaft'
      ? [{ code: 'stop-wobble', severity: 'fault', pulley, figures: { mm: wobble.value ?? 0 } } as const]
      : []),
    ...(rocks ? [{ code: 'rocks', severity: 'watch', pulley, figures: { mm: rocks.value ?? 0 } } as const] : []),
  ];
}

function ofBelt(item: InspectItem): InspectTold[] {
  const { target: belt, judged, wear, life, age } = item;
  const code = (name: ReasonCode) => judged.find((judgement) => judgement.code === name);
  const found: InspectTold[] = [];
  const [cracks, depth, profile] = [code('cracks'), code('rib-depth'), code('profile')];
  if (cracks?.grade === 'nothing' && !depth && !profile) found.push({ code: 'cracks-blind', severity: 'watch', belt });
  if (depth?.grade === 'sound' && profile?.grade === 'replace')
    found.push({ code: 'depth-and-profile', severity: 'watch', belt });
  if (wear?.before) found.push({ code: 'sprang-back', severity: 'note', belt, figures: { before: wear.before } });
  if (wear?.told === 'no-wear') found.push({ code: 'no-wear', severity: 'note', belt });
  if (wear?.doubted) found.push({ code: 'odometer-doubted', severity: 'watch', belt, figures: wear.doubted });
  if (wear?.uneven) found.push({ code: 'uneven-wear', severity: 'watch', belt });
  if (wear?.left && wear.left.to === null) found.push({ code: 'far-end-open', severity: 'note', belt });
  if (wear?.told === 'one-reading' && life)
    found.push({
      code: 'one-reading',
      severity: 'note',
      belt,
      figures: {
        distance: life.distance,
        unit: life.unit,
        from: life.from,
        ...(life.left !== null && { left: life.left }),
      },
    });
  if (wear?.bend) found.push({ code: 'wear-bends', severity: 'watch', belt, figures: { power: wear.bend.power } });
  if (item.reasons.includes('default-age') && age)
    found.push({ code: 'aged', severity: 'watch', belt, figures: { years: age.years } });
  if (item.reasons.includes('default-life') && life)
    found.push({
      code: 'outlived',
      severity: 'watch',
      belt,
      figures: { distance: life.distance, unit: life.unit, over: -life.left! },
    });
  return found;
}

/** What must be cured as well, or a new belt dies of it too. */
function curesOf(drive: Drive, items: readonly InspectItem[]): InspectTold[] {
  return items.flatMap((item): InspectTold[] => {
    const { on, target } = item;
    if (on === 'belt') {
      const at = { severity: 'watch', belt: target } as const;
      return [
        ...(against(item, 'oil') ? [{ code: 'cure-oil', ...at } as const] : []),
        ...(against(item, 'frayed') ? [{ code: 'cure-line', ...at } as const] : []),
        ...(against(item, 'glazed') || against(item, 'pilling') ? [{ code: 'cure-slip', ...at } as const] : []),
        ...(against(item, 'chunks') ? [{ code: 'cure-chunks', ...at } as const] : []),
      ];
    }
    const at = { severity: 'watch', pulley: target } as const;
    if (on === 'arm') return item.verdict === 'replace' ? [{ code: 'cure-arm', ...at }] : [];
    const grooves = against(item, 'grooves');
    const line = { code: 'cure-line', ...at, figures: { arm: armOf(drive, target) } } as const;
    return [
      ...(grooves
        ? [{ code: 'cure-grooves', ...at, figures: { outcome: grooves.finding?.outcome ?? '' } } as const]
        : []),
      ...(against(item, 'track') ? [line] : []),
      ...(against(item, 'spin') || against(item, 'clutch') ? [{ code: 'cure-bearing', ...at } as const] : []),
    ];
  });
}

const armOf = (drive: Drive, pulley: string) => (stationOf(drive, pulley)?.adjuster?.kind === 'sprung-arm' ? 1 : 0);
