import { useStore } from '../state/store';
import { TakeSheet } from './TakeSheet';
import { askedOfMe } from './takes';

/** Over any page of a phone: what the bench asks of it. */
export default function TakeAsked() {
  const take = useStore(askedOfMe);
  return take && <TakeSheet key={take.id} take={take} onClose={() => askedOfMe.set(null)} />;
}
