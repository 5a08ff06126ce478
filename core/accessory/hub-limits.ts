import type { Role, Station } from '../drive';

/**
 * What the bearings of an accessory bear, N, where its maker's figure is not known. Round figures by role, shown as
 * defaults; never a unit's specification.
 */
export const DEFAULT_HUB_LIMITS: Partial<Record<Role, number>> = {
  alternator: 2200,
  generator: 2500,
  'water-pump': 1800,
  'power-steering': 1800,
  'ac-compressor': 2500,
  fan: 1800,
  'air-pump': 1500,
  supercharger: 2500,
  'vacuum-pump': 1500,
  idler: 2000,
  tensioner: 2000,
  jackshaft: 4000,
  other: 1500,
};

export type LimitOf = (station: Station) => number | undefined;
/** The limits that a drive gives, and no default. */
export const writtenLimit: LimitOf = ({ hubLoadLimit }) => hubLoadLimit;
/** The same, with Emery's default for the role where there is none. */
export const limitOrDefault: LimitOf = ({ hubLoadLimit, role }) => hubLoadLimit ?? DEFAULT_HUB_LIMITS[role];
