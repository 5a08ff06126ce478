import { Button } from 'antd';
import { useState } from 'react';
import { Dialog } from '../ui/Dialog';
import { TextField } from '../ui/TextField';
import { IN } from './words';
import { PhoneCode } from './PhoneCode';

/** Asks whom a job is lent to, then shows the code for it. */
export default function LendDialog({ jobId, onClose }: { jobId: string; onClose: () => void }) {
  return (
    <Dialog title="Lend this job" onClose={onClose} width={620} firm>
      <Lend jobId={jobId} />
    </Dialog>
  );
}

function Lend({ jobId }: { jobId: string }) {
  const [name, setName] = useState('');
  const [lentTo, setLentTo] = useState<string | null>(null);
  if (lentTo !== null)
    return (
      <>
        <p>
          For <strong>{lentTo}</strong>
          {IN.lentFor}
        </p>
        <PhoneCode asked={{ place: `/jobs/${jobId}`, job: jobId, name: lentTo }} />
      </>
    );
  return (
    <form
      onSubmit={(event) => {
        event.preventDefault();
        if (name.trim() !== '') setLentTo(name.trim());
      }}
    >
      <p>{IN.lent}</p>
      <TextField label="Lent to" value={name} max={80} onChange={setName} />
      <Button type="primary" htmlType="submit" disabled={name.trim() === ''}>
        Show the code
      </Button>
    </form>
  );
}
