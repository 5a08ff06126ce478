import { PlusOutlined } from '@ant-design/icons';
import { Button, Switch } from 'antd';
import { useId } from 'react';
import { useParts } from '../../api/parts';
import { edit, useBench } from '../../state/bench';
import { Choice } from '../../ui/Choice';
import { FigureField } from '../../ui/FigureField';
import { QuantityField } from '../../ui/QuantityField';
import { TextField } from '../../ui/TextField';
import { useForgetTyped, useTyped } from '../../ui/typed-text';
import { putPiece } from '@emery/core/align';
import type { AlignStack } from '@emery/core/drive';

/** A piece of a stack: its depth, or one of several it comes in, written in or taken from the shop's parts. */
export function PieceForm({ stack }: { stack: AlignStack }) {
  const { dispatch, unit } = useBench('dispatch', 'unit');
  const [open, setOpen] = useTyped('open', false);
  const [name, setName] = useTyped('piece', '');
  const [option, setOption] = useTyped('option', '');
  const [mm, setMm] = useTyped<number>('depth', 0);
  const [plusMinus, setPlusMinus] = useTyped<number | null>('plus or minus', null);
  const [price, setPrice] = useTyped<number | null>('price', null);
  const [fitted, setFitted] = useTyped('fitted', false);
  const { data } = useParts(open);
  const forget = useForgetTyped();
  const id = useId();
  const several = option.trim() !== '';
  if (!open)
    return (
      <Button icon={<PlusOutlined />} onClick={() => setOpen(true)}>
        Add a piece
      </Button>
    );
  const parts = data?.parts ?? [];
  const keep = () => {
    dispatch(
      edit((d) =>
        putPiece(d, stack.id, {
          name: name.trim(),
          option: several ? option.trim() : null,
          depth: {
            mm,
            ...(plusMinus !== null && { plusMinus }),
            ...(several && price !== null && { price }),
            ...(several && fitted && { fitted }),
          },
        }),
      ),
    );
    const same = name;
    forget();
    setOpen(true);
    // The next depth of the same piece is what mostly comes after one.
    if (several) setName(same);
  };
  return (
    <div className="piece-form">
      <div className="fields">
        <TextField label="Piece" value={name} max={80} onChange={setName} />
        <TextField label="Name of this version" value={option} max={80} onChange={setOption} />
        {parts.length > 0 && (
          <div className="field is-wide">
            <Choice
              label="Or take a part at hand"
              value="none"
              options={[
                { value: 'none', label: 'from the shop’s list …' },
                ...parts.map((part) => ({ value: part.id, label: `${part.label}, ${part.mm} mm` })),
              ]}
              onChange={(chosen) => {
                const part = parts.find((part) => part.id === chosen);
                if (!part) return;
                setOption(part.label);
                if (name.trim() === '') setName(part.kind);
                setMm(part.mm);
                setPlusMinus(part.plusMinus);
                setPrice(part.price);
              }}
            />
          </div>
        )}
        <QuantityField label="Depth" mm={mm} unit={unit} signed onCommit={setMm} />
        <FigureField
          label="±"
          unit="mm"
          value={plusMinus}
          min={0.001}
          max={50}
          onCommit={setPlusMinus}
          onClear={() => setPlusMinus(null)}
        />
        {several && (
          <>
            <FigureField
              label="Price"
              unit="money"
              value={price}
              min={0}
              max={999_999}
              onCommit={setPrice}
              onClear={() => setPrice(null)}
            />
            <div className="switch-line is-field">
              <Switch id={id} checked={fitted} onChange={setFitted} />
              <label htmlFor={id}>Fitted now</label>
            </div>
          </>
        )}
      </div>
      <div className="button-row is-after">
        <Button type="primary" disabled={name.trim() === ''} onClick={keep}>
          {several ? 'Add this part' : 'Add this piece'}
        </Button>
        <Button onClick={forget}>Close</Button>
      </div>
    </div>
  );
}
