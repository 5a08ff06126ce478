import { useState } from 'react';
import { useNavigate } from 'react-router';
import { beginDrive } from '../offline/begun';
import { CopyText } from '../ask-for/CopyText';
import { PlainButton } from '../ui/PlainButton';
import { useAsked } from './asked';
import type { Drive } from '@emery/core/drive';

interface Props {
  /** The drive that carries what was entered; null where there is nothing to carry yet. */
  drive: (() => Drive) | null;
  /** Where on the bench it opens. */
  stage?: string;
}

/** Takes what was entered to the bench, and gives the link to it. */
export function KeepAsDrive({ drive, stage = 'survey' }: Props) {
  const navigate = useNavigate();
  const [busy, setBusy] = useState(false);
  const [problem, setProblem] = useState('');
  const keep = async () => {
    setBusy(true);
    setProblem('');
    try {
      const made = await beginDrive(drive!(), null);
      void navigate(`/drives/${made.id}/${stage}`, { state: { fresh: true } });
    } catch (error) {
      setProblem(`Not kept. ${(error as Error).message}`);
      setBusy(false);
    }
  };
  return (
    <div className="counter-after">
      <div className="button-row">
        <PlainButton primary disabled={drive === null || busy} onClick={() => void keep()}>
          Save as a drive
        </PlainButton>
        <ShareLink />
      </div>
      {problem !== '' && (
        <p className="field-echo is-wrong" role="alert">
          {problem}
        </p>
      )}
    </div>
  );
}

/** The address that asks all this again. */
export function ShareLink() {
  const { search } = useAsked();
  return <CopyText label="link" text={`${window.location.origin}${window.location.pathname}${search}`} />;
}
