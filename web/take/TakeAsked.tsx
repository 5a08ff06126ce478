import { useStore } from '../state/store';
import { TakeSheet } from './TakeSheet';
import { askedOfMe } from './takes';

/** Over any page of a phone: what the bench asks of it. */
export default function TakeAsked() {
  const take = useStore(askedOfMe);
  const close = () => askedOfMe.set(null);
  return take && <TakeSheet key={take.id} take={take} onSent={close} onClose={close} />;
}
