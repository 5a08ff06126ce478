import { PlusOutlined } from '@ant-design/icons';
import { Button, Input } from 'antd';
import { useId } from 'react';
import { edit, useBench } from '../../state/bench';
import { FigureField } from '../../ui/FigureField';
import { TextField } from '../../ui/TextField';
import { useTyped } from '../../ui/typed-text';
import { putMove } from '@emery/core/align';
import { readNumber } from '@emery/core/quantity';
import type { AlignMove, MoveKind } from '@emery/core/drive';

/** The figures of one kind of move, and a button that keeps it. */
export function MoveFields({ pulley, kind, onDone }: { pulley: string; kind: MoveKind; onDone: () => void }) {
  const { dispatch } = useBench('dispatch');
  const [min, setMin] = useTyped('in by', 4);
  const [max, setMax] = useTyped('out by', 3);
  const [sizes, setSizes] = useTyped('sizes', '');
  const [steps, setSteps] = useTyped('steps', 1);
  const [name, setName] = useTyped('name', '');
  const [mm, setMm] = useTyped<number | null>('mm', null);
  const list = sizesIn(sizes);
  const move = moveOf();

  function moveOf(): AlignMove | null {
    switch (kind) {
      case 'press':
        return { kind, pulley, min: -min, max };
      case 'shim':
        return list && list.length > 0 ? { kind, pulley, sizes: list } : null;
      case 'groove':
        return steps === 0 ? null : { kind, pulley, steps };
      case 'hub':
        return name.trim() === '' || mm === null ? null : { kind, pulley, options: [{ name: name.trim(), mm }] };
      case 'square':
        return { kind, pulley };
    }
  }
  return (
    <>
      <div className="fields">
        {kind === 'press' && (
          <>
            <FigureField label="In by up to" unit="mm" value={min} min={0} max={60} onCommit={setMin} />
            <FigureField label="Out by up to" unit="mm" value={max} min={0} max={60} onCommit={setMax} />
          </>
        )}
        {kind === 'shim' && <Sizes text={sizes} bad={list === null} onText={setSizes} />}
        {kind === 'groove' && (
          <FigureField
            label="Free grooves (inward: −)"
            unit="grooves"
            value={steps}
            min={-20}
            max={20}
            onCommit={(value) => setSteps(Math.round(value))}
          />
        )}
        {kind === 'hub' && (
          <>
            <TextField label="Name" value={name} max={80} onChange={setName} />
            <FigureField label="Further out by (in: −)" unit="mm" value={mm} min={-200} max={200} onCommit={setMm} />
          </>
        )}
      </div>
      <Button
        icon={<PlusOutlined />}
        disabled={move === null}
        onClick={() => {
          dispatch(edit((d) => putMove(d, move!)));
          onDone();
        }}
      >
        Add this move
      </Button>
    </>
  );
}

/** No washer or feeler is thicker, mm. */
const SIZES_MM = 200;

/** Sizes as they are written, such as `0.5 1 1,6`; null where one is no number. */
function sizesIn(text: string): number[] | null {
  const parts = text
    .replace(/[−–]/g, '-')
    .split(/[\s;]+|,\s+/)
    .filter(Boolean)
    .map((part) => readNumber(part.replace(/mm$/i, ''), { min: -SIZES_MM, max: SIZES_MM }))
    .map((read) => (read.ok ? read.value : Number.NaN));
  return parts.every((value) => Number.isFinite(value) && Math.abs(value) <= SIZES_MM) && parts.length <= 40
    ? parts
    : null;
}

function Sizes({ text, bad, onText }: { text: string; bad: boolean; onText: (text: string) => void }) {
  const id = useId();
  return (
    <div className="field is-wide">
      <label className="label" htmlFor={id}>
        Sizes at hand, mm
      </label>
      <Input
        id={id}
        value={text}
        autoComplete="off"
        status={bad ? 'error' : ''}
        aria-invalid={bad}
        aria-describedby={`${id}-echo`}
        onChange={(event) => onText(event.target.value)}
      />
      <p id={`${id}-echo`} className={`field-echo${bad ? ' is-wrong' : ''}`} role={bad ? 'alert' : undefined}>
        {bad
          ? 'Sizes at hand: enter up to 40 numbers in mm, such as 0.5 1 1.6.'
          : 'Such as 0.5 1 1.6. Enter minus for a spacer that can be removed.'}
      </p>
    </div>
  );
}
