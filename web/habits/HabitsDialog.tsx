import { useEffect, useRef } from 'react';
import { createPortal } from 'react-dom';
import { useStore } from '../state/store';
import { LIGHTS, type LightWanted, lightWanted, wantLight } from '../theme/light';
import { Chips } from '../ui/Chips';
import { changeHabits, useHabits, useUnit } from './habits';
import { HABITS, LIGHT_NAMES } from './words';
import type { DistanceUnit, Habits, LengthUnit } from '@emery/core/quantity';
import './habits.css';

/** How this person wants to read. Each tap holds at once; plain, so that it opens over any page. */
export default function HabitsDialog({ onClose }: { onClose: () => void }) {
  const dialog = useRef<HTMLDialogElement>(null);
  const light = useStore(lightWanted);
  const { decimal, torque, force, distance, clock } = useHabits();
  const unit = useUnit();
  useEffect(() => {
    const shown = dialog.current;
    // Where there is no dialog of the browser's, as in a test, it stands open as it is.
    if (shown?.showModal) shown.showModal();
    else shown?.setAttribute('open', '');
    return () => shown?.close?.();
  }, []);
  // Out of the band that it is opened from, whose dress is not its own.
  return createPortal(
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
            Done
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
          options={[
            { value: 'in', label: 'Inches' },
            { value: 'mm', label: 'Millimetres' },
          ]}
          onChange={(unit) => changeHabits({ unit })}
        />
        <Chips<Habits['decimal']>
          label={HABITS.decimal}
          value={decimal}
          options={[
            { value: '.', label: 'Point: 169.9' },
            { value: ',', label: 'Comma: 169,9' },
          ]}
          onChange={(decimal) => changeHabits({ decimal })}
        />
        <Chips<Habits['torque']>
          label={HABITS.torque}
          value={torque}
          options={[
            { value: 'nm', label: 'N·m' },
            { value: 'lbf-ft', label: 'lbf·ft' },
          ]}
          onChange={(torque) => changeHabits({ torque })}
        />
        <Chips<NonNullable<Habits['force']>>
          label={HABITS.force}
          value={force ?? 'N'}
          options={[
            { value: 'N', label: 'N' },
            { value: 'lbf', label: 'lbf' },
          ]}
          onChange={(force) => changeHabits({ force })}
        />
        <Chips<DistanceUnit>
          label={HABITS.distance}
          value={distance}
          options={[
            { value: 'km', label: 'Kilometres' },
            { value: 'mi', label: 'Miles' },
          ]}
          onChange={(distance) => changeHabits({ distance })}
        />
        <Chips<Habits['clock']>
          label={HABITS.clock}
          value={clock}
          options={[
            { value: '24', label: '24 h: 14:05' },
            { value: '12', label: '12 h: 2:05 pm' },
          ]}
          onChange={(clock) => changeHabits({ clock })}
        />
        <p className="quiet">{HABITS.kept}</p>
      </div>
    </dialog>,
    document.body,
  );
}
