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
        service manual takes precedence.
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
          min={0}
          max={200}
          onCommit={setGap}
          onClear={() => setGap(null)}
        />
        <FigureField
          label="Gap now"
          unit="mm"
          value={nowMm}
          min={0}
          max={200}
          onCommit={setNow}
          onClear={() => setNow(null)}
        />
      </div>
      {state && state.targetMm < 0 ? (
        <p className="finding is-fault">
          <strong>Not enough gap behind it.</strong> It would have to move {smallFigure(state.targetMm, unit)} further
          than it can.
        </p>
      ) : null}
      {state && state.targetMm >= 0 && (
        <p className="press-left" data-testid="press-left">
          <span className="label">Stop when the feeler just fits:</span>
          <span className="press-figure">{smallFigure(state.targetMm, unit, 2)}</span>
          <span>{pressedWords(state, mm, smallFigure(state.leftMm, unit, 2))}</span>
        </p>
      )}
      {!state && (
        <p className="quiet">Measure the gap between the pulley and the part behind it, with a feeler or washers.</p>
      )}
    </>
  );
}

/** How near a pulley that is pressed is to its place. */
function pressedWords({ verdict, leftMm }: ReturnType<typeof pressState>, mm: number, left: string): string {
  const tool = leftMm < 0 ? 'the installer presses it on' : 'the puller draws it off';
  if (verdict === 'there') return '● In position.';
  if (verdict === 'past') return `■ ${mm < 0 ? 'Over-pressed' : 'Pulled too far'}: back by ${left}; ${tool}.`;
  return `▲ ${left} left; ${tool}.`;
}
