import fc from 'fast-check';
import {
  type Drive,
  dueAfter,
  NOISE_CAUSES,
  NOISE_TESTS,
  type NoiseEvidence,
  type NoiseTest,
  readDrive,
} from '../drive';
import { DEMO } from '../test/demo';
import { driveOf } from '../test/examples';
import { answersTo, type Answer, asksOf } from './asks';
import {
  answerTest,
  cureDone,
  diagnose,
  type Diagnosis,
  heardAsClue,
  heardHz,
  lessonsOf,
  listenedAgain,
  type Listening,
  noiseFindings,
  practiceRound,
  takeBack,
} from './index';
import { pricedSuspects } from './figures';
import { BY_FAULT, BY_NOISE, COSTS, FOUND, type Source } from './likelihoods';
import { posteriorOf } from './posterior';
import { faultRow, likelihoodOf, looksAt, sharesOf } from './weigh';

const bare = (drive: Drive): Drive => {
  const { noise: _, ...rest } = drive;
  return rest;
};
const drives = Object.values(DEMO).map(bare);
const truck: Drive = { ...drives[0]!, inspect: {} };

const given = (drive: Drive, evidence: readonly NoiseEvidence[]) => diagnose({ ...drive, noise: { evidence } });
const chance = ({ causes }: Diagnosis, cause: string, id?: string) =>
  causes
    .filter((chance) => chance.cause === cause && (id === undefined || chance.id === id))
    .reduce((sum, cause) => sum + cause.probability, 0);

/** Some answers about a drive, at most one of each ask. */
const someEvidence = (drive: Drive) => {
  const asks = asksOf(drive, pricedSuspects(drive));
  return fc
    .uniqueArray(fc.nat({ max: asks.length - 1 }), { maxLength: 7 })
    .chain((which) => fc.tuple(...which.map((k) => fc.constantFrom(...answersTo(drive, asks[k]!))))) as fc.Arbitrary<
    Answer[]
  >;
};
const anything = fc
  .constantFrom(...drives)
  .chain((drive) => someEvidence(drive).map((evidence) => ({ drive, evidence })));

describe('the table', () => {
  const sum = (p: Readonly<Record<string, number>>) => Object.values(p).reduce((total, value) => total + value, 0);

  test('has a row for every test and every cause; outcomes are those of the test and sum to one', () => {
    for (const test of Object.keys(NOISE_TESTS) as NoiseTest[]) {
      const rows = BY_NOISE[test];
      const fault = BY_FAULT[test];
      expect(Boolean(rows) !== Boolean(fault)).toBe(true);
      expect(COSTS[test].minutes).toBeGreaterThan(0);
      const outcomes = [...NOISE_TESTS[test].outcomes].sort();
      for (const p of rows ? rows.map((row) => row.p) : [fault!.there, fault!.sound]) {
        expect(Object.keys(p).sort()).toEqual(outcomes);
        expect(sum(p)).toBeCloseTo(1, 12);
        expect(Object.values(p).every((value) => value > 0)).toBe(true);
      }
      if (rows) expect(rows.at(-1)!.causes).toBeUndefined();
      for (const { why } of rows ?? [fault!]) expect(why).toMatch(/^[A-Z].*\.$/);
    }
    expect(sum(Object.fromEntries(Object.entries(FOUND).map(([cause, { weight }]) => [cause, weight])))).toBe(100);
  });

  test('water says of each school what it is to say', () => {
    const p = (cause: Source, outcome: string) =>
      BY_NOISE.water!.find(({ causes }) => !causes || causes.includes(cause))!.p[outcome]!;
    for (const [outcome, max] of [
      ['quiet-then-back', 'misaligned'],
      ['louder', 'loose'],
      ['no-change', 'bearing'],
    ] as const)
      for (const cause of NOISE_CAUSES) expect(p(cause, outcome)).toBeLessThanOrEqual(p(max, outcome));
  });
});

