import { Button } from 'antd';
import { useState } from 'react';
import { useMe } from '../api/access';
import { lazyPart } from '../parts/lazy-part';

const LendDialog = lazyPart('The code', () => import('./LendDialog'));

/** Lends one job to a device of somebody who is not on the list of people. */
export function LendJob({ jobId }: { jobId: string }) {
  const [open, setOpen] = useState(false);
  const me = useMe();
  if (me === null || (me.role !== 'owner' && me.role !== 'bench')) return null;
  return (
    <>
      <Button type="link" onClick={() => setOpen(true)}>
        Lend this job
      </Button>
      {open && <LendDialog jobId={jobId} onClose={() => setOpen(false)} />}
    </>
  );
}
