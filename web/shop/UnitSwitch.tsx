import { changeHabits, useUnit } from '../habits/habits';
import { Chips } from '../ui/Chips';
import type { LengthUnit } from '@emery/core/quantity';

/** What this person's lengths come in first; `value` where a page shows another just now. */
export function UnitSwitch({ value, onSwitch }: { value?: LengthUnit; onSwitch?: () => void }) {
  const own = useUnit();
  return (
    <Chips<LengthUnit>
      label="Lengths in"
      unseen
      value={value ?? own}
      options={[
        { value: 'in', label: 'in' },
        { value: 'mm', label: 'mm' },
      ]}
      onChange={(unit) => {
        onSwitch?.();
        changeHabits({ unit });
      }}
    />
  );
}