describe('whatever is known', () => {
  test('chances sum to one, a fault is no less likely there than to make the noise, and no gain is below zero', () => {
    fc.assert(
      fc.property(anything, ({ drive, evidence }) => {
        const diagnosis = given(drive, evidence);
        const { causes, elsewhere } = diagnosis;
        expect(causes.reduce((sum, { probability }) => sum + probability, elsewhere)).toBeCloseTo(1, 9);
        expect(diagnosis.posterior.maker.reduce((sum, value) => sum + value, 0)).toBeCloseTo(1, 9);
        for (const { present } of diagnosis.causes) expect(present >= 0 && present <= 1 + 1e-12).toBe(true);
        for (const { gainBits, minutes } of diagnosis.next) {
          expect(gainBits).toBeGreaterThanOrEqual(0);
          expect(minutes).toBeGreaterThan(0);
        }
      }),
      { numRuns: 120 },
    );
  });

  test('the order of the evidence does not matter', () => {
    fc.assert(
      fc.property(anything, fc.nat(), ({ drive, evidence }, seed) => {
        const other = evidence
          .map((answer, k) => ({ answer, at: (k * 7919 + seed) % 101 }))
          .sort((a, b) => a.at - b.at)
          .map(({ answer }) => answer);
        expect(given(drive, other).causes).toEqual(given(drive, evidence).causes);
      }),
      { numRuns: 60 },
    );
  });

  test('no outcome raises what it speaks against most', () => {
    fc.assert(
      fc.property(anything, fc.nat(), fc.nat(), ({ drive, evidence }, which, how) => {
        const before = given(drive, evidence);
        const asked = new Set(before.evidence.counts.map(({ test }) => test));
        const asks = asksOf(drive, before.posterior.suspects).filter(({ test }) => !asked.has(test));
        const ask = asks[which % asks.length]!;
        const answers = answersTo(drive, ask);
        const answer = answers[how % answers.length]!;
        const after = given(drive, [...evidence, answer]);
        const shares = sharesOf(drive);
        const fault = faultRow(answer, shares);
        const all = before.posterior.suspects.map((suspect) => likelihoodOf(answer, suspect, shares) ?? 1);
        const min = Math.min(...all);
        before.posterior.suspects.forEach((suspect, k) => {
          const against = fault
            ? looksAt(answer, suspect, shares) && fault.there[answer.outcome]! < fault.sound[answer.outcome]!
            : all[k] === min;
          if (against)
            expect(chance(after, suspect.cause, suspect.id)).toBeLessThanOrEqual(
              chance(before, suspect.cause, suspect.id) + 1e-12,
            );
        });
      }),
      { numRuns: 200 },
    );
  });

  test('what a test is expected to tell is what its outcomes tell on the average, each tried out', () => {
    fc.assert(
      fc.property(anything, fc.nat(), ({ drive, evidence }, which) => {
        const before = given(drive, evidence);
        const test = before.next[which % Math.max(1, before.next.length)];
        if (!test) return;
        const suspects = pricedSuspects(drive);
        const entropy = (chances: readonly number[]) =>
          chances.reduce((sum, chance) => sum - (chance > 0 ? chance * Math.log2(chance) : 0), 0);
        // Each answer tried: what is left open after it, as often as it comes.
        let expected = entropy(before.posterior.maker);
        let total = 0;
        const shares = sharesOf(drive);
        for (const answer of answersTo(drive, test)) {
          const fault = faultRow(answer, shares);
          const at = suspects.findIndex((suspect) => looksAt(answer, suspect, shares));
          const comes = before.posterior.maker.reduce((sum, maker, k) => {
            if (!fault) return sum + maker * likelihoodOf(answer, suspects[k] ?? 'elsewhere', shares)!;
            const there = k === at ? 1 : before.posterior.beside[at]!;
            return sum + maker * (there * fault.there[answer.outcome]! + (1 - there) * fault.sound[answer.outcome]!);
          }, 0);
          total += comes;
          const after = posteriorOf(drive, suspects, [...before.evidence.counts, answer]);
          expected -= comes * entropy(after.maker);
        }
        expect(total).toBeCloseTo(1, 9);
        expect(test.gainBits).toBeCloseTo(expected, 9);
      }),
      { numRuns: 60 },
    );
  });
});

