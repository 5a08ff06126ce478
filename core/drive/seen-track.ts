import type { SeenTrack } from './align';
import type { Drive } from './drive';
import type { InspectFinding } from './inspect';
import { momentOf } from './moment';

// What has no date is older than what has one.
const time = (date: string | undefined) => momentOf(date) ?? -Infinity;

/** Where the belt's track was last seen on a roller, off the middle of its face, mm: one fact, told in two stages. */
export function seenTrack(
  drive: Drive,
  pulley: string,
): { mm: number; from: 'align'; track: SeenTrack } | { mm: number; from: 'inspect'; finding: InspectFinding } | null {
  const track = drive.align?.tracks?.find((track) => track.pulley === pulley);
  const found = (drive.inspect?.findings ?? []).filter(
    (finding) => finding.check === 'track' && finding.target === pulley && !finding.past && finding.value !== undefined,
  );
  const finding = found.reduce<InspectFinding | undefined>(
    (last, finding) => (last && time(last.at) > time(finding.at) ? last : finding),
    undefined,
  );
  // Of two without a date, an inspection's goes first.
  if (track && (!finding || time(track.date) > time(finding.at))) return { mm: track.mm, from: 'align', track };
  return finding ? { mm: finding.value!, from: 'inspect', finding } : null;
}
