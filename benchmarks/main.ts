import { mkdtempSync, readFileSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { spawnSync } from 'node:child_process';
import path from 'node:path';
import { fileURLToPath } from 'node:url';
import { chromium, type Browser, type Page } from '@playwright/test';
import { loopRound } from '../core/path/loop';
import { driveOf, type Stop } from '../core/test/examples';
import { buildCommandLine, buildInterface } from '../scripts/lib/build.mjs';
import { ROOT } from '../scripts/lib/paths.mjs';
import { openDatabase } from '../scripts/lib/database.mjs';
import { fillShop } from '../server/shop/fill-shop';
import { findProgram } from '../scripts/lib/install.mjs';
import { startServer } from '../scripts/lib/serve.mjs';
import { loadTogether } from './together';
import { benchTries } from './tries';
import { readSpeedLog } from '../web/stages/speeds/read-speed-log';
import { lengthCurve } from '@emery/core/adjuster';
import type { AlignMove, Drive } from '@emery/core/drive';
import { beltClearances, solveBelt, solveDrive } from '@emery/core/path';
import { searchRoutes } from '@emery/core/route';
import { sizeBelt } from '@emery/core/seating';
import { answerFor, uncertaintyOf } from '@emery/core/size';
import { choosePulleys, type PulleyAtHand, type SpeedTarget } from '@emery/core/speeds';
import { fitSurvey } from '@emery/core/survey';
import { planFor, searchSets } from '@emery/core/align';
import { inspectDrive, partChanged } from '@emery/core/inspect';
import { findRibs, makeRibs, RIBS_AS_NEW } from '@emery/core/inspect/ribs';
import { diagnose, lessonsOf, listen, soundOfLesson } from '@emery/core/noise';
import { bringList, cardOf } from '@emery/core/job';
import { memoryOf } from '@emery/core/records';
import { alignmentOf } from '@emery/core/planes';
import { runDrive, tensionOf } from '@emery/core/loads';
import { hearPluck, marginMap, simulatedPlucks } from '@emery/core/tension';
import { fitEllipse, fitPhoto } from '@emery/core/survey/photo';

const DRIVES = 5000;
const LARGE = 50_000;

/** A serpentine of ten pulleys, four of them on the back, such as a truck carries. */
const TEN: Stop[] = [
  ['crank', 0, 0, 168],
  ['idler1', -110, 88, 70, 'back'],
  ['pump', -210, 190, 130],
  ['idler2', -108, 262, 74, 'back'],
  ['steer', -120, 400, 120],
  ['water', 20, 318, 110, 'back'],
  ['alt', 150, 420, 58],
  ['idler3', 172, 262, 76, 'back'],
  ['fan', 300, 230, 120],
  ['ac', 210, 40, 118],
];

function print(what: string, figure: string, limit = ''): void {
  process.stdout.write(`${what.padEnd(66)} ${figure}${limit && `   (wanted: ${limit})`}\n`);
}

function spread(times: number[], unit = 'ms', places = 1, high = 0.99): string {
  const sorted = [...times].sort((a, b) => a - b);
  const at = (share: number) => sorted[Math.min(sorted.length - 1, Math.floor(share * sorted.length))]!.toFixed(places);
  return `median ${at(0.5)} ${unit}, ${100 * high}th ${at(high)}, most ${at(1)}`;
}

const drive: Drive = { ...driveOf(TEN, {}, { crankRotation: 'cw' }), name: 'Ten pulleys' };

function benchSolve(): void {
  const moved = (k: number): Drive => ({
    ...drive,
    stations: drive.stations.map((s) => (s.id === 'alt' ? { ...s, x: s.x + (k % 40) * 0.1 } : s)),
  });
  const drives = Array.from({ length: 40 }, (_, k) => moved(k));
  for (let k = 0; k < 2000; k += 1) solveDrive(drives[k % 40]!);
  const times = Array.from({ length: 5000 }, (_, k) => {
    const from = performance.now();
    solveDrive(drives[k % 40]!);
    return performance.now() - from;
  });
  // The same again by nothing but its tangents and wraps.
  const circles = drives.map((drive) =>
    solveDrive(drive).belts[0]!.contacts.map(({ centre, cordRadius, turn }) => ({
      ...centre,
      radius: cordRadius,
      turn,
    })),
  );
  for (let k = 0; k < 2000; k += 1) loopRound(circles[k % 40]!);
  const bare = Array.from({ length: 5000 }, (_, k) => {
    const from = performance.now();
    loopRound(circles[k % 40]!);
    return performance.now() - from;
  });
  const middle = (list: number[]) => [...list].sort((a, b) => a - b)[list.length >> 1]!;
  const { closed, findings } = solveDrive(drive).belts[0]!;
  print(`Core solve, 10 pulleys (closed: ${closed}, findings: ${findings.length}), 5,000 runs`, spread(times, 'ms', 3));
  print('  as many times the bare tangents and wraps', (middle(times) / middle(bare)).toFixed(1), '12');
}

/** Twelve shafts and forty tapes between them, one an inch out, from a sketch some 20 mm off. */
function benchSurvey(): void {
  const stops = Array.from({ length: 12 }, (_, k): Stop => [
    k === 0 ? 'crank' : `p${k}`,
    k === 0 ? 0 : 300 * Math.cos(k * 0.9 + 0.1 * k * k),
    k === 0 ? 0 : 200 + 180 * Math.sin(k * 1.7),
    60 + 5 * k,
  ]);
  const truth = driveOf(stops);
  const pairs = truth.stations
    .flatMap((from, i) => [1, 2, 3, 4].map((step) => [from, truth.stations[(i + step) % 12]!] as const))
    .slice(0, 40);
  const readings = pairs.map(([from, to], k) => ({
    id: `r${k}`,
    kind: 'centre' as const,
    from: from.id,
    to: to.id,
    plusMinus: 1,
    mm: Math.hypot(from.x - to.x, from.y - to.y) + Math.sin(7 * k) + (k === 5 ? 25.4 : 0),
  }));
  const sketch = {
    ...truth,
    stations: truth.stations.map((s, k) =>
      k === 0 ? s : { ...s, x: s.x + 20 * Math.sin(3 * k), y: s.y + 20 * Math.cos(5 * k) },
    ),
  };
  const run = (slips: boolean) => {
    const taken = slips ? readings : readings.filter((_, k) => k !== 5);
    const times = Array.from({ length: 20 }, () => {
      const from = performance.now();
      fitSurvey(sketch, taken);
      return performance.now() - from;
    });
    print(
      `Tape network, 12 shafts, ${taken.length} readings${slips ? ', one an inch out' : ''}`,
      spread(times),
      `median ${slips ? 101 : 6.8} ms`,
    );
  };
  run(false);
  run(true);
}

/** The demo truck's picture as it is marked, and a network that takes it in. */
function benchPicture(): void {
  const truck = JSON.parse(
    readFileSync(new URL('../demo/1-rescue-truck.emery.json', import.meta.url), 'utf8'),
  ) as Drive;
  const photo = truck.survey!.photos![0]!;
  const repeat = (what: string, count: number, run: () => unknown) => {
    run();
    print(
      what,
      spread(
        Array.from({ length: count }, () => {
          const from = performance.now();
          run();
          return performance.now() - from;
        }),
        'ms',
        2,
      ),
    );
  };
  const points = photo.rims![0]!.points;
  repeat('Ellipse through 8 points', 500, () => fitEllipse(points));
  repeat(`Square-up of a picture, ${photo.rims!.length} rims`, 20, () => fitPhoto(truck, photo));
  repeat('Picture and tapes in one fit', 10, () => fitSurvey(truck, truck.survey!.readings!));
}

/** A serpentine of ten pulleys on a sprung arm: its length curve, the whole answer, and the draws. */
function benchSize(): void {
  const arm = {
    kind: 'sprung-arm' as const,
    pivot: { x: -150, y: 20 },
    armLength: 80,
    freeAngle: 20,
    fullAngle: 80,
    shortMark: 65,
    longMark: 35,
    springTorqueAtFree: 14,
    springRate: 0.2,
  };
  const there: Drive = {
    ...drive,
    stations: drive.stations.map((s) => (s.id === 'idler1' ? { ...s, role: 'tensioner' as const, adjuster: arm } : s)),
  };
  const belt = there.belts[0]!;
  const repeat = (what: string, count: number, run: () => unknown, limit = '') => {
    run();
    print(
      what,
      spread(
        Array.from({ length: count }, () => {
          const from = performance.now();
          run();
          return performance.now() - from;
        }),
      ),
      limit,
    );
  };
  repeat('Length curve, 10 pulleys, 200 positions', 20, () => lengthCurve(there, belt, 200));
  repeat('Clearance sweep, 10 pulleys, 50 positions', 20, () => {
    const { travel } = lengthCurve(there, belt, 1)!;
    for (let k = 0; k < 50; k += 1) beltClearances(travel.at(k / 49), solveBelt(travel.at(k / 49), belt.id)!);
  });
  const sizing = sizeBelt(there, belt.id)!;
  repeat(`Monte Carlo, 10,000 draws, ${sizing.candidates.length} lengths`, 10, () =>
    uncertaintyOf(there, belt, sizing),
  );
  repeat('The whole answer to Size', 5, () => answerFor(there, belt.id), 'median 186 ms');
}

/** Ten pulleys at one speed over the solve, the map of margins, and a pluck of two seconds. */
function benchTension(): void {
  const torque = [{ state: 'on', points: [{ rpm: 1000, nm: 4 }] }];
  const tension = tensionOf({
    ...drive,
    stations: drive.stations.map((s) => (s.role === 'idler' || s.role === 'crankshaft' ? s : { ...s, torque })),
    belts: drive.belts.map((belt) => ({ ...belt, staticTension: 450 })),
  });
  const repeat = (what: string, count: number, each: number, run: () => unknown, limit: string, places?: number) => {
    for (let k = 0; k < 3; k += 1) run();
    const times = Array.from({ length: count }, () => {
      const from = performance.now();
      for (let k = 0; k < each; k += 1) run();
      return (performance.now() - from) / each;
    });
    print(what, spread(times, 'ms', places), limit);
  };
  const running = { all: 'heaviest' as const, rpm: 2000 };
  repeat('Running tensions, 10 pulleys at one speed', 200, 50, () => runDrive(tension, running), 'median 0.05 ms', 4);
  const ask = { belt: drive.belts[0]!.id, running, rpmFrom: 500, rpmTo: 6000 };
  repeat('Margin map, 60 speeds by 40 loads', 10, 1, () => marginMap(tension, ask), 'median 150 ms');
  const span = { lengthMm: 268, kgPerMetre: 0.111 };
  const sound = simulatedPlucks(span, 420, { hum: 0.1, hiss: 0.03, plucks: 2 }, 7);
  const seconds = { rate: sound.rate, samples: sound.samples.slice(0, 2 * sound.rate) };
  repeat('A pluck of up to 2 s', 10, 1, () => hearPluck(seconds, span), 'median 100 ms');
}

/** A sound to what comes round as often; all next tests of a drive ranked. */
function benchNoise(): void {
  const lessons = lessonsOf(drive, 750).filter(({ rate }) => rate.hz > 1);
  const sounds = Array.from({ length: 12 }, (_, k) =>
    soundOfLesson(drive, 750, lessons[(5 * k) % lessons.length]!, { seed: k + 1, seconds: 10, bay: true }),
  );
  const times = (runs: readonly (() => unknown)[]) => {
    runs[0]!();
    return runs.map((run) => {
      const from = performance.now();
      run();
      return performance.now() - from;
    });
  };
  print(
    '10 s of sound to matches',
    spread(times(sounds.map((sound) => () => listen(sound, drive, 750))), 'ms', 0),
    'under 500 ms',
  );
  const heard: Drive = {
    ...drive,
    noise: {
      evidence: [
        { test: 'kind', outcome: 'chirp' },
        { test: 'water', outcome: 'louder' },
      ],
    },
  };
  const runs = Array.from({ length: 30 }, () => () => diagnose(heard));
  print('Causes, and all next tests ranked', spread(times(runs), 'ms', 1), 'under 50 ms');
}

/** So many runs of one sum, after a few to warm up. */
function time(what: string, count: number, run: () => unknown, limit: string, places = 1): void {
  for (let k = 0; k < 3; k += 1) run();
  const times = Array.from({ length: count }, () => {
    const from = performance.now();
    run();
    return performance.now() - from;
  });
  print(what, spread(times, 'ms', places), limit);
}

/** Verdicts of the demo truck with ten years of looks; a close-up to its marks. */
function benchJob(): void {
  const two = withHistory(drive);
  time('The card of ten pulleys', 20, () => cardOf(drive), '', 1);
  time('What a shop remembers of a drive, with 40 changes of its belt', 20, () => memoryOf(two), '', 1);
  time('Bring list of one belt, sized', 5, () => bringList(drive), '', 0);
}

const withHistory = (drive: Drive): Drive =>
  Array.from({ length: 40 }).reduce<Drive>(
    (now, _, k) =>
      partChanged(
        now,
        { on: 'belt', target: 'main' },
        {
          at: new Date(Date.UTC(2016, 0, 1 + 90 * k)).toISOString(),
          odometer: 20_000 * k,
        },
      ),
    drive,
  );

function benchInspect(): void {
  const findings = Array.from({ length: 400 }, (_, k) => ({
    id: `f${k}`,
    ...(k % 2 === 0
      ? { on: 'belt' as const, target: 'main', check: 'rib-depth' as const, value: 2.9 - 0.002 * k }
      : { on: 'pulley' as const, target: 'alt-1', check: 'rock' as const, value: 0.1 }),
    at: new Date(Date.UTC(2016, 0, 1 + 9 * k)).toISOString(),
    odometer: 500 * k,
  }));
  const looked: Drive = { ...drive, inspect: { findings } };
  time('Verdicts of 400 findings', 40, () => inspectDrive(looked), '', 2);
  const made = makeRibs({ ...RIBS_AS_NEW, width: 2000, height: 1100, pxPerMm: 76, yawDeg: 6, blurPx: 3 });
  time('A close-up of 2.2 Mpx to its marks', 5, () => findRibs(made.picture, 3.56), '', 0);
}

/** Twelve pulleys about a ring, read forty times; ten movable, four of them off; parts in five thousand sets. */
function benchAlign(): void {
  const stops = Array.from({ length: 12 }, (_, k): Stop => [
    k === 0 ? 'crank' : `p${k}`,
    400 * Math.cos(k / 1.91),
    400 * Math.sin(k / 1.91),
    60 + 4 * k,
  ]);
  const off: Record<string, number> = { p2: 4.1, p5: -3.3, p8: 2.9, p10: -4.4 };
  const readings = Array.from({ length: 40 }, (_, k) => {
    const pulley = `p${1 + (k % 11)}`;
    const mm = (off[pulley] ?? 0.1) + 0.2 * Math.sin(9 * k);
    return { id: `r${k}`, tool: 'laser' as const, pulley, at: 97 * k, mm };
  });
  const moves = Array.from({ length: 10 }, (_, k): AlignMove =>
    k % 2 === 0
      ? { kind: 'shim', pulley: `p${k + 1}`, sizes: [-4, -3, -2, -1, 1, 2, 3, 4] }
      : { kind: 'press', pulley: `p${k + 1}`, min: -5, max: 5 },
  );
  const ring = driveOf(stops, {}, { align: { readings, moves } });
  const solution = solveBelt(ring, 'main')!;
  time('Planes and runs, 12 pulleys, 40 readings', 100, () => alignmentOf(ring, 'main', { solution }), '', 2);
  const alignment = alignmentOf(ring, 'main', { solution })!;
  const found = planFor(ring, alignment);
  const many = found.plans[0]?.moves.length ?? 0;
  time(`Plan of ${many} moves, 10 movable pulleys`, 10, () => planFor(ring, alignment), 'under 1000 ms');
  const stacks = [20, 25, 10].map((count, s) => ({
    id: `s${s}`,
    pulley: `p${s + 1}`,
    pieces: [
      { name: 'hub', options: Array.from({ length: count }, (_, k) => ({ name: `h${k}`, mm: 20 + 1.37 * k + s })) },
    ],
  }));
  time('Parts, 5,000 sets', 20, () => searchSets(stacks), 'under 200 ms');
}

/** The pulleys of a long serpentine, and twelve about a ring, where most orders stay open longest. */
function benchRoutes(): void {
  const more: Stop[] = [...TEN, ['spare1', 330, 60, 60], ['spare2', -220, 20, 80]];
  const ring = Array.from({ length: 12 }, (_, k): Stop => [
    k === 0 ? 'crank' : `p${k}`,
    400 * Math.cos(k / 1.91),
    400 * Math.sin(k / 1.91),
    40,
  ]);
  for (const [what, stops] of [
    ['9 pulleys', more.slice(0, 9)],
    ['12 pulleys', more],
    ['12 pulleys in a ring', ring],
  ] as const) {
    const there = driveOf([...stops], { route: [] }, { crankRotation: 'cw' });
    const from = performance.now();
    const { searched, routes } = searchRoutes(there, 'main', { top: 1000 });
    print(
      `All routes of ${what} (${searched} steps, ${routes.length} can be run)`,
      `${(performance.now() - from).toFixed(0)} ms`,
    );
  }
}

/**
 * Six accessories, each with a target at redline, and forty pulleys any of which would go on any of them; then a log of
 * a million rows as the worker reads it.
 */
async function benchSpeeds(): Promise<void> {
  const there: Drive = { ...drive, speeds: { idle: 700, cruise: 2000, redline: 5000 } };
  const targets = ['pump', 'steer', 'water', 'alt', 'fan', 'ac'].map((station, k): SpeedTarget => ({
    station,
    engineRpm: 5000,
    min: null,
    max: 4500 + 700 * k,
  }));
  const atHand = Array.from({ length: 40 }, (_, k): PulleyAtHand => ({
    id: `p${k}`,
    label: `p${k}`,
    surface: k % 8 === 7 ? 'smooth' : 'ribbed',
    diameter: 52 + 3.5 * k,
  }));
  for (const changes of [2, 3]) {
    choosePulleys(there, targets, atHand, { changes });
    const from = performance.now();
    const { searched } = choosePulleys(there, targets, atHand, { changes });
    print(
      `Pulleys for 6 accessories out of 40, ${changes} changes (${searched.toLocaleString('en')} ways)`,
      `${(performance.now() - from).toFixed(0)} ms`,
    );
  }
  let rpm = 800;
  const rows = Array.from(
    { length: 1_000_000 },
    (_, k) =>
      `${(k / 10).toFixed(1)},${(rpm = Math.max(700, Math.min(4800, rpm + 30 * Math.sin(k / 900) + ((k * 7919) % 41) - 20))).toFixed(0)}`,
  );
  const text = `time,rpm\n${rows.join('\n')}\n`;
  const from = performance.now();
  const read = await readSpeedLog(text);
  print(
    `Log of ${read.ok ? read.rows.toLocaleString('en') : 'no'} rows, ${(text.length / 1e6).toFixed(0)} MB, read into bins`,
    `${(performance.now() - from).toFixed(0)} ms`,
  );
}

async function timed(count: number, work: (k: number) => Promise<unknown>): Promise<number[]> {
  const times: number[] = [];
  for (let k = 0; k < count; k += 1) {
    const from = performance.now();
    await work(k);
    times.push(performance.now() - from);
  }
  return times;
}

async function fill(address: string): Promise<void> {
  const text = JSON.stringify(drive);
  for (let batch = 0; batch < DRIVES / 500; batch += 1) {
    const files = Array.from({ length: 500 }, (_, k) => {
      const n = batch * 500 + k;
      const vehicle = { name: `Vehicle ${Math.floor(n / 4)}`, plate: `B ${Math.floor(n / 4)}` };
      return {
        name: `${n}.emery.json`,
        text: JSON.stringify({ ...(JSON.parse(text) as object), name: `Drive ${n}`, vehicle }),
      };
    });
    const response = await fetch(`${address}/api/import`, {
      method: 'POST',
      headers: { 'content-type': 'application/json' },
      body: JSON.stringify({ files }),
    });
    if (response.status !== 201) throw new Error(await response.text());
  }
}

/**
 * Lists and searches of a large shop, for one who asks and for 150 at once: what these take beyond half of their number
 * is queueing that should not be.
 */
async function benchLarge(address: string): Promise<void> {
  const read = async (where: string) => {
    const from = performance.now();
    await (await fetch(`${address}/api${where}`)).arrayBuffer();
    return performance.now() - from;
  };
  for (const [what, where] of [
    ['First page of vehicles', '/vehicles?limit=30'],
    ['Search among the vehicles', '/vehicles?limit=30&search=Drive%20437'],
    ['First page of drives', '/drives?limit=40'],
    ['Search among the drives', '/drives?limit=40&search=Vehicle%2099'],
  ] as const) {
    await read(where);
    print(`${what}, ${LARGE.toLocaleString('en')} drives`, spread(await timed(30, () => read(where))));
    const many: number[] = [];
    await Promise.all(Array.from({ length: 150 }, async () => many.push(await read(where), await read(where))));
    print('  the same for each of 150 clients at once', spread(many));
  }
}

/** What a large shop's due list and searches take at the server: 5,000 vehicles, 50,000 records. */
async function benchRecords(address: string): Promise<void> {
  const read = (where: string) => async () => void (await (await fetch(`${address}/api${where}`)).arrayBuffer());
  const { total } = (await (await fetch(`${address}/api/records?limit=1`)).json()) as { total: number };
  const { total: due } = (await (await fetch(`${address}/api/records/due?limit=1`)).json()) as { total: number };
  const counts = `${total.toLocaleString('en')} records, ${due.toLocaleString('en')} due`;
  for (const [what, where] of [
    ['Due, first page', '/records/due?limit=60'],
    ['Due, searched', '/records/due?limit=60&search=vehicle%20437'],
    ['Every belt over 80,000 km', '/records/belts?limit=60&search=every%20belt%20over%2080%2C000%20km'],
    ['What happened, searched', '/records?limit=60&search=vehicle%20437%20fitted'],
    ['What happened, last page', `/records?limit=60&offset=${total - 60}`],
    ['How long belts last', '/records/lives'],
    ['Calendar', '/records/due.ics'],
  ] as const) {
    await timed(3, read(where));
    print(`${what}, ${counts}`, spread(await timed(30, read(where))), 'list and search under 60 ms');
  }
}

async function benchServer(address: string): Promise<string> {
  await fill(address);
  const read = (where: string) => async () => void (await (await fetch(`${address}/api${where}`)).arrayBuffer());
  for (const [what, where] of [
    ['First page of vehicles with drawings', '/vehicles?limit=30'],
    ['Search among them', '/vehicles?limit=30&search=Drive%20437'],
    ['First page of drives', '/drives?limit=40'],
    ['Search among the drives', '/drives?limit=40&search=Vehicle%2099'],
  ] as const) {
    await timed(5, read(where));
    print(`${what}, ${DRIVES.toLocaleString('en')} drives in the shop`, spread(await timed(60, read(where))));
  }
  const belts = Array.from({ length: 50_000 }, (_, k) => ({
    section: 'PK',
    ribs: String(3 + (k % 6)),
    length: String(500 + (k % 2600)),
    code: `B-${k}`,
    price: '9.5',
    shelf: String(k % 3),
  }));
  const from = performance.now();
  const taken = await fetch(`${address}/api/stock`, {
    method: 'POST',
    headers: { 'content-type': 'application/json' },
    body: JSON.stringify({ replace: true, rows: belts }),
  });
  if (taken.status !== 201) throw new Error(await taken.text());
  print('50,000 belts taken in', `${(performance.now() - from).toFixed(0)} ms`);
  for (const [what, where] of [
    ['Belts of one size', '/stock?section=PK&ribs=6&from=1790&to=1830&limit=100'],
    ['Belts by code', '/stock?search=B-4321&limit=100'],
  ] as const) {
    await timed(3, read(where));
    print(`${what}, 50,000 in the list`, spread(await timed(40, read(where))));
  }
  const { drives } = (await (await fetch(`${address}/api/drives?limit=1`)).json()) as {
    drives: { id: string; revision: number }[];
  };
  const { id } = drives[0]!;
  let { revision } = drives[0]!;
  let was: string | undefined;
  const save = async (k: number) => {
    const now = `Saved ${k}`;
    const changes = [{ at: ['bench'], ...(was !== undefined && { was }), now }];
    was = now;
    const body = JSON.stringify({ revision, saveId: `bench-${k}-${revision}`, changes });
    const response = await fetch(`${address}/api/drives/${id}`, {
      method: 'PATCH',
      headers: { 'content-type': 'application/json' },
      body,
    });
    ({ revision } = (await response.json()) as { revision: number });
  };
  await timed(5, save);
  print('Save, request to acknowledgement, flushed to disk', spread(await timed(100, save)));
  return id;
}

/** The bytes of one cold visit as they came over the wire: until the page can be used, and with what follows. */
async function transferred(page: Page, address: string): Promise<{ first: number; all: number }> {
  const session = await page.context().newCDPSession(page);
  await session.send('Network.enable');
  let total = 0;
  session.on('Network.loadingFinished', ({ encodedDataLength }) => (total += encodedDataLength));
  await page.goto(address);
  await page.waitForSelector('.vehicle, .pulley, .counter-sheet');
  // The rest is fetched later than this, once nothing is asked for any more.
  await page.waitForTimeout(250);
  const first = total;
  await page.waitForTimeout(4000);
  await page.waitForLoadState('networkidle');
  return { first, all: total };
}

/**
 * From the address to a counter that answers, on a processor so many times slower: its field in focus, a reading typed
 * into it, and the belt to ask for on the page; ms.
 */
async function untilAnswered(page: Page, address: string, slower: number): Promise<{ ready: number; answer: number }> {
  const session = await page.context().newCDPSession(page);
  await session.send('Emulation.setCPUThrottlingRate', { rate: slower });
  await page.goto(address, { waitUntil: 'commit' });
  await page.waitForFunction(() => document.activeElement?.matches('.counter-asks .line-input'));
  // In focus and with nothing left to do: what is typed now is taken at once.
  const ready = await page.evaluate(
    () => new Promise<number>((resolve) => requestIdleCallback(() => resolve(performance.now()))),
  );
  const before = await page.evaluate(() => performance.now());
  await page.keyboard.insertText('66 1/2');
  await page.waitForSelector('.copy-text.is-large');
  const after = await page.evaluate(() => performance.now());
  return { ready, answer: after - before };
}

/**
 * Script time of every frame of a drag of four seconds, by the browser's own trace of what ran on the page's main
 * thread.
 */
async function benchDrag(page: Page, stage: string): Promise<void> {
  const box = (await page.locator('[data-station="alt"] .pulley-disc').first().boundingBox())!;
  const [x, y] = [box.x + box.width / 2, box.y + box.height / 2];
  const session = await page.context().newCDPSession(page);
  await page.mouse.move(x, y);
  await page.mouse.down();
  for (let k = 0; k < 60; k += 1) await page.mouse.move(x + 20 * Math.sin(k / 10), y + 15 * Math.cos(k / 10));
  const events: {
    name: string;
    ph: string;
    dur?: number;
    ts: number;
    tid: number;
    pid: number;
    args: Record<string, unknown>;
  }[] = [];
  session.on('Tracing.dataCollected', ({ value }) => events.push(...(value as unknown as typeof events)));
  const done = new Promise((resolve) => session.once('Tracing.tracingComplete', resolve));
  await session.send('Tracing.start', {
    transferMode: 'ReportEvents',
    traceConfig: { includedCategories: ['devtools.timeline', 'disabled-by-default-devtools.timeline'] },
  });
  const from = Date.now();
  let k = 60;
  while (Date.now() - from < 4000) {
    await page.mouse.move(x + 20 * Math.sin(k / 10), y + 15 * Math.cos(k / 10));
    k += 1;
  }
  await session.send('Tracing.end');
  await done;
  await page.mouse.up();
  const frames = events
    .filter(({ name, dur }) => name === 'FireAnimationFrame' && dur !== undefined)
    .map(({ dur }) => dur! / 1000);
  print(
    `Drag, 10 pulleys, ${stage}: script in each frame (${frames.length} frames)`,
    spread(frames, 'ms', 1, 0.95),
    'median 4 ms, 95th 8',
  );
}

const asked = process.argv.slice(2);
const wanted = (...names: string[]) => asked.length === 0 || names.some((name) => asked.includes(name));

/** The parts in their order; `page` is a part of `server` that can be asked for alone. */
const PARTS: Record<string, () => void | Promise<void>> = {
  solve: benchSolve,
  survey: benchSurvey,
  picture: benchPicture,
  size: benchSize,
  tries: benchTries,
  routes: benchRoutes,
  speeds: benchSpeeds,
  tension: benchTension,
  align: benchAlign,
  noise: benchNoise,
  inspect: benchInspect,
  job: benchJob,
  'command-line': benchCommandLine,
};
const NAMES = [...Object.keys(PARTS), 'server', 'page', 'records', 'together'];
for (const name of asked) if (!NAMES.includes(name)) throw new Error(`no part ${name}; there are ${NAMES.join(', ')}`);
for (const [name, run] of Object.entries(PARTS)) if (wanted(name)) await run();
if (wanted('server', 'page', 'records', 'together')) await benchServers();

/** The command line, built, by the processor time of the whole process. */
async function benchCommandLine(): Promise<void> {
  await buildCommandLine();
  const file = fileURLToPath(new URL('../demo/1-rescue-truck.emery.json', import.meta.url));
  const args = [path.join(ROOT, 'scripts', 'emery.mjs'), 'solve', file];
  const times = Array.from({ length: 8 }, () => processorTime(args));
  print('Command line, solve of the demo truck, processor time', spread(times, 's', 2), '0.4 s');
}

/** User and system seconds of a Node process, as the kernel has them of a parent's ended children. */
function processorTime(args: readonly string[]): number {
  const probe = `const { spawnSync } = require('node:child_process');
    spawnSync(process.execPath, ${JSON.stringify(args)}, { stdio: 'ignore' });
    const stat = require('node:fs').readFileSync('/proc/self/stat', 'utf8').split(') ')[1].split(' ');
    process.stdout.write(String((Number(stat[13]) + Number(stat[14])) / 100));`;
  return Number(spawnSync(process.execPath, ['-e', probe], { encoding: 'utf8' }).stdout);
}

/** Fifty devices on twenty drives, two changes a second each. */
async function benchTogether(address: string): Promise<void> {
  const figures = await loadTogether(address, drive);
  print(
    `${figures.changes} changes by 50 devices on 20 drives, to the other device`,
    spread(figures.delays, 'ms'),
    '1000 ms',
  );
  print('  until it is acknowledged', spread(figures.acknowledged, 'ms'));
  print('  bytes of a change as it is sent', `${figures.patchBytes} B`, '1000 B');
  print('  bytes that another device hears of a change', `${Math.round(figures.heardBytes)} B`);
  print('  bytes to a device that shows no drive', `${Math.round(figures.idleBytes)} B/s`);
}

async function benchServers(): Promise<void> {
  const folder = mkdtempSync(path.join(tmpdir(), 'emery-bench-'));
  const database = await openDatabase(folder);
  const serve = (name: string, webFolder?: string) =>
    startServer({ databaseUrl: database.url(name), port: 0, webFolder, logs: undefined, shop: 'empty' });
  const addressOf = ({ port }: { port: number }) => `http://127.0.0.1:${port}`;
  if (wanted('server')) {
    await fillShop(database.url('emery_bench_large'), LARGE, drive);
    const large = await serve('emery_bench_large');
    await benchLarge(addressOf(large));
    await large.stop();
  }
  if (wanted('records')) {
    // Three entries to a drive, four drives to a vehicle: 5,000 vehicles.
    await fillShop(database.url('emery_bench_records'), 20_000, drive, 2);
    const old = await serve('emery_bench_records');
    await benchRecords(addressOf(old));
    await old.stop();
  }
  if (wanted('together')) {
    const shared = await serve('emery_bench_together');
    await benchTogether(addressOf(shared));
    await shared.stop();
  }
  if (!wanted('server', 'page')) {
    await database.close();
    return;
  }
  const server = await serve('emery_bench', await buildInterface());
  const browser = await chromium.launch({
    executablePath: findProgram('chromium') ?? '/usr/bin/chromium',
    args: ['--no-sandbox', '--disable-background-networking', '--disable-component-update', '--disable-sync'],
  });
  try {
    if (wanted('server')) await benchServer(addressOf(server));
    await benchPage(browser, addressOf(server));
  } finally {
    await browser.close();
    await server.stop();
    await database.close();
    rmSync(folder, { recursive: true, force: true, maxRetries: 20, retryDelay: 250 });
  }
}

/** First loads, and a drag of one of ten pulleys at every stage where pulleys can be dragged. */
async function benchPage(browser: Browser, address: string): Promise<void> {
  const post = async (where: string, body: object) => {
    const response = await fetch(`${address}/api${where}`, {
      method: 'POST',
      headers: { 'content-type': 'application/json' },
      body: JSON.stringify(body),
    });
    if (response.status !== 201) throw new Error(await response.text());
    return (await response.json()) as { id: string };
  };
  const slot = { kind: 'slot-pivot' as const, pivot: { x: 260, y: 330 }, inAngle: 170, outAngle: 100 };
  const stations = drive.stations.map((s) => (s.id === 'alt' ? { ...s, adjuster: slot } : s));
  const vehicle = await post('/vehicles', { name: 'Bench truck' });
  const { id } = await post('/drives', { vehicleId: vehicle.id, document: { ...drive, stations } });
  const newPage = async () => (await browser.newContext({ viewport: { width: 1280, height: 800 } })).newPage();
  const size = (bytes: number) => `${Math.round(bytes / 1000)} kB`;
  for (const [what, where, limit] of [
    ['counter', '/counter', 200],
    ['shop', '/', 371],
    ['bench', `/drives/${id}`, 420],
  ] as const) {
    const { first, all } = await transferred(await newPage(), `${address}${where}`);
    print(`First load of the ${what}, fonts included, compressed`, size(first), `${limit} kB`);
    print('  with all other parts, fetched once it is idle', size(all));
  }
  const ready: number[] = [];
  const answers: number[] = [];
  for (let k = 0; k < 7; k += 1) {
    const page = await newPage();
    const answered = await untilAnswered(page, `${address}/counter`, 4);
    ready.push(answered.ready);
    answers.push(answered.answer);
    await page.close();
  }
  print('Counter ready for its first reading, processor 4 times slower', spread(ready), '1500 ms');
  print('  from the last letter to the belt to ask for', spread(answers));
  for (const stage of ['survey', 'route', 'size']) {
    const page = await newPage();
    await page.goto(`${address}/drives/${id}/${stage}`);
    await page.waitForSelector('.pulley');
    await page.waitForTimeout(4000);
    await benchDrag(page, stage);
    await page.close();
  }
}
