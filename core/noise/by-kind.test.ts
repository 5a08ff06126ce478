import type { Drive, InspectFinding, PulleyKind } from '../drive';
import { DEMO } from '../test/demo';
import { diagnose } from './index';

const truck: Drive = { ...DEMO.rescue, inspect: {} };
const kinded = (kind: PulleyKind | undefined): Drive => ({
  ...truck,
  stations: truck.stations.map((station) => ({
    ...station,
    pulleys: station.pulleys.map((pulley) => (pulley.id === 'alt-1' && kind ? { ...pulley, kind } : pulley)),
  })),
});
const withFound = (drive: Drive, check: 'spin' | 'clutch', outcome: string): Drive => {
  const found: InspectFinding = { id: 'f', on: 'pulley', target: 'alt-1', check, outcome };
  return { ...drive, inspect: { findings: [found] } };
};

test('said by hand it counts for nothing either, until the kind is known', () => {
  const said = (kind: PulleyKind | undefined, test: 'spin' | 'clutch', outcome: string) =>
    diagnose({ ...kinded(kind), noise: { evidence: [{ test, outcome, pulley: 'alt-1' }] } }).evidence.counts;
  expect(said(undefined, 'spin', 'freewheels')).toEqual([]);
  expect(said(undefined, 'clutch', 'locked')).toEqual([]);
  expect(said(undefined, 'spin', 'grinds')).toHaveLength(1);
  expect(said('solid', 'spin', 'freewheels')).toMatchObject([{ outcome: 'quiet', said: 'freewheels' }]);
});

test('what spins on or is locked counts by the kind of pulley, and not before that is known', () => {
  const evidence = (kind: PulleyKind | undefined, check: 'spin' | 'clutch', outcome: string) =>
    diagnose(withFound(kinded(kind), check, outcome)).evidence.counts.map(
      ({ test, outcome: said }) => `${test} ${said}`,
    );
  expect(evidence('solid', 'spin', 'freewheels')).toContain('spin quiet');
  expect(evidence('one-way', 'clutch', 'locked')).toContain('clutch locked');
  expect(evidence(undefined, 'clutch', 'locked')).toEqual([]);
  expect(diagnose(kinded('solid')).causes.some(({ cause }) => cause === 'one-way-clutch')).toBe(false);
  expect(diagnose(kinded(undefined)).causes.some(({ cause }) => cause === 'one-way-clutch')).toBe(true);
  const said = (kind: PulleyKind) =>
    diagnose({ ...kinded(kind), noise: { evidence: [{ test: 'spin', outcome: 'freewheels', pulley: 'alt-1' }] } });
  expect(said('one-way').evidence.counts[0]).toMatchObject({ outcome: 'quiet', said: 'freewheels' });
});
