import { createHash } from 'node:crypto';
import type { ShopLimit } from '@emery/core/drive';

/** Rises with each change of what is remembered of a drive, so that what an older Emery remembered is made anew. */
const FORM = 3;

/**
 * Names what a drive is remembered by: the form of it, and what the shop holds for every drive. Another name for other
 * limits.
 */
export const limitsKey = (limits: readonly ShopLimit[] | null | undefined): string =>
  limits?.length
    ? createHash('sha256')
        .update(JSON.stringify([FORM, limits]))
        .digest('hex')
        .slice(0, 16)
    : `form ${FORM}`;
