import { useMemo } from 'react';
import { Link, useParams } from 'react-router';
import { FindingItem } from '../../bench/FindingItem';
import { FigureField } from '../../ui/FigureField';
import { useTyped } from '../../ui/typed-text';
import { hand } from './hand';
import { StrutFields } from './StrutFields';
import { useTensionSums } from './sums';
import { ARM_WORDS, armHealth, armReadings, pointerTension, shortForce } from '@emery/core/tension';

/** A sprung arm is not set: what it should hold, and what is left of it by its pointer and a measured tension. */
export function ArmPanel() {
  const { drive, belt } = useTensionSums();
  const { driveId } = useParams();
  const { source, standing } = belt!;
  const [pointer, setPointer] = useTyped<number | null>('pointer', null);
  const [forward, setForward] = useTyped<number | null>('forward', null);
  const [back, setBack] = useTyped<number | null>('back', null);
  // What Check has read of it stands until something is written here.
  const read = useMemo(() => armReadings(drive, standing, hand.get()), [drive, standing]);
  const at = pointer ?? read.pointer;
  const by = (newtons: number | null) => (newtons === null ? null : { at: newtons, sigma: 0.06 * newtons });
  const [first, other] = [by(forward) ?? read.forward, by(back) ?? read.back];
  const plain = first || other ? null : read.plain;
  const health = armHealth(drive, source.id, at, {
    ...(first && { forward: first }),
    ...(other && { back: other }),
    ...(plain && { plain }),
  });
  const should = at === null ? null : pointerTension(drive, source, at);
  const bad = health.verdict !== 'good' && health.verdict !== 'cannot-say';
  return (
    <>
      <p>
        A sprung arm tensions its belt by itself: the tension follows from the belt length. Choose the length under{' '}
        <Link to={`/drives/${driveId}/size`}>Size</Link>. Here the arm is compared with its spring.
      </p>
      <p className="caution">
        <strong>Caution</strong> The arm snaps back. Engine off and key out, fingers clear of it, and let it return
        slowly.
      </p>
      <div className="fields">
        <FigureField
          label="Pointer, as drawn"
          unit="°"
          value={at}
          min={-720}
          max={720}
          onCommit={setPointer}
          onClear={() => setPointer(null)}
        />
      </div>
      <p>
        Turn the engine by hand forward and measure; then back and measure again. Friction takes part of the spring
        force each way.
      </p>
      <div className="fields">
        <FigureField
          label="Turned forward"
          unit="N"
          value={forward ?? read.forward?.at ?? null}
          min={1}
          max={20_000}
          onCommit={setForward}
          onClear={() => setForward(null)}
        />
        <FigureField
          label="Turned back"
          unit="N"
          value={back ?? read.back?.at ?? null}
          min={1}
          max={20_000}
          onCommit={setBack}
          onClear={() => setBack(null)}
        />
      </div>
      {plain && (
        <p className="quiet">
          Until then the reading from Check is used: {Math.round(plain.at)} ± {Math.round(plain.sigma)} N.
        </p>
      )}
      {should !== null && (
        <div data-testid="arm-left" data-left={health.left?.at ?? ''}>
          <div className="label">Spring left at that pointer</div>
          <div className="answer-figure is-second">
            {health.left ? `${Math.round(100 * health.left.at)} %` : '—'}
            <span className="answer-other">
              {health.left && `± ${Math.round(100 * health.left.sigma)} · `}
              {shortForce(should)} when new
            </span>
          </div>
        </div>
      )}
      <ul className="findings" aria-label="Tensioner verdict">
        <FindingItem severity={bad ? 'watch' : 'note'} words={ARM_WORDS[health.verdict]} />
      </ul>
      <StrutFields />
    </>
  );
}
