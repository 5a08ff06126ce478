import { useContext, useState, type ComponentType } from 'react';
import { lazyPart } from '../parts/lazy-part';
import { kindOfDevice } from '../live/messages';
import { PlainButton } from '../ui/PlainButton';
import { PARTS, TAKE } from '../together/words';
import { PhonesOffered } from './phones-offered';
import type { PhoneTakeProps, WithPhoneProps } from './takes';
import type { TakeKind } from '@emery/core/api';

/** The request itself, also for whatever outlives the button: a pad closes as its field is left. */
export const PhoneTake: ComponentType<PhoneTakeProps> = lazyPart(PARTS.phone, () => import('./PhoneTake'));

/** Has a phone take what this page asks for; nothing on a phone, which takes it itself. */
export function PhoneButton({ kind, onPress }: { kind: TakeKind; onPress: () => void }) {
  const offered = useContext(PhonesOffered);
  if (!offered || kindOfDevice() === 'phone') return null;
  return <PlainButton onClick={onPress}>{TAKE.button(kind)}</PlainButton>;
}

/** The button with its request. */
export function WithPhone(props: WithPhoneProps) {
  const [open, setOpen] = useState(false);
  return (
    <>
      <PhoneButton kind={props.kind} onPress={() => setOpen(true)} />
      {open && <PhoneTake {...props} onClose={() => setOpen(false)} />}
    </>
  );
}
