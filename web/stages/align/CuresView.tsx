import { DeleteOutlined } from '@ant-design/icons';
import { Button, Progress } from 'antd';
import { useMemo } from 'react';
import { edit, useBench } from '../../state/bench';
import { FindingItem } from '../../bench/FindingItem';
import { Choice } from '../../ui/Choice';
import { StoppedSum } from '../../ui/StoppedSum';
import { TypedPlace, useForgetTyped, useTyped } from '../../ui/typed-text';
import { useCoreSum } from '../../state/use-core-sum';
import { useAlign } from './AlignProvider';
import { MoveFields } from './MoveFields';
import { PressPanel } from './PressPanel';
import { useAlignSums } from './sums';
import {
  alignWords,
  degreeFigure,
  groovesOf,
  MOVE_WORDS,
  movesDone,
  moveWords,
  offsetFigure,
  type Plan,
  type PlanSearch,
  planFindings,
  removeMove,
} from '@emery/core/align';
import { type AlignMove, MOVE_KINDS, type MoveKind, pulleyLabel } from '@emery/core/drive';
import { datumOf, worseOf, worstFirst } from '@emery/core/planes';
import type { LengthUnit } from '@emery/core/quantity';

/** What can be done to each pulley, and the fewest moves that put all runs right. */
export default function CuresView() {
  const { alignment } = useAlignSums();
  if (!alignment) return null;
  return (
    <>
      <Plans />
      <Possible />
      <Done />
    </>
  );
}

function Plans() {
  const { drive, belt, alignment } = useAlignSums();
  const { unit } = useBench('unit');
  const input = useMemo(() => ({ drive, belt: belt!.id }), [drive, belt]);
  const { found, progress, stopped } = useCoreSum('alignPlan', input, 0);
  const search = found?.input.drive === drive && found.input.belt === belt!.id ? found.output : null;
  if (!alignment) return null;
  return (
    <section aria-label="Plans">
      <StoppedSum stopped={stopped} />
      {!search && progress !== null && (
        <Progress percent={Math.round(100 * progress)} showInfo={false} aria-label="Share of the search" />
      )}
      {search && <Found search={search} />}
      {search && (
        <ul className="findings" aria-label="About the plans">
          {planFindings(alignment, search).map((finding) => (
            <FindingItem key={finding.code} severity={finding.severity} words={alignWords(drive, finding, unit)} />
          ))}
        </ul>
      )}
    </section>
  );
}

function Found({ search }: { search: PlanSearch }) {
  const { drive, alignment } = useAlignSums();
  const readings = alignment!.planes.some((plane) => plane.readings.length > 0);
  if (search.plans.length === 0)
    return search.worstDeg <= alignment!.limits.good ? (
      <p className="plan-none">
        <strong>{readings ? '● No move needed.' : 'No readings yet.'}</strong>{' '}
        {readings
          ? 'Every run is within the limit.'
          : 'Read the pulleys first; then Emery finds the fewest moves here.'}
      </p>
    ) : null;
  const [first] = search.plans;
  const many = first!.moves.length;
  return (
    <>
      <h2>
        {many === 1 ? '1 move' : `${many} moves`}{' '}
        {search.limitDeg === alignment!.limits.good ? 'to correct it' : 'to leave no run wrong'}
        {search.plans.length > 1 && `, ${search.plans.length} ways`}
      </h2>
      <ol className="plan-list" aria-label="Plans, the best first">
        {search.plans.map((plan, k) => (
          <TypedPlace key={plan.moves.map(({ pulley, kind }) => `${pulley} ${kind}`).join()} at={`plan ${k}`}>
            <PlanItem plan={plan} before={search.worstDeg} number={k + 1} drive={drive} />
          </TypedPlace>
        ))}
      </ol>
    </>
  );
}

function PlanItem({
  plan,
  before,
  number,
  drive,
}: {
  plan: Plan;
  before: number;
  number: number;
  drive: Parameters<typeof movesDone>[0];
}) {
  const { belt } = useAlignSums();
  const { tried, setTried, setView } = useAlign();
  const { dispatch, unit } = useBench('dispatch', 'unit');
  const trying = tried?.drive === drive && sameMoves(tried.moves, plan.moves);
  const [worst] = worstFirst(plan.after);
  return (
    <li className={trying ? 'is-tried' : ''}>
      <ul className="plan-moves">
        {plan.moves.map((move) => (
          <li key={`${move.pulley} ${move.kind}`}>{moveWords(drive, move, unit)}</li>
        ))}
      </ul>
      <p className="plan-figures">
        {degreeFigure(before)} → <strong>{degreeFigure(plan.worstDeg)}</strong>
        {worst && worseOf(worst) > 0.005 && (
          <span className="quiet">
            {' '}
            then {pulleyLabel(drive, worst.from)} → {pulleyLabel(drive, worst.to)} is the worst
          </span>
        )}
      </p>
      <p>
        Likely {degreeFigure(plan.likely.deg)} ± {degreeFigure(plan.likely.plusMinusDeg)} after the moves, from the ± of
        the readings.
      </p>
      {plan.others.map(({ belt: other, beforeDeg, afterDeg }) => (
        <p key={other} className={afterDeg > beforeDeg + 0.01 ? 'finding is-watch' : 'quiet'}>
          All pulleys on the shaft move: belt {drive.belts.findIndex(({ id }) => id === other) + 1} goes from{' '}
          {degreeFigure(beforeDeg)} to {degreeFigure(afterDeg)}.
        </p>
      ))}
      <div className="button-row">
        <Button
          type={number === 1 && !trying ? 'primary' : 'default'}
          aria-pressed={trying}
          onClick={() => setTried(trying ? null : { drive, belt: belt!.id, moves: plan.moves })}
        >
          {trying ? 'Stop the what-if' : 'Try it'}
        </Button>
        {trying && (
          <Button
            type="primary"
            onClick={() => {
              setTried(null);
              dispatch(edit((d) => movesDone(d, belt!.id, plan.moves, new Date().toISOString())));
              setView('read');
            }}
          >
            Done: read again
          </Button>
        )}
      </div>
      {trying && plan.moves.some(({ kind }) => kind === 'press') && (
        <PressPanel moves={plan.moves.filter(({ kind }) => kind === 'press')} />
      )}
    </li>
  );
}

