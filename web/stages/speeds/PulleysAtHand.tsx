import { PlusOutlined } from '@ant-design/icons';
import { Button } from 'antd';
import { useState } from 'react';
import { useChangePulleys, usePulleys } from '../../api/speeds';
import { useBench } from '../../state/bench';
import { AtHand } from '../AtHand';
import { Choice } from '../../ui/Choice';
import { CountField } from '../../ui/CountField';
import { QuantityField } from '../../ui/QuantityField';
import { TextField } from '../../ui/TextField';
import { TypedPlace, useTyped } from '../../ui/typed-text';
import { type Role, ROLE_LABELS, ROLES } from '@emery/core/drive';
import { formatLength } from '@emery/core/quantity';
import { type Surface, SURFACES } from '@emery/core/section';

const FACES: Record<Surface, string> = { ribbed: 'Ribbed', vee: 'V groove', smooth: 'Smooth', toothed: 'Toothed' };
const SURFACE_OPTIONS = SURFACES.map((value) => ({ value, label: FACES[value] }));
const ROLE_OPTIONS = [
  { value: 'any', label: 'Any' },
  ...ROLES.map((value) => ({ value: value as string, label: ROLE_LABELS[value] })),
];

/** The shop's list of pulleys at hand: looked at, added to, taken from. */
export function PulleysAtHand() {
  const { unit } = useBench('unit');
  const { data, error } = usePulleys();
  const { remove } = useChangePulleys();
  const [open, setOpen] = useState(false);
  const pulleys = data?.pulleys ?? [];
  return (
    <AtHand
      title={`Pulleys at hand in the shop: ${pulleys.length}`}
      label="Pulleys at hand"
      open={open}
      setOpen={setOpen}
      problem={error && error.message}
      items={pulleys.map(({ id, label, surface, diameter, teeth, grooves, set, count = 1 }) => ({
        id,
        label,
        detail: [
          teeth !== undefined ? `${teeth} teeth` : formatLength(diameter!, unit),
          FACES[surface].toLowerCase(),
          ...(grooves !== undefined ? [`${grooves} grooves`] : []),
          ...(set ? [`set ${set}`] : []),
          ...(count > 1 ? [`${count} of them`] : []),
        ].join(', '),
      }))}
      onRemove={(id) => remove.mutate(id)}
    >
      <TypedPlace at="new pulley">
        <NewPulley key={pulleys.length} />
      </TypedPlace>
    </AtHand>
  );
}

function NewPulley() {
  const { unit } = useBench('unit');
  const { add } = useChangePulleys();
  const [label, setLabel] = useTyped('name', '');
  const [role, setRole] = useTyped('role', 'any');
  const [surface, setSurface] = useTyped<Surface>('surface', 'ribbed');
  const [diameter, setDiameter] = useTyped('diameter', 100);
  const [teeth, setTeeth] = useTyped('teeth', 24);
  const [grooves, setGrooves] = useTyped<number | null>('grooves', 6);
  const [set, setSet] = useTyped('set', '');
  const [count, setCount] = useTyped('count', 1);
  const [lacks, setLacks] = useState(false);
  const keep = () =>
    add.mutate(
      {
        label: label.trim(),
        surface,
        ...(role !== 'any' && { role: role as Role }),
        ...(surface === 'toothed' ? { teeth } : { diameter }),
        ...(surface === 'ribbed' && grooves !== null && { grooves }),
        ...(set.trim() !== '' && { set: set.trim() }),
        ...(count > 1 && { count }),
      },
      {
        onSuccess: () => {
          setLabel('');
          setSet('');
          setCount(1);
        },
      },
    );
  return (
    <>
      <div className="fields">
        <TextField
          label="Name"
          value={label}
          max={120}
          problem={lacks && label.trim() === '' ? 'Give it a name.' : ''}
          onChange={setLabel}
        />
        <Choice label="Goes on" value={role} options={ROLE_OPTIONS} onChange={setRole} />
        <Choice label="Face" value={surface} options={SURFACE_OPTIONS} onChange={setSurface} />
        {surface === 'toothed' ? (
          <CountField label="Teeth" value={teeth} min={6} max={400} onCommit={(count) => setTeeth(count ?? teeth)} />
        ) : (
          <QuantityField label="Diameter" mm={diameter} unit={unit} onCommit={setDiameter} />
        )}
        {surface === 'ribbed' && (
          <CountField
            label="Grooves"
            value={grooves ?? undefined}
            max={60}
            optional
            onCommit={(many) => setGrooves(many ?? null)}
          />
        )}
        <CountField label="Quantity" value={count} max={1000} onCommit={(many) => setCount(many ?? 1)} />
        <TextField label="Set, if any" value={set} max={80} onChange={setSet} />
      </div>
      {add.isError && (
        <p className="field-echo is-wrong" role="alert">
          It was not added. {add.error.message}
        </p>
      )}
      <Button
        icon={<PlusOutlined />}
        loading={add.isPending}
        onClick={() => (label.trim() === '' ? setLacks(true) : keep())}
      >
        Add to the list
      </Button>
    </>
  );
}
