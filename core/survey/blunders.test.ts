import { reread } from '../test/examples';
import { Matrix, pseudoInverse } from 'ml-matrix';
import type { Drive, SurveyReading } from '../drive';
import { withCode } from '../finding';
import { fitSurvey } from './fit';
import { adjust, type Network } from './least-squares';
import { observationsOf } from './readings';
import { draws, expectShare } from '../test/draws';

/** A generator with a seed (mulberry32), so that a failure can be looked at again. */
function randomOf(seed: number): { uniform: () => number; normal: () => number } {
  let state = seed;
  const uniform = () => {
    state = (state + 0x6d2b79f5) | 0;
    let t = Math.imul(state ^ (state >>> 15), 1 | state);
    t = (t + Math.imul(t ^ (t >>> 7), 61 | t)) ^ t;
    return ((t ^ (t >>> 14)) >>> 0) / 4294967296;
  };
  return { uniform, normal: () => Math.sqrt(-2 * Math.log(1 - uniform())) * Math.cos(2 * Math.PI * uniform()) };
}

interface Net {
  /** As sketched, up to 20 mm off. */
  drive: Drive;
  readings: SurveyReading[];
  truth: { x: number; y: number; d: number }[];
}

/**
 * A net of 4 to 8 pulleys with 3 to 8 readings to spare, tapes of every kind with a ± of their own each, and none to
 * two readings for the direction.
 */
function netOf(seed: number): Net {
  const { uniform, normal } = randomOf(seed * 7919 + 13);
  for (;;) {
    const count = 4 + Math.floor(uniform() * 5);
    const truth = [{ x: 0, y: 0, d: 140 + 40 * uniform() }];
    for (let tries = 0; truth.length < count && tries < 2000; tries += 1) {
      const next = { x: -300 + 600 * uniform(), y: -150 + 600 * uniform(), d: 50 + 90 * uniform() };
      if (truth.every((other) => Math.hypot(other.x - next.x, other.y - next.y) > (other.d + next.d) / 2 + 15))
        truth.push(next);
    }
    const directions = Math.floor(uniform() * 3);
    const tapes =
      2 * (count - 1) - Math.min(1, 1 - Math.min(1, directions)) + 3 + Math.floor(uniform() * 6) - directions;
    const pairs = truth
      .flatMap((_, i) => truth.slice(i + 1).map((__, k) => [i, i + 1 + k] as const))
      .sort(() => uniform() - 0.5);
    if (truth.length < count || tapes > pairs.length) continue;
    const readings = pairs.slice(0, tapes).map(([i, j], k): SurveyReading => {
      const kind = (['outer', 'outer', 'outer', 'gap', 'centre'] as const)[Math.floor(uniform() * 5)]!;
      const [a, b] = [truth[i]!, truth[j]!];
      const plusMinus = 0.8 + 1.6 * uniform();
      const rims = kind === 'outer' ? (a.d + b.d) / 2 : kind === 'gap' ? -(a.d + b.d) / 2 : 0;
      return {
        id: `r${k}`,
        kind,
        from: `p${i}`,
        to: `p${j}`,
        plusMinus,
        mm: Math.hypot(a.x - b.x, a.y - b.y) + rims + plusMinus * normal(),
      };
    });
    const far = 1 + Math.floor(uniform() * (count - 1));
    if (directions > 0)
      readings.push({
        id: 'angle',
        kind: 'angle',
        from: 'p0',
        to: `p${far}`,
        deg: (Math.atan2(truth[far]!.y, truth[far]!.x) * 180) / Math.PI + 0.4 * normal(),
        plusMinus: 0.4,
      });
    if (directions > 1)
      readings.push({ id: 'x', kind: 'x', to: `p${far}`, mm: truth[far]!.x + 1.5 * normal(), plusMinus: 1.5 });
    const drive: Drive = {
      format: 'emery-drive',
      version: 1,
      crankRotation: 'cw',
      belts: [],
      stations: truth.map(({ x, y, d }, k) => ({
        id: `s${k}`,
        role: k === 0 ? 'crankshaft' : 'other',
        x: k === 0 ? 0 : x + 40 * uniform() - 20,
        y: k === 0 ? 0 : y + 40 * uniform() - 20,
        pulleys: [{ id: `p${k}`, surface: 'ribbed', diameter: d, grooves: 6, plane: 0 }],
      })),
    };
    // Only nets that hold every pulley.
    if (!adjustedFrom({ drive, readings, truth }, readings).free.some((free, k) => free && k > 0))
      return { drive, readings, truth };
  }
}