/** Every set of faults and every maker among them, added up one by one: what the closed form is to give. */
test('chances are those of adding up every set of faults that could be there', () => {
  const drive = driveOf(
    [
      ['crank', 0, 0, 160],
      ['alt', 300, 0, 60, 'drive', { role: 'alternator' }],
    ],
    { section: 'AV13' },
  );
  const all = pricedSuspects(drive).filter(({ cause }) =>
    ['misaligned', 'loose', 'bearing', 'debris', 'hub-wobble'].includes(cause),
  );
  const answers: Answer[] = [
    { test: 'water', outcome: 'no-change' },
    { test: 'spin', outcome: 'quiet', pulley: 'alt' },
    { test: 'rock', outcome: 'yes', pulley: 'alt' },
    { test: 'slack', outcome: 'yes', belt: 'main' },
  ];
  const { maker, beside } = posteriorOf(drive, all, answers);
  const shares = sharesOf(drive);
  const prior = all.map(({ weight, factor }) => Math.min(0.5, (weight * factor * 0.6) / 100));
  const sums = all.map(() => 0);
  let elsewhere = 0;
  for (let set = 0; set < 2 ** all.length; set += 1) {
    const there = all.map((_, k) => (set >> k) % 2 === 1);
    const chanceOf = (but: number) =>
      there.reduce(
        (product, entry, k) => (k === but ? (entry ? product : 0) : product * (entry ? prior[k]! : 1 - prior[k]!)),
        1,
      );
    const shown = answers.reduce((product, answer) => {
      const fault = BY_FAULT[answer.test];
      if (!fault) return product;
      const at = all.findIndex((suspect) => looksAt(answer, suspect, shares));
      return product * (there[at] ? fault.there : fault.sound)[answer.outcome]!;
    }, 1);
    const noise = (k: number) =>
      answers.reduce((product, answer) => product * (likelihoodOf(answer, all[k] ?? 'elsewhere', shares) ?? 1), 1);
    all.forEach(({ weight, factor }, k) => (sums[k]! += weight * factor * chanceOf(k) * shown * noise(k)));
    elsewhere += 8 * chanceOf(-1) * shown * noise(all.length);
  }
  const total = sums.reduce((sum, part) => sum + part, elsewhere);
  [...sums, elsewhere].forEach((value, k) => expect(maker[k]).toBeCloseTo(value / total, 12));
  expect(beside).toHaveLength(all.length);
});

