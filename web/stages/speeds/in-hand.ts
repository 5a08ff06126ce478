import type { Mark } from '../../state/mark';
import type { Drive, Station } from '@emery/core/drive';
import type { ShaftSpeed } from '@emery/core/speeds';

/**
 * The shaft that Speeds is about: the one in hand, else what charges, else the first that the crank drives. Null where
 * it drives none.
 */
export function shaftInHand(
  drive: Drive,
  shafts: readonly ShaftSpeed[],
  selected: Mark | null,
): { station: Station; shaft: ShaftSpeed } | null {
  const driven = drive.stations
    .map((station, index) => ({ station, shaft: shafts[index]! }))
    .filter(({ shaft }) => shaft.speedRatio !== null);
  const accessories = driven.filter(({ station }) => station.role !== 'crankshaft');
  const held = selected?.kind === 'pulley' ? driven.find(({ station }) => station.id === selected.station) : undefined;
  return (
    held ??
    accessories.find(({ station }) => station.role === 'alternator' || station.role === 'generator') ??
    accessories[0] ??
    null
  );
}
