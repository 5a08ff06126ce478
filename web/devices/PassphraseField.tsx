import { Input } from 'antd';
import { useId } from 'react';
import { PEOPLE } from './words';
import { FieldFrame } from '../ui/FieldFrame';

interface Props {
  label?: string;
  value: string;
  problem?: string;
  /** True for the one that is used now, false for one that is chosen. */
  now?: boolean;
  onChange: (text: string) => void;
}

/** A passphrase; it can be shown, for a thumb in a glove types badly. */
export function PassphraseField({ label = 'Passphrase', value, problem = '', now = false, onChange }: Props) {
  const id = useId();
  return (
    <FieldFrame id={id} label={label} problem={problem || null} echo={now ? '' : PEOPLE.passphrase}>
      <Input.Password
        id={id}
        value={value}
        maxLength={200}
        autoComplete={now ? 'current-password' : 'new-password'}
        status={problem ? 'error' : ''}
        aria-invalid={problem !== ''}
        aria-describedby={`${id}-echo`}
        onChange={(event) => onChange(event.target.value)}
      />
    </FieldFrame>
  );
}
