import { stageState } from './stages';
import {
  addBelt,
  addStation,
  changeBelt,
  changePulley,
  type Drive,
  newBelt,
  newDrive,
  newStation,
} from '@emery/core/drive';
import { solveDrive } from '@emery/core/path';

const states = (drive: Drive) =>
  (['survey', 'route'] as const).map((stage) => stageState(stage, drive, solveDrive(drive)));

function twoPulleys(): Drive {
  let drive = addBelt(newDrive('new'), newBelt(newDrive('new'), 'PK'));
  drive = addStation(drive, newStation(drive, 'crankshaft', 0, 0, 'PK'));
  return addStation(drive, newStation(drive, 'alternator', 300, 0, 'PK'));
}
const routed = (drive: Drive, ...pulleys: string[]) =>
  changeBelt(drive, 'belt-1', { route: pulleys.map((pulley) => ({ pulley, side: 'drive' as const })) });

test('a stage is untouched, in hand, settled or needs attention, by the drive alone', () => {
  expect(states(newDrive('new'))).toEqual(['untouched', 'untouched']);
  expect(states(twoPulleys())).toEqual(['settled', 'untouched']);
  expect(states(routed(twoPulleys(), 'crank-1-1'))).toEqual(['settled', 'in hand']);
  expect(states(routed(twoPulleys(), 'crank-1-1', 'alternator-1-1'))).toEqual(['settled', 'settled']);
});

test("a size not measured is the survey's to put right, a wrong side the route's", () => {
  const unmeasured = changePulley(twoPulleys(), 'alternator-1-1', { diameter: 0 });
  expect(states(unmeasured)[0]).toBe('in hand');
  expect(states(routed(unmeasured, 'crank-1-1', 'alternator-1-1'))).toEqual(['needs attention', 'needs attention']);
  const crossed = changeBelt(twoPulleys(), 'belt-1', {
    route: [
      { pulley: 'crank-1-1', side: 'drive' },
      { pulley: 'alternator-1-1', side: 'back' },
    ],
  });
  expect(states(crossed)).toEqual(['settled', 'needs attention']);
});

test("Size is settled with a length for every belt; Speeds once the engine's speeds are known and no limit of this vehicle is passed", () => {
  const of = (drive: Drive) =>
    (['size', 'speeds'] as const).map((stage) => stageState(stage, drive, solveDrive(drive)));
  const plain = routed(twoPulleys(), 'crank-1-1', 'alternator-1-1');
  expect(of(newDrive('new'))).toEqual(['untouched', 'untouched']);
  expect(of(plain)).toEqual(['untouched', 'untouched']);
  expect(of(changeBelt(plain, 'belt-1', { length: 1200 }))[0]).toBe('settled');
  expect(of({ ...plain, use: { bins: [] } })[1]).toBe('in hand');
  const known: Drive = { ...plain, speeds: { idle: 700, redline: 5000 } };
  expect(of(known)[1]).toBe('settled');
  const limited = {
    ...known,
    stations: known.stations.map((station) =>
      station.role === 'alternator' ? { ...station, speedBand: { burst: 9000 } } : station,
    ),
  };
  expect(of(limited)[1]).toBe('needs attention');
});
