import { useId } from 'react';
import { FieldFrame } from '../ui/FieldFrame';
import { LengthInput } from '../ui/LengthInput';
import { WrittenField } from '../ui/WrittenField';
import { useText, useUnit } from './asked';
import { formatLength, parseLength, readNumber, readsAs } from '@emery/core/quantity';

/** What is written into a field, what it means, and what is wrong with it. */
export interface AskedFigure {
  text: string;
  put: (text: string) => void;
  /** Null while nothing is written, and while what is written cannot be read. */
  value: number | null;
  problem: string | null;
  echo: string;
}

/** A length that is asked for, mm; more than zero and no longer than `max`. */
export function useLength(name: string, label: string, max = 20_000): AskedFigure {
  const unit = useUnit();
  const [text, put] = useText(name);
  const reading = text.trim() === '' ? null : parseLength(text, unit);
  const outside = reading?.ok && (reading.mm <= 0 || reading.mm > max);
  const bounds = outside ? `${label}: more than 0, and ${formatLength(max, unit, 0)} at most.` : null;
  const problem = reading && !reading.ok ? reading.problem : bounds;
  const value = reading?.ok && problem === null ? reading.mm : null;
  return {
    text,
    put,
    value,
    problem,
    echo: value === null ? '' : readsAs(value),
  };
}

/** A plain figure that is asked for. */
export function useFigure(
  name: string,
  label: string,
  min: number,
  max: number,
  { start = '', whole = false }: { start?: string; whole?: boolean } = {},
): AskedFigure {
  const [text, put] = useText(name, start);
  const plain = text.trim();
  const reading = readNumber(plain, { min, max, whole });
  const value = reading.ok && reading.value >= min && reading.value <= max ? reading.value : null;
  const asked = !reading.ok && reading.twoWays ? `${label}: ${reading.problem}` : null;
  return {
    text,
    put,
    value,
    problem: plain === '' || value !== null ? null : (asked ?? `${label}: enter a number from ${min} to ${max}.`),
    echo: '',
  };
}

/** A figure read by a reader of core's own, such as a torque. */
export function useRead(
  name: string,
  read: (text: string) => { ok: true; value: number } | { ok: false; problem: string },
): AskedFigure {
  const [text, put] = useText(name);
  const reading = text.trim() === '' ? null : read(text);
  return {
    text,
    put,
    value: reading?.ok ? reading.value : null,
    problem: reading && !reading.ok ? reading.problem : null,
    echo: '',
  };
}

/** Where a length is written; on a screen that is touched, with the tape pad. */
export function LengthAsk({ label, ask, first = false }: { label: string; ask: AskedFigure; first?: boolean }) {
  const id = useId();
  const unit = useUnit();
  const { text, put, problem, echo } = ask;
  return (
    <FieldFrame id={id} label={label} problem={problem} echo={echo}>
      <LengthInput
        id={id}
        label={label}
        text={text}
        unit={unit}
        signed={false}
        wrong={problem !== null}
        first={first}
        onText={put}
        onEnter={() => toNextField(id)}
      />
    </FieldFrame>
  );
}

/** Where a figure or a text is written. */
export function FigureAsk({
  label,
  ask,
  text = false,
  placeholder,
  first = false,
}: {
  label: string;
  ask: AskedFigure;
  text?: boolean;
  placeholder?: string;
  first?: boolean;
}) {
  return (
    <WrittenField
      label={label}
      value={ask.text}
      problem={ask.problem}
      echo={ask.echo}
      inputMode={text ? 'text' : 'decimal'}
      first={first}
      {...(placeholder !== undefined && { placeholder })}
      onChange={ask.put}
      onCommit={() => undefined}
      onEnter={toNextField}
    />
  );
}

/** Enter goes on to the next field of the page. */
function toNextField(id: string): void {
  const fields = [...document.querySelectorAll<HTMLInputElement>('.counter-asks .line-input:not(.has-suffix)')];
  fields[fields.findIndex((field) => field.id === id) + 1]?.focus();
}

/** One of many, as the browser lets them be picked. */
export function PickAsk<T extends string>({
  label,
  value,
  options,
  onChange,
}: {
  label: string;
  value: T;
  options: readonly { value: T; label: string }[];
  onChange: (value: T) => void;
}) {
  const id = useId();
  return (
    <div className="field">
      <label className="label" htmlFor={id}>
        {label}
      </label>
      <select id={id} className="pick" value={value} onChange={(event) => onChange(event.target.value as T)}>
        {options.map((option) => (
          <option key={option.value} value={option.value}>
            {option.label}
          </option>
        ))}
      </select>
    </div>
  );
}
