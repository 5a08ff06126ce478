import { useQueryClient } from '@tanstack/react-query';
import { useEffect, useRef, useState } from 'react';
import { useLocation, useNavigate } from 'react-router';
import { sayWho } from '../jobs/who';
import { useStore } from '../state/store';
import { PlainButton } from '../ui/PlainButton';
import { clockOff, newVersion, signedOut } from './here';
import { takeNewVersion } from '../offline/service-worker';
import { SignIn } from './SignIn';
import { clockWords, IN } from './words';
import './access.css';
import type { Me } from '@emery/core/api';

/** Over any page: that this device is signed out, that its clock is wrong, that Emery was updated. */
export default function AccessNotices() {
  const out = useStore(signedOut);
  const { pathname } = useLocation();
  return (
    <>
      {out !== null && pathname !== '/in' && <SignedOut why={out.why} words={out.words} />}
      <Notices />
    </>
  );
}

/** Takes up where it was: everything is asked for again, and what waited goes. */
export function useIn(): (me: Me) => void {
  const client = useQueryClient();
  return (me) => {
    if (me.name !== null) sayWho(me.name);
    signedOut.set(null);
    void client.invalidateQueries();
  };
}

function SignedOut({ why, words }: { why: string; words: string }) {
  const dialog = useRef<HTMLDialogElement>(null);
  const taken = useIn();
  const navigate = useNavigate();
  useEffect(() => {
    const shown = dialog.current;
    if (!shown?.open) shown?.showModal?.();
  }, []);
  const lent = why === 'job-signed';
  return (
    <dialog
      ref={dialog}
      className="signed-out"
      aria-label="Sign in"
      // The page beneath asks in vain until somebody is signed in.
      onCancel={(event) => event.preventDefault()}
    >
      <h2>{lent ? 'This job is finished' : 'Sign in'}</h2>
      <p>
        {words} {why !== 'none' && IN.stillHere}
      </p>
      <SignIn
        onIn={(me, place) => {
          taken(me);
          if (place !== null) void navigate(place);
        }}
      />
    </dialog>
  );
}

function Notices() {
  const minutes = useStore(clockOff);
  const updated = useStore(newVersion);
  const [hidden, setHidden] = useState('');
  const words = [...(updated ? [IN.updated] : []), ...(minutes !== 0 ? [`${clockWords(minutes)} ${IN.setClock}`] : [])];
  const all = words.join(' ');
  if (words.length === 0 || hidden === all) return null;
  return (
    <div className="access-notice" role="status" aria-label="About this device">
      {words.map((line) => (
        <p key={line}>{line}</p>
      ))}
      <div className="button-row">
        {updated && <PlainButton onClick={() => void takeNewVersion()}>Reload</PlainButton>}
        <PlainButton onClick={() => setHidden(all)}>Hide</PlainButton>
      </div>
    </div>
  );
}
