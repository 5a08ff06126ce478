import { SpeedCompare } from './SpeedCompare';
import type { Drive } from '@emery/core/drive';

/** What the shafts turn, before and after. */
export function SpeedsWhatIf({ before, after }: { before: Drive; after: Drive }) {
  return (
    <SpeedCompare
      effects={[
        { name: 'Now', drive: before },
        { name: 'What-if', drive: after },
      ]}
    />
  );
}
