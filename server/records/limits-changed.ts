import type { DataSource } from 'typeorm';

/** Who follows the limits of the shop in this database, where somebody does. */
export const FOLLOWERS = new WeakMap<DataSource, () => void>();

/** What the shop holds for every drive, or what a drive is remembered by, may be another: what is due is to follow. */
export function limitsChanged(data: DataSource): void {
  FOLLOWERS.get(data)?.();
}
