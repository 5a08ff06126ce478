import type { Drive, ShopLimit } from '@emery/core/drive';

/** What the shop holds for every drive, as its row has it. */
export const readLimits = (stored: string | null): readonly ShopLimit[] | null =>
  stored === null ? null : (JSON.parse(stored) as ShopLimit[]);

/** A drive with what the shop holds for every one now, in place of what it held when the drive was saved. */
export function withShopLimits(drive: Drive, limits: readonly ShopLimit[] | null): Drive {
  if (limits === null && drive.inspect?.shop === undefined) return drive;
  const { shop: _, ...inspect } = drive.inspect ?? {};
  return { ...drive, inspect: { ...inspect, ...(limits && { shop: limits }) } };
}
