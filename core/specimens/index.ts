/** One or more of each finding there is, for pages and tests that show every sentence. */
import { type AlignFinding, alignWords } from '../align';
import { type CounterFinding, counterWords } from '../counter';
import type { Drive } from '../drive';
import type { Finding, FindingWords } from '../finding';
import { type InspectTold, inspectWords } from '../inspect';
import { type JobFinding, jobWords } from '../job';
import { type NoiseFinding, noiseWords } from '../noise';
import { findingWords, type PathFinding } from '../path';
import type { LengthUnit } from '../quantity';
import type { SizeFinding } from '../seating';
import { sizeWords } from '../size';
import { type SpeedFinding, speedWords } from '../speeds';
import { type SurveyFinding, surveyWords } from '../survey';
import { type PhotoFinding, photoWords } from '../survey/photo';
import { type TensionFinding, tensionWords } from '../tension';

/** Each code of a folder with what its sentences may be told of: a code left out does not compile. */
type Specimens<F extends Finding> = {
  readonly [Code in F['code']]: readonly Omit<Extract<F, { code: Code }>, 'code' | 'severity'>[];
};

export interface Specimen {
  kind: string;
  code: string;
  words: (unit: LengthUnit) => FindingWords;
}

const NOTHING = [{}];

/** Where specimens lie: two pulleys of a drive, the span between them, a belt, readings and a picture. */
interface Places {
  pulley: string;
  other: string;
  at: { pulley: string };
  both: { pulley: string; other: string };
  span: { from: string; to: string };
  belt: string;
  onBelt: { belt: string };
  reading: { id: string };
  second: { id: string };
  inPicture: { photo: string };
}

function placesOf(drive: Drive): Places {
  const [pulley, other] = drive.stations.map(({ pulleys }) => pulleys[0]!.id) as [string, string];
  const belt = drive.belts.at(-1)!.id;
  const [reading = { id: 'r' }, second = reading] = drive.survey?.readings ?? [];
  return {
    ...{ pulley, other, belt, reading, second },
    at: { pulley },
    both: { pulley, other },
    span: { from: pulley, to: other },
    onBelt: { belt },
    inPicture: { photo: drive.survey?.photos?.[0]?.id ?? 'p' },
  };
}

/** Every finding, told of two pulleys and a belt of `drive`. Figures are made up. */
export function specimensOf(drive: Drive): Specimen[] {
  const places = placesOf(drive);
  return [
    ...toldOf('path', pathSpecimens(places), (finding, unit) => findingWords(drive, finding, unit)),
    ...toldOf('survey', surveySpecimens(places), (finding, unit) => surveyWords(drive, finding, unit)),
    ...toldOf('picture', pictureSpecimens(places), (finding, unit) => photoWords(drive, finding, unit)),
    ...toldOf('size', sizeSpecimens(), sizeWords),
    ...toldOf('speeds', speedsSpecimens(places), (finding, unit) => speedWords(drive, finding, unit)),
    ...toldOf('tension', tensionSpecimens(places), (finding) => tensionWords(drive, finding)),
    ...toldOf('align', alignSpecimens(places), (finding, unit) => alignWords(drive, finding, unit)),
    ...toldOf('inspect', inspectSpecimens(places), (finding, unit) => inspectWords(drive, finding, unit)),
    ...toldOf('noise', noiseSpecimens(places), (finding) => noiseWords(drive, finding)),
    ...toldOf('job', jobSpecimens(places), (finding) => jobWords(drive, finding)),
    ...toldOf('counter', counterSpecimens(), counterWords),
  ];
}

function toldOf<F extends Finding>(
  kind: string,
  specimens: Specimens<F>,
  words: (finding: F, unit: LengthUnit) => FindingWords,
): Specimen[] {
  return (Object.entries(specimens) as [F['code'], readonly object[]][]).flatMap(([code, each]) =>
    each.map((specimen) => ({
      kind,
      code,
      // The type of `specimens` ties what stands under a code to that code's own finding.
      words: (unit: LengthUnit) => words({ ...specimen, code, severity: 'watch' } as unknown as F, unit),
    })),
  );
}

