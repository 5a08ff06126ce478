import { Button } from 'antd';
import { useState } from 'react';
import { useQueryClient } from '@tanstack/react-query';
import { signedOut } from '../access/here';
import { ROLE_WORDS } from '../access/words';
import { ask, type ApiProblem } from '../api/client';
import { useAccessChange } from '../api/access';
import { Dialog } from '../ui/Dialog';
import { PEOPLE } from './words';
import { PassphraseField } from './PassphraseField';
import type { Me } from '@emery/core/api';

/** Who this device is signed in as. */
export function OwnAccount({ me }: { me: Me }) {
  const client = useQueryClient();
  const [changing, setChanging] = useState(false);
  const out = useAccessChange(() => ask('POST', '/access/sign-out'));
  return (
    <section className="sheet" aria-label="This device">
      <h2>
        {me.name}, {ROLE_WORDS[me.role]}
      </h2>
      <div className="button-row">
        <Button
          onClick={() =>
            out.mutate(undefined, {
              onSuccess: () => {
                // Nothing of the shop stays in this page.
                client.clear();
                signedOut.set({ why: 'none', words: PEOPLE.signedOut });
              },
            })
          }
        >
          Sign out
        </Button>
        {me.role !== 'lent' && <Button onClick={() => setChanging(true)}>Change passphrase</Button>}
      </div>
      {out.error && <p className="field-echo is-wrong">{out.error.message}</p>}
      {changing && <ChangePassphrase onClose={() => setChanging(false)} />}
    </section>
  );
}

function ChangePassphrase({ onClose }: { onClose: () => void }) {
  const [now, setNow] = useState('');
  const [next, setNext] = useState('');
  const change = useAccessChange(() => ask('PUT', '/access/passphrase', { now, passphrase: next }));
  const problem = change.error as ApiProblem | null;
  const at = (field: string) => problem?.errors.find(({ path }) => path === field)?.message ?? '';
  return (
    <Dialog title="Change passphrase" onClose={onClose} firm>
      <form
        onSubmit={(event) => {
          event.preventDefault();
          change.mutate(undefined, { onSuccess: onClose });
        }}
      >
        <PassphraseField label="Present passphrase" now value={now} problem={at('now')} onChange={setNow} />
        <PassphraseField label="New passphrase" value={next} problem={at('passphrase')} onChange={setNext} />
        {problem && problem.errors.length === 0 && (
          <p className="field-echo is-wrong" role="alert">
            {problem.message}
          </p>
        )}
        <p>{PEOPLE.ownOthersOut}</p>
        <Button type="primary" htmlType="submit" loading={change.isPending} disabled={now === '' || next === ''}>
          Save passphrase
        </Button>
      </form>
    </Dialog>
  );
}
