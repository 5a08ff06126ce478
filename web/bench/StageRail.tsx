import { memo, useEffect, useRef, useSyncExternalStore } from 'react';
import { STAGES } from '../stages';
import { STAGE_MARKS } from '../stages/marks';
import type { Stage, StageState } from '../stages/stage';
import { useBench } from '../state/bench';

const LATE = STAGES.flatMap(({ sums }) => (sums ? [sums] : []));
const followLate = (listener: () => void) => {
  const ends = LATE.map(({ subscribe }) => subscribe(listener));
  return () => ends.forEach((end) => end());
};
/** How many of the sums that come later are there. */
const lateThere = () => LATE.filter(({ get }) => get() !== null).length;

/** The stages in the order of the work, each with how far it has come. */
export function StageRail({ stage, goTo }: { stage: Stage; goTo: (stage: string) => void }) {
  const { drive, solution } = useBench('drive', 'solution');
  useSyncExternalStore(followLate, lateThere);
  return (
    <nav className="rail" aria-label="Stages">
      {STAGES.map(({ id, name, state }, index) => (
        <RailStage
          key={id}
          id={id}
          name={name}
          number={index + 1}
          state={state(drive, solution)}
          here={id === stage.id}
          goTo={goTo}
        />
      ))}
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
