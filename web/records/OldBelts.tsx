import { Button, Spin } from 'antd';
import { useMutation } from '@tanstack/react-query';
import { useState } from 'react';
import { ask } from '../api/client';
import { useShopHasChanged } from '../api/jobs';
import { FileButton } from '../ui/FileButton';
import { type HistoryFile, readHistoryFile } from './read-history-file';
import type { HistoryAnswer } from '@emery/core/api';
import { uncapital, grouped } from '@emery/core/quantity';
import { HISTORY_COLUMNS } from '@emery/core/records';

const bring = (file: HistoryFile, look: boolean) =>
  ask<HistoryAnswer>('POST', '/records/history', { look, rows: file.rows.map(({ cells }) => cells) });
const counted = (count: number) => (count === 1 ? '1 row' : `${grouped(count)} rows`);

/** Belts and readings from before Emery: a CSV list, looked at before anything of it is imported. */
export function OldBelts() {
  const [file, setFile] = useState<HistoryFile | null>(null);
  const [problem, setProblem] = useState('');
  const changed = useShopHasChanged();
  const look = useMutation({ mutationFn: (chosen: HistoryFile) => bring(chosen, true) });
  const take = useMutation({ mutationFn: (chosen: HistoryFile) => bring(chosen, false), onSuccess: () => changed() });
  const choose = async (chosen: File) => {
    take.reset();
    look.reset();
    const read = readHistoryFile(chosen.name, new Uint8Array(await chosen.arrayBuffer()));
    setProblem(read.ok ? '' : read.problem);
    setFile(read.ok ? read.file : null);
    if (read.ok) look.mutate(read.file);
  };
  return (
    <section aria-label="Belts from before Emery" className="old-belts">
      <div className="button-row">
        <FileButton
          label="Import old belts (CSV)"
          what="CSV file of old belts"
          accept=".csv,text/csv"
          onFile={(chosen) => void choose(chosen)}
        />
        <span className="quiet">Columns: {HISTORY_COLUMNS.join(', ')}.</span>
      </div>
      {(problem || look.error || take.error) && (
        <p className="finding is-fault" role="alert">
          <strong>Nothing was imported.</strong> {problem || (look.error ?? take.error)!.message}
        </p>
      )}
      {look.isPending && <Spin aria-label="Reading the list" />}
      {file && look.data && !take.data && (
        <Look
          file={file}
          answer={look.data}
          busy={take.isPending}
          onTake={() => take.mutate(file)}
          onClose={() => setFile(null)}
        />
      )}
      {take.data && (
        <p className="finding is-note" role="status">
          <strong>{counted(take.data.taken)} imported.</strong> They are in the histories of their vehicles.
        </p>
      )}
    </section>
  );
}

interface LookProps {
  file: HistoryFile;
  answer: HistoryAnswer;
  busy: boolean;
  onTake: () => void;
  onClose: () => void;
}

/** What would come in, row by row, and what would not and why. */
function Look({ file, answer: { rows }, busy, onTake, onClose }: LookProps) {
  const numbered = rows.map((row, k) => ({ row, line: file.rows[k]!.line }));
  const fresh = numbered.filter(({ row }) => row.ok && !row.there);
  const bad = numbered.filter(({ row }) => !row.ok);
  return (
    <div className="sheet stock-sheet">
      <h2>
        {file.name}: {counted(fresh.length)} to import
        {bad.length > 0 && `, ${counted(bad.length)} not understood`}
      </h2>
      {file.note && <p className="finding is-watch">{file.note}</p>}
      <ul className="due-list" aria-label="Contents of the list">
        {numbered.map(({ row, line }) =>
          row.ok ? (
            <li key={line}>
              <strong>{row.vehicle}</strong> {row.drive}, {uncapital(row.belt)}: {row.text}
              {row.there && <span className="quiet"> (there already)</span>}
            </li>
          ) : (
            <li key={line} className="finding is-watch">
              <strong>Line {line}:</strong> {row.problem}.
            </li>
          ),
        )}
      </ul>
      <div className="button-row is-after">
        <Button type="primary" loading={busy} disabled={fresh.length === 0} onClick={onTake}>
          Import {counted(fresh.length)}
        </Button>
        <Button onClick={onClose}>Cancel</Button>
      </div>
    </div>
  );
}
