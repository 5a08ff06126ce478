import { useState, type KeyboardEvent } from 'react';
import { LineInput } from './LineInput';
import { PhoneTake } from '../take/WithPhone';
import { TapePad } from './TapePad';
import type { LengthUnit } from '@emery/core/quantity';

interface Props {
  id: string;
  /** What the field is called, for the pad's button. */
  label: string;
  /** What is measured, for a phone that is to write it; the label where it says so. */
  measured?: string;
  text: string;
  unit: LengthUnit;
  signed: boolean;
  wrong: boolean;
  /** In focus once it is there. */
  first?: boolean;
  onText: (text: string) => void;
  /** Enter, on the keyboard or the pad. */
  onEnter: () => void;
  onLeave?: () => void;
  onKeyDown?: (event: KeyboardEvent) => void;
}

/** True on a screen that is touched rather than pointed at. */
const touches = typeof matchMedia === 'function' && matchMedia('(pointer: coarse)').matches;

let pressing = false;
if (typeof window !== 'undefined') {
  window.addEventListener('pointerdown', () => (pressing = true), true);
  for (const end of ['pointerup', 'pointercancel']) window.addEventListener(end, () => (pressing = false), true);
}

/** Runs at once, or once the finger that is down has been lifted: what it pressed must not move away under it. */
function afterPress(run: () => void): void {
  if (!pressing) return run();
  const later = () => setTimeout(run, 50);
  window.addEventListener('pointerup', later, { once: true });
}

/** Where a length is written, by keyboard or on the tape pad: the same everywhere in Emery. */
export function LengthInput({
  id,
  label,
  measured = label,
  text,
  unit,
  signed,
  wrong,
  first = false,
  onText,
  onEnter,
  onLeave,
  onKeyDown,
}: Props) {
  const [padOpen, setPadOpen] = useState(false);
  const [asking, setAsking] = useState(false);
  return (
    <>
      <LineInput
        id={id}
        autoFocus={first}
        value={text}
        wrong={wrong}
        // A thumb gets the pad below, not a keyboard of letters over the drawing.
        inputMode={touches ? 'none' : 'text'}
        spellCheck={false}
        aria-describedby={`${id}-echo`}
        onFocus={(event) => {
          event.target.select();
          setPadOpen(touches);
        }}
        onChange={(event) => onText(event.target.value)}
        onBlur={({ relatedTarget }) => {
          onLeave?.();
          if (!relatedTarget?.closest('.tape-pad, .pad-button')) afterPress(() => setPadOpen(false));
        }}
        onKeyDown={(event) => {
          if (event.key === 'Enter') onEnter();
          onKeyDown?.(event);
        }}
        suffix={
          <button
            type="button"
            tabIndex={-1}
            className="pad-button"
            aria-label={`Tape pad for ${label}`}
            aria-expanded={padOpen}
            onClick={() => setPadOpen(!padOpen)}
          >
            ⅝
          </button>
        }
      />
      {padOpen && (
        <TapePad
          unit={unit}
          signed={signed}
          onWrite={onText}
          onPhone={() => setAsking(true)}
          onEnter={() => {
            onEnter();
            setPadOpen(false);
          }}
        />
      )}
      {asking && (
        <PhoneTake
          kind="reading"
          label={measured}
          unit={unit}
          onText={onText}
          onClose={() => {
            setAsking(false);
            document.getElementById(id)?.focus();
          }}
        />
      )}
    </>
  );
}
