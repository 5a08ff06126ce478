import { type Command, numbersIn, noBelt, UsageProblem } from '../command';
import type { Drive } from '../drive';
import { runDrive, type Running, type StaticBelt, tensionOf, windowOf, worstOf } from '../loads';
import type { MarkedMisfit } from '../seating';
import { restFindings, runningFindings, windowFindings } from './findings';
import type { TensionFinding } from './finding';
import { settingFor } from './setting';
import { waysOf } from './ways';
import { tensionMessage } from './words';
import { headingDeg } from '../numeric';

/** Size's answer on a belt's marked length. */
type MisfitOf = (drive: Drive, belt: string) => MarkedMisfit | null;

/**
 * `tension FILE --belt ID --rpm a,b`: how tight, what slips, hub loads, and what every check reads. Whether the marked
 * length fits is asked of Size, a stage beside this one.
 */
export const tensionCommand = (misfitOf: MisfitOf): Command<Drive> => ({
  name: 'tension',
  usage: 'emery tension FILE --belt ID --rpm a,b [--static N] [--state NAME] [--wet] [--to N]',
  options: ['belt', 'rpm', 'static', 'state', 'to'],
  flags: ['wet'],
  prepare: ({ belt, rpm, static: asked, state, wet, to }, usage) => {
    if (belt === undefined || rpm === undefined) throw usage;
    const rpms = numbersIn(
      rpm,
      (value) => value >= 0 && value <= 200_000,
      (part) => `--rpm: "${part}" is not an engine speed in rev/min; write such as 720,2100`,
    );
    const given = asked === undefined ? undefined : tensionIn('--static', asked);
    const toN = to === undefined ? undefined : tensionIn('--to', to);
    return (drive) =>
      answer(
        drive,
        belt,
        given,
        rpms.map((rpm) => ({ rpm: rpm, wet: wet !== undefined, ...(state && { state }) })),
        toN,
        misfitOf,
      );
  },
});

function tensionIn(name: string, text: string): number {
  const [value, ...more] = numbersIn(
    text,
    (newtons) => newtons >= 0 && newtons <= 200_000,
    (part) => `${name}: "${part}" is not a tension in N, from 0 to 200000`,
  );
  if (more.length > 0) throw new UsageProblem(`${name}: one tension in N, such as 450`);
  return value!;
}

function answer(
  drive: Drive,
  beltId: string,
  given: number | undefined,
  states: readonly Running[],
  toN: number | undefined,
  misfitOf: MisfitOf,
) {
  const b = drive.belts.findIndex(({ id }) => id === beltId);
  if (b < 0) throw noBelt(beltId, drive);
  const withWords = (list: readonly TensionFinding[]) =>
    list.map((finding) => ({ ...finding, message: tensionMessage(drive, finding) }));
  const tension = tensionOf(drive, { [beltId]: given });
  const standing = tension.staticBelts[b];
  const rest = withWords(restFindings(tension, beltId, misfitOf(drive, beltId)));
  if (!standing)
    return {
      static: { tensionN: null, from: null },
      running: [],
      window: { leastN: null, mostN: null },
      ways: [],
      findings: rest,
    };
  const window = windowOf(tension, beltId, states)!;
  const setting = toN === undefined ? null : settingFor(drive, standing, toN);
  return {
    static: { tensionN: standing.tensionN, from: standing.from },
    running: states.map((running) => runningAnswer(tension, b, standing, running, withWords)),
    window: { leastN: window.leastN, mostN: window.mostN },
    ...(toN !== undefined && {
      setting: setting && { station: setting.station, toN, mm: setting.mm, turns: setting.turns, perMm: setting.perMm },
    }),
    ways: waysOf(standing, standing.tensionN),
    findings: [...rest, ...withWords(windowFindings(standing, window))],
  };
}

/** The belt at one engine speed: its spans, pulleys and shafts. */
function runningAnswer(
  tension: ReturnType<typeof tensionOf>,
  b: number,
  { belt, contacts }: StaticBelt,
  running: Running,
  withWords: (list: readonly TensionFinding[]) => object[],
) {
  const all = runDrive(tension, running);
  const run = all.belts[b]!;
  const worst = worstOf(run);
  return {
    rpm: running.rpm,
    beltSpeed: run.beltSpeed,
    worst: worst && { pulley: worst.pulley, margin: worst.margin },
    spans: run.pulleys.map(({ contact: { leaves }, leavesN }) => ({
      from: leaves.from,
      to: leaves.to,
      tensionN: leavesN,
    })),
    pulleys: run.pulleys.map(({ contact: { pulley }, torqueNm, margin, hubLoad }) => ({
      pulley,
      torqueNm: torqueNm + 0,
      margin,
      ...loadOn(hubLoad),
    })),
    shafts: [...new Set(contacts.map(({ station }) => station))].map((station) => ({
      station,
      ...loadOn(all.shafts.get(station)!),
    })),
    findings: withWords(runningFindings(tension, all, belt.id)),
  };
}

const loadOn = ({ x, y }: { x: number; y: number }) => ({
  hubLoadN: Math.hypot(x, y),
  hubLoadDeg: headingDeg(x, y),
});
