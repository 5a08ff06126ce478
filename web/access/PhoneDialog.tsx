import { useState } from 'react';
import { usePeople } from '../api/access';
import { Choice } from '../ui/Choice';
import { Dialog } from '../ui/Dialog';
import { PhoneCode } from './PhoneCode';

interface Props {
  /** The page that the phone is to stand at. */
  place: string;
  machine: boolean;
  onClose: () => void;
}

/** A code that brings a phone to a page; at the machine it is said whose phone. */
export default function PhoneDialog({ place, machine, onClose }: Props) {
  // At the machine nobody is signed in: whose phone it is has to be said, where it is not the owner's.
  const people = usePeople(machine).data?.people ?? [];
  const [person, setPerson] = useState('');
  const owner = people.find(({ role }) => role === 'owner')?.id;
  const whose = person || owner;
  return (
    <Dialog title="On my phone" onClose={onClose} width={620}>
      <PhoneCode asked={{ place, ...(machine && person !== '' && { person }) }}>
        {people.length > 1 && whose !== undefined && (
          <Choice
            label="Whose phone"
            value={whose}
            options={people.map(({ id, name }) => ({ value: id, label: name }))}
            onChange={setPerson}
          />
        )}
      </PhoneCode>
    </Dialog>
  );
}