const pathSpecimens = ({ at, both, span }: Places): Specimens<PathFinding> => ({
  'no-route': NOTHING,
  'one-pulley': [at],
  'pulley-twice': [at],
  'no-size': [{ ...at, figures: { diameterMm: 0 } }],
  'absurd-size': [{ ...at, figures: { mostMm: 100_000 } }],
  'doubtful-size': [{ ...at, figures: { diameterMm: 6.5 } }],
  'same-centre': [both],
  'circles-overlap': [{ ...both, figures: { overlapMm: 3.25 } }],
  'no-room': [{ span, figures: { distanceMm: 80, neededMm: 96.5 } }],
  'not-closed': [
    { ...at, figures: { turns: 0, cure: 'flip' } },
    { ...at, figures: { turns: 2, cure: 'remove' } },
    { ...at, figures: { turns: 2, cure: 'none' } },
    { figures: { turns: 0, cure: 'reverse' } },
  ],
  'crosses-itself': [{ ...both, span }, at],
  'span-through-pulley': [{ ...at, span, figures: { depthMm: 12 } }],
  'span-rubs': [
    { ...at, span, figures: { clearanceMm: -1 } },
    { ...both, figures: { clearanceMm: -1 } },
  ],
  'strands-rub': [
    { ...both, span, figures: { clearanceMm: -1.5, rubMm: 1.5 } },
    { ...both, figures: { clearanceMm: -1.5, rubMm: 1.5 } },
    { ...at, span, figures: { clearanceMm: -1.5, rubMm: 1.5 } },
  ],
  'low-wrap': [
    { ...at, figures: { wrapDeg: 88.4, leastDeg: 120 } },
    { ...at, figures: { wrapDeg: 4.4, leastDeg: 90 } },
  ],
  'wrong-surface': [
    { ...at, figures: { side: 'back', surface: 'ribbed', wanted: 'smooth' } },
    { ...at, figures: { side: 'drive', surface: 'vee', wanted: 'toothed' } },
  ],
  'wrong-way-round': [{ ...at, figures: { turns: 'cw', requires: 'ccw' } }],
  fights: [{ ...at, figures: { way: 'cw' } }],
  'ratios-fight': [
    { ...at, figures: { percent: -1.25 } },
    { ...at, figures: { percent: 1.25 } },
  ],
  'rib-count': [{ ...at, figures: { ribs: 6, grooves: 5 } }],
  'grooves-unknown': [at],
  'planes-apart': [{ ...at, span, figures: { offsetMm: 4.2, angleDeg: 0.8 } }],
  'no-crank': NOTHING,
  'second-crank': [at],
  'not-driven': NOTHING,
  'hits-obstacle': [
    { obstacle: 'o', span, figures: { depthMm: 7 } },
    { obstacle: 'o', ...at, figures: { depthMm: 7 } },
  ],
  'near-obstacle': [
    { obstacle: 'o', span, figures: { clearanceMm: 2.5 } },
    { obstacle: 'o', ...at, figures: { clearanceMm: 2.5 } },
  ],
});

const SUSPECT = { value: 612, shouldBe: 586.5 };

const surveySpecimens = ({ pulley, other, at, reading, second }: Places): Specimens<SurveyFinding> => ({
  'no-readings': NOTHING,
  undetermined: [at],
  suspect: [
    { reading: reading.id, figures: SUSPECT },
    ...(
      [
        ...(['inch', 'foot', 'centimetre', 'decimetre', 'unit', 'rim-missed', 'radius', 'centres'] as const),
        ...(['far-rims', 'near-rims', 'sign', 'turned-about'] as const),
      ] as const
    ).map((slip) => ({ reading: reading.id, figures: { ...SUSPECT, slip } })),
  ],
  contradictory: [{ readings: [reading.id, second.id], diameters: [pulley], circles: [other] }],
  disagree: [{ figures: { factor: 2.4 } }],
  unchecked: NOTHING,
  mirrored: [{ ...at, figures: { x: 120, y: -45.5 } }],
  'two-ways': [{ ...at, figures: { deg: 48, x: 120, y: -45.5 } }],
  'circle-suspect': [{ ...at, figures: { off: 14 } }],
  'diameter-suspect': [
    { ...at, figures: { off: 5 } },
    { ...at, figures: { off: -5 } },
  ],
});

