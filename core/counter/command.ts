import { type Command, numbersIn, type OptionValues, UsageProblem } from '../command';
import { LAYS, ROLES, TOOLS } from '../drive';
import { inOneLine } from '../finding';
import { mixedUnits, parseLength } from '../quantity';
import { askFor, SECTION_NAMES, type Section, sectionFor } from '../section';
import { explainRatio, readRatio, speedsOf } from '../speeds';
import { pulleysFindings, stringFindings } from './findings';
import { lengthsOnFixed } from './fixed-lengths';
import { HELD, lengthsToAsk } from './lengths';
import { type Bend, BENDS, type Riding, stringLength } from './string';
import { type PulleySize, twoPulleys } from './two-pulleys';
import { counterWords } from './words';

/** `string "READING"`: the marked length behind a measured one with no drive known, and what to ask for. */
export const stringCommand: Command<string> = {
  name: 'string',
  usage:
    'emery string "READING" --section NAME [--ribs N] [--tool NAME] [--back BENDS] [--smooth BENDS] [--lay groove|rim] [--held running|slack|short-mark|long-mark|tight|fixed] [--takes-up LENGTH] [--thickness LENGTH] [--around LENGTH] [--doubled] [--stretch-fit]',
  options: ['section', 'ribs', 'tool', 'back', 'smooth', 'lay', 'held', 'takes-up', 'thickness', 'around'],
  flags: ['doubled', 'stretch-fit'],
  prepare: (options, usage) => {
    const section = sectionOf(options, usage);
    const ribs = ribsOf(options, section);
    const tool = oneOf('--tool', options['tool'] ?? 'string', TOOLS);
    const held = oneOf('--held', options['held'] ?? 'running', HELD);
    const lay = options['lay'] === undefined ? undefined : oneOf('--lay', options['lay'], LAYS);
    const riding = [...bendsIn('back', options), ...bendsIn('smooth', options)];
    const takesUpMm = options['takes-up'] === undefined ? null : lengthIn('--takes-up', options['takes-up']);
    const thickness = options['thickness'] === undefined ? undefined : lengthIn('--thickness', options['thickness']);
    const around = options['around'] === undefined ? undefined : lengthIn('--around', options['around']);
    if (tool === 'gauge' && around === undefined)
      throw new UsageProblem("--around: a gauge needs the way once round one of its wheels, such as --around '314 mm'");
    if (tool !== 'gauge' && around !== undefined) throw new UsageProblem('--around: goes with --tool gauge alone');
    if (options['doubled'] && (tool === 'gauge' || tool === 'marking'))
      throw new UsageProblem(
        `--doubled: a ${tool} is never read doubled; it goes with ${TOOLS.filter((other) => other !== 'gauge' && other !== 'marking').join(', ')}`,
      );
    if (options['stretch-fit'] && section.kind !== 'ribbed')
      throw new UsageProblem('--stretch-fit: goes with a ribbed section alone');
    return (text) => {
      const measurement = {
        tool,
        mm: lengthIn('READING', text),
        ...(lay && { lay }),
        ...(thickness !== undefined && { thickness }),
        ...(options['doubled'] && { doubled: true }),
        ...(around !== undefined && { circumference: around }),
      };
      const answer = stringLength({ section, measurement, riding });
      const build = options['stretch-fit'] ? ('stretch' as const) : undefined;
      const { lengths, best, second } =
        held === 'fixed'
          ? lengthsOnFixed(section, answer, { ribs, ...(build && { build }) })
          : lengthsToAsk(section, answer, held, { takesUpMm, riding });
      const ask = (at: number | null) =>
        at === null
          ? null
          : askFor({ section: section.name, ribs, lengthMm: lengths[at]!.lengthMm, ...(build && { build }) });
      return {
        ...answer,
        basis: section.basis,
        lengths,
        best: ask(best),
        second: ask(second),
        findings: stringFindings(answer).map((finding) => ({
          ...finding,
          message: inOneLine(counterWords(finding)),
        })),
      };
    };
  },
};

