import { Button, Input, Modal, Select } from 'antd';
import { useId, useState, type FormEvent } from 'react';
import { number, object, string, ValidationError } from 'yup';
import type { ApiProblem } from '../api/client';
import type { VehicleFields } from '../api/shop';

interface Props {
  title: string;
  start: VehicleFields;
  onSave: (fields: VehicleFields) => Promise<unknown>;
  onClose: () => void;
}

const EMPTY_NUMBER = /^\s*$/;

const fieldsSchema = object({
  name: string().trim().required('Name: write what the shop calls the vehicle.').max(120, 'Name: 120 characters at most.'),
  plate: string().trim().max(40, 'Plate or fleet number: 40 characters at most.'),
  odometer: number()
    .transform((value: number, written: unknown) => (typeof written === 'string' && EMPTY_NUMBER.test(written) ? null : value))
    .typeError('Odometer: write a whole number, or leave it empty.')
    .integer('Odometer: write a whole number, or leave it empty.')
    .min(0, 'Odometer: 0 or more.')
    .max(99_999_999, 'Odometer: 99,999,999 at most.')
    .nullable(),
  odometerUnit: string().oneOf(['km', 'mi', 'h'] as const),
  notes: string().trim().max(4000, 'Notes: 4,000 characters at most.'),
});

export const NEW_VEHICLE: VehicleFields = { name: '', plate: '', odometer: null, odometerUnit: 'km', notes: '' };

const FIELD_NAMES: Record<keyof VehicleFields, string> = { name: 'name', plate: 'plate', odometer: 'odometer', odometerUnit: 'odometer unit', notes: 'notes' };

/** Why a vehicle was not saved. After a save from elsewhere: what that one says, so that a second press replaces it knowingly. */
function notSaved({ status, message, body }: ApiProblem, mine: Record<keyof VehicleFields, string>): string {
  const theirs = body['current'] as VehicleFields | undefined;
  if (status !== 409 || !theirs) return `Not saved. ${message}`;
  const changed = (Object.keys(FIELD_NAMES) as (keyof VehicleFields)[])
    .filter((field) => String(theirs[field] ?? '') !== mine[field])
    .map((field) => `${FIELD_NAMES[field]} "${theirs[field] ?? ''}"`);
  return `Saved somewhere else meanwhile, with ${changed.join(', ') || 'the same'}. Save again to replace that with yours, or cancel to keep it.`;
}

/** Make or change a vehicle. What does not fit is said under its field, and everything written stays. */
export function VehicleForm({ title, start, onSave, onClose }: Props) {
  const [written, setWritten] = useState({ ...start, odometer: start.odometer === null ? '' : String(start.odometer) });
  const [problems, setProblems] = useState<Record<string, string>>({});
  const [saving, setSaving] = useState(false);
  const id = useId();
  const put = (change: Partial<typeof written>) => setWritten((before) => ({ ...before, ...change }));

  const submit = async (event: FormEvent) => {
    event.preventDefault();
    try {
      const fields = await fieldsSchema.validate({ ...written, odometer: written.odometer.replace(/[ ,.'’](?=\d{3}\b)/g, '') }, { abortEarly: false });
      setSaving(true);
      await onSave(fields as VehicleFields);
      onClose();
    } catch (error) {
      if (error instanceof ValidationError) setProblems(Object.fromEntries(error.inner.map(({ path, message }) => [path ?? '', message])));
      else setProblems({ '': notSaved(error as ApiProblem, written) });
    } finally {
      setSaving(false);
    }
  };

  const says = (field: string) => (
    <p className={`field-echo${problems[field] ? ' is-wrong' : ''}`} id={`${id}-${field}-says`} role={problems[field] ? 'alert' : undefined}>
      {problems[field]}
    </p>
  );
  const wiring = (field: string) => ({ id: `${id}-${field}`, status: problems[field] ? ('error' as const) : ('' as const), 'aria-describedby': `${id}-${field}-says` });

  return (
    <Modal title={title} open onCancel={onClose} footer={null} mask={{ closable: false }}>
      <form onSubmit={(event) => void submit(event)} noValidate>
        <label className="label" htmlFor={`${id}-name`}>
          Name
        </label>
        <Input {...wiring('name')} value={written.name} autoFocus onChange={(event) => put({ name: event.target.value })} />
        {says('name')}
        <label className="label" htmlFor={`${id}-plate`}>
          Plate or fleet number
        </label>
        <Input {...wiring('plate')} value={written.plate} onChange={(event) => put({ plate: event.target.value })} />
        {says('plate')}
        <label className="label" htmlFor={`${id}-odometer`}>
          Odometer
        </label>
        <div className="joined">
          <Input {...wiring('odometer')} value={written.odometer} inputMode="numeric" onChange={(event) => put({ odometer: event.target.value })} />
          <Select
            aria-label="Odometer unit"
            value={written.odometerUnit}
            options={[
              { value: 'km', label: 'km' },
              { value: 'mi', label: 'miles' },
              { value: 'h', label: 'hours' },
            ]}
            onChange={(odometerUnit) => put({ odometerUnit })}
          />
        </div>
        {says('odometer')}
        <label className="label" htmlFor={`${id}-notes`}>
          Notes
        </label>
        <Input.TextArea {...wiring('notes')} value={written.notes} rows={3} onChange={(event) => put({ notes: event.target.value })} />
        {says('notes')}
        {problems[''] && (
          <p className="field-echo is-wrong" role="alert">
            {problems['']}
          </p>
        )}
        <div className="button-row">
          <Button type="primary" htmlType="submit" loading={saving}>
            Save vehicle
          </Button>
          <Button onClick={onClose}>Cancel</Button>
        </div>
      </form>
    </Modal>
  );
}
