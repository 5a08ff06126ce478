import { useMemo } from 'react';
import { useBench } from '../../state/bench';
import { useInspect } from './InspectProvider';
import type { Drive } from '@emery/core/drive';
import { type NoRibReading, readMarks, type RibReading } from '@emery/core/inspect/ribs';
import { sectionFor } from '@emery/core/section';

/** From rib to rib of a belt, mm; null for one without ribs. */
export function pitchOfBelt(drive: Drive, beltId: string | undefined): number | null {
  const belt = drive.belts.find(({ id }) => id === beltId);
  const section = belt && sectionFor(belt.section, belt.sectionOverrides);
  return section?.kind === 'ribbed' ? section.width : null;
}

/** What the marks in the close-up come to; null without one. */
export function useCloseUpReading(): RibReading | NoRibReading | null {
  const { drive } = useBench('drive');
  const { closeUp } = useInspect();
  return useMemo(() => {
    const pitch = closeUp && pitchOfBelt(drive, closeUp.belt);
    return pitch ? readMarks(closeUp.marks, pitch) : null;
  }, [drive, closeUp]);
}
