import fc from 'fast-check';
import {
  alignFindings,
  alignMessage,
  movedUnderLoad,
  nextReadings,
  planFindings,
  planFor,
  rollerTracks,
  searchSets,
  stackFindings,
  stacksOf,
} from '@emery/core/align';
import { type Drive, ODOMETER_UNITS, readDrive, STATES, TOOLS, writeDrive } from '@emery/core/drive';
import { inspectDrive, inspectFindings, inspectMessage, reasonLines } from '@emery/core/inspect';
import { cardOf, jobMessage } from '@emery/core/job';
import {
  diagnose,
  hearNoise,
  listenFindings,
  noiseFindings,
  noiseMessage,
  reasonWords,
  simulatedBay,
  whoseNoise,
} from '@emery/core/noise';
import { beltClearances, findingMessage, solveDrive } from '@emery/core/path';
import { alignmentOf, worstDeg } from '@emery/core/planes';
import {
  dueBy,
  essentialsOf,
  expectedOf,
  memoryOf,
  MOST_ESSENTIALS,
  odometerReadings,
  ranKm,
  usualUse,
} from '@emery/core/records';
import { searchRoutes } from '@emery/core/route';
import { sizeBelt } from '@emery/core/seating';
import { answerFor, markedMisfitOf, sizeMessage, uncertaintyOf } from '@emery/core/size';
import {
  chainTo,
  choosePulleys,
  effectOf,
  explainRatio,
  type PulleyAtHand,
  ratioOf,
  ratioReadingWords,
  readRatio,
  sizesFor,
  speedFindings,
  speedMessage,
  speedReason,
  speedsOf,
} from '@emery/core/speeds';
import { fitSurvey, surveyMessage } from '@emery/core/survey';
import { limitOrDefault } from '@emery/core/accessory';
import { runDrive, tensionOf, windowOf } from '@emery/core/loads';
import {
  marginMap,
  remediesFor,
  restFindings,
  runningFindings,
  settingFor,
  sharedSettings,
  tensionMessage,
  waysOf,
  windowFindings,
} from '@emery/core/tension';
import { draws } from '../core/test/draws';
import { accepted, demos, hostile, SEED } from './test/bent-drives';

/*
 * The demo drives, bent: figures written wrongly, pulleys moved onto one another, sides flipped, stops lost or doubled.
 * Whatever a drive file may hold and `readDrive` lets through must be answered with findings: no sum may throw, and no
 * figure may be NaN or endless.
 */

/** The first place in an outcome that is no number though it should be. */
function notANumber(value: unknown, at = ''): string | null {
  if (typeof value === 'number') return Number.isFinite(value) ? null : `${at} is ${value}`;
  if (typeof value === 'string') return /NaN|undefined|Infinity/.test(value) ? `${at} reads "${value}"` : null;
  if (typeof value !== 'object' || value === null || ArrayBuffer.isView(value)) return null;
  for (const [key, inner] of value instanceof Map ? value : Object.entries(value)) {
    const found = typeof inner === 'function' ? null : notANumber(inner, `${at}.${String(key)}`);
    if (found) return found;
  }
  return null;
}

const atHand: PulleyAtHand[] = [
  { id: 'a', label: 'a', surface: 'ribbed', diameter: 150, grooves: 6 },
  { id: 'b', label: 'b', surface: 'ribbed', diameter: 60 },
  { id: 'c', label: 'c', surface: 'vee', diameter: 90 },
  { id: 'd', label: 'd', surface: 'toothed', teeth: 24 },
  { id: 'e', label: 'e', surface: 'smooth', diameter: 80 },
];

