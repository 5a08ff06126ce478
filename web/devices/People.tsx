import { App as AntApp, Button } from 'antd';
import { useState } from 'react';
import { ask, type ApiProblem } from '../api/client';
import { useAccessChange, usePeople, type NewPerson } from '../api/access';
import { ROLE_HELP, ROLE_WORDS } from '../access/words';
import { Choice } from '../ui/Choice';
import { Dialog } from '../ui/Dialog';
import { TextField } from '../ui/TextField';
import { PEOPLE } from './words';
import { PassphraseField } from './PassphraseField';
import { STAFF_ROLES, type PersonListed, type StaffRole } from '@emery/core/api';

const ROLES = STAFF_ROLES.map((role) => ({ value: role, label: ROLE_WORDS[role] }));
const EMPTY: NewPerson = { name: '', role: 'bench', passphrase: '' };

/** The shop's people: who signs in by name, and what each may do. */
export function People() {
  const { data, error } = usePeople();
  const [adding, setAdding] = useState(false);
  return (
    <section className="sheet" aria-label="People">
      <h2>People</h2>
      <p className="quiet">{ROLE_HELP}</p>
      {error && <p className="finding is-fault">{error.message}</p>}
      <ul className="rows">
        {data?.people.map((person) => (
          <PersonRow key={person.id} person={person} />
        ))}
      </ul>
      {data?.people.length === 0 && <p>{PEOPLE.none}</p>}
      {data && data.people.length > 0 && <Button onClick={() => setAdding(true)}>Add person</Button>}
      {adding && <AddPerson onClose={() => setAdding(false)} />}
    </section>
  );
}

function PersonRow({ person: { id, name, role } }: { person: PersonListed }) {
  const { modal, message } = AntApp.useApp();
  const [renewing, setRenewing] = useState(false);
  const change = useAccessChange((body: { role: StaffRole }) => ask('PUT', `/access/people/${id}`, body));
  const remove = useAccessChange(() => ask('DELETE', `/access/people/${id}`));
  const problem = change.error ?? remove.error;
  return (
    <li aria-label={name}>
      <strong className="row-name">{name}</strong>
      <Choice label="Role" value={role} options={ROLES} onChange={(next) => change.mutate({ role: next })} />
      <span className="button-row">
        <Button onClick={() => setRenewing(true)}>New passphrase</Button>
        <Button
          danger
          onClick={() =>
            void modal.confirm({
              title: `Remove ${name}?`,
              content: PEOPLE.removing,
              okText: 'Remove',
              cancelText: 'Keep',
              onOk: () => remove.mutateAsync(undefined).catch(() => void message.error('Not removed')),
            })
          }
        >
          Remove
        </Button>
      </span>
      {problem && (
        <p className="field-echo is-wrong" role="alert">
          {problem.message}
        </p>
      )}
      {renewing && <NewPassphrase id={id} name={name} onClose={() => setRenewing(false)} />}
    </li>
  );
}

function AddPerson({ onClose }: { onClose: () => void }) {
  const [person, setPerson] = useState(EMPTY);
  const add = useAccessChange(() => ask('POST', '/access/people', { ...person, name: person.name.trim() }));
  const errors = (add.error as ApiProblem | null)?.errors ?? [];
  const at = (field: string) => errors.find(({ path }) => path === field)?.message ?? '';
  return (
    <Dialog title="Add person" onClose={onClose} firm>
      <form
        onSubmit={(event) => {
          event.preventDefault();
          add.mutate(undefined, { onSuccess: onClose });
        }}
      >
        <TextField
          label="Name"
          value={person.name}
          max={80}
          problem={at('name')}
          onChange={(name) => setPerson({ ...person, name })}
        />
        <Choice label="Role" value={person.role} options={ROLES} onChange={(role) => setPerson({ ...person, role })} />
        <p className="quiet">{ROLE_HELP}</p>
        <PassphraseField
          value={person.passphrase}
          problem={at('passphrase')}
          onChange={(passphrase) => setPerson({ ...person, passphrase })}
        />
        {add.error && errors.length === 0 && (
          <p className="field-echo is-wrong" role="alert">
            {add.error.message}
          </p>
        )}
        <Button type="primary" htmlType="submit" loading={add.isPending}>
          Add person
        </Button>
      </form>
    </Dialog>
  );
}

function NewPassphrase({ id, name, onClose }: { id: string; name: string; onClose: () => void }) {
  const [passphrase, setPassphrase] = useState('');
  const change = useAccessChange(() => ask('PUT', `/access/people/${id}`, { passphrase }));
  return (
    <Dialog title={`New passphrase for ${name}`} onClose={onClose} firm>
      <form
        onSubmit={(event) => {
          event.preventDefault();
          change.mutate(undefined, { onSuccess: onClose });
        }}
      >
        <PassphraseField
          value={passphrase}
          problem={(change.error as ApiProblem | null)?.errors[0]?.message ?? change.error?.message ?? ''}
          onChange={setPassphrase}
        />
        <p>{PEOPLE.othersOut}</p>
        <Button type="primary" htmlType="submit" loading={change.isPending} disabled={passphrase === ''}>
          Save passphrase
        </Button>
      </form>
    </Dialog>
  );
}
