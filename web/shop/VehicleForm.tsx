import { Button, Input, Select, type InputRef } from 'antd';
import { useEffect, useEffectEvent, useId, useRef, useState, type FormEvent } from 'react';
import { number, object, string, ValidationError } from 'yup';
import type { ApiProblem } from '../api/client';
import { newSaveId } from '../api/shop';
import { Dialog } from '../ui/Dialog';
import { useForgetTyped, useTyped } from '../ui/typed-text';
import type { VehicleFields } from '@emery/core/api';
import { odometerDoubtWords } from '@emery/core/quantity';

interface Props {
  title: string;
  start: VehicleFields;
  /** The revision that `start` is; 0 for a vehicle that is not there yet. */
  revision: number;
  onSave: (save: VehicleSave) => Promise<unknown>;
  onClose: () => void;
}

const EMPTY_NUMBER = /^\s*$/;

const fieldsSchema = object({
  name: string()
    .trim()
    .required('Name: enter the shop’s name for the vehicle.')
    .max(120, 'Name: 120 characters at most.'),
  plate: string().trim().max(40, 'Plate or fleet number: 40 characters at most.'),
  odometer: number()
    .transform((value: number, written: unknown) =>
      typeof written === 'string' && EMPTY_NUMBER.test(written) ? null : value,
    )
    .typeError('Odometer: write a whole number, or leave it empty.')
    .integer('Odometer: write a whole number, or leave it empty.')
    .min(0, 'Odometer: 0 or more.')
    .max(99_999_999, 'Odometer: 99,999,999 at most.')
    .nullable(),
  odometerUnit: string().oneOf(['km', 'mi', 'h'] as const),
  notes: string().trim().max(4000, 'Notes: 4,000 characters at most.'),
});

export const NEW_VEHICLE: VehicleFields = { name: '', plate: '', odometer: null, odometerUnit: 'km', notes: '' };

const FIELD_NAMES: Record<keyof VehicleFields, string> = {
  name: 'name',
  plate: 'plate',
  odometer: 'odometer',
  odometerUnit: 'odometer unit',
  notes: 'notes',
};

/**
 * A vehicle as it goes to the server: what was written, over which revision, and the save's own name, so that the same
 * one sent again is taken once.
 */
export interface VehicleSave {
  fields: VehicleFields;
  revision: number;
  saveId: string;
}

/** A save whose server was away is sent again after this, ms. */
const AGAIN_MS = 3000;

/** What another save says differently, by the names of the fields. */
function changedBy(theirs: VehicleFields, mine: Record<keyof VehicleFields, string>): string {
  return (Object.keys(FIELD_NAMES) as (keyof VehicleFields)[])
    .filter((field) => String(theirs[field] ?? '') !== mine[field])
    .map((field) => `${FIELD_NAMES[field]} "${theirs[field] ?? ''}"`)
    .join(', ');
}

/**
 * Make or change a vehicle. What does not fit is said under its field, and everything written stays, through a reload
 * too. A save whose server is away is tried again by itself until it is through, something else is written, or it is
 * given up.
 */
export function VehicleForm({ title, start, revision, onSave, onClose }: Props) {
  const [written, setWritten] = useTyped('vehicle', {
    ...start,
    odometer: start.odometer === null ? '' : String(start.odometer),
    over: revision,
  });
  const [problems, setProblems] = useState<Record<string, string>>({});
  // An odd odometer is asked about once; saved again as it is, it is meant.
  const [meant, setMeant] = useState<string | null>(null);
  const [saving, setSaving] = useState(false);
  const [again, setAgain] = useState<VehicleSave | null>(null);
  const forget = useForgetTyped();
  const id = useId();
  const first = useRef<InputRef>(null);
  const put = (change: Partial<typeof written>) => {
    setAgain(null);
    setWritten((before) => ({ ...before, ...change }));
  };
  const close = () => {
    forget();
    onClose();
  };

  const send = async (save: VehicleSave) => {
    setSaving(true);
    try {
      await onSave(save);
      close();
    } catch (error) {
      const problem = error as ApiProblem;
      const theirs = problem.body?.['current'] as (VehicleFields & { revision: number }) | undefined;
      setAgain(problem.passing ? save : null);
      if (problem.passing)
        setProblems({ '': `Not saved yet. ${problem.message} Emery tries again by itself; leave this open.` });
      else if (problem.status === 409 && theirs) {
        // Seen now, so that a second press replaces it knowingly.
        setWritten((before) => ({ ...before, over: theirs.revision }));
        setProblems({
          '': `Changed somewhere else, to ${changedBy(theirs, written) || 'the same'}. Save again to replace that with yours, or cancel to keep it.`,
        });
      } else setProblems({ '': `Not saved. ${problem.message}` });
    } finally {
      setSaving(false);
    }
  };
  const sendAgain = useEffectEvent(() => again && void send(again));
  useEffect(() => {
    if (!again || saving) return;
    const timer = setTimeout(sendAgain, AGAIN_MS);
    const warn = (event: BeforeUnloadEvent) => event.preventDefault();
    window.addEventListener('beforeunload', warn);
    return () => {
      clearTimeout(timer);
      window.removeEventListener('beforeunload', warn);
    };
  }, [again, saving]);

  const submit = async (event: FormEvent) => {
    event.preventDefault();
    const { over, ...text } = written;
    try {
      const fields = (await fieldsSchema.validate(
        { ...text, odometer: text.odometer.replace(/[ ,.'’](?=\d{3}\b)/g, '') },
        { abortEarly: false },
      )) as VehicleFields;
      const doubt =
        fields.odometer === null || fields.odometerUnit !== start.odometerUnit || meant === text.odometer
          ? null
          : odometerDoubtWords(fields.odometer, start.odometer, fields.odometerUnit);
      if (doubt !== null) {
        setMeant(text.odometer);
        setProblems({ odometer: `Odometer: ${doubt} Correct it, or save again to confirm.` });
        return;
      }
      setProblems({});
      await send({ fields, revision: over, saveId: newSaveId() });
    } catch (error) {
      if (!(error instanceof ValidationError)) throw error;
      setProblems(Object.fromEntries(error.inner.map(({ path, message }) => [path ?? '', message])));
    }
  };

  const says = (field: string) => (
    <p
      className={`field-echo${problems[field] ? ' is-wrong' : ''}`}
      id={`${id}-${field}-says`}
      role={problems[field] ? 'alert' : undefined}
    >
      {problems[field]}
    </p>
  );
  const wiring = (field: string) => ({
    id: `${id}-${field}`,
    status: problems[field] ? ('error' as const) : ('' as const),
    'aria-describedby': `${id}-${field}-says`,
  });

  return (
    <Dialog title={title} onClose={close} first={first} firm>
      <form className="form-labelled" onSubmit={(event) => void submit(event)} noValidate>
        <label className="label" htmlFor={`${id}-name`}>
          Name
        </label>
        <Input
          {...wiring('name')}
          ref={first}
          value={written.name}
          onChange={(event) => put({ name: event.target.value })}
        />
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
          <Input
            {...wiring('odometer')}
            value={written.odometer}
            inputMode="numeric"
            onChange={(event) => put({ odometer: event.target.value })}
          />
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
        <Input.TextArea
          {...wiring('notes')}
          value={written.notes}
          rows={3}
          onChange={(event) => put({ notes: event.target.value })}
        />
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
          <Button onClick={close}>Cancel</Button>
        </div>
      </form>
    </Dialog>
  );
}
