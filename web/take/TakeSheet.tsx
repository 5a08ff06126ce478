import { useEffect, useEffectEvent, useRef } from 'react';
import { PlainButton } from '../ui/PlainButton';
import { TAKE } from '../together/words';
import { TakePicture } from './TakePicture';
import { TakeReading } from './TakeReading';
import { TakeSound } from './TakeSound';
import { moveTake } from './takes';
import './take.css';
import type { Take } from '@emery/core/api';

interface Props {
  take: Take;
  /** What was asked for is on the bench. */
  onSent: () => void;
  /** It was put away, and nothing was sent. */
  onClose: () => void;
}

/** On the phone, over whatever page it shows: what the bench asks for, with the camera or the microphone open. */
export function TakeSheet({ take, onSent, onClose }: Props) {
  const dialog = useRef<HTMLDialogElement>(null);
  useEffect(() => {
    const shown = dialog.current;
    if (!shown?.open) shown?.showModal?.();
  }, []);
  const seen = useEffectEvent(() => void moveTake(take.id, { state: 'seen' }).catch(() => undefined));
  useEffect(() => seen(), [take.id]);
  const refuse = () => {
    void moveTake(take.id, { state: 'none' }).catch(() => undefined);
    onClose();
  };
  return (
    <dialog
      ref={dialog}
      className="take-sheet"
      aria-label={TAKE.title(take.kind, take.label)}
      onCancel={(event) => {
        event.preventDefault();
        refuse();
      }}
    >
      <p className="take-asks">
        {TAKE.asks(take.by)} {TAKE.kind[take.kind]}
      </p>
      <h2>{take.label}</h2>
      {take.kind === 'picture' && <TakePicture take={take} onDone={onSent} />}
      {take.kind === 'sound' && <TakeSound take={take} onDone={onSent} />}
      {take.kind === 'reading' && <TakeReading take={take} onDone={onSent} />}
      <PlainButton className="take-cancel" onClick={refuse}>
        {TAKE.cancel}
      </PlainButton>
    </dialog>
  );
}