/** `two-pulleys "CRANK, OTHER"`: length, wraps, ratio and speeds of a belt round two pulleys. */
export const twoPulleysCommand: Command<string> = {
  name: 'two-pulleys',
  usage:
    'emery two-pulleys "CRANK, OTHER" --section NAME [--ribs N] [--role NAME] [--distance LENGTH | --length LENGTH] [--rpm a,b] [--ratio TEXT]',
  options: ['section', 'ribs', 'role', 'distance', 'length', 'rpm', 'ratio'],
  prepare: (options, usage) => {
    const section = sectionOf(options, usage);
    const ribs = ribsOf(options, section);
    const role = oneOf('--role', options['role'] ?? 'alternator', ROLES);
    if (options['distance'] !== undefined && options['length'] !== undefined) throw usage;
    const [distanceMm = null, lengthMm = null] = (['distance', 'length'] as const).map((name) =>
      options[name] === undefined ? null : lengthIn(`--${name}`, options[name]),
    );
    const speeds =
      options['rpm'] === undefined
        ? []
        : numbersIn(
            options['rpm'],
            (value) => value > 0 && value <= 20_000,
            (part) => `--rpm: "${part}" is no engine speed; 1 to 20,000 rev/min is accepted`,
          );
    const claim = options['ratio'] === undefined ? null : readRatio(options['ratio']);
    if (options['ratio'] !== undefined && !claim)
      throw new UsageProblem(`--ratio: "${options['ratio']}" is no ratio, such as 2.8, 1:2.8 or 180 %`);
    return (text) => {
      const sizes = text.split(/[,;]\s+|;/);
      if (sizes.length !== 2) throw new UsageProblem('"CRANK, OTHER": two sizes are wanted, such as "7 3/8, 2 5/8"');
      const mixed = section.kind === 'toothed' ? null : mixedUnits(sizes[0]!, sizes[1]!);
      if (mixed !== null) throw new UsageProblem(`"CRANK, OTHER": ${mixed}`);
      const [crank, other] = sizes.map((size, k) => sizeIn(k === 0 ? 'CRANK' : 'OTHER', size, section)) as [
        PulleySize,
        PulleySize,
      ];
      const asked = { section: section.name, crank, other, role, distanceMm, lengthMm, ...(ribs !== null && { ribs }) };
      const answer = twoPulleys(asked);
      if (!answer) throw new UsageProblem('"CRANK, OTHER": no belt of that section runs on pulleys of such sizes');
      const pace = speedsOf(answer.drive, answer.solution).belts[0]!.metresPerSecond;
      return {
        ratio: answer.ratio,
        reciprocal: 1 / answer.ratio,
        distanceMm: answer.distanceMm,
        length: answer.lengthMm === null ? null : { basis: section.basis, mm: answer.lengthMm },
        wrapDeg: answer.wrapDeg,
        speeds: speeds.map((rpm) => ({
          rpm,
          other: rpm * answer.ratio,
          metresPerSecond: pace === null ? null : pace * rpm,
        })),
        claim: claim && explainRatio(answer.drive, answer.station, claim)!.readings,
        findings: pulleysFindings(answer).map((finding) => ({ ...finding, message: inOneLine(counterWords(finding)) })),
      };
    };
  },
};

function sectionOf({ section: name }: OptionValues, usage: UsageProblem): Section {
  if (name === undefined) throw usage;
  const section = sectionFor(SECTION_NAMES.find((known) => known.toLowerCase() === name.trim().toLowerCase()) ?? '');
  if (!section) throw new UsageProblem(`--section: "${name}" is none Emery knows; one of ${SECTION_NAMES.join(', ')}`);
  return section;
}

function ribsOf({ ribs }: OptionValues, { kind }: Section): number | null {
  if (ribs === undefined) return null;
  if (kind !== 'ribbed' || !/^\d{1,2}$/.test(ribs) || Number(ribs) < 1 || Number(ribs) > 60)
    throw new UsageProblem(`--ribs: "${ribs}": a whole number from 1 to 60, for a ribbed section`);
  return Number(ribs);
}

function oneOf<T extends string>(name: string, text: string, accepted: readonly T[]): T {
  const found = accepted.find((word) => word === text.trim().toLowerCase());
  if (found === undefined) throw new UsageProblem(`${name}: "${text}" is not one of ${accepted.join(', ')}`);
  return found;
}

function lengthIn(name: string, text: string): number {
  const reading = parseLength(text, 'mm');
  if (!reading.ok) throw new UsageProblem(`${name}: ${reading.problem}`);
  if (!(reading.mm > 0 && reading.mm <= 20_000))
    throw new UsageProblem(`${name}: more than 0 to 20,000 mm is accepted`);
  return reading.mm;
}

function sizeIn(name: string, text: string, { kind }: Section): PulleySize {
  if (kind !== 'toothed') return { diameter: lengthIn(name, text) };
  const teeth = Number(text.trim());
  if (!Number.isInteger(teeth) || teeth < 1 || teeth > 400)
    throw new UsageProblem(`${name}: "${text.trim()}" is no number of teeth, from 1 to 400`);
  return { teeth };
}

function bendsIn(on: Riding['on'], options: OptionValues): Riding[] {
  const text = options[on];
  if (text === undefined) return [];
  const parts = text.split(',');
  if (parts.length > 20) throw new UsageProblem(`--${on}: 20 pulleys at most`);
  return parts.map((part): Riding => {
    const said = part.trim().toLowerCase();
    const degrees = Number(said);
    if (BENDS.some((bend) => bend === said)) return { on, bend: said as Bend };
    if (said === '' || !(degrees >= 0 && degrees <= 350))
      throw new UsageProblem(`--${on}: "${said}" is not one of ${BENDS.join(', ')}, nor degrees from 0 to 350`);
    return { on, bend: degrees };
  });
}
