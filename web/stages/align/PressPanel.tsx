import { useBench } from '../../state/bench';
import { FigureField } from '../../ui/FigureField';
import { TypedPlace, useTyped } from '../../ui/typed-text';
import { useAlignSums } from './sums';
import { type PlannedMove, pressState, smallFigure } from '@emery/core/align';
import { pulleyLabel } from '@emery/core/drive';

/** A press job: how much is left, and what the feeler behind the pulley should feel. */
export function PressPanel({ moves }: { moves: readonly PlannedMove[] }) {
  return (
    <section className="press-panel" aria-label="Pressing">
      <p className="caution">
        <strong>Caution</strong> A puller that grips the hub&rsquo;s collar takes a pulley off; an installer with a
        screw in the shaft presses it on. They are two different tools: never hammer, and never pull by the rim. The
        service manual goes before this.
      </p>
      {moves.map((move) => (
        <TypedPlace key={move.pulley} at={`press ${move.pulley}`}>
          <Press move={move} />
        </TypedPlace>
      ))}
    </section>
  );
}

function Press({ move: { pulley, mm = 0 } }: { move: PlannedMove }) {
  const { drive } = useAlignSums();
  const { unit } = useBench('unit');
  const [gapMm, setGap] = useTyped<number | null>('gap at the start', null);
  const [nowMm, setNow] = useTyped<number | null>('gap now', null);
  const state = gapMm === null ? null : pressState({ gapMm, moveMm: mm, nowMm: nowMm ?? gapMm });
  const tool = state && (state.leftMm < 0 ? 'the installer presses it on' : 'the puller draws it off');
  return (
    <>
      <h2>
        {pulleyLabel(drive, pulley)}: {smallFigure(mm, unit)} {mm < 0 ? 'in' : 'out'}
      </h2>
      <div className="fields">
        <FigureField
          label="Gap at the start"
          unit="mm"
          value={gapMm}
          least={0}
          most={200}
          onCommit={setGap}
          onClear={() => setGap(null)}
        />
        <FigureField
          label="Gap now"
          unit="mm"
          value={nowMm}
          least={0}
          most={200}
          onCommit={setNow}
          onClear={() => setNow(null)}
        />
      </div>
      {state && state.targetMm < 0 ? (
        <p className="finding is-fault">
          <strong>There is not enough gap behind it.</strong> It would have to go {smallFigure(state.targetMm, unit)}{' '}
          further than it can.
        </p>
      ) : state ? (
        <p className="press-left" data-testid="press-left">
          <span className="label">Stop when the feeler just fits at</span>
          <span className="press-figure">{smallFigure(state.targetMm, unit, 2)}</span>
          <span>
            {state.verdict === 'there'
              ? '● It is there.'
              : state.verdict === 'past'
                ? `■ ${mm < 0 ? 'Over-pressed' : 'Drawn too far'}: back by ${smallFigure(state.leftMm, unit, 2)}; ${tool}.`
                : `▲ ${smallFigure(state.leftMm, unit, 2)} left; ${tool}.`}
          </span>
        </p>
      ) : (
        <p className="quiet">Measure the gap between the pulley and what stands behind it, by feeler or washers.</p>
      )}
    </>
  );
}
