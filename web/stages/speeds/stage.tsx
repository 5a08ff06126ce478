import { lazyPart } from '../../parts/lazy-part';
import { noDrag } from '../dragging';
import type { PulleyFigure, PulleyPlace, Stage, StageState } from '../stage';
import { SpeedsProvider, useSpeeds } from './SpeedsProvider';
import { TurningSpokes } from './TurningSpokes';
import type { Drive } from '@emery/core/drive';
import type { DriveSolution } from '@emery/core/path';
import { marksOf } from '@emery/core/accessory';
import { bandOf, placeIn, rpmFigure, speedsOf } from '@emery/core/speeds';

/** Speeds: what every accessory turns, and which pulley to change. */
export const speeds: Stage = {
  id: 'speeds',
  name: 'Speeds',
  state,
  Ledger: lazyPart('Speeds', () => import('./SpeedLedger')),
  Chart: lazyPart(
    'The chart of Speeds',
    () => import('./SpeedChart'),
    <section className="unrolled sheet" aria-busy />,
  ),
  Provider: SpeedsProvider,
  Layer: TurningSpokes,
  pulleyFigure: usePulleyFigure,
  drag: noDrag,
  WhatIf: lazyPart('The what-if of Speeds', () => import('./SpeedsWhatIf')),
};

/**
 * Settled once idle and redline are known and no accessory goes beyond the last limit that this vehicle gives it.
 */
function state(drive: Drive, solution: DriveSolution): StageState {
  if (drive.belts.every(({ route }) => route.length === 0)) return 'untouched';
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
  if (known) return 'settled';
  return drive.use || drive.speedChecks?.length ? 'in progress' : 'untouched';
}

/** What a shaft turns: outside its band to watch, beyond its last limit a fault. */
function usePulleyFigure(): (place: PulleyPlace) => PulleyFigure {
  const { engineRpm, bands } = useSpeeds();
  return ({ station, contact }) => {
    const ratio = contact?.speedRatio;
    if (typeof ratio !== 'number') return { text: 'not driven', mark: 'none' };
    const place = placeIn(bandOf(station, bands).band, ratio * engineRpm);
    const mark = PLACE_MARKS[place];
    return { text: `${rpmFigure(ratio * engineRpm)} rev/min`, mark };
  };
}

/** How a shaft is marked by where in its band it turns. */
const PLACE_MARKS = { 'too-slow': 'watch', right: 'none', 'too-fast': 'watch', beyond: 'fault' } as const;