/** The plain fit of some readings, begun at the truth. */
function adjustedFrom({ drive, truth }: Net, readings: readonly SurveyReading[]) {
  const network: Network = { count: truth.length, datum: 0, pictures: [], upright: false, radii: 0 };
  return adjust(
    observationsOf(drive, readings),
    truth.flatMap(({ x, y }) => [x, y]),
    network,
  );
}

/**
 * Whether the readings can tell which is wrong, by the linear theory at the truth: with hat matrix H the cost without
 * reading k is less by r²/(1 − h) of that reading. Slopes are taken by differences of plain geometry.
 */
function canTell({ truth }: Net, readings: readonly SurveyReading[], wrong: string): boolean {
  const read = (places: readonly number[], { kind, from, to }: SurveyReading) => {
    const at = (id: string) => [places[2 * Number(id.slice(1))]!, places[2 * Number(id.slice(1)) + 1]!] as const;
    const [bx, by] = at(to);
    if (kind === 'x') return bx;
    const [ax, ay] = at(from!);
    if (kind === 'angle') return (Math.atan2(by - ay, bx - ax) * 180) / Math.PI;
    const rims = (truth[Number(from!.slice(1))]!.d + truth[Number(to.slice(1))]!.d) / 2;
    return Math.hypot(bx - ax, by - ay) + (kind === 'outer' ? rims : kind === 'gap' ? -rims : 0);
  };
  const places = truth.flatMap(({ x, y }) => [x, y]);
  const sigma = (reading: SurveyReading) => reading.plusMinus!;
  const slopes = new Matrix(
    readings.map((reading) =>
      places.slice(2).map((_, k) => {
        const nudged = (by: number) =>
          read(
            places.map((value, at) => (at === k + 2 ? value + by : value)),
            reading,
          );
        return (nudged(1e-4) - nudged(-1e-4)) / 2e-4 / sigma(reading);
      }),
    ),
  );
  const off = Matrix.columnVector(
    readings.map(
      (reading) => ((reading.kind === 'angle' ? reading.deg! : reading.mm!) - read(places, reading)) / sigma(reading),
    ),
  );
  const left = Matrix.sub(Matrix.eye(readings.length), slopes.mmul(pseudoInverse(slopes)));
  const residual = left.mmul(off).getColumn(0);
  const gain = readings.map(({ id }, k) => ({
    id,
    gain: left.get(k, k) > 1e-6 ? residual[k]! ** 2 / left.get(k, k) : 0,
  }));
  const own = gain.find(({ id }) => id === wrong)!.gain;
  return own > 12 && gain.every(({ id, gain: other }) => id === wrong || own - other > 8);
}

/**
 * One reading spoiled: an inch, a foot, ten or a hundred mm off, one rim or both missed, inches written as mm, or
 * anything.
 */
function spoiled(net: Net, seed: number): { readings: SurveyReading[]; wrong: string } {
  const { uniform } = randomOf(seed * 104_729 + 7);
  const tapes = net.readings.filter(({ kind }) => kind === 'outer' || kind === 'gap' || kind === 'centre');
  const wrong = tapes[Math.floor(uniform() * tapes.length)]!;
  const d = (id: string | undefined) => net.truth[Number(id!.slice(1))]!.d;
  const sign = uniform() < 0.5 ? -1 : 1;
  const inward = wrong.kind === 'gap' ? 1 : -1;
  const off = [
    sign * 25.4,
    sign * 304.8,
    sign * 10,
    sign * 100,
    inward * d(wrong.from),
    inward * d(wrong.to),
    (inward * (d(wrong.from) + d(wrong.to))) / 2,
    wrong.mm! / 25.4 - wrong.mm!,
    sign * (12 + 120 * uniform()),
  ];
  const mm = wrong.mm! + off[Math.floor(uniform() * off.length)]!;
  return {
    readings: net.readings.map((reading) =>
      reading === wrong ? reread(reading, Math.max(1, mm) - wrong.mm!) : reading,
    ),
    wrong: wrong.id,
  };
}

