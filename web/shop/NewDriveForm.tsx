import { CameraOutlined, CopyOutlined } from '@ant-design/icons';
import { Button, Input, type InputRef } from 'antd';
import { useId, useMemo, useRef, useState, type FormEvent, type ReactNode } from 'react';
import { ask } from '../api/client';
import { Thumbnail } from '../bench/Thumbnail';
import { Choice } from '../ui/Choice';
import { Chips } from '../ui/Chips';
import { Dialog } from '../ui/Dialog';
import { useTyped } from '../ui/typed-text';
import { ChooseDrive } from './ChooseDrive';
import type { DriveOpened } from '@emery/core/api';
import type { Drive } from '@emery/core/drive';
import { sketchOf } from '@emery/core/path';
import { SECTIONS } from '@emery/core/section';
import { LAYOUT_SECTION, LAYOUT_WORDS, layoutDrive, LAYOUTS, startedFrom, type Layout } from '@emery/core/start';

const KINDS = SECTIONS.map(({ name, kind }) => ({
  value: name,
  label: `${name}, ${{ ribbed: 'ribbed (serpentine)', vee: 'V-belt', toothed: 'toothed' }[kind]}`,
}));

/** What a new drive starts from besides a layout. */
type Start = Layout | 'drive' | 'picture' | 'string';
const OTHER_STARTS: Record<Exclude<Start, Layout>, { name: string; mark: ReactNode }> = {
  drive: { name: 'Another drive', mark: <CopyOutlined /> },
  picture: { name: 'A picture', mark: <CameraOutlined /> },
  string: {
    name: 'A string',
    mark: (
      <svg viewBox="0 0 40 30" width="40" height="30">
        <path d="M2 20C10 2 16 2 20 15S32 28 38 8" fill="none" stroke="currentColor" strokeWidth="2.5" />
      </svg>
    ),
  },
};

/** Where the bench is opened with what. */
export interface FreshDrive {
  document: Drive;
  /** What Survey opens with. */
  look: 'pulleys' | 'picture';
}

interface Props {
  /** Whose it is; null where nobody said yet. */
  vehicle: string | null;
  onMake: (fresh: FreshDrive) => Promise<unknown>;
  /** To the counter, which starts from a string. */
  onString: () => void;
  onClose: () => void;
}

/** A new drive: what it is called, and what it starts from. */
export default function NewDriveForm({ vehicle, onMake, onString, onClose }: Props) {
  const [name, setName] = useTyped('drive', 'Front drive');
  const [start, setStart] = useState<Start>('crank');
  const [section, setSection] = useState<string | null>(null);
  const [other, setOther] = useState('');
  const [parts, setParts] = useState<'kept' | 'bare'>('kept');
  const [problem, setProblem] = useState('');
  const [busy, setBusy] = useState(false);
  const field = useRef<InputRef>(null);
  // It is written over as a whole, or left.
  const named = useRef({ focus: () => field.current?.focus({ cursor: 'all' }) });
  const id = useId();
  const close = () => {
    setName('Front drive');
    onClose();
  };
  const layout: Layout = start in OTHER_STARTS ? 'crank' : (start as Layout);
  const belt = section ?? LAYOUT_SECTION[layout];
  const called = name.trim() || 'Front drive';
  const make = async (): Promise<FreshDrive | null> => {
    if (start !== 'drive')
      return { document: layoutDrive(layout, called, belt), look: start === 'picture' ? 'picture' : 'pulleys' };
    if (other === '') return null;
    const opened = await ask<DriveOpened>('GET', `/drives/${other}`);
    return { document: startedFrom(opened.document, called, parts === 'kept'), look: 'pulleys' };
  };
  const submit = async (event: FormEvent) => {
    event.preventDefault();
    if (start === 'string') return onString();
    setBusy(true);
    try {
      const fresh = await make();
      if (!fresh) return setProblem('Which drive: choose one from the list.');
      await onMake(fresh);
      setName('Front drive');
    } catch (error) {
      setProblem(`Not made. ${(error as Error).message}`);
    } finally {
      setBusy(false);
    }
  };
  return (
    <Dialog
      title={vehicle === null ? 'New drive' : `New drive for ${vehicle}`}
      width={640}
      onClose={close}
      first={named}
      firm
    >
      <form className="form-rows" onSubmit={(event) => void submit(event)}>
        <div className="fields">
          <div className="field">
            <label className="label" htmlFor={id}>
              Name
            </label>
            <Input ref={field} id={id} value={name} maxLength={200} onChange={(event) => setName(event.target.value)} />
          </div>
          {start !== 'drive' && start !== 'string' && (
            <Choice label="Belt section" value={belt} options={KINDS} onChange={setSection} />
          )}
        </div>
        <Starts start={start} onStart={setStart} />
        {start === 'drive' && (
          <>
            <Chips
              label="Copy"
              value={parts}
              options={[
                { value: 'kept', label: 'positions, routes and parts' },
                { value: 'bare', label: 'positions and routes only' },
              ]}
              onChange={setParts}
            />
            <ChooseDrive chosen={other} onChoose={setOther} />
          </>
        )}
        <p className="quiet">
          {NOTES[start] ??
            'Sizes and positions are starting values: measure and correct them. Add more belts and pulleys on the bench.'}
        </p>
        {problem && (
          <p className="field-echo is-wrong" role="alert">
            {problem}
          </p>
        )}
        <div className="button-row">
          <Button type="primary" htmlType="submit" loading={busy}>
            {start === 'string' ? 'To the counter' : 'Open it on the bench'}
          </Button>
          <Button onClick={close}>Cancel</Button>
        </div>
      </form>
    </Dialog>
  );
}

const NOTES: Partial<Record<Start, string>> = {
  drive: 'Readings, findings and jobs stay with the other drive.',
  picture: 'Survey opens with the picture: take one square-on, with a pulley of known size in it.',
  string: 'The counter finds the belt from the string alone, and can save it as a drive.',
};

/** What it starts from, each as a picture. */
function Starts({ start, onStart }: { start: Start; onStart: (start: Start) => void }) {
  const sketches = useMemo(
    () => LAYOUTS.map((layout) => [layout, sketchOf(layoutDrive(layout, '', LAYOUT_SECTION[layout]))] as const),
    [],
  );
  return (
    <div className="field">
      <span className="label">Start from</span>
      <div className="starts" role="radiogroup" aria-label="Start from">
        {sketches.map(([layout, sketch]) => (
          <StartCard
            key={layout}
            name={LAYOUT_WORDS[layout]}
            chosen={start === layout}
            onChoose={() => onStart(layout)}
          >
            <Thumbnail sketch={sketch} />
          </StartCard>
        ))}
        {(Object.keys(OTHER_STARTS) as (keyof typeof OTHER_STARTS)[]).map((key) => (
          <StartCard key={key} name={OTHER_STARTS[key].name} chosen={start === key} onChoose={() => onStart(key)}>
            <span className="start-mark" aria-hidden>
              {OTHER_STARTS[key].mark}
            </span>
          </StartCard>
        ))}
      </div>
    </div>
  );
}

function StartCard({
  name,
  chosen,
  onChoose,
  children,
}: {
  name: string;
  chosen: boolean;
  onChoose: () => void;
  children: ReactNode;
}) {
  return (
    <label className={`start-card${chosen ? ' is-chosen' : ''}`}>
      <input type="radio" name="start" checked={chosen} onChange={onChoose} />
      {children}
      <span>{name}</span>
    </label>
  );
}
