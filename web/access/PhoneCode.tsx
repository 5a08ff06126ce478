import { Button } from 'antd';
import { useEffect, useState, type ReactNode } from 'react';
import { Link } from 'react-router';
import { askForCode, useCodeState, useSharing, withdrawCode, type CodeAsked } from '../api/access';
import type { ApiProblem } from '../api/client';
import { useNow } from '../ui/use-now';
import { QrSquare } from './QrSquare';
import { digitsWords, IN } from './words';
import './phone-code.css';
import type { BringCode } from '@emery/core/api';

interface Props {
  /** What the code is for. A change of it asks for another. */
  asked: CodeAsked;
  children?: ReactNode;
}

/** A code for what is asked, another for each change of it; it is withdrawn once nobody sees it. */
function useNewCode(asked: CodeAsked) {
  const [code, setCode] = useState<BringCode | null>(null);
  const [problem, setProblem] = useState<ApiProblem | null>(null);
  const [turn, setTurn] = useState(0);
  const wanted = JSON.stringify(asked);
  useEffect(() => {
    let gone = false;
    const made = askForCode(JSON.parse(wanted) as CodeAsked);
    made.then(
      (fresh) => gone || (setCode(fresh), setProblem(null)),
      (error: ApiProblem) => gone || setProblem(error),
    );
    return () => {
      gone = true;
      // Nobody sees it any more, so it is good for nobody.
      void made.then(({ id }) => withdrawCode(id)).catch(() => undefined);
    };
  }, [wanted, turn]);
  return { code, problem, again: () => setTurn((count) => count + 1) };
}

/** A code that brings another device in: as a QR code and as six digits, for two minutes. */
export function PhoneCode({ asked, children }: Props) {
  const { code, problem, again } = useNewCode(asked);
  const sharing = useSharing();
  const state = useCodeState(code?.id ?? null);
  const { now } = useNow(state === undefined || state === 'open' ? Infinity : null);
  if (problem)
    return (
      <p className="finding is-watch" role="alert">
        {problem.message} {problem.status === 409 && <Link to="/devices">Devices</Link>}
      </p>
    );
  if (!code) return <p role="status">Making a code …</p>;
  if (state === 'used')
    return (
      <p className="code-used" role="status">
        ✓ Another device has opened it. <Button onClick={again}>New code</Button>
      </p>
    );
  const left = Math.min(120, Math.max(0, Math.ceil((Date.parse(code.expiresAt) - now) / 1000)));
  const over = state === 'over' || state === 'withdrawn' || left === 0;
  return (
    <div className="phone-code">
      {over ? (
        <p className="code-over" role="status">
          This code is over. <Button onClick={again}>New code</Button>
        </p>
      ) : (
        <OpenCode code={code} left={left} />
      )}
      {children}
      {sharing.data?.trustPage && (
        <p className="quiet code-first">
          A device that was never here warns of the certificate: continue past the warning, or open{' '}
          <strong>{sharing.data.trustPage}</strong> on it first and trust it.
        </p>
      )}
    </div>
  );
}

/** The code while it is good, with the seconds that are left of it. */
function OpenCode({ code: { link, digits, typeAt }, left }: { code: BringCode; left: number }) {
  return (
    <>
      <QrSquare value={link} size={232} label="QR code for the camera of the other device" />
      <div className="code-words">
        <p>{IN.pointCamera}</p>
        <p className="code-address">{typeAt}</p>
        <p>there and type</p>
        <p className="code-digits" data-testid="code-digits">
          {digitsWords(digits)}
        </p>
        <p className="quiet">Good for one device, {left} s more.</p>
      </div>
    </>
  );
}