describe('of this drive', () => {
  test('an untouched drive shows what is common, and says so', () => {
    const drive = driveOf([
      ['crank', 0, 0, 160],
      ['alt', 300, 0, 60, 'drive', { role: 'alternator' }],
    ]);
    const diagnosis = diagnose(drive);
    expect(diagnosis.causes[0]!.probability).toBeLessThan(0.4);
    expect(noiseFindings(drive, diagnosis).map(({ code }) => code)).toEqual(['only-priors']);
    expect(diagnosis.next[0]!.test).toMatch(/kind|repeat|water/);
  });

  test('each water test leads where the field says, and is taken back without a trace', () => {
    const before = diagnose(truck);
    for (const [outcome, cause] of [
      ['quiet-then-back', 'misaligned'],
      ['louder', 'loose'],
      ['no-change', 'bearing'],
    ] as const) {
      const wet = answerTest(truck, { test: 'water', outcome });
      const after = diagnose(wet);
      expect(chance(after, cause)).toBeGreaterThan(chance(before, cause));
      expect(diagnose(takeBack(wet, { test: 'water' })).causes).toEqual(before.causes);
      expect(after.next.map(({ test }) => test)).not.toContain('water');
    }
  });

  test('a bearing that grinds is there though a pulley out of line makes the noise', () => {
    const both = given(truck, [
      { test: 'kind', outcome: 'chirp' },
      { test: 'water', outcome: 'quiet-then-back' },
      { test: 'straightedge', outcome: 'off', pulley: 'steer-1' },
      { test: 'spin', outcome: 'grinds', pulley: 'pump-1' },
      { test: 'rock', outcome: 'yes', pulley: 'pump-1' },
    ]);
    expect(both.causes[0]).toMatchObject({ cause: 'misaligned', id: 'steer-1' });
    const bearing = both.causes.find(({ cause, id }) => cause === 'bearing' && id === 'pump-1')!;
    expect(bearing.present).toBeGreaterThan(0.4);
    expect(bearing.probability).toBeLessThan(0.1);
  });

  test('what other stages found counts, says whose it is, and stands back for what is said by hand', () => {
    const found = (outcome: string) => ({
      findings: [{ id: 'f', on: 'pulley' as const, target: 'alt-1', check: 'spin' as const, outcome }],
    });
    const inspected: Drive = { ...truck, inspect: found('grinds') };
    expect(diagnose(inspected).evidence.counts).toContainEqual({
      test: 'spin',
      outcome: 'grinds',
      pulley: 'alt-1',
      from: 'inspect',
    });
    expect(chance(diagnose(inspected), 'bearing', 'alt-1')).toBeGreaterThan(
      3 * chance(diagnose(truck), 'bearing', 'alt-1'),
    );
    const said = answerTest(inspected, { test: 'spin', outcome: 'quiet', pulley: 'alt-1' });
    expect(chance(diagnose(said), 'bearing', 'alt-1')).toBeLessThan(chance(diagnose(truck), 'bearing', 'alt-1'));
    // The truck's alignment was read: its steering pump stands off.
    expect(diagnose(truck).figures).toContainEqual(
      expect.objectContaining({ code: 'run-off', stage: 'align', id: 'steer-1' }),
    );
  });

  test('a slack belt is likelier too slack, a measured one counts as measured', () => {
    const pickup = drives[1]!;
    const at = (staticTension: number) => ({
      ...pickup,
      belts: pickup.belts.map((belt) => ({ ...belt, staticTension, tensionReadings: [] })),
    });
    expect(chance(diagnose(at(30)), 'loose')).toBeGreaterThan(2 * chance(diagnose(at(900)), 'loose'));
  });

  test('of one test at one part the latest counts; two at one time contradict and neither does', () => {
    const at = (day: number, outcome: string): NoiseEvidence => ({
      test: 'water',
      outcome,
      at: `2026-05-0${day}T10:00:00Z`,
    });
    const late = given(truck, [at(3, 'louder'), at(1, 'no-change')]);
    expect(late.evidence.counts.filter(({ test }) => test === 'water').map(({ outcome }) => outcome)).toEqual([
      'louder',
    ]);
    const torn = given(truck, [at(3, 'louder'), at(3, 'no-change')]);
    expect(torn.evidence.contradicting).toHaveLength(1);
    expect(torn.causes).toEqual(diagnose(truck).causes);
  });

  test('tests of a newer Emery are kept and told; outcomes and parts that there are none of are refused', () => {
    const with_ = (...evidence: object[]) => readDrive({ ...truck, noise: { evidence } });
    expect(with_({ test: 'smell', outcome: 'burnt' }).ok).toBe(true);
    expect(noiseFindings(truck, given(truck, [{ test: 'smell', outcome: 'burnt' }])).map(({ code }) => code)).toContain(
      'unknown-test',
    );
    for (const [bad, where] of [
      [{ test: 'water', outcome: 'wet' }, 'noise.evidence[0].outcome'],
      [{ test: 'water' }, 'noise.evidence[0].outcome'],
      [{ outcome: 'wet' }, 'noise.evidence[0].test'],
      [{ test: 'spin', outcome: 'grinds' }, 'noise.evidence[0].pulley'],
      [{ test: 'spin', outcome: 'grinds', pulley: 'none' }, 'noise.evidence[0].pulley'],
      [{ test: 'dust', outcome: 'yes', belt: 'none' }, 'noise.evidence[0].belt'],
      [{ test: 'repeat', outcome: 'pulley' }, 'noise.evidence[0].pulley'],
    ] as const)
      expect(with_(bad)).toMatchObject({ ok: false, problems: [{ path: where }] });
  });

  test('after a cure the old evidence is past, and one is asked to listen three times', () => {
    const heard = answerTest(truck, { test: 'water', outcome: 'louder' });
    const cured = cureDone(heard, { cause: 'loose', part: 'main', odometer: 100_000, odometerUnit: 'km' });
    expect(diagnose(cured).causes).toEqual(diagnose(truck).causes);
    expect(cured.noise!.evidence).toHaveLength(1);
    expect(dueAfter(cured.noise!.cures![0]!).map(({ at }) => at)).toEqual([100_000, 100_500, 102_000]);
    const at = (cure: Parameters<typeof dueAfter>[0], unit?: 'mi') => dueAfter(cure, unit).map((due) => due.at);
    expect(at({ odometer: 100_000, odometerUnit: 'mi' })).toEqual([100_000, 100_311, 101_243]);
    // The cure's own unit goes before the vehicle's; with neither, no reading is told.
    expect(at({ odometer: 100_000, odometerUnit: 'km' }, 'mi')).toEqual([100_000, 100_500, 102_000]);
    expect(at({ odometer: 100_000 }, 'mi')).toEqual([100_000, 100_311, 101_243]);
    expect(at({ odometer: 100_000 })).toEqual([null, null, null]);
    const codes = (drive: Drive) => noiseFindings(drive, diagnose(drive)).map(({ code }) => code);
    expect(codes(cured)).toContain('listen-again');
    const quiet = (['now', 'soon', 'later'] as const).reduce(
      (drive, when) => listenedAgain(drive, 'cure-1', when, 'quiet'),
      cured,
    );
    expect(codes(quiet)).not.toContain('listen-again');
    const back = listenedAgain(cured, 'cure-1', 'soon', 'back');
    expect(codes(back)).toContain('came-back');
    // Another cure after it is the one that counts.
    expect(codes(cureDone(back, { cause: 'bearing', part: 'alt-1' }))).not.toContain('came-back');
    expect(readDrive(JSON.parse(JSON.stringify(quiet))).ok).toBe(true);
  });
});

