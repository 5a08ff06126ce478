import { useEffect, useRef } from 'react';
import { useStore } from '../state/store';
import { LIGHTS, type LightWanted, lightWanted, wantLight } from '../theme/light';
import { Chips } from '../ui/Chips';
import { changeHabits, useHabits, useUnit } from './habits';
import { habitsOpen } from './open';
import { HABIT_ROWS, HABITS, LIGHT_NAMES, UNIT_NAMES } from './words';
import type { LengthUnit } from '@emery/core/quantity';
import './habits.css';

const LENGTHS = (['in', 'mm'] as const).map((value) => ({ value, label: UNIT_NAMES[value] }));

/** How this person wants to read. Each tap holds at once; plain, so that it opens over any page. */
export default function HabitsDialog() {
  const onClose = () => habitsOpen.set(false);
  const dialog = useRef<HTMLDialogElement>(null);
  const light = useStore(lightWanted);
  const habits = useHabits();
  const unit = useUnit();
  useEffect(() => {
    const shown = dialog.current;
    // Where there is no dialog of the browser's, as in a test, it stands open as it is.
    if (shown?.showModal) shown.showModal();
    else shown?.setAttribute('open', '');
    return () => shown?.close?.();
  }, []);
  return (
    <dialog
      ref={dialog}
      className="habits"
      aria-label={HABITS.title}
      onClose={onClose}
      onClick={(event) => event.target === event.currentTarget && onClose()}
    >
      <div className="habits-body">
        <div className="block-head">
          <h2>{HABITS.title}</h2>
          <button type="button" className="plain-button" onClick={onClose}>
            {HABITS.done}
          </button>
        </div>
        <Chips<LightWanted>
          label={HABITS.light}
          value={light}
          options={LIGHTS.map((value) => ({ value, label: LIGHT_NAMES[value] }))}
          onChange={wantLight}
        />
        <Chips<LengthUnit>
          label={HABITS.unit}
          value={unit}
          options={LENGTHS}
          onChange={(unit) => changeHabits({ unit })}
        />
        {HABIT_ROWS.map(({ habit, label, options }) => (
          <Chips
            key={habit}
            label={label}
            value={habits[habit] ?? options[0]!.value}
            options={options}
            // Its options are the values that this habit has.
            onChange={(value) => changeHabits({ [habit]: value })}
          />
        ))}
        <p className="quiet">{HABITS.kept}</p>
      </div>
    </dialog>
  );
}