const pictureSpecimens = ({ pulley, other, at, inPicture }: Places): Specimens<PhotoFinding> => ({
  'no-rims': [inPicture],
  'few-points': [{ ...inPicture, ...at, figures: { points: 3 } }],
  'no-known-diameter': [inPicture],
  'no-camera': [inPicture],
  'scale-unchecked': [{ ...inPicture, ...at }],
  'known-disagrees': [{ ...inPicture, ...at, figures: { given: 150, seen: 142 } }],
  'knowns-differ': [{ ...inPicture, pulleys: [pulley, other] }],
  'middle-guessed': [inPicture],
  steep: [{ ...inPicture, figures: { tilt: 31 } }],
  'point-off': [
    { ...inPicture, ...at, figures: { points: 1 } },
    { ...inPicture, ...at, figures: { points: 2 } },
  ],
  'either-tilt': [{ ...inPicture, figures: { tilt: 12, mm: 6.5 } }],
  'depth-guessed': [{ ...inPicture, figures: { distance: 900 } }],
});

const SETTING = { tensionN: 940, setN: 520 };

const LABEL = { what: 'label', lengthMm: 1805, chance: 0.62 } as const;

const sizeSpecimens = (): Specimens<SizeFinding> => ({
  'no-adjuster': [{ figures: { lengthMm: 1805 } }, { figures: { lengthMm: 0 } }],
  'no-path': NOTHING,
  'past-best-push': [{ figures: { at: 12.5, lengthMm: 1820 } }],
  'lets-go': [{ figures: { at: 74, lengthMm: 1820 } }],
  'window-outside': NOTHING,
  'marks-swapped': NOTHING,
  'past-end': [{ figures: { at: 12.5 } }],
  'past-mark': [{ figures: { at: 12.5, long: 1 } }, { figures: { at: 2, long: 0 } }],
  'little-reserve': [{ figures: { reserveMm: 3, wantedMm: 9 } }],
  'uses-most': [{ figures: { share: 0.72 } }],
  'over-shaft': [{ figures: { ...SETTING, byLoads: 1, limitN: 1600 } }],
  'over-setting': [{ figures: { ...SETTING, byLoads: 1 } }, { figures: { ...SETTING, byLoads: 0 } }],
  'under-setting': [{ figures: { ...SETTING, byLoads: 1 } }, { figures: { ...SETTING, byLoads: 0 } }],
  'two-adjusters': NOTHING,
  'tried-unread': [{ figures: { marking: '4-271', section: 'PK' } }],
  'tried-contradicts': [
    { figures: { ...LABEL, or: null } },
    { figures: { ...LABEL, or: { what: 'drawing', lengthMm: 0, chance: 0.3 } } },
    { figures: { what: 'measurement', lengthMm: 0, chance: 0.7, or: LABEL } },
  ],
});

const speedsSpecimens = ({ at, onBelt }: Places): Specimens<SpeedFinding> => ({
  'belt-too-fast': [{ ...onBelt, figures: { metresPerSecond: 62, limit: 50, rpm: 6500 } }],
  'flexes-too-often': [{ ...onBelt, figures: { flexPerSecond: 140, limit: 100, rpm: 6500 } }],
  'bend-too-tight': [{ ...onBelt, ...at, figures: { diameterMm: 38, limit: 45 } }],
  'two-ratios': [{ ...onBelt, ...at, figures: { percent: -1.25 } }],
  'two-ways': [{ ...onBelt, ...at }],
});

const OUTSIDE = { tensionN: 410, leastN: 520, mostN: 380, byN: 110 };

function tensionSpecimens({ at, both, span }: Places): Specimens<TensionFinding> {
  const margin = (share: number) => ({ ...at, figures: { margin: share, rpm: 5800 } });
  return {
    'no-path': NOTHING,
    'not-driven': NOTHING,
    'no-place': [{ figures: { lengthMm: 1805 } }],
    'marked-misfit': [{ figures: { lengthMm: 1805, long: 1 } }, { figures: { lengthMm: 1605, long: 0 } }],
    'hangs-loose': [{ figures: { lengthMm: 1805 } }],
    'default-tension': [{ figures: { tensionN: 410 } }],
    slips: [margin(-0.2), margin(-1)],
    'little-margin': [margin(0.12)],
    'slack-side': [{ ...at, span, figures: { effectiveN: -25, rpm: 5800 } }],
    'too-much-load': [
      { ...at, figures: { loadN: 2100, limit: 1600, rpm: 750, written: 0 } },
      { ...at, figures: { loadN: 2100, limit: 1600, rpm: 750, written: 1 } },
    ],
    'few-teeth': [{ ...at, figures: { teeth: 4.2, least: 6 } }],
    jumps: [{ ...at, figures: { effectiveN: -4, rpm: 5800 } }],
    'window-empty': [{ ...both, figures: OUTSIDE }],
    'no-tension-holds': [at],
    'below-window': [{ ...at, figures: OUTSIDE }],
    'above-window': [{ ...at, figures: OUTSIDE }],
  };
}

