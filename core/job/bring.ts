import { type Drive, itemsOf, pulleyLabel } from '../drive';
import { inspectedLabel } from '../inspect';
import type { MarkedMisfit } from '../seating';
import { type AskFor, sectionFor } from '../section';
import { answerFor, askForBelt, markedMisfitOf, secondTo } from '../size';
import { type BeltOrder, beltOrder } from './order';
import { stepsOf } from './steps';
import { boltWords } from './words';

/** One belt to bring: what to ask for, what else would do, and what the last one had printed on it. */
export interface BringBelt extends AskFor {
  belt: string;
  section: string;
  ribs: number | null;
  basis: string;
  /**
   * The belt's own marked length; or the one that Size recommends, where nobody said or the marked one cannot go on.
   */
  from: 'marked' | 'size';
  /** A marked length that cannot be fitted, and so is not brought. */
  misfit?: MarkedMisfit;
  second: AskFor | null;
  number: string | null;
}

export interface BringList {
  belts: BringBelt[];
  /** Belts of which nobody knows the length, and none fits. */
  unknown: string[];
  parts: string[];
  bolts: string[];
  tools: string[];
}

/** What everybody needs, whatever the drive. */
const ALWAYS = ['Lamp and mirror', 'Chalk', 'Rag and brush', 'Service manual'];

/**
 * What to bring for the job: each belt with its marking and a second choice, parts to be changed, bolts that go in but
 * once, tools. `stock` holds, by belt, the lengths that can be had, mm. Takes as long as sizing every belt.
 */
export function bringList(
  drive: Drive,
  order: BeltOrder = beltOrder(drive),
  stock: Readonly<Record<string, readonly number[] | undefined>> = {},
): BringList {
  const routed = order.off.filter((id) => drive.belts.find((belt) => belt.id === id)!.route.length > 1);
  const belts = routed.map((id) => [id, bringBelt(drive, id, stock[id])] as const);
  const steps = stepsOf(drive, order);
  const bolts = itemsOf(drive, 'job.bolts');
  return {
    belts: belts.flatMap(([, list]) => list ?? []),
    unknown: belts.flatMap(([id, list]) => (list ? [] : [id])),
    parts: steps.flatMap(({ code, part, offered }) =>
      code === 'change-part' ? [`${inspectedLabel(drive, part!)}${offered ? ' (worn with the others)' : ''}`] : [],
    ),
    bolts: bolts.filter(({ reuse }) => reuse === 'new' || reuse === 'compound').map((bolt) => boltWords(drive, bolt)),
    tools: toolsFor(
      drive,
      steps,
      bolts.map(({ tool }) => tool),
    ),
  };
}

function bringBelt(drive: Drive, id: string, stock?: readonly number[]): BringBelt | null {
  const belt = drive.belts.find((belt) => belt.id === id)!;
  const section = sectionFor(belt.section, belt.sectionOverrides)!;
  const marked = belt.length ?? null;
  const answer = answerFor(drive, id, {
    ...(marked !== null && { also: [marked] }),
    ...(stock && stock.length > 0 && { stock }),
  });
  const best = answer?.best === null || !answer ? null : answer.candidates[answer.best]!.lengthMm;
  const misfit = markedMisfitOf(drive, id);
  const lengthMm = misfit ? best : (marked ?? best);
  if (lengthMm === null) return null;
  const second = answer && secondTo(lengthMm, answer);
  return {
    belt: id,
    section: belt.section,
    ribs: belt.ribs ?? null,
    basis: section.basis,
    from: marked === null || misfit ? 'size' : 'marked',
    ...(misfit && { misfit }),
    number: belt.care?.number ?? null,
    second: second === null ? null : askForBelt(belt, second),
    ...askForBelt(belt, lengthMm),
  };
}

function toolsFor(drive: Drive, steps: ReturnType<typeof stepsOf>, sockets: readonly (string | undefined)[]): string[] {
  const has = (...codes: (typeof steps)[number]['code'][]) => steps.some(({ code }) => codes.includes(code));
  const moved = steps.flatMap(({ move, pulley }) =>
    move?.kind === 'press' && pulley ? [pulleyLabel(drive, pulley)] : [],
  );
  return [
    ...new Set([
      ...sockets.filter((tool): tool is string => tool !== undefined && tool !== ''),
      ...(has('release') ? ['Long wrench for the arm'] : []),
      ...(has('cut-off') ? ['Side cutters', 'Fitting tool for the stretch-fit belt'] : []),
      ...(has('slacken') ? ['Pry bar with a block of wood'] : []),
      ...(has('bolt', 'bolts', 'change-part') ? ['Torque wrench'] : []),
      ...moved.map((name) => `Puller and press for ${name}`),
      ...(has('move') ? ['Straightedge and calliper'] : []),
      ...ALWAYS,
    ]),
  ];
}
