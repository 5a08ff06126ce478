import { grouped } from '@emery/core/quantity';
import { Button } from 'antd';

interface Props {
  /** What the shop has last of the vehicle; null where nobody read it. */
  reading: number | null;
  unit: string;
  onTake: (reading: number) => void;
}

/** The odometer as the shop last read it, to be taken over with one tap where it still stands so. */
export function OdometerOffer({ reading, unit, onTake }: Props) {
  if (reading === null) return null;
  return (
    <Button onClick={() => onTake(reading)}>
      {grouped(reading)} {unit}, from the shop
    </Button>
  );
}
