import { Segmented } from 'antd';
import { useChangeShop, useShop } from '../api/shop';
import type { LengthUnit } from '@emery/core/quantity';

/** The shop's unit, for every screen of the shop. */
export function UnitSwitch() {
  const { data } = useShop();
  const change = useChangeShop();
  return (
    <Segmented<LengthUnit>
      className="unit-switch"
      aria-label="Unit of the shop"
      value={data?.unit ?? 'in'}
      options={[
        { value: 'in', label: 'in' },
        { value: 'mm', label: 'mm' },
      ]}
      onChange={(unit) => change.mutate({ unit })}
    />
  );
}
