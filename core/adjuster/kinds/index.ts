/** One record for each kind of adjuster. */
import type { Adjuster } from '../../drive';
import { FIXED } from './fixed';
import type { AdjusterKind } from './kind';
import { SHIMS } from './shims';
import { SLIDE } from './slide';
import { SLOT_PIVOT } from './slot-pivot';
import { SPRUNG_ARM } from './sprung-arm';
import { TURNBUCKLE } from './turnbuckle';

export const ADJUSTER_KINDS = {
  'sprung-arm': SPRUNG_ARM,
  'slot-pivot': SLOT_PIVOT,
  slide: SLIDE,
  turnbuckle: TURNBUCKLE,
  shims: SHIMS,
  fixed: FIXED,
} satisfies { readonly [Kind in Adjuster['kind']]: AdjusterKind<Extract<Adjuster, { kind: Kind }>> };

/** The record of a kind, to be asked of an adjuster of that kind. */
export const adjusterKind = <A extends Adjuster>(kind: A['kind']): AdjusterKind<A> =>
  // Each row is the record of its own key; the compiler does not follow the two together.
  ADJUSTER_KINDS[kind] as unknown as AdjusterKind<A>;
