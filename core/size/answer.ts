import type { Drive } from '../drive/types';
import { fitSurvey } from '../survey/fit';
import { doubtOf, type Doubt } from './doubt';
import { sizeBelt, type Candidate, type SizeFinding, type SizeOptions, type Window } from './size';

/** The answer to which belt to bring home, as plain data. */
export interface SizeAnswer {
  window: Window;
  candidates: (Candidate & { chance: number })[];
  findings: SizeFinding[];
  lastOn: { pulley: string; needsMm: number } | null;
  /** Path length against what the adjuster reads, from its slack end; `sigma` is one standard deviation of the path, mm. */
  curve: { share: number; reading: number; lengthMm: number; sigma: number }[];
  reads: 'armAngle' | 'travel' | null;
  kind: string | null;
  marks: { short: number; long: number } | null;
  /** Where the adjuster stands now, as a share of its travel. */
  now: number | null;
  /** By place in `candidates`: the one to bring home, and the two of which one surely fits. */
  best: number | null;
  pair: Doubt['pair'];
}

/** Sizes a belt, with the chance of each length. Null where the drive has no such belt. */
export function answerFor(drive: Drive, beltId: string, options: SizeOptions & { draws?: number; onProgress?: (share: number) => void } = {}): SizeAnswer | null {
  const sizing = sizeBelt(drive, beltId, options);
  const belt = drive.belts.find(({ id }) => id === beltId);
  if (!sizing || !belt) return null;
  const measured = (drive.survey?.readings?.length ?? 0) + (drive.survey?.photos?.length ?? 0) > 0;
  const fit = measured ? fitSurvey(drive, drive.survey?.readings ?? []) : null;
  const doubt = doubtOf(drive, belt, sizing, { fit, ...(options.draws !== undefined && { draws: options.draws }), ...(options.onProgress && { onProgress: options.onProgress }) });
  const { curve } = sizing;
  const points = curve ? curve.lengths.length - 1 : 0;
  const candidates = sizing.candidates.map((candidate, k) => ({ ...candidate, chance: doubt.chances[k] ?? 0 }));
  return {
    window: sizing.window,
    candidates,
    findings: sizing.findings,
    lastOn: sizing.lastOn,
    curve: (curve?.lengths ?? []).flatMap((lengthMm, k) => (lengthMm === null ? [] : [{ share: k / points, reading: curve!.travel.readingAt(k / points), lengthMm, sigma: doubt.spread[k] ?? 0 }])),
    reads: curve?.travel.reads ?? null,
    kind: curve?.travel.kind ?? null,
    marks: curve?.travel.marks ?? null,
    now: curve?.travel.now ?? null,
    best: bestOf(candidates),
    pair: doubt.pair,
  };
}

/** A belt that fits, surely, with reserve enough and none of the travel wasted: most chance first, then no finding, then the shorter one, which lasts longer. */
function bestOf(candidates: readonly (Candidate & { chance: number })[]): number | null {
  const fitting = candidates.map((candidate, k) => ({ candidate, k })).filter(({ candidate }) => candidate.verdict === 'fits');
  if (fitting.length === 0) return null;
  const worth = ({ candidate: { chance, findings } }: (typeof fitting)[number]) => Math.round(chance * 20) / 20 - 0.3 * findings.length;
  return fitting.reduce((best, next) => (worth(next) > worth(best) + 1e-9 ? next : best)).k;
}
