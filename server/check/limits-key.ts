import { createHash } from 'node:crypto';
import type { ShopLimit } from '@emery/core/drive';

/** Names what a shop holds for every drive: another name for other limits, none for none. */
export const limitsKey = (limits: readonly ShopLimit[] | null | undefined): string =>
  limits?.length ? createHash('sha256').update(JSON.stringify(limits)).digest('hex').slice(0, 16) : '';
