import { SpeedCompare } from './SpeedCompare';
import type { WhatIfProps } from '../stage';

/** What the shafts turn, before and after. */
export default function SpeedsWhatIf({ before, after }: WhatIfProps) {
  return (
    <SpeedCompare
      effects={[
        { name: 'Now', drive: before },
        { name: 'What-if', drive: after },
      ]}
    />
  );
}
