import { grouped } from '@emery/core/quantity';
import { Button, Switch } from 'antd';
import { useId, useState } from 'react';
import { ask } from '../api/client';
import type { StockFile } from './read-stock-file';

const SHOWN = 8;
const counted = (count: number, what: string) => `${grouped(count)} ${what}${count === 1 ? '' : 's'}`;

/** What a CSV list holds before it is taken in: rows that are read, and rows that are not, with the reason. */
export function ImportPreview({
  file,
  onClose,
  onTaken,
}: {
  file: StockFile;
  onClose: () => void;
  onTaken: () => Promise<void>;
}) {
  const [replace, setReplace] = useState(false);
  const [busy, setBusy] = useState(false);
  const [problem, setProblem] = useState('');
  const id = useId();
  const take = async () => {
    setBusy(true);
    setProblem('');
    try {
      await ask('POST', '/stock', { replace, rows: file.good.map(({ row }) => row) });
      await onTaken();
    } catch (error) {
      setProblem((error as Error).message);
      setBusy(false);
    }
  };
  return (
    <section className="sheet stock-sheet" aria-label="What the file holds">
      <h2>
        {file.name}: {counted(file.good.length, 'belt')}
        {file.bad.length > 0 && `, ${counted(file.bad.length, 'row')} not understood`}
      </h2>
      {file.note && <p className="finding is-watch">{file.note}</p>}
      {file.bad.length > 0 && (
        <ul className="findings" aria-label="Rows not understood">
          {file.bad.slice(0, SHOWN).map(({ line, text, problem: why }) => (
            <li key={line} className="finding is-watch">
              <strong>Line {line}:</strong> {text}. {why}.
            </li>
          ))}
          {file.bad.length > SHOWN && <li className="quiet">and {grouped(file.bad.length - SHOWN)} more</li>}
        </ul>
      )}
      {file.good.length > 0 && (
        <p className="quiet">
          The first:{' '}
          {file.good
            .slice(0, 3)
            .map(({ belt }) => `${belt.ribs ?? ''}${belt.section} ${belt.lengthMm} mm`)
            .join(', ')}
        </p>
      )}
      <div className="switch-line">
        <Switch id={id} checked={replace} onChange={setReplace} />
        <label htmlFor={id}>Replace the present list</label>
      </div>
      {problem && (
        <p className="field-echo is-wrong" role="alert">
          Nothing was imported. {problem}
        </p>
      )}
      <div className="button-row is-after">
        <Button type="primary" loading={busy} disabled={file.good.length === 0} onClick={() => void take()}>
          Import {counted(file.good.length, 'belt')}
        </Button>
        <Button onClick={onClose}>Cancel</Button>
      </div>
    </section>
  );
}
