import { Button } from 'antd';
import { useState } from 'react';
import { ask, type ApiProblem } from '../api/client';
import { useAccessChange } from '../api/access';
import { SHARE } from './words';
import { PassphraseField } from './PassphraseField';
import { TextField } from '../ui/TextField';
import type { Me } from '@emery/core/api';

/** Before the first share: who the owner is. */
export function FirstOwner() {
  const [name, setName] = useState('');
  const [passphrase, setPassphrase] = useState('');
  const make = useAccessChange(() => ask<Me>('POST', '/access/first', { name: name.trim(), passphrase }));
  const errors = (make.error as ApiProblem | null)?.errors ?? [];
  const at = (field: string) => errors.find(({ path }) => path === field)?.message ?? '';
  return (
    <form
      className="person-form"
      aria-label="The owner"
      onSubmit={(event) => {
        event.preventDefault();
        make.mutate(undefined);
      }}
    >
      <h3>{SHARE.first}</h3>
      <TextField label="Name" value={name} max={80} problem={at('name')} onChange={setName} />
      <PassphraseField value={passphrase} problem={at('passphrase')} onChange={setPassphrase} />
      {make.error && errors.length === 0 && (
        <p className="field-echo is-wrong" role="alert">
          {make.error.message}
        </p>
      )}
      <Button
        type="primary"
        size="large"
        htmlType="submit"
        loading={make.isPending}
        disabled={name.trim() === '' || passphrase === ''}
      >
        Make the owner
      </Button>
    </form>
  );
}
