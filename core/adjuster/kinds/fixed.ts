import type { FixedCentres } from '../../drive';
import type { AdjusterKind } from './kind';

/** Nothing moves: the belt's own stretch holds it. */
export const FIXED: AdjusterKind<FixedCentres> = {
  label: 'Fixed centres',
  caution: null,
  start: () => ({ kind: 'fixed' }),
  travel: () => null,
  slackEndGiven: true,
  moves: 'nothing',
  asked: {},
  setting: null,
  steps: null,
};