test('with 3 to 8 readings to spare the wrong tape alone is named where the readings can tell, and no honest one', () => {
  let telling = 0;
  let alone = 0;
  let accused = 0;
  let all = 0;
  for (let seed = 1; seed <= draws(100); seed += 1) {
    const net = netOf(seed);
    const { readings, wrong } = spoiled(net, seed);
    const tells = canTell(net, readings, wrong);
    const named = fitSurvey({ ...net.drive, survey: { readings } }, readings)
      .readings.filter(({ suspect }) => suspect)
      .map(({ id }) => id);
    all += 1;
    accused += Number(named.some((id) => id !== wrong));
    telling += Number(tells);
    alone += Number(tells && named.length === 1 && named[0] === wrong);
  }
  expectShare(telling, all, { from: 0.5 });
  expectShare(alone, telling, { from: 0.9 });
  expectShare(accused, all, { to: 0.03 });
});

test('sound nets: hardly ever a name, and a mirror image only where it fits as well', () => {
  let named = 0;
  let mirrored = 0;
  let hangingOnTwo = 0;
  for (let seed = 201; seed <= 200 + draws(80); seed += 1) {
    const net = netOf(seed);
    const fit = fitSurvey({ ...net.drive, survey: { readings: net.readings } }, net.readings);
    named += Number(fit.readings.some(({ suspect }) => suspect));
    for (const finding of fit.findings) {
      if (finding.code !== 'mirrored') continue;
      const { pulley, figures } = finding;
      mirrored += 1;
      const taped = new Set(
        net.readings.flatMap(({ from, to }) =>
          from === pulley ? [to] : to === pulley && from !== undefined ? [from] : [],
        ),
      );
      hangingOnTwo += Number(taped.size === 2);
      // Put there and fitted again, the readings agree as well as they do in the fit.
      const at = Number(pulley!.slice(1));
      const there = fit.stations.map(({ x, y }, k) =>
        k === at ? { x: figures.x, y: figures.y, d: 0 } : { x, y, d: 0 },
      );
      const cost = (truth: Net['truth']) => adjustedFrom({ ...net, truth }, net.readings).cost;
      expect(cost(there)).toBeLessThan(cost(fit.stations.map(({ x, y }) => ({ x, y, d: 0 }))) + 2.1);
    }
  }
  expectShare(named, draws(80), { to: 4 / 80 });
  expectShare(mirrored, draws(80), { to: 24 / 80 });
  if (mirrored > 0) expectShare(hangingOnTwo, mirrored, { from: 0.5 });
});

test("a diameter's own ± enters its tapes: the places are as good as they say", () => {
  let inOne = 0;
  let inTwo = 0;
  let all = 0;
  for (let seed = 401; seed <= 400 + draws(80); seed += 1) {
    const net = netOf(seed);
    const { normal } = randomOf(seed);
    const off = net.truth.map(() => 4 * normal());
    const directed = net.readings.some(({ kind }) => kind === 'angle')
      ? net.readings
      : [
          ...net.readings,
          {
            id: 'angle',
            kind: 'angle' as const,
            from: 'p0',
            to: 'p1',
            deg: (Math.atan2(net.truth[1]!.y, net.truth[1]!.x) * 180) / Math.PI,
            plusMinus: 0.3,
          },
        ];
    const drive: Drive = {
      ...net.drive,
      stations: net.drive.stations.map((s, k) => ({
        ...s,
        pulleys: s.pulleys.map((p) => ({ ...p, diameter: p.diameter! + off[k]! })),
      })),
      survey: {
        readings: directed,
        diameters: net.truth.map(({ d }, k) => ({
          id: `d${k}`,
          pulley: `p${k}`,
          method: 'across' as const,
          mm: d + off[k]!,
          plusMinus: 4,
        })),
      },
    };
    const fit = fitSurvey(drive, directed);
    if (fit.findings.some(({ severity }) => severity === 'fault')) continue;
    fit.stations.slice(1).forEach(({ x, y, plusMinusX, plusMinusY }, k) => {
      for (const share of [
        Math.abs(x - net.truth[k + 1]!.x) / plusMinusX!,
        Math.abs(y - net.truth[k + 1]!.y) / plusMinusY!,
      ]) {
        all += 1;
        inOne += Number(share <= 1);
        inTwo += Number(share <= 2);
      }
    });
  }
  expect(all).toBeGreaterThan(draws(400));
  expectShare(inOne, all, { from: 0.6, to: 0.78 }, 2);
  expectShare(inTwo, all, { from: 0.9 }, 2);
});