function alignSpecimens({ at, both, other, pulley, span }: Places): Specimens<AlignFinding> {
  const run = (read: number) => ({ ...at, span, figures: { deg: 1.24, plusMinusDeg: 0.2, limitDeg: 0.5, read } });
  const slip = { ...at, figures: { mm: 1.2, meantMm: -2.36 } };
  return {
    'no-path': NOTHING,
    'few-guides': NOTHING,
    'not-read': [
      { ...at, pulleys: [pulley] },
      { ...at, pulleys: [pulley, other] },
    ],
    'run-wrong': [run(1), run(0)],
    'run-watch': [run(1), run(0)],
    'rib-off': [
      { ...at, figures: { ribs: 1 } },
      { ...at, figures: { ribs: -2 } },
    ],
    'stands-a-rib-off': [
      { ...at, figures: { ribs: 1, free: 1 } },
      { ...at, figures: { ribs: -1, free: 1 } },
      { ...at, figures: { ribs: -1, free: 0 } },
    ],
    'hangs-over': [
      { ...at, figures: { off: -1, grooves: 6 } },
      { ...at, figures: { off: 1, grooves: 6 } },
    ],
    'groove-not-there': [at],
    'wrong-rib': [slip],
    'other-side': [slip],
    'inch-for-mm': [slip],
    'readings-disagree': [{ ...at, figures: { apartMm: 3.4 } }],
    'straightedge-short': [at],
    'load-by-hand': [at],
    'simulated-mixed': [at],
    wobbles: [{ ...at, figures: { runOutMm: 0.6 } }],
    steers: [
      { ...at, figures: { steersDeg: 0.4, trackMm: 2, arm: 1 } },
      { ...at, figures: { steersDeg: -0.4, trackMm: -2, arm: 0 } },
    ],
    'track-differs': [{ ...at, figures: { seenMm: -1, trackMm: 2, arm: 0 } }],
    'moved-under-load': [
      { ...at, figures: { movedMm: 0.8, tiltDeg: 0.3, suspect: 'bracket', or: 'bearing' } },
      { ...at, figures: { movedMm: -0.8, tiltDeg: 0.3, suspect: 'hub-ring', or: '' } },
    ],
    'no-cure': [{ figures: { deg: 1.24 } }],
    'only-watch': [{ figures: { deg: 0.7 } }],
    'plan-stopped': NOTHING,
    'stacks-apart': [{ ...both, figures: { apartMm: 2.6, plusMinusMm: 0.4 } }],
    'piece-without-depth': [{ ...at, figures: { piece: 'Pump hub' } }],
    'too-many-sets': [{ figures: { count: 2_400_000 } }],
  };
}

const ODD = { value: 9, from: 0, to: 4 };
const LIFE = { distance: 96_000, unit: 'km' };

