import { type Drive, stationOf } from '../drive';
import type { DriveSolution } from '../path';
import type { InspectFindingCode, InspectTold } from './finding';
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
    ...items.flatMap((item) => (item.on === 'pulley' ? ofPulley(drive, item) : item.on === 'belt' ? ofBelt(item) : [])),
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
    ...replaceTogether(drive, items).map(({ targets, why, offered }): InspectTold => {
      const code = ({ arm: 'change-with-arm', idler: 'change-with-idler', pair: 'change-pair' } as const)[why];
      const [belt, ...others] = targets;
      return {
        code,
        severity: 'note',
        belt: belt!,
        ...(why !== 'pair' && { pulley: others[0]!, pulleys: others }),
        figures: { offered: offered.length },
      };
    }),
    ...curesOf(drive, items),
  ];
}

/** Figures that can hardly be what they say: they are asked about, and judge nothing. */
const oddOf = ({ on, target, judged }: InspectItem): InspectTold[] =>
  judged.flatMap(({ code, value, odd, grade }) =>
    odd
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
  const code = (name: ReasonCode) => judged.find((one) => one.code === name);
  const found: InspectTold[] = [];
  const tell = (name: InspectFindingCode, severity: InspectTold['severity'], figures?: InspectTold['figures']) =>
    found.push({ code: name, severity, belt, ...(figures && { figures }) });
  const [cracks, depth, profile] = [code('cracks'), code('rib-depth'), code('profile')];
  if (cracks?.grade === 'nothing' && !depth && !profile) tell('cracks-blind', 'watch');
  if (depth?.grade === 'sound' && profile?.grade === 'replace') tell('depth-and-profile', 'watch');
  if (wear?.before) tell('sprang-back', 'note', { before: wear.before });
  if (wear?.told === 'no-wear') tell('no-wear', 'note');
  if (wear?.doubted) tell('odometer-doubted', 'watch', wear.doubted);
  if (wear?.uneven) tell('uneven-wear', 'watch');
  if (wear?.left && wear.left.to === null) tell('far-end-open', 'note');
  if (wear?.told === 'one-reading' && life)
    tell('one-reading', 'note', {
      distance: life.distance,
      unit: life.unit,
      from: life.from,
      ...(life.left !== null && { left: life.left }),
    });
  if (wear?.bend) tell('wear-bends', 'watch', { power: wear.bend.power });
  if (item.reasons.includes('default-age') && age) tell('aged', 'watch', { years: age.years });
  if (item.reasons.includes('default-life') && life)
    tell('outlived', 'watch', { distance: life.distance, unit: life.unit, over: -life.left! });
  return found;
}

/** What must be cured as well, or a new belt dies of it too. */
function curesOf(drive: Drive, items: readonly InspectItem[]): InspectTold[] {
  return items.flatMap((item): InspectTold[] => {
    const { on, target } = item;
    if (on === 'belt') {
      const cure = (code: InspectFindingCode) => ({ code, severity: 'watch', belt: target }) as const;
      return [
        ...(against(item, 'oil') ? [cure('cure-oil')] : []),
        ...(against(item, 'frayed') ? [cure('cure-line')] : []),
        ...(against(item, 'glazed') || against(item, 'pilling') ? [cure('cure-slip')] : []),
        ...(against(item, 'chunks') ? [cure('cure-chunks')] : []),
      ];
    }
    const cure = (code: InspectFindingCode) => ({ code, severity: 'watch', pulley: target }) as const;
    if (on === 'arm') return item.verdict === 'replace' ? [cure('cure-arm')] : [];
    const grooves = against(item, 'grooves');
    return [
      ...(grooves ? [{ ...cure('cure-grooves'), figures: { outcome: grooves.finding?.outcome ?? '' } }] : []),
      ...(against(item, 'track') ? [{ ...cure('cure-line'), figures: { arm: armOf(drive, target) } }] : []),
      ...(against(item, 'spin') || against(item, 'clutch') ? [cure('cure-bearing')] : []),
    ];
  });
}

const armOf = (drive: Drive, pulley: string) => (stationOf(drive, pulley)?.adjuster?.kind === 'sprung-arm' ? 1 : 0);