test('a diameter that the tapes contradict is named, and no tape', () => {
  const net = netOf(7);
  const exact = net.readings.map((reading) => {
    if (reading.kind !== 'outer' && reading.kind !== 'gap' && reading.kind !== 'centre') return reading;
    const [a, b] = [reading.from!, reading.to].map((id) => net.truth[Number(id.slice(1))]!) as [
      Net['truth'][number],
      Net['truth'][number],
    ];
    return { ...reading, plusMinus: 1, kind: 'outer' as const, mm: Math.hypot(a.x - b.x, a.y - b.y) + (a.d + b.d) / 2 };
  });
  const crank = net.truth[0]!.d;
  const drive: Drive = {
    ...net.drive,
    stations: net.drive.stations.map((s, k) =>
      k === 0 ? { ...s, pulleys: s.pulleys.map((p) => ({ ...p, diameter: crank + 40 })) } : s,
    ),
    survey: {
      readings: exact,
      diameters: [{ id: 'd', pulley: 'p0', method: 'calliper', mm: crank + 40, plusMinus: 0.2 }],
    },
  };
  const { findings } = fitSurvey(drive, exact);
  expect(findings.filter(({ severity }) => severity === 'fault')).toEqual([
    expect.objectContaining({ code: 'diameter-suspect', pulley: 'p0' }),
  ]);
  expect(withCode(findings, 'diameter-suspect')!.figures.off).toBeCloseTo(-40, 0);
});

test('one reading across or up leaves two ways round, and the other fits; an angle or a second one settles it', () => {
  const net = netOf(11);
  const tapes = net.readings.filter(({ kind }) => kind !== 'angle' && kind !== 'x');
  const up = (k: number): SurveyReading => ({ id: `y${k}`, kind: 'y', to: `p${k}`, mm: net.truth[k]!.y, plusMinus: 1 });
  const ways = (readings: SurveyReading[]) =>
    withCode(fitSurvey({ ...net.drive, survey: { readings } }, readings).findings, 'two-ways');
  const likely = ways([...tapes, up(2)])!;
  expect(likely.pulley).toBeDefined();
  const at = Number(likely.pulley!.slice(1));
  // Turned as a whole about the crank: as far from it as before.
  expect(Math.hypot(likely.figures.x, likely.figures.y)).toBeCloseTo(
    Math.hypot(net.truth[at]!.x, net.truth[at]!.y),
    -1,
  );
  expect(ways([...tapes, up(2), up(3)])).toBeUndefined();
  expect(
    ways([
      ...tapes,
      up(2),
      {
        id: 'a',
        kind: 'angle',
        from: 'p0',
        to: 'p1',
        deg: (Math.atan2(net.truth[1]!.y, net.truth[1]!.x) * 180) / Math.PI,
      },
    ]),
  ).toBeUndefined();
  expect(ways(tapes)).toBeUndefined();
});

test('a tape over two rims of teeth, whose size is their number, gives the true distance', () => {
  const drive: Drive = {
    format: 'emery-drive',
    version: 1,
    crankRotation: 'cw',
    stations: [
      { id: 'crank', role: 'crankshaft', x: 0, y: 0, pulleys: [{ id: 'c', surface: 'toothed', teeth: 40 }] },
      { id: 'gen', role: 'generator', x: 290, y: 10, pulleys: [{ id: 'g', surface: 'toothed', teeth: 24 }] },
    ],
    belts: [
      {
        id: 'b',
        section: 'H',
        length: null,
        route: [
          { pulley: 'c', side: 'drive' },
          { pulley: 'g', side: 'drive' },
        ],
      },
    ],
  };
  // Tips stand 0.686 mm inside the pitch circle (ISO 5294).
  const tips = (teeth: number) => (teeth * 12.7) / (2 * Math.PI) - 0.686;
  const readings: SurveyReading[] = [
    { id: 'r', kind: 'outer', from: 'c', to: 'g', mm: 300 + tips(40) + tips(24) },
    { id: 'a', kind: 'angle', from: 'c', to: 'g', deg: 0 },
  ];
  expect(fitSurvey(drive, readings).stations[1]!.x).toBeCloseTo(300, 6);
});
