import { useEffect, useEffectEvent, useState } from 'react';
import { useNavigate } from 'react-router';
import { ask, type ApiProblem } from '../api/client';
import { useTitle } from '../ui/use-title';
import { useIn } from './AccessNotices';
import { onMachine } from './here';
import { SignIn } from './SignIn';
import { IN } from './words';
import './access.css';
import type { Me } from '@emery/core/api';

/** The code in the address, which is taken out of it: it is not for the history of the browser. */
function codeOfAddress(): string {
  const code = window.location.hash.slice(1);
  if (code !== '') window.history.replaceState(window.history.state, '', window.location.pathname);
  return code;
}

const OWNER = /^owner=(.+)$/;

/** A code is good once: it is sent once, however often the page is drawn. */
let using: { code: string; answer: Promise<{ me: Me; place: string }> } | null = null;
function use(code: string): Promise<{ me: Me; place: string }> {
  if (using?.code !== code) using = { code, answer: ask('POST', '/access/redeem', { token: code }) };
  return using.answer;
}

/** Where a device comes in that reads a code, or types its digits. */
export default function InPage() {
  useTitle('Sign in');
  return (
    <main className="in-page">
      <span className="wordmark">Emery</span>
      {onMachine() ? <p>{IN.machine}</p> : <ComeIn />}
    </main>
  );
}

function ComeIn() {
  const [code] = useState(codeOfAddress);
  const [problem, setProblem] = useState<string | null>(null);
  const navigate = useNavigate();
  const taken = useIn();
  const ownerCode = OWNER.exec(code)?.[1];
  const token = ownerCode === undefined && code !== '' ? code : null;
  const go = (me: Me, place: string | null) => {
    taken(me);
    void navigate(place ?? '/', { replace: true });
  };
  const goOn = useEffectEvent(go);
  useEffect(() => {
    if (token === null) return;
    let gone = false;
    use(token).then(
      ({ me, place }) => gone || goOn(me, place),
      (error: ApiProblem) => gone || setProblem(error.message),
    );
    return () => void (gone = true);
  }, [token]);
  if (token !== null && problem === null) return <p role="status">Signing in …</p>;
  return (
    <>
      <h1>Sign in</h1>
      {problem !== null && (
        <p className="sign-problem" role="alert">
          {problem}
        </p>
      )}
      <SignIn onIn={go} digitsFirst ownerCode={ownerCode} />
    </>
  );
}