const sameMoves = (a: Plan['moves'], b: Plan['moves']) => JSON.stringify(a) === JSON.stringify(b);

/** What can be done to the pulleys: said once, and planned with. */
function Possible() {
  const { drive, belt } = useAlignSums();
  const { dispatch, unit } = useBench('dispatch', 'unit');
  const on = new Set(belt!.route.map(({ pulley }) => pulley));
  const moves = (drive.align?.moves ?? []).filter(({ pulley }) => on.has(pulley));
  return (
    <section aria-label="Possible moves">
      <h2>Possible moves</h2>
      {moves.length === 0 && <p>List what can be pressed, spaced, squared or changed. Plans use only these moves.</p>}
      <ul className="reading-list">
        {moves.map((move) => (
          <li key={`${move.pulley} ${move.kind} ${rangeWords(move, unit)}`}>
            <span className="reading-name">
              <strong>{pulleyLabel(drive, move.pulley)}</strong>: {MOVE_WORDS[move.kind].name.toLowerCase()}
              {rangeWords(move, unit)}
            </span>
            <Button
              icon={<DeleteOutlined />}
              aria-label={`Remove ${MOVE_WORDS[move.kind].name.toLowerCase()} of ${pulleyLabel(drive, move.pulley)}`}
              onClick={() => dispatch(edit((d) => removeMove(d, move)))}
            />
          </li>
        ))}
      </ul>
      <TypedPlace at="new move">
        <NewMove />
      </TypedPlace>
    </section>
  );
}

/** What was carried out, the last first. */
function Done() {
  const { drive, belt } = useAlignSums();
  const { unit } = useBench('unit');
  const on = new Set(belt!.route.map(({ pulley }) => pulley));
  const done = (drive.align?.done ?? []).filter(({ pulley }) => on.has(pulley)).reverse();
  if (done.length === 0) return null;
  return (
    <section aria-label="Done so far">
      <h2>Done so far</h2>
      <ul className="reading-list">
        {done.map(({ id, date, ...move }) => (
          <li key={id}>
            <span className="reading-name">
              {moveWords(drive, move, unit)}
              {date && <span className="quiet">, {new Date(date).toLocaleDateString('en-GB')}</span>}
            </span>
          </li>
        ))}
      </ul>
    </section>
  );
}

function rangeWords(move: AlignMove, unit: LengthUnit): string {
  switch (move.kind) {
    case 'press':
      return `, ${offsetFigure(Math.min(move.min, move.max), unit)} to ${offsetFigure(Math.max(move.min, move.max), unit)}`;
    case 'shim':
      return `, ${move.sizes.map((mm) => `${mm} mm`).join(', ')}`;
    case 'groove':
      return `, ${groovesOf(move)
        .map((steps) => `${Math.abs(steps)} ${steps < 0 ? 'in' : 'out'}`)
        .join(' or ')}`;
    case 'hub':
      return `, ${move.options.map(({ name, mm }) => `${name} (${offsetFigure(mm, unit)})`).join(', ')}`;
    case 'square':
      return '';
  }
}

function NewMove() {
  const { drive, belt, alignment } = useAlignSums();
  const forget = useForgetTyped();
  const datum = datumOf(drive, belt!.id);
  const on = [...new Set(belt!.route.map(({ pulley }) => pulley))];
  // The one that stands off most is what one would move.
  const [max] = alignment!.planes
    .filter((plane) => plane.pulley !== datum)
    .sort((a, b) => Math.abs(b.offset) - Math.abs(a.offset));
  const [pulley, setPulley] = useTyped('pulley', max?.pulley ?? on[0]!);
  const [kind, setKind] = useTyped<MoveKind>('kind', 'press');
  return (
    <>
      <div className="fields">
        <Choice
          label="Pulley"
          value={pulley}
          options={on.map((id) => ({ value: id, label: pulleyLabel(drive, id) }))}
          onChange={setPulley}
        />
        <Choice
          label="Move"
          value={kind}
          options={MOVE_KINDS.map((value) => ({ value, label: MOVE_WORDS[value].name }))}
          onChange={setKind}
        />
      </div>
      <p className="quiet">{MOVE_WORDS[kind].hint}</p>
      <TypedPlace at={`${pulley} ${kind}`} key={`${pulley} ${kind}`}>
        <MoveFields pulley={pulley} kind={kind} onDone={forget} />
      </TypedPlace>
    </>
  );
}
