import type { EngineMarks } from '../accessory';
import { type Drive, findPulley, type Rotation } from '../drive';
import type { AtPulley, Figures, FindingOf, Severity } from '../finding';
import { type DriveSolution, solveDrive } from '../path';
import { cordRadiusMm, sectionFor } from '../section';
import { bandOf, type BandPlace, type BandSource, placeIn, type ShopBands } from './bands';
import { limitsFor } from './limits';

/** How a shaft turns for each turn of the crank. Null for a shaft the crank does not reach. */
export interface ShaftSpeed {
  station: string;
  speedRatio: number | null;
  direction: Rotation | null;
}

/** How fast a belt runs, for each rev/min of the crank. */
export interface BeltPace {
  belt: string;
  /** m/s at one rev/min. */
  metresPerSecond: number | null;
  /**
   * Bends per second at one rev/min: the belt's turns per second times the pulleys that bend it. Null where the belt
   * has no length.
   */
  flexPerSecond: number | null;
}

/** What a belt is asked to carry, by code. Figures: m/s, bends a second, rev/min, mm, percent. */
interface SpeedCodes {
  'belt-too-fast': Figures<{ metresPerSecond: number; limit: number; rpm: number }>;
  'flexes-too-often': Figures<{ flexPerSecond: number; limit: number; rpm: number }>;
  'bend-too-tight': AtPulley<{ diameterMm: number; limit: number }>;
  'two-ratios': AtPulley<{ percent: number }>;
  'two-ways': AtPulley;
}
/** What a belt is asked to carry. */
export type SpeedFinding = FindingOf<SpeedCodes> & { belt: string };
export type SpeedFindingCode = SpeedFinding['code'];

export interface Speeds {
  shafts: ShaftSpeed[];
  belts: BeltPace[];
}

/** Every shaft's turning and every belt's pace, from cord diameters, through jackshafts and twin sheaves. */
export function speedsOf(drive: Drive, solution: DriveSolution = solveDrive(drive)): Speeds {
  const met = new Map(
    solution.belts.flatMap(({ contacts }) => contacts.map((contact) => [contact.station, contact] as const)).reverse(),
  );
  // A second crank is a shaft like any other; the path says so.
  const crank = drive.stations.find(({ role }) => role === 'crankshaft');
  const shafts = drive.stations.map(({ id }): ShaftSpeed => {
    const contact = met.get(id);
    if (id === crank?.id) return { station: id, speedRatio: 1, direction: drive.crankRotation };
    const speedRatio = contact?.speedRatio ?? null;
    return { station: id, speedRatio, direction: speedRatio === null ? null : contact!.rotation };
  });
  const belts = solution.belts.map(({ id, cordPerTurn, cordLength, contacts }): BeltPace => {
    const perSecond = cordPerTurn === null ? null : cordPerTurn / 60;
    return {
      belt: id,
      metresPerSecond: perSecond === null ? null : perSecond / 1000,
      flexPerSecond: perSecond === null || cordLength === null ? null : (contacts.length * perSecond) / cordLength,
    };
  });
  return { shafts, belts };
}

/**
 * A shaft outside its band at idle or at redline: by how much, and of which limit. A default limit is no reason to
 * stop, only to look.
 */
export interface BandFinding {
  station: string;
  severity: Severity;
  place: Exclude<BandPlace, 'right'>;
  at: 'idle' | 'redline';
  rpm: number;
  limit: number;
  source: BandSource;
}

/** Every shaft that its band says turns too slow at idle or too fast at redline. */
export function bandFindings(
  drive: Drive,
  { idle, redline }: Pick<EngineMarks, 'idle' | 'redline'>,
  shop: ShopBands = {},
  solution: DriveSolution = solveDrive(drive),
): BandFinding[] {
  const { shafts } = speedsOf(drive, solution);
  return drive.stations.flatMap((station, index): BandFinding[] => {
    const ratio = shafts[index]!.speedRatio;
    if (ratio === null) return [];
    const { band, source } = bandOf(station, shop);
    const [slow, fast] = [placeIn(band, ratio * idle), placeIn(band, ratio * redline)];
    const found: BandFinding[] = [];
    if (fast === 'beyond' || fast === 'too-fast')
      found.push({
        station: station.id,
        severity: fast === 'beyond' && source !== 'default' ? 'fault' : 'watch',
        place: fast,
        at: 'redline',
        rpm: ratio * redline,
        limit: (fast === 'beyond' ? band.burst : band.continuous)!,
        source,
      });
    if (slow === 'too-slow')
      found.push({
        station: station.id,
        severity: 'watch',
        place: slow,
        at: 'idle',
        rpm: ratio * idle,
        limit: band.least!,
        source,
      });
    return found;
  });
}

/**
 * What a belt is asked to bear at an engine speed, against the defaults for its section: its speed, how often it bends,
 * and the smallest circle it is bent round. Belts that fight over a shaft are here too, as the path found them.
 */
export function speedFindings(drive: Drive, rpm: number, solution: DriveSolution = solveDrive(drive)): SpeedFinding[] {
  const { belts } = speedsOf(drive, solution);
  return solution.belts.flatMap((solved, index): SpeedFinding[] => {
    const belt = drive.belts.find(({ id }) => id === solved.id)!;
    const section = sectionFor(belt.section, belt.sectionOverrides)!;
    const limits = limitsFor(section);
    const { metresPerSecond, flexPerSecond } = belts[index]!;
    const findings = solved.findings.flatMap((finding): SpeedFinding[] => {
      const { severity } = finding;
      if (finding.code === 'fights')
        return [{ code: 'two-ways', severity, belt: belt.id, pulley: finding.pulley, figures: {} }];
      if (finding.code !== 'ratios-fight') return [];
      const { percent } = finding.figures;
      return [{ code: 'two-ratios', severity, belt: belt.id, pulley: finding.pulley, figures: { percent } }];
    });
    const speed = (metresPerSecond ?? 0) * rpm;
    if (speed > limits.metresPerSecond)
      findings.push({
        code: 'belt-too-fast',
        severity: 'watch',
        belt: belt.id,
        figures: { metresPerSecond: speed, limit: limits.metresPerSecond, rpm },
      });
    const flex = (flexPerSecond ?? 0) * rpm;
    if (flex > limits.flexPerSecond)
      findings.push({
        code: 'flexes-too-often',
        severity: 'watch',
        belt: belt.id,
        figures: { flexPerSecond: flex, limit: limits.flexPerSecond, rpm },
      });
    for (const { pulley, side } of belt.route) {
      const diameterMm = 2 * cordRadiusMm(findPulley(drive, pulley)!, side, section);
      const min = side === 'back' ? limits.leastBackMm : limits.leastDriveMm;
      if (diameterMm > 0 && diameterMm < min)
        findings.push({
          code: 'bend-too-tight',
          severity: 'watch',
          belt: belt.id,
          pulley,
          figures: { diameterMm, limit: min },
        });
    }
    return findings;
  });
}
