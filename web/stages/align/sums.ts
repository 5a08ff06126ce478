import { once } from '../../state/once';
import { useBench, useSelected } from '../../state/bench';
import { type ReadingPlace, type Tried, useAlign } from './AlignProvider';
import { alignFindings, type NextReading, nextLoadedReadings, nextReadings, shiftOf } from '@emery/core/align';
import type { Belt, Drive } from '@emery/core/drive';
import type { BeltSolution } from '@emery/core/path';
import { type Alignment, alignmentOf, datumOf, type Shift } from '@emery/core/planes';

const alignmentFor = once((drive: Drive, solution: BeltSolution) =>
  alignmentOf(drive, solution.id, { set: 'rest', solution }),
);
const afterMoves = once((drive: Drive, solution: BeltSolution, moves: Tried['moves']) =>
  alignmentOf(drive, solution.id, { shifts: moves.map((move): Shift => shiftOf(move)), solution }),
);
const suggestedFor = once((drive: Drive, alignment: Alignment, loaded: boolean): readonly Suggested[] =>
  loaded ? nextLoadedReadings(drive, alignment) : nextReadings(drive, alignment),
);
const findingsFor = once((drive: Drive, belt: Belt, alignment: Alignment | null) =>
  alignFindings(drive, belt, alignment),
);

export interface AlignSums {
  drive: Drive;
  belt: Belt | undefined;
  /** As it is; null where no belt can lie on the route. */
  alignment: Alignment | null;
  /** As the moves that are tried would leave it, where some are. */
  after: Alignment | null;
}

/** How the belt in hand lies, and how it would lie with the moves that are tried. */
export function useAlignSums(): AlignSums {
  const { drive, belt: solution } = useBench('drive', 'belt');
  const { tried } = useAlign();
  const belt = drive.belts.find(({ id }) => id === solution?.id);
  const alignment = solution ? alignmentFor(drive, solution) : null;
  const moves = solution && tried?.drive === drive && tried.belt === solution.id ? tried.moves : null;
  const after = solution && moves ? afterMoves(drive, solution, moves) : null;
  return { drive, belt, alignment, after };
}

/** A reading that would tell something; by how much, where that is known. */
export type Suggested = Pick<NextReading, 'pulley' | 'at'> & Partial<NextReading>;

/**
 * Where the next reading is taken: of the pulley in hand, or the one that tells most, where it was chosen or tells most
 * there. Null where no belt can lie on the route.
 */
export function useReadingPlace(): { place: ReadingPlace | null; suggested: Suggested | null } {
  const { drive, alignment } = useAlignSums();
  const { place, loaded } = useAlign();
  const selected = useSelected();
  const next = alignment ? suggestedFor(drive, alignment, loaded) : [];
  const suggested = next[0] ?? null;
  if (!alignment) return { place: null, suggested };
  const { route, id } = alignment.belt;
  const held = selected?.kind === 'pulley' && route.find(({ pulley }) => pulley === selected.pulley)?.pulley;
  const datum = datumOf(drive, id);
  const pulley = held || place?.pulley || suggested?.pulley || route.find((stop) => stop.pulley !== datum)!.pulley;
  if (place?.pulley === pulley) return { place, suggested };
  return { place: { pulley, at: next.find((place) => place.pulley === pulley)?.at ?? 90 }, suggested };
}

const NO_FINDINGS: ReturnType<typeof findingsFor> = [];

/** What is to be said of how the belt lies. */
export function useAlignFindings() {
  const { drive, belt, alignment } = useAlignSums();
  return belt ? findingsFor(drive, belt, alignment) : NO_FINDINGS;
}
