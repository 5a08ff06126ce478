import { useId, useState } from 'react';
import { useUnit } from '../habits/habits';
import { LengthInput } from '../ui/LengthInput';
import { PlainButton } from '../ui/PlainButton';
import { TAKE } from '../together/words';
import { moveTake } from './takes';
import type { Take } from '@emery/core/api';

/** A reading, on the tape pad where it is a length: it lands in the field that the bench asks about. */
export function TakeReading({ take: { id, unit }, onDone }: { take: Take; onDone: () => void }) {
  const field = useId();
  const own = useUnit();
  const [text, setText] = useState('');
  const [problem, setProblem] = useState('');
  const send = async () => {
    if (text.trim() === '') return;
    setProblem('');
    try {
      await moveTake(id, { state: 'done', part: 100, result: { text: text.trim() } });
      onDone();
    } catch (error) {
      setProblem(`${TAKE.wrong} ${(error as Error).message}`);
    }
  };
  return (
    <>
      <div className="field">
        <label htmlFor={field}>{TAKE.reading(unit)}</label>
        <LengthInput
          id={field}
          label={TAKE.reading(unit)}
          text={text}
          unit={own}
          signed
          first
          wrong={problem !== ''}
          onText={setText}
          onEnter={() => void send()}
        />
      </div>
      {problem && (
        <p className="field-echo is-wrong" role="alert">
          {problem}
        </p>
      )}
      <PlainButton
        primary
        className="take-main"
        disabled={text.trim() === ''}
        // The field keeps the focus: without it the pad closes, and the button moves away from under the thumb.
        onPointerDown={(event) => event.preventDefault()}
        onClick={() => void send()}
      >
        {TAKE.sendReading}
      </PlainButton>
    </>
  );
}
