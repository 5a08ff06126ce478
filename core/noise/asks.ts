import { type Drive, NOISE_TESTS, type NoiseTest, stationOf } from '../drive';
import { sectionFor } from '../section';
import { BY_FAULT } from './likelihoods';
import { type Suspect, suspectsOf, turningParts } from './suspects';

/** A test at one part, or of the whole drive. */
export interface Ask {
  test: NoiseTest;
  pulley?: string;
  belt?: string;
}

/** A way that a test turned out, or could. */
export interface Answer extends Ask {
  outcome: string;
}

/** What names a test at a part: two answers to one ask have the same. */
export function askKey({ test, pulley, belt }: Ask): string {
  return test === 'repeat' ? test : [test, pulley ?? belt ?? ''].join(' ');
}

/** Every test that could be made of a drive. */
export function asksOf(drive: Drive, suspects: readonly Suspect[]): Ask[] {
  const routed = drive.belts.filter(({ route }) => route.length > 1);
  if (routed.length === 0) return [];
  return (Object.keys(NOISE_TESTS) as NoiseTest[]).flatMap((test): Ask[] => {
    const { on } = NOISE_TESTS[test];
    if (on === 'belt') return routed.map(({ id }) => ({ test, belt: id }));
    if (on !== 'pulley') return [{ test }];
    const fault = BY_FAULT[test]?.fault;
    return suspects.filter(({ cause }) => cause === fault).map(({ id }) => ({ test, pulley: id }));
  });
}

/** Every way that a test can turn out. */
export function answersTo(drive: Drive, ask: Ask): Answer[] {
  if (ask.test !== 'repeat') return NOISE_TESTS[ask.test].outcomes.map((outcome) => ({ ...ask, outcome }));
  return [
    ...drive.belts.map(({ id }): Answer => ({ test: 'repeat', outcome: 'belt', belt: id })),
    ...turningParts(drive).map(({ pulley }): Answer => ({ test: 'repeat', outcome: 'pulley', pulley })),
    ...bearingParts(drive).map((pulley): Answer => ({ test: 'repeat', outcome: 'bearing', pulley })),
    ...toothedBelts(drive).map((belt): Answer => ({ test: 'repeat', outcome: 'tooth', belt })),
    { test: 'repeat', outcome: 'engine' },
    { test: 'repeat', outcome: 'none' },
  ];
}

/** The shafts that run in rolling bearings: all but the crank. */
export function bearingParts(drive: Drive): string[] {
  return turningParts(drive).flatMap(({ pulley, station }) => (station.role === 'crankshaft' ? [] : [pulley]));
}

export function toothedBelts(drive: Drive): string[] {
  return drive.belts.filter(({ section }) => sectionFor(section)?.kind === 'toothed').map(({ id }) => id);
}

/** The pulley that stands for its shaft, where another of the shaft is named. */
export function partOf(drive: Drive, pulley: string): string {
  const station = stationOf(drive, pulley);
  return turningParts(drive).find((part) => part.station.id === station?.id)?.pulley ?? pulley;
}

/** The tests that can be made of each pulley, in the order of the routes. */
export function testsOf(drive: Drive): { pulley: string; tests: NoiseTest[] }[] {
  const asks = asksOf(drive, suspectsOf(drive));
  return turningParts(drive).flatMap(({ pulley }) => {
    const tests = asks.filter((ask) => ask.pulley === pulley).map(({ test }) => test);
    return tests.length > 0 ? [{ pulley, tests }] : [];
  });
}
