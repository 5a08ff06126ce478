import { CloseOutlined, EditOutlined, HolderOutlined, PlusOutlined } from '@ant-design/icons';
import { Button, Input } from 'antd';
import {
  type Announcements,
  closestCenter,
  DndContext,
  type DragEndEvent,
  KeyboardSensor,
  PointerSensor,
  useSensor,
  useSensors,
} from '@dnd-kit/core';
import {
  SortableContext,
  sortableKeyboardCoordinates,
  useSortable,
  verticalListSortingStrategy,
} from '@dnd-kit/sortable';
import { CSS } from '@dnd-kit/utilities';
import { useState } from 'react';
import { edit, useBench } from '../../state/bench';
import { useTyped } from '../../ui/typed-text';
import { useJobStage } from './JobProvider';
import { PHASES, type Phase } from '@emery/core/drive';
import { addStep, type CardStep, type JobCard, leaveOut, moveStep, PHASE_WORDS, rewordStep } from '@emery/core/job';
import type { LengthUnit } from '@emery/core/quantity';

/** The steps by phase: read, reworded, left out, moved by drag or by keys. */
export function CardView({ card }: { card: JobCard; unit: LengthUnit }) {
  const { dispatch } = useBench('dispatch');
  const sensors = useSensors(
    useSensor(PointerSensor, { activationConstraint: { distance: 5 } }),
    useSensor(KeyboardSensor, { coordinateGetter: sortableKeyboardCoordinates }),
  );
  const onDragEnd = ({ active, over }: DragEndEvent) => {
    if (over && active.id !== over.id)
      dispatch(edit((d) => moveStep(d, card.steps, String(active.id), String(over.id))));
  };
  const numbers = new Map(card.steps.map(({ id }, k) => [id, k + 1]));
  const textOf = (id: string | number | undefined) => card.steps.find((step) => step.id === id)?.text ?? '';
  // What a reader of the screen hears while a step is moved by keys.
  const accessibility = {
    announcements: {
      onDragStart: ({ active }) => `Picked up: ${textOf(active.id)}`,
      onDragOver: ({ over }) => (over ? `Now at the position of: ${textOf(over.id)}` : undefined),
      onDragEnd: ({ active }) => `Dropped: ${textOf(active.id)}`,
      onDragCancel: ({ active }) => `Not moved: ${textOf(active.id)}`,
    } satisfies Announcements,
    screenReaderInstructions: {
      draggable: 'Space picks up the step, arrow keys move it, space drops it, Escape cancels.',
    },
  };
  return (
    <>
      {PHASES.map((phase) => {
        const steps = card.steps.filter((step) => step.phase === phase);
        return (
          <section key={phase} className="job-phase" aria-label={PHASE_WORDS[phase]}>
            <h2>{PHASE_WORDS[phase]}</h2>
            <DndContext
              sensors={sensors}
              collisionDetection={closestCenter}
              accessibility={accessibility}
              onDragEnd={onDragEnd}
            >
              <SortableContext items={steps.map(({ id }) => id)} strategy={verticalListSortingStrategy}>
                <ol className="job-steps">
                  {steps.map((step) => (
                    <Step key={step.id} step={step} number={numbers.get(step.id)!} />
                  ))}
                </ol>
              </SortableContext>
            </DndContext>
            <AddStep phase={phase} />
          </section>
        );
      })}
      {card.leftOut.length > 0 && (
        <section aria-label="Left out">
          <h2>Left out</h2>
          <ul className="at-hand">
            {card.leftOut.map((step) => (
              <li key={step.id}>
                <span>{step.text}</span>
                <Button onClick={() => dispatch(edit((d) => leaveOut(d, step, false)))}>Bring back</Button>
              </li>
            ))}
          </ul>
        </section>
      )}
    </>
  );
}

function Step({ step, number }: { step: CardStep; number: number }) {
  const { dispatch } = useBench('dispatch');
  const { step: looked, setStep } = useJobStage();
  const { attributes, listeners, setNodeRef, setActivatorNodeRef, transform, transition, isDragging } = useSortable({
    id: step.id,
  });
  const [rewording, setRewording] = useState(false);
  const here = looked === step.id;
  return (
    <li
      ref={setNodeRef}
      className={`job-step${here ? ' is-selected' : ''}${isDragging ? ' is-dragged' : ''}`}
      style={{ transform: CSS.Translate.toString(transform), transition }}
    >
      <button
        ref={setActivatorNodeRef}
        type="button"
        className="job-handle"
        {...attributes}
        {...listeners}
        aria-label={`Move step ${number}`}
      >
        <HolderOutlined aria-hidden />
        <span className="job-number">{number}</span>
      </button>
      <div className="job-step-text">
        {rewording ? (
          <Reword step={step} onDone={() => setRewording(false)} />
        ) : (
          <button
            type="button"
            className="job-read"
            aria-expanded={here}
            onClick={() => setStep(here ? null : step.id)}
          >
            {step.text}
          </button>
        )}
        {step.caution && (
          <p className="job-caution">
            <strong>▲ Caution</strong> {step.caution}
          </p>
        )}
        {here && !rewording && (
          <div className="button-row">
            <Button icon={<EditOutlined />} onClick={() => setRewording(true)}>
              Reword
            </Button>
            <Button icon={<CloseOutlined />} onClick={() => dispatch(edit((d) => leaveOut(d, step, true)))}>
              Leave out
            </Button>
            {step.reworded && (
              <Button onClick={() => dispatch(edit((d) => rewordStep(d, step, '')))}>Original wording</Button>
            )}
          </div>
        )}
      </div>
    </li>
  );
}

function Reword({ step, onDone }: { step: CardStep; onDone: () => void }) {
  const { dispatch } = useBench('dispatch');
  const [text, setText] = useTyped(`words of ${step.id}`, step.text);
  const done = () => {
    if (text.trim() !== step.text) dispatch(edit((d) => rewordStep(d, step, text)));
    setText(step.text);
    onDone();
  };
  return (
    <>
      <Input.TextArea
        autoFocus
        autoSize
        maxLength={400}
        value={text}
        aria-label="Text of the step"
        onChange={(event) => setText(event.target.value)}
        onKeyDown={(event) => {
          if (event.key === 'Escape') onDone();
          if (event.key !== 'Enter' || event.shiftKey) return;
          event.preventDefault();
          done();
        }}
      />
      <div className="button-row is-after">
        <Button type="primary" onClick={done}>
          Use this text
        </Button>
        <Button onClick={onDone}>Cancel</Button>
      </div>
    </>
  );
}

function AddStep({ phase }: { phase: Phase }) {
  const { dispatch } = useBench('dispatch');
  const [text, setText] = useTyped<string | null>(`new step ${phase}`, null);
  if (text === null)
    return (
      <Button type="link" icon={<PlusOutlined />} className="job-add" onClick={() => setText('')}>
        Add a step to {PHASE_WORDS[phase].toLowerCase()}
      </Button>
    );
  const add = () => {
    if (text.trim() !== '') dispatch(edit((d) => addStep(d, phase, text)));
    setText(null);
  };
  return (
    <div className="job-new">
      <Input
        autoFocus
        maxLength={400}
        value={text}
        placeholder="Text of the step"
        aria-label={`New step, ${PHASE_WORDS[phase].toLowerCase()}`}
        onChange={(event) => setText(event.target.value)}
        onPressEnter={add}
      />
      <Button onClick={add}>Add</Button>
      <Button onClick={() => setText(null)}>Cancel</Button>
    </div>
  );
}