describe('whatever a drive file holds', () => {
  test('the path is solved or told why not, and so are its clearances', () => {
    fc.assert(
      fc.property(accepted, (drive) => {
        const solution = solveDrive(drive);
        expect(notANumber(solution)).toBeNull();
        for (const belt of solution.belts) {
          expect(belt.closed).toBe(belt.length.mm !== null);
          expect(belt.closed || belt.findings.some(({ severity }) => severity === 'fault')).toBe(true);
          expect(notANumber(beltClearances(drive, belt))).toBeNull();
          for (const finding of belt.findings) expect(notANumber(findingMessage(drive, finding))).toBeNull();
        }
      }),
      { numRuns: draws(400), seed: SEED },
    );
  });

  test('speeds, their findings and words; the chain of belts and the path agree on every ratio', () => {
    fc.assert(
      fc.property(accepted, (drive) => {
        const speeds = speedsOf(drive);
        expect(notANumber(speeds)).toBeNull();
        for (const finding of speedFindings(drive, 6000)) expect(notANumber(speedMessage(drive, finding))).toBeNull();
        for (const { station, speedRatio } of speeds.shafts) {
          const chain = chainTo(drive, station);
          if (chain && speedRatio !== null) expect(ratioOf(chain) / speedRatio).toBeCloseTo(1, 9);
          expect(notANumber(sizesFor(drive, station, 3000, 1000))).toBeNull();
          const explained = explainRatio(drive, station, readRatio('2.5')!);
          for (const reading of explained?.readings ?? [])
            expect(notANumber(ratioReadingWords(drive, reading, explained!.truth, 'It'))).toBeNull();
        }
      }),
      { numRuns: draws(200), seed: SEED },
    );
  });

  test('align: planes, runs, rollers, what is next, plans that keep their word, parts, findings and words', () => {
    fc.assert(
      fc.property(accepted, (drive) => {
        for (const belt of drive.belts) {
          const alignment = alignmentOf(drive, belt.id);
          const sets = searchSets(stacksOf(drive, belt.id));
          expect(notANumber(sets)).toBeNull();
          const findings = [...alignFindings(drive, belt, alignment), ...stackFindings(drive, belt, sets)];
          if (alignment) {
            expect(notANumber([alignment.planes, alignment.runs])).toBeNull();
            expect(notANumber(rollerTracks(drive, alignment))).toBeNull();
            expect(notANumber(nextReadings(drive, alignment))).toBeNull();
            expect(notANumber(movedUnderLoad(drive, belt.id))).toBeNull();
            const search = planFor(drive, alignment);
            expect(notANumber(search)).toBeNull();
            for (const { worstDeg: after } of search.plans) {
              expect(after).toBeLessThanOrEqual(search.limitDeg! + 1e-6);
              expect(after).toBeLessThan(worstDeg(alignment.runs));
            }
            findings.push(...planFindings(alignment, search));
          }
          for (const finding of findings) expect(notANumber(alignMessage(drive, finding))).toBeNull();
        }
      }),
      { numRuns: draws(200), seed: SEED },
    );
  });

  test('noise: causes that sum to one, what is next, whose a sound is, findings and words', () => {
    const heard = hearNoise(simulatedBay(demos[0]!, 720, 3).sound);
    fc.assert(
      fc.property(accepted, fc.constantFrom(100, 720, 30_000), (drive, rpm) => {
        const { causes, elsewhere, next, disproof, ...diagnosis } = diagnose(drive);
        expect(notANumber({ causes, elsewhere, next, disproof })).toBeNull();
        const total = causes.reduce((sum, { probability }) => sum + probability, elsewhere);
        if (causes.length > 0) expect(total).toBeCloseTo(1, 6);
        for (const chance of causes)
          for (const reason of chance.reasons) expect(notANumber(reasonWords(drive, reason, chance))).toBeNull();
        const listening = whoseNoise(heard, drive, rpm);
        expect(notANumber(listening)).toBeNull();
        for (const finding of [
          ...noiseFindings(drive, { ...diagnosis, causes, elsewhere, next, disproof }),
          ...listenFindings(drive, listening, heard.seconds),
        ])
          expect(notANumber(noiseMessage(drive, finding))).toBeNull();
      }),
      { numRuns: draws(120), seed: SEED },
    );
  });

  test('inspect: verdicts with reasons, what is left, what goes together, findings and words', () => {
    fc.assert(
      fc.property(accepted, fc.option(fc.integer({ min: 0, max: 300_000 }), { nil: undefined }), (drive, odometer) => {
        const items = inspectDrive(drive, odometer);
        expect(notANumber(items)).toBeNull();
        for (const item of items) {
          expect(notANumber(reasonLines(item))).toBeNull();
          expect(item.judged.length > 0 || item.verdict === 'not looked at').toBe(true);
          const left = item.wear?.left;
          if (left) expect(left.from <= left.distance && (left.to === null || left.to >= left.distance)).toBe(true);
        }
        const findings = inspectFindings(drive, items, solveDrive(drive));
        expect(notANumber(findings)).toBeNull();
        for (const finding of findings) expect(notANumber(inspectMessage(drive, finding))).toBeNull();
      }),
      { numRuns: draws(150), seed: SEED },
    );
  });

  test('job: every belt once off and on, every step in words, its findings and words', () => {
    fc.assert(
      fc.property(accepted, (drive) => {
        const { order, steps, findings } = cardOf(drive);
        expect([...order.off].sort()).toEqual(drive.belts.map(({ id }) => id).sort());
        for (const { text, caution } of steps) {
          expect(notANumber({ text, caution })).toBeNull();
          expect(text).toMatch(/\S/);
        }
        for (const finding of findings) expect(notANumber(jobMessage(drive, finding))).toBeNull();
        for (const { id } of drive.belts) expect(cardOf(drive, id).order.off).toContain(id);
      }),
      { numRuns: draws(60), seed: SEED },
    );
  });

  test('records: what is due with its day, lives of belts, the story, the glovebox card', () => {
    const readings = fc.array(fc.record({ at: fc.integer({ min: -8.64e15, max: 8.64e15 }), odometer: fc.nat(1e7) }));
    fc.assert(
      fc.property(accepted, readings, fc.constantFrom(...ODOMETER_UNITS), (drive, given, unit) => {
        const memory = memoryOf(drive);
        expect(notANumber(memory)).toBeNull();
        const use = usualUse([...given, ...odometerReadings(memory, unit)], unit);
        expect(notANumber(use)).toBeNull();
        for (const due of memory.dues) {
          const { day } = expectedOf(due, use);
          expect(day === null || /^\d{4}-\d\d-\d\d$/.test(day)).toBe(true);
          expect(notANumber(dueBy(due, unit))).toBeNull();
        }
        for (const life of memory.lives) expect(notANumber(ranKm(life, { odometer: 1000, unit }))).toBeNull();
        const essentials = essentialsOf(drive, { name: 'Truck', plate: '' });
        expect(notANumber(essentials)).toBeNull();
        expect(essentials.length).toBeLessThanOrEqual(MOST_ESSENTIALS);
      }),
      { numRuns: draws(80), seed: SEED },
    );
  });

  test('tension: at rest and running, the window, every check, how to set it, its findings and words', () => {
    fc.assert(
      fc.property(accepted, fc.constantFrom(0, 700, 9000), fc.boolean(), (drive, rpm, wet) => {
        const tension = tensionOf(drive);
        const running = { rpm, wet, all: 'heaviest' as const };
        const run = runDrive(tension, running);
        expect(notANumber(run.belts)).toBeNull();
        expect(notANumber([...run.shafts.values()])).toBeNull();
        drive.belts.forEach(({ id }, b) => {
          const standing = tension.staticBelts[b];
          const window = windowOf(tension, id, [running], limitOrDefault);
          expect(notANumber(window)).toBeNull();
          const findings = [
            ...restFindings(tension, id, markedMisfitOf(drive, id)),
            ...runningFindings(tension, run, id),
          ];
          if (!standing) return expect(findings[0]!.code).toBe('no-path');
          expect(notANumber(waysOf(standing, standing.tensionN))).toBeNull();
          expect(
            notANumber(marginMap(tension, { belt: id, running, rpmFrom: 0, rpmTo: rpm, columns: 3, rows: 3 })),
          ).toBeNull();
          const setting = settingFor(drive, standing, 500);
          expect(notANumber(setting)).toBeNull();
          if (setting) expect(notANumber(sharedSettings(drive, tension.staticBelts, id, setting))).toBeNull();
          for (const { pulley } of standing.contacts)
            expect(notANumber(remediesFor(tension, id, pulley, [running]))).toBeNull();
          for (const finding of [...findings, ...windowFindings(standing, window!)])
            expect(notANumber(tensionMessage(drive, finding))).toBeNull();
        });
      }),
      { numRuns: draws(150), seed: SEED },
    );
  });

  test('sizing: verdicts without a figure that is none', () => {
    fc.assert(
      fc.property(accepted, (drive) => {
        for (const { id, length } of drive.belts) {
          const { window, candidates, findings, lastOn } = sizeBelt(drive, id, {
            lengths: [500, 1000, length ?? 1500, 1805, 4000],
          })!;
          expect(notANumber({ window, candidates, findings, lastOn })).toBeNull();
          for (const finding of [...findings, ...candidates.flatMap((candidate) => candidate.findings)])
            expect(notANumber(sizeMessage(finding))).toBeNull();
        }
      }),
      { numRuns: draws(60), seed: SEED },
    );
  });

  test('doubt: chances between nothing and certainty', () => {
    fc.assert(
      fc.property(accepted, (drive) => {
        const belt = drive.belts[0]!;
        const sizing = sizeBelt(drive, belt.id, { lengths: [1000, 1805] })!;
        const { chances, spread } = uncertaintyOf(drive, belt, sizing, { draws: 50 });
        expect(notANumber({ chances, spread })).toBeNull();
        for (const chance of chances) expect(chance >= 0 && chance <= 1).toBe(true);
      }),
      { numRuns: draws(40), seed: SEED },
    );
  });

  test('a string laid on it, an old belt, a gauge: the answer to which belt to bring home', () => {
    const measurement = fc.record({
      tool: fc.constantFrom(...TOOLS),
      mm: hostile.filter((mm) => mm >= 0),
      state: fc.constantFrom(...STATES),
      plusMinus: fc.constantFrom(1e-300, 0.5, 3, 1e9),
      thickness: fc.constantFrom(0, 2, 500),
    });
    fc.assert(
      fc.property(accepted, fc.array(measurement, { minLength: 1, maxLength: 3 }), (drive, measured) => {
        const belt = { ...drive.belts[0]!, measurements: measured.map((entry, k) => ({ id: `m${k}`, ...entry })) };
        const answer = answerFor({ ...drive, belts: [belt, ...drive.belts.slice(1)] }, belt.id, { draws: 20 });
        expect(notANumber(answer)).toBeNull();
      }),
      { numRuns: draws(30), seed: SEED },
    );
  });

  test('the survey: places or findings', () => {
    fc.assert(
      fc.property(accepted, (drive) => {
        const plain = { ...drive, survey: { ...drive.survey, photos: [] } };
        const fit = fitSurvey(plain, plain.survey.readings ?? []);
        expect(notANumber(fit.stations)).toBeNull();
        for (const finding of fit.findings) expect(notANumber(surveyMessage(plain, finding))).toBeNull();
      }),
      { numRuns: draws(60), seed: SEED },
    );
  });

  test('the route search: routes that close, whatever is drawn', () => {
    fc.assert(
      fc.property(accepted, (drive) => {
        const belt = drive.belts[0]!;
        for (const { route, lengthMm, leastWrapDeg, score } of searchRoutes(drive, belt.id, { top: 2 }).routes) {
          expect(notANumber({ lengthMm, leastWrapDeg, score })).toBeNull();
          expect(solveDrive({ ...drive, belts: [{ ...belt, route }, ...drive.belts.slice(1)] }).belts[0]!.closed).toBe(
            true,
          );
        }
      }),
      { numRuns: draws(40), seed: SEED },
    );
  });

  test('pulleys to change: answers with their reasons', () => {
    fc.assert(
      fc.property(accepted, fc.nat(), (drive, which) => {
        const station = drive.stations[which % drive.stations.length]!;
        const { answers } = choosePulleys(
          drive,
          [{ station: station.id, engineRpm: 3000, min: 2000, max: 6000 }],
          atHand,
          { top: 3 },
        );
        expect(notANumber(answers.map(({ score, effect }) => ({ score, effect })))).toBeNull();
        for (const { reasons } of answers)
          for (const reason of reasons) expect(notANumber(speedReason(drive, reason))).toBeNull();
        expect(notANumber(effectOf(drive))).toBeNull();
      }),
      { numRuns: draws(25), seed: SEED },
    );
  });

  test('it comes back from a file as it went in', () => {
    fc.assert(
      fc.property(accepted, (drive) => {
        const plain = JSON.parse(JSON.stringify(drive)) as Drive;
        const reading = readDrive(JSON.parse(writeDrive(plain)));
        expect(reading).toEqual({ ok: true, drive: plain });
      }),
      { numRuns: draws(60), seed: SEED },
    );
  });
});
