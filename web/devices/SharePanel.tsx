import { Button } from 'antd';
import { Fragment } from 'react';
import { QrSquare } from '../access/QrSquare';
import { ask } from '../api/client';
import { useAccessChange, useOwned, useSharing } from '../api/access';
import { SHARE } from './words';
import { FirstOwner } from './FirstOwner';
import type { SharingState } from '@emery/core/api';

/** Whether other devices reach Emery, how, and the switch for it at the machine. */
export function SharePanel({ machine }: { machine: boolean }) {
  const { data: state, error } = useSharing(5000);
  const owned = useOwned();
  const change = useAccessChange((on: boolean) => ask<SharingState>('PUT', '/access/sharing', { on }));
  if (!state) return error ? <p className="finding is-fault">{error.message}</p> : null;
  const problem = change.error?.message ?? change.data?.problem ?? state.problem;
  return (
    <section className="sheet share" aria-label="Sharing">
      <div className="share-head">
        <h2>{state.on ? SHARE.on : SHARE.off}</h2>
        {machine && owned === true && (
          <Button
            type={state.on ? 'default' : 'primary'}
            size="large"
            loading={change.isPending}
            onClick={() => change.mutate(!state.on)}
          >
            {state.on ? 'Stop sharing' : 'Share'}
          </Button>
        )}
      </div>
      {problem && (
        <p className="finding is-fault" role="alert">
          {problem}
        </p>
      )}
      {state.on ? <HowReached state={state} /> : <NotShared machine={machine} owned={owned} />}
    </section>
  );
}

function NotShared({ machine, owned }: { machine: boolean; owned: boolean | undefined }) {
  return (
    <>
      <p>{SHARE.why}</p>
      <p className="finding is-watch">
        <strong>{SHARE.ownNetwork}</strong> {SHARE.caution}
      </p>
      {machine && owned === false && <FirstOwner />}
    </>
  );
}

function HowReached({ state }: { state: SharingState }) {
  const [first, ...others] = state.addresses;
  return (
    <div className="share-how">
      <QrSquare value={first ?? '-'} size={148} label="QR code of the address" />
      <dl className="share-facts">
        <dt>Address</dt>
        <dd className="share-address">{first}</dd>
        {others.length > 0 && (
          <>
            <dt>Also</dt>
            <dd>{others.join(', ')}</dd>
          </>
        )}
        {state.trustPage && (
          <>
            <dt>{SHARE.newDevice}</dt>
            <dd>{state.trustPage}</dd>
          </>
        )}
        {state.fingerprint && (
          <>
            <dt>Fingerprint, SHA-256</dt>
            <dd className="share-print">
              {state.fingerprint.split(':').map((pair, k) => (
                <Fragment key={k}>
                  {k > 0 && (
                    <>
                      :<wbr />
                    </>
                  )}
                  {pair}
                </Fragment>
              ))}
            </dd>
          </>
        )}
        {state.certificateEnds && (
          <>
            <dt>Certificate until</dt>
            <dd>
              {state.certificateEnds.slice(0, 10)}
              {state.trustPage && SHARE.renewed}
            </dd>
          </>
        )}
        {state.left.length > 0 && (
          <>
            <dt>{SHARE.left}</dt>
            <dd>{state.left.join(', ')}</dd>
          </>
        )}
      </dl>
    </div>
  );
}
