import { useId, useState, type FormEvent, type ReactNode } from 'react';
import { ask, type ApiProblem } from '../api/client';
import { LineInput } from '../ui/LineInput';
import { PlainButton } from '../ui/PlainButton';
import { IN } from './words';
import type { Me } from '@emery/core/api';

interface Props {
  /** Signed in; `place` is where a code leads to. */
  onIn: (me: Me, place: string | null) => void;
  /** True where six digits are what this was opened for. */
  digitsFirst?: boolean;
  /** The code of an address that makes the first owner. */
  ownerCode?: string | undefined;
}

/** How a device other than the machine itself comes in: by six digits of another screen, or by name and passphrase. */
export function SignIn({ onIn, digitsFirst = false, ownerCode }: Props) {
  const byName = <ByName key="name" onIn={(me) => onIn(me, null)} ownerCode={ownerCode} />;
  if (ownerCode !== undefined) return <div className="sign-in">{byName}</div>;
  const forms = [byName, <ByDigits key="digits" onIn={(me, place) => onIn(me, place)} />];
  return <div className="sign-in">{digitsFirst ? forms.reverse() : forms}</div>;
}

/** Sends one form; what was refused stands at its field, and what was typed stays. */
function useSend<T>(send: () => Promise<T>, done: (answer: T) => void) {
  const [problem, setProblem] = useState<ApiProblem | null>(null);
  const [sending, setSending] = useState(false);
  const onSubmit = (event: FormEvent) => {
    event.preventDefault();
    if (sending) return;
    setSending(true);
    setProblem(null);
    send()
      .then(done, (error: ApiProblem) => setProblem(error))
      .finally(() => setSending(false));
  };
  const at = (field: string) => problem?.errors.find(({ path }) => path === field)?.message ?? null;
  return { onSubmit, sending, at, problem };
}

interface FieldProps {
  label: string;
  value: string;
  onChange: (text: string) => void;
  problem?: string | null;
  input?: Partial<Parameters<typeof LineInput>[0]>;
}

function Field({ label, value, onChange, problem = null, input = {} }: FieldProps) {
  const id = useId();
  return (
    <label className="sign-field" htmlFor={id}>
      <span className="label">{label}</span>
      <LineInput
        id={id}
        value={value}
        wrong={problem !== null}
        aria-describedby={`${id}-problem`}
        onChange={(event) => onChange(event.target.value)}
        {...input}
      />
      <span id={`${id}-problem`} className="sign-problem" role={problem === null ? undefined : 'alert'}>
        {problem === null ? '' : `${label}: ${problem}`}
      </span>
    </label>
  );
}

/** What was refused, where no field says it. */
const Refused = ({ problem }: { problem: ApiProblem | null }): ReactNode =>
  problem !== null && problem.errors.length === 0 ? (
    <p className="sign-problem" role="alert">
      {problem.message}
    </p>
  ) : null;

interface ByNameProps {
  onIn: (me: Me) => void;
  /** With the code of the first owner it makes one. */
  ownerCode?: string | undefined;
}

function ByName({ onIn, ownerCode }: ByNameProps) {
  const [name, setName] = useState('');
  const [passphrase, setPassphrase] = useState('');
  const first = ownerCode !== undefined;
  const { onSubmit, sending, at, problem } = useSend(
    () =>
      ask<Me>('POST', first ? '/access/first' : '/access/sign-in', {
        ...{ name: name.trim(), passphrase },
        ...(first && { code: ownerCode }),
      }),
    onIn,
  );
  return (
    <form onSubmit={onSubmit} aria-label={first ? 'The owner' : 'Name and passphrase'}>
      {first && <p>{IN.whoOwns}</p>}
      <Field label="Name" value={name} onChange={setName} problem={at('name')} input={{ autoComplete: 'username' }} />
      <Field
        label={first ? 'Passphrase, 10 characters or more' : 'Passphrase'}
        value={passphrase}
        onChange={setPassphrase}
        problem={at('passphrase')}
        input={{ type: 'password', autoComplete: first ? 'new-password' : 'current-password' }}
      />
      <Refused problem={problem} />
      <PlainButton type="submit" primary disabled={sending || name.trim() === '' || passphrase === ''}>
        {first ? 'Become the owner' : 'Sign in'}
      </PlainButton>
    </form>
  );
}

function ByDigits({ onIn }: { onIn: (me: Me, place: string) => void }) {
  const [digits, setDigits] = useState('');
  const six = digits.replace(/\D/g, '');
  const { onSubmit, sending, at, problem } = useSend(
    () => ask<{ me: Me; place: string }>('POST', '/access/redeem', { digits: six }),
    ({ me, place }) => onIn(me, place),
  );
  return (
    <form onSubmit={onSubmit} aria-label="Six digits">
      <Field
        label={IN.digits}
        value={digits}
        onChange={setDigits}
        problem={at('digits')}
        input={{ inputMode: 'numeric', autoComplete: 'one-time-code', maxLength: 9 }}
      />
      <Refused problem={problem} />
      <PlainButton type="submit" primary disabled={sending || six.length !== 6}>
        Use the digits
      </PlainButton>
    </form>
  );
}