const inspectSpecimens = ({ pulley, other, at, onBelt }: Places): Specimens<InspectTold> => ({
  'no-parts': NOTHING,
  'nothing-looked-at': NOTHING,
  'stop-wobble': [{ ...at, figures: { mm: 1.4 } }],
  'cracks-blind': [onBelt],
  'depth-and-profile': [onBelt],
  rocks: [{ ...at, figures: { mm: 0.4 } }],
  repeats: [
    { ...at, ...onBelt, figures: { turnMm: 410, byChance: 0.02 } },
    { ...at, ...onBelt, figures: { turnMm: 410, byChance: 0.0001 } },
  ],
  'one-reading': [
    { ...onBelt, figures: { ...LIFE, from: 'default', left: 12_000 } },
    { ...onBelt, figures: { ...LIFE, from: 'manual', left: -400 } },
    { ...onBelt, figures: { ...LIFE, from: 'shop' } },
  ],
  'no-wear': [onBelt],
  'odometer-doubted': [{ ...onBelt, figures: { odometer: 1_112_000, before: 111_000 } }],
  'uneven-wear': [onBelt],
  'sprang-back': [{ ...onBelt, figures: { before: 2 } }],
  'far-end-open': [onBelt],
  outlived: [{ ...onBelt, figures: { ...LIFE, over: 4000 } }],
  aged: [{ ...onBelt, figures: { years: 7 } }],
  'wear-bends': [
    { ...onBelt, figures: { power: 1.6 } },
    { ...onBelt, figures: { power: 0.7 } },
  ],
  'odd-figure': [
    { ...onBelt, figures: { check: 'rib-depth', ...ODD } },
    { ...at, figures: { check: 'run-out', ...ODD, condemns: 1 } },
  ],
  'ask-kind': [at],
  'change-with-arm': [
    { ...onBelt, ...at, figures: { offered: 1 } },
    { ...onBelt, ...at, figures: { offered: 0 } },
  ],
  'change-with-idler': [{ ...onBelt, pulleys: [pulley, other], figures: { offered: 0 } }],
  'change-pair': [{ ...onBelt, figures: { offered: 0 } }],
  'cure-oil': [onBelt],
  'cure-line': [onBelt, { ...at, figures: { arm: 1 } }, { ...at, figures: { arm: 0 } }],
  'cure-slip': [onBelt],
  'cure-chunks': [onBelt],
  'cure-grooves': ['dent', 'paint', 'grit'].map((outcome) => ({ ...at, figures: { outcome } })),
  'cure-arm': [at],
  'cure-bearing': [at],
});

function noiseSpecimens({ pulley, other, at, belt, onBelt }: Places): Specimens<NoiseFinding> {
  const cause = { cause: 'misaligned', id: other } as const;
  return {
    'no-route': NOTHING,
    'only-priors': NOTHING,
    leads: [{ figures: { ...cause, chance: 0.72 } }, { figures: { ...cause, chance: 0.72, part: 0.4 } }],
    open: [{ figures: { chance: 0.21 } }],
    'not-the-drive': [{ figures: { chance: 0.6 } }],
    'hub-stop': [at],
    'rib-stop': [at],
    contradicts: [
      { ...at, figures: { test: 'wobble' } },
      { ...onBelt, figures: { test: 'surface' } },
      { figures: { test: 'water' } },
    ],
    'unknown-test': [{ figures: { test: 'of-tomorrow' } }, { figures: { test: '' } }],
    simulated: NOTHING,
    masked: [onBelt],
    dressed: [onBelt],
    'listen-again': [
      { figures: { ...cause, when: 'soon', at: 112_500 } },
      { figures: { ...cause, id: belt, when: 'now' } },
    ],
    'came-back': [{ figures: cause }],
    'too-short': [{ figures: { seconds: 0.6 } }],
    'nothing-heard': NOTHING,
    'matches-nothing': [{ figures: { hz: 15.2 } }],
    'lie-together': [
      { figures: { first: pulley, second: other, rpm: 1400 } },
      { figures: { first: 'firing', second: belt } },
    ],
    'no-engine': NOTHING,
    'speed-clash': [{ figures: { told: 800, rpm1: 1400, rpm2: 2100 } }],
    'rolling-bearing': [
      { ...at, figures: { chance: 0.61, second: other, secondChance: 0.3 } },
      { ...at, figures: { chance: 0.91 } },
    ],
    'cylinders-default': NOTHING,
  };
}

const jobSpecimens = ({ onBelt }: Places): Specimens<JobFinding> => ({
  'no-belts': NOTHING,
  'no-route': [onBelt],
  tangled: [onBelt],
  'set-apart': [onBelt],
  'no-torque': [{ figures: { bolts: 1 } }, { figures: { bolts: 3 } }],
  'unknown-length': [onBelt],
  'marked-misfit': [
    { ...onBelt, figures: { lengthMm: 1805, verdict: 'out-of-travel' } },
    { ...onBelt, figures: { lengthMm: 1605, verdict: 'will-not-go-on' } },
  ],
});

const counterSpecimens = (): Specimens<CounterFinding> => ({
  'bends-doubtful': [{ figures: { mm: 14 } }],
  'lay-matters': [{ figures: { mm: 12, groove: 1734, rim: 1722 } }],
  'belt-too-short': NOTHING,
  'no-belt-between': NOTHING,
});
