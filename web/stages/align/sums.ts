import { useMemo } from 'react';
import { useBench, useSelected } from '../../state/bench';
import { type ReadingPlace, useAlign } from './AlignProvider';
import { alignFindings, type NextReading, nextLoadedReadings, nextReadings, shiftOf } from '@emery/core/align';
import type { Belt, Drive } from '@emery/core/drive';
import type { BeltSolution } from '@emery/core/path';
import { type Alignment, alignmentOf, datumOf, type ReadingSet, type Shift } from '@emery/core/planes';

/** Each drive is worked out once, whoever asks for it. */
const known = new WeakMap<Drive, Map<string, Alignment | null>>();
function alignmentFor(drive: Drive, solution: BeltSolution, set: ReadingSet): Alignment | null {
  const byBelt = known.get(drive) ?? new Map<string, Alignment | null>();
  known.set(drive, byBelt);
  const key = `${set} ${solution.id}`;
  if (!byBelt.has(key)) byBelt.set(key, alignmentOf(drive, solution.id, { set, solution }));
  return byBelt.get(key)!;
}

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
  const alignment = solution ? alignmentFor(drive, solution, 'rest') : null;
  const after = useMemo(() => {
    if (!tried || !solution || tried.drive !== drive || tried.belt !== solution.id) return null;
    return alignmentOf(drive, solution.id, { shifts: tried.moves.map((move): Shift => shiftOf(move)), solution });
  }, [tried, drive, solution]);
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
  const next = useMemo((): readonly Suggested[] => {
    if (!alignment) return [];
    return loaded ? nextLoadedReadings(drive, alignment) : nextReadings(drive, alignment);
  }, [drive, alignment, loaded]);
  const suggested = next[0] ?? null;
  if (!alignment) return { place: null, suggested };
  const { route, id } = alignment.belt;
  const held = selected?.kind === 'pulley' && route.find(({ pulley }) => pulley === selected.pulley)?.pulley;
  const datum = datumOf(drive, id);
  const pulley = held || place?.pulley || suggested?.pulley || route.find((stop) => stop.pulley !== datum)!.pulley;
  if (place?.pulley === pulley) return { place, suggested };
  return { place: { pulley, at: next.find((place) => place.pulley === pulley)?.at ?? 90 }, suggested };
}

/** What is to be said of how the belt lies. */
export function useAlignFindings() {
  const { drive, belt, alignment } = useAlignSums();
  return useMemo(() => (belt ? alignFindings(drive, belt, alignment) : []), [drive, belt, alignment]);
}
