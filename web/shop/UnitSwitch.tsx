import { useChangeShop, useShop } from '../api/shop';
import { Chips } from '../ui/Chips';
import type { LengthUnit } from '@emery/core/quantity';

/** The shop's unit, for every screen of the shop. */
export function UnitSwitch() {
  const { data } = useShop();
  const change = useChangeShop();
  return (
    <Chips<LengthUnit>
      label="Unit of the shop"
      unseen
      value={data?.unit ?? 'in'}
      options={[
        { value: 'in', label: 'in' },
        { value: 'mm', label: 'mm' },
      ]}
      onChange={(unit) => change.mutate({ unit })}
    />
  );
}
