import { type Drive, pulleyLabel } from '../drive';
import { formatLength, type LengthUnit } from '../quantity';
import type { RouteReason } from './search';

/** One reason for a route's rank, as part of a line. */
export function routeReason(drive: Drive, { code, pulley, figures }: RouteReason, unit: LengthUnit = 'mm'): string {
  const name = pulley === undefined ? '' : pulleyLabel(drive, pulley);
  const wrap = `${Math.round(figures?.['wrapDeg'] ?? 0)}°`;
  switch (code) {
    case 'wrap-good':
      return `enough wrap everywhere, least at ${name}: ${wrap}`;
    case 'wrap-low':
      return `${name} has only ${wrap} of wrap`;
    case 'tensioner-slack':
      return `${name} on the slack span just after the crank`;
    case 'tensioner-elsewhere':
      return `${name} not on the slack span after the crank`;
    case 'clear':
      return `the belt clears all${(figures?.['besides'] ?? 0) > 0 ? ' else' : ''} by ${formatLength(figures?.['roomMm'] ?? 0, unit, 0)} or more`;
    case 'close':
      return (figures?.['roomMm'] ?? 0) < 0
        ? 'the belt rubs on a pulley or on itself'
        : `the belt passes ${formatLength(figures?.['roomMm'] ?? 0, unit, 0)} from a pulley or from itself`;
    case 'only-without':
      return `only with ${name} taken off the engine: the belt runs ${formatLength(Math.abs(figures?.['roomMm'] ?? 0), unit, 0)} through it`;
    case 'left-off':
      return `${name} left off`;
    case 'cannot-turn':
      return `${name} left off: this belt would turn it the wrong way`;
    case 'drive-side-smooth':
      return `${name} has to run on the belt's drive side, which wears it`;
  }
}