describe('what was heard, as a clue', () => {
  const match = (id: string, probability: number, what: 'belt' | 'pulley' | 'engine' = 'pulley') => ({
    ...{ what, id, hz: 10, harmonic: 1, probability },
  });
  const clue = (heard: Pick<Listening, 'kind' | 'matches' | 'repeat'>) =>
    heardAsClue(bare(truck), heard).noise?.evidence;
  const repeat = { hz: 10, plusMinusHz: 0.1 };

  test('is its kind, and the part that is likelier than all others', () => {
    expect(clue({ kind: 'chirp', repeat, matches: [match('alt-1', 0.8), match('ac-1', 0.2)] })).toEqual([
      { test: 'kind', outcome: 'chirp' },
      { test: 'repeat', outcome: 'pulley', pulley: 'alt-1' },
    ]);
    expect(clue({ kind: 'chirp', repeat, matches: [match('main', 0.9, 'belt')] })![1]).toMatchObject({ belt: 'main' });
    expect(clue({ kind: 'chirp', repeat, matches: [match('firing', 0.9, 'engine')] })![1]).toEqual({
      test: 'repeat',
      outcome: 'engine',
    });
    // Two that lie together name neither; a squeal that goes on repeats with nothing; silence says nothing.
    expect(clue({ kind: 'chirp', repeat, matches: [match('alt-1', 0.4), match('ac-1', 0.4)] })).toHaveLength(1);
    expect(clue({ kind: 'squeal', repeat: null, matches: [] })![1]).toEqual({ test: 'repeat', outcome: 'none' });
    expect(clue({ kind: 'none', repeat: null, matches: [] })).toBeUndefined();
  });
});

test('a round of practice hides one of its choices, and no two of one kind sound alike', () => {
  const lessons = lessonsOf(truck, 720);
  fc.assert(
    fc.property(
      fc.array(fc.double({ min: 0, max: 0.999, noNaN: true }), { minLength: 40, maxLength: 40 }),
      (numbers) => {
        let at = 0;
        const { hidden, choices } = practiceRound(lessons, () => numbers[(at += 1) % numbers.length]!)!;
        expect(choices).toContain(hidden);
        expect(choices.length).toBe(4);
        for (const a of choices)
          for (const b of choices)
            if (a !== b && a.kind === b.kind) expect(Math.abs(Math.log(heardHz(a) / heardHz(b)))).toBeGreaterThan(0.13);
      },
    ),
    { numRuns: 40 },
  );
  expect(practiceRound([], Math.random)).toBeNull();
});
