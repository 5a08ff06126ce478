import { DownloadOutlined, PlusOutlined } from '@ant-design/icons';
import { Button } from 'antd';
import { useState } from 'react';
import { useChangeParts, useParts } from '../../api/parts';
import { decoded, delimiterOf, eachCsvRow } from '../../stock/read-csv';
import { useBench } from '../../state/bench';
import { AtHand } from '../AtHand';
import { Choice } from '../../ui/Choice';
import { CountField } from '../../ui/CountField';
import { FileButton } from '../../ui/FileButton';
import { QuantityField } from '../../ui/QuantityField';
import { TextField } from '../../ui/TextField';
import { TypedPlace, useForgetTyped, useTyped } from '../../ui/typed-text';
import { MOST_PARTS, PART_COLUMNS, PART_KINDS, type PartKind } from '@emery/core/align';
import { formatLength, fixed } from '@emery/core/quantity';

/** The shop's list of hubs, pumps and spacers: looked at, added to, in and out as CSV. */
export function PartsAtHand() {
  const { unit } = useBench('unit');
  const [open, setOpen] = useState(false);
  const { data, error } = useParts(open);
  const { add, remove } = useChangeParts();
  const [problem, setProblem] = useState('');
  const parts = data?.parts ?? [];
  const bringIn = async (file: File) => {
    const read = await rowsOf(file);
    setProblem(read.problem);
    if (read.problem === '') add.mutate(read.rows);
  };
  return (
    <AtHand
      title="Hubs, pumps and spacers of the shop"
      label="Parts at hand"
      open={open}
      setOpen={setOpen}
      problem={error && error.message}
      items={parts.map(({ id, label, kind, mm, plusMinus, price, count }) => ({
        id,
        label,
        detail: [
          kind,
          `${formatLength(mm, unit, 2)}${plusMinus === null ? '' : ` ± ${plusMinus}`}`,
          ...(price !== null ? [fixed(price, 2)] : []),
          ...(count > 1 ? [`${count} of them`] : []),
        ].join(', '),
      }))}
      onRemove={(id) => remove.mutate(id)}
    >
      <div className="button-row">
        <FileButton
          label="Import a CSV list"
          what="CSV file of parts"
          accept=".csv,text/csv"
          onFile={(file) => void bringIn(file)}
        />
        <Button icon={<DownloadOutlined />} href="/api/parts/file" download disabled={parts.length === 0}>
          Save as CSV
        </Button>
      </div>
      {(problem || add.isError) && (
        <p className="field-echo is-wrong" role="alert">
          Nothing was added. {problem || add.error?.message}
        </p>
      )}
      <TypedPlace at="new part">
        <NewPart add={add.mutate} busy={add.isPending} />
      </TypedPlace>
    </AtHand>
  );
}

/** A CSV list as rows of texts; the server reads each, and says which it cannot. */
async function rowsOf(file: File): Promise<{ rows: Record<string, string>[]; problem: string }> {
  const refuse = (problem: string) => ({ rows: [], problem: `${file.name} ${problem}` });
  if (file.size > 1_000_000) return refuse('holds over 1 MB; a list of parts is far shorter.');
  const { text } = decoded(new Uint8Array(await file.arrayBuffer()));
  let columns: string[] | null = null;
  const rows: Record<string, string>[] = [];
  const open = eachCsvRow(text, delimiterOf(text), ({ cells }) => {
    if (!columns) columns = cells.map((cell) => cell.trim().toLowerCase());
    else rows.push(Object.fromEntries(columns.map((name, k) => [name, cells[k] ?? ''])));
    return rows.length <= MOST_PARTS;
  });
  const named = (columns as string[] | null) ?? [];
  if (!named.includes('label') || !named.includes('depth'))
    return refuse(`must name the columns in its first line: ${PART_COLUMNS.join(', ')}.`);
  if (open !== null) return refuse(`has a quotation mark (") on line ${open} that is not closed.`);
  if (rows.length > MOST_PARTS) return refuse(`holds more than ${MOST_PARTS} parts, the most allowed.`);
  return { rows, problem: '' };
}

function NewPart({
  add,
  busy,
}: {
  add: (rows: readonly Record<string, unknown>[], done: { onSuccess: () => void }) => void;
  busy: boolean;
}) {
  const { unit } = useBench('unit');
  const [label, setLabel] = useTyped('name', '');
  const [kind, setKind] = useTyped<PartKind>('kind', 'spacer');
  const [mm, setMm] = useTyped('depth', 0);
  const [count, setCount] = useTyped('count', 1);
  const forget = useForgetTyped();
  return (
    <>
      <div className="fields">
        <TextField label="Name" value={label} max={80} onChange={setLabel} />
        <Choice
          label="Kind"
          value={kind}
          options={PART_KINDS.map((value) => ({ value, label: value }))}
          onChange={setKind}
        />
        <QuantityField label="Depth" mm={mm} unit={unit} signed onCommit={setMm} />
        <CountField label="Quantity" value={count} max={9999} onCommit={(many) => setCount(many ?? 1)} />
      </div>
      <Button
        icon={<PlusOutlined />}
        loading={busy}
        disabled={label.trim() === ''}
        onClick={() => add([{ label: label.trim(), kind, depth: mm, count }], { onSuccess: forget })}
      >
        Add to the list
      </Button>
    </>
  );
}
