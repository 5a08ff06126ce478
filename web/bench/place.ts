import type { Mark } from '../state/mark';
import { type Drive, stationOf } from '@emery/core/drive';

/** What is in hand, as part of the bench's address: `?on=` and the pulley's id. Spans and obstacles are not named. */
export const placeOf = (mark: Mark | null): string =>
  mark?.kind === 'pulley' ? `?on=${encodeURIComponent(mark.pulley)}` : '';

/** What such an address has in hand; null for none, or for a pulley that the drive no longer has. */
export function markOfPlace(search: string, drive: Drive): Mark | null {
  const pulley = new URLSearchParams(search).get('on');
  const station = pulley === null ? null : stationOf(drive, pulley);
  return pulley !== null && station ? { kind: 'pulley', station: station.id, pulley } : null;
}
