import { memo, useEffect, useRef, useState, useSyncExternalStore } from 'react';
import { lazyPart } from '../parts/lazy-part';
import { STAGES } from '../stages';
import { STAGE_MARKS } from '../stages/marks';
import type { Stage, StageState } from '../stages/stage';
import { useBench } from '../state/bench';
import { useSettled } from '../state/use-settled';
import { useNarrow } from '../ui/use-narrow';
import type { Drive } from '@emery/core/drive';
import type { DriveSolution } from '@emery/core/path';
import { once } from '../state/once';

const StageSheet = lazyPart('The stages', () => import('./StageSheet'));

const LATE = STAGES.flatMap(({ sums }) => (sums ? [sums] : []));
const followLate = (listener: () => void) => {
  const ends = LATE.map(({ subscribe }) => subscribe(listener));
  return () => ends.forEach((end) => end());
};
/** How many of the sums that come later are there. */
const lateThere = () => LATE.filter(({ get }) => get() !== null).length;

/** How far each has come, by how many of the late sums are there: a stage without its own tells less. */
const statesOf = once((drive: Drive, solution: DriveSolution, _there: number) =>
  STAGES.map(({ id, name, state }) => ({ id, name, state: state(drive, solution) })),
);

/** How far each stage has come is looked up once the drive rests: some of it takes longer than a frame of a drag. */
const REST_MS = 120;

/** The stages in the order of the work, each with how far it has come. */
export function StageRail({ stage, goTo }: { stage: Stage; goTo: (stage: string) => void }) {
  const { drive, solution } = useSettled(useBench('drive', 'solution'), REST_MS);
  const there = useSyncExternalStore(followLate, lateThere);
  const states = statesOf(drive, solution, there);
  if (useNarrow()) return <RailLine states={states} here={stage.id} goTo={goTo} />;
  return (
    <nav className="rail" aria-label="Stages">
      {states.map(({ id, name, state }, index) => (
        <RailStage key={id} id={id} name={name} number={index + 1} state={state} here={id === stage.id} goTo={goTo} />
      ))}
    </nav>
  );
}

interface LineProps {
  states: readonly { id: string; name: string; state: StageState }[];
  here: string;
  goTo: (stage: string) => void;
}

/** On a phone: the stage in hand with its state, and the next one; a tap on the first shows all nine. */
function RailLine({ states, here, goTo }: LineProps) {
  const [open, setOpen] = useState(false);
  const at = states.findIndex(({ id }) => id === here);
  const { name, state } = states[at]!;
  const next = states[at + 1];
  return (
    <nav className="rail is-line" aria-label="Stages">
      <button
        type="button"
        className={`rail-now is-${state.replace(' ', '-')}`}
        aria-haspopup="dialog"
        aria-expanded={open}
        onClick={() => setOpen(true)}
      >
        <span className="rail-number">{at + 1}</span> <strong>{name}</strong>
        <span className="rail-mark">
          <span aria-hidden>{STAGE_MARKS[state]}</span> {state}
        </span>
        <span aria-hidden>▾</span>
      </button>
      {next && (
        <button type="button" className="rail-next" onClick={() => goTo(next.id)}>
          <span className="quiet">Next</span> {next.name} <span aria-hidden>›</span>
        </button>
      )}
      {open && (
        <StageSheet
          stages={states}
          here={here}
          onClose={() => setOpen(false)}
          onGo={(id) => {
            setOpen(false);
            goTo(id);
          }}
        />
      )}
    </nav>
  );
}

interface Props {
  id: string;
  name: string;
  number: number;
  state: StageState;
  here: boolean;
  goTo: (stage: string) => void;
}

const RailStage = memo(function RailStage({ id, name, number, state, here, goTo }: Props) {
  const button = useRef<HTMLButtonElement>(null);
  // Where the rail is wider than the screen, the stage in hand is in view.
  useEffect(() => {
    if (here) button.current?.scrollIntoView?.({ block: 'nearest', inline: 'nearest' });
  }, [here]);
  return (
    <button
      ref={button}
      type="button"
      className={`rail-stage is-${state.replace(' ', '-')}${here ? ' is-here' : ''}`}
      aria-current={here ? 'step' : undefined}
      onClick={() => goTo(id)}
    >
      <span className="rail-number">{number}</span> {name}
      <span className="rail-mark">
        <span aria-hidden>{STAGE_MARKS[state]}</span> <span className="rail-state">{state}</span>
      </span>
    </button>
  );
});
