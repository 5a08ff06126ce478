import { STAGE_MARKS } from '../stages/marks';
import type { StageState } from '../stages/stage';
import { Dialog } from '../ui/Dialog';

interface Props {
  stages: readonly { id: string; name: string; state: StageState }[];
  here: string;
  onGo: (stage: string) => void;
  onClose: () => void;
}

/** On a phone: all stages, each with how far it has come. */
export default function StageSheet({ stages, here, onGo, onClose }: Props) {
  return (
    <Dialog title="Stages" onClose={onClose} still>
      <ol className="stage-sheet">
        {stages.map(({ id, name, state }, index) => (
          <li key={id}>
            <button
              type="button"
              className={`stage-choice is-${state.replace(' ', '-')}${id === here ? ' is-here' : ''}`}
              aria-current={id === here ? 'step' : undefined}
              onClick={() => onGo(id)}
            >
              <span className="rail-number">{index + 1}</span>
              <span className="stage-choice-name">{name}</span>
              <span className="rail-mark">
                <span aria-hidden>{STAGE_MARKS[state]}</span> {state}
              </span>
            </button>
          </li>
        ))}
      </ol>
    </Dialog>
  );
}
