import { SURVEY_CODES } from '../survey/survey-codes';
import type { Stage } from './bench-context';
import type { Drive } from '@emery/core/drive';
import type { DriveSolution } from '@emery/core/path';
import { bandOf, marksOf, placeIn, speedsOf } from '@emery/core/speeds';

export type StageState = 'untouched' | 'in hand' | 'settled' | 'needs attention';

export const STAGES: readonly { id: Stage; name: string }[] = [
  { id: 'survey', name: 'Survey' },
  { id: 'route', name: 'Route' },
  { id: 'size', name: 'Size' },
  { id: 'speeds', name: 'Speeds' },
];

export const STAGE_MARKS: Record<StageState, string> = {
  untouched: '○',
  'in hand': '◐',
  settled: '●',
  'needs attention': '▲',
};

/** How far a stage has come, from the drive alone. */
export function stageState(stage: Stage, drive: Drive, solution: DriveSolution): StageState {
  const findings = [...solution.findings, ...solution.belts.flatMap((belt) => belt.findings)];
  if (stage === 'survey') {
    if (drive.stations.length === 0) return 'untouched';
    const own = findings.filter(({ code }) => SURVEY_CODES.has(code));
    if (own.some(({ severity }) => severity === 'fault')) return 'needs attention';
    const measured = drive.stations.every(({ pulleys }) =>
      pulleys.every(({ diameter, teeth }) => (diameter ?? teeth ?? 0) > 0),
    );
    return measured && own.length === 0 && drive.stations.length > 1 ? 'settled' : 'in hand';
  }
  if (stage === 'size') {
    const chosen = drive.belts.filter(({ length }) => typeof length === 'number' && length > 0).length;
    return chosen === 0 ? 'untouched' : chosen === drive.belts.length ? 'settled' : 'in hand';
  }
  if (drive.belts.every(({ route }) => route.length === 0)) return 'untouched';
  if (stage === 'speeds') return speedsState(drive, solution);
  const own = findings.filter(({ code }) => !SURVEY_CODES.has(code));
  if (drive.belts.some(({ route }) => route.length < 2)) return 'in hand';
  return own.some(({ severity }) => severity === 'fault') || solution.belts.some(({ closed }) => !closed)
    ? 'needs attention'
    : 'settled';
}

/**
 * Speeds are settled once idle and redline are known and no accessory goes beyond the last limit that this vehicle
 * gives it.
 */
function speedsState(drive: Drive, solution: DriveSolution): StageState {
  const { shafts } = speedsOf(drive, solution);
  const { redline } = marksOf(drive.speeds);
  const beyond = drive.stations.some(
    (station, index) =>
      station.speedBand && placeIn(bandOf(station).band, (shafts[index]!.speedRatio ?? 0) * redline) === 'beyond',
  );
  const known = drive.speeds?.idle !== undefined && drive.speeds.redline !== undefined;
  const fights = solution.belts.some(({ findings }) =>
    findings.some(({ code, severity }) => code === 'ratios-fight' && severity !== 'note'),
  );
  if (fights || (known && beyond)) return 'needs attention';
  return known ? 'settled' : drive.use || drive.speedChecks?.length ? 'in hand' : 'untouched';
}
