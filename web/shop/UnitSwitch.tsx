import { useChangeShop, useShop } from '../api/shop';
import { Chips } from '../ui/Chips';
import type { LengthUnit } from '@emery/core/quantity';

/** The shop's unit, for every screen of the shop; `value` where a page shows another just now. */
export function UnitSwitch({ value, onSwitch }: { value?: LengthUnit; onSwitch?: () => void }) {
  const { data } = useShop();
  const change = useChangeShop();
  return (
    <Chips<LengthUnit>
      label="Unit of the shop"
      unseen
      value={value ?? data?.unit ?? 'in'}
      options={[
        { value: 'in', label: 'in' },
        { value: 'mm', label: 'mm' },
      ]}
      onChange={(unit) => {
        onSwitch?.();
        change.mutate({ unit });
      }}
    />
  );
}
