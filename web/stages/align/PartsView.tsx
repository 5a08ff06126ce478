import { DeleteOutlined } from '@ant-design/icons';
import { Button } from 'antd';
import { useMemo } from 'react';
import { edit, useBench } from '../../state/bench';
import { FindingItem } from '../../bench/FindingItem';
import { Choice } from '../../ui/Choice';
import { StoppedSum } from '../../ui/StoppedSum';
import { TypedPlace } from '../../ui/typed-text';
import { useCoreSum } from '../../state/use-core-sum';
import { useAlign } from './AlignProvider';
import { PartsAtHand } from './PartsAtHand';
import { PieceForm } from './PieceForm';
import { useAlignSums } from './sums';
import {
  alignWords,
  drawnByStacks,
  planeOfStack,
  removePiece,
  type SetSearch,
  shortFigure,
  smallFigure,
  stackFindings,
  stacksOf,
  type StackSet,
  takeSet,
} from '@emery/core/align';
import { type AlignStack, freeIdIn, itemsOf, pulleyLabel, putItem, removeItem } from '@emery/core/drive';
import { formatLength, plural, fixed, grouped } from '@emery/core/quantity';

/** Pieces from the block's face to each groove: where the pulleys come to stand before any part is bought. */
export default function PartsView() {
  const { drive, belt } = useAlignSums();
  const { unit } = useBench('unit');
  const stacks = useMemo(() => stacksOf(drive, belt!.id), [drive, belt]);
  const input = useMemo(() => ({ stacks }), [stacks]);
  const { found, stopped } = useCoreSum('partSets', input, 0);
  const search = found?.input.stacks === stacks ? found.output : null;
  return (
    <>
      {stacks.length === 0 && (
        <p>
          Enter the parts between the block&rsquo;s face and each pulley&rsquo;s groove: bracket, spacer, nose, hub.
          Then the planes are known before a part is bought.
        </p>
      )}
      <StoppedSum stopped={stopped} />
      {search && <Sets search={search} />}
      {search && (
        <ul className="findings" aria-label="About the parts">
          {stackFindings(drive, belt!, search).map((finding) => (
            <FindingItem
              key={`${finding.code} ${finding.pulley} ${finding.code === 'piece-without-depth' ? finding.figures.piece : ''}`}
              severity={finding.severity}
              words={alignWords(drive, finding, unit)}
            />
          ))}
        </ul>
      )}
      {search && <DrawThem search={search} />}
      {stacks.map((stack) => (
        <TypedPlace key={stack.id} at={`stack ${stack.id}`}>
          <Stack stack={stack} search={search} />
        </TypedPlace>
      ))}
      <NewStack stacks={stacks} />
      <PartsAtHand />
    </>
  );
}

/** Puts the pulleys on the drawing where their stacks bring them: then their runs are seen before a part is bought. */
function DrawThem({ search }: { search: SetSearch }) {
  const { drive, belt } = useAlignSums();
  const { dispatch } = useBench('dispatch');
  const { setView } = useAlign();
  const choice = search.sets[0]?.choice ?? [];
  if (!drawnByStacks(drive, belt!.id, choice)) return null;
  return (
    <div className="button-row">
      <Button
        onClick={() => {
          dispatch(edit((d) => drawnByStacks(d, belt!.id, choice) ?? d));
          setView('runs');
        }}
      >
        Draw the pulleys in these planes
      </Button>
    </div>
  );
}

/** So many sets are shown. */
const SHOWN = 5;

/** The sets of parts that line up best. */
function Sets({ search }: { search: SetSearch }) {
  const [best] = search.sets;
  const { unit } = useBench('unit');
  if (!best) return null;
  return (
    <section aria-label="Sets of parts" data-testid="part-sets" data-spread={best.spreadMm}>
      <div>
        <div className="label">
          Best of {grouped(search.count)} {search.count === 1 ? 'set' : 'sets'} of parts: planes within
        </div>
        <div className="answer-figure is-second">
          {smallFigure(best.spreadMm, unit)}
          <span className="answer-other">± {shortFigure(best.plusMinusMm, unit)}</span>
        </div>
      </div>
      <ol className="plan-list" aria-label="Sets, the best first">
        {search.sets.slice(0, SHOWN).map((set) => (
          <SetItem key={set.choice.map(({ option }) => option).join()} set={set} />
        ))}
      </ol>
    </section>
  );
}

function SetItem({ set: { choice, spreadMm, plusMinusMm, changed, price } }: { set: StackSet }) {
  const { drive } = useAlignSums();
  const { dispatch, unit } = useBench('dispatch', 'unit');
  const pulleyOf = (id: string) => pulleyLabel(drive, stacksOf(drive).find((stack) => stack.id === id)!.pulley);
  const stacks = stacksOf(drive);
  const taken = choice.every(({ stack, piece, option }) =>
    stacks.some(
      ({ id, pieces }) =>
        id === stack && pieces.some((candidate) => candidate.name === piece && candidate.chosen === option),
    ),
  );
  return (
    <li className={taken ? 'is-tried' : ''}>
      <p className="set-parts">
        {choice.map(({ stack, piece, option }) => (
          <span key={`${stack} ${piece}`}>
            {pulleyOf(stack)}, {piece}: <strong>{option}</strong>
          </span>
        ))}
      </p>
      <p className="plan-figures">
        <strong>{smallFigure(spreadMm, unit)}</strong> ± {shortFigure(plusMinusMm, unit)},{' '}
        {changed === 0 ? 'nothing to change' : `${plural(changed, 'part')} to change`}
        {price > 0 && `, ${fixed(price, 2)} in all`}
      </p>
      {taken ? (
        <strong>● Chosen</strong>
      ) : (
        <Button onClick={() => dispatch(edit((d) => takeSet(d, choice)))}>Choose this set</Button>
      )}
    </li>
  );
}

function Stack({ stack, search }: { stack: AlignStack; search: SetSearch | null }) {
  const { drive } = useAlignSums();
  const { dispatch, unit } = useBench('dispatch', 'unit');
  const { planeMm, plusMinusMm, worstMm } = planeOfStack(stack, search?.sets[0]?.choice);
  const name = pulleyLabel(drive, stack.pulley);
  const take = (piece: string, option: string | null) => dispatch(edit((d) => removePiece(d, stack.id, piece, option)));
  return (
    <section aria-label={`Stack of ${name}`} className="stack">
      <div className="groove-head">
        <h2>{name}</h2>
        <Button
          icon={<DeleteOutlined />}
          aria-label={`Remove the stack of ${name}`}
          onClick={() => dispatch(edit((d) => removeItem(d, 'align.stacks', stack.id)))}
        />
      </div>
      {stack.pieces.length > 0 && (
        <p className="plan-figures">
          <strong>{formatLength(planeMm, unit, 2)}</strong> from the block&rsquo;s face, ±{' '}
          {shortFigure(plusMinusMm, unit)}; at worst ± {shortFigure(worstMm, unit)}
        </p>
      )}
      <ul className="reading-list">
        {stack.pieces.map(({ name: piece, mm, plusMinus, options, chosen }) => (
          <li key={piece} className="piece">
            {options?.length ? (
              <div className="piece-options">
                <span className="reading-name">{piece}, one of</span>
                {options.map((option) => (
                  <span key={option.name} className="piece-option">
                    <span className="reading-name">
                      {option.name === chosen ? '● ' : '○ '}
                      {option.name}, {formatLength(option.mm, unit, 2)}
                      {option.plusMinus !== undefined && ` ± ${option.plusMinus}`}
                      {option.fitted && ', fitted now'}
                      {option.price !== undefined && `, ${fixed(option.price, 2)}`}
                    </span>
                    <Button
                      icon={<DeleteOutlined />}
                      aria-label={`Remove ${option.name} of ${name}`}
                      onClick={() => take(piece, option.name)}
                    />
                  </span>
                ))}
              </div>
            ) : (
              <>
                <span className="reading-name">
                  {piece}: {mm === undefined ? 'no depth yet' : formatLength(mm, unit, 2)}
                  {plusMinus !== undefined && ` ± ${plusMinus}`}
                </span>
                <Button
                  icon={<DeleteOutlined />}
                  aria-label={`Remove ${piece} of ${name}`}
                  onClick={() => take(piece, null)}
                />
              </>
            )}
          </li>
        ))}
      </ul>
      <PieceForm stack={stack} />
    </section>
  );
}

function NewStack({ stacks }: { stacks: readonly AlignStack[] }) {
  const { drive, belt } = useAlignSums();
  const { dispatch } = useBench('dispatch');
  const free = [...new Set(belt!.route.map(({ pulley }) => pulley))].filter(
    (pulley) => !stacks.some((stack) => stack.pulley === pulley),
  );
  if (free.length === 0) return null;
  return (
    <Choice
      label="Add the stack of"
      value="none"
      options={[
        { value: 'none', label: 'a pulley …' },
        ...free.map((id) => ({ value: id, label: pulleyLabel(drive, id) })),
      ]}
      onChange={(pulley) =>
        pulley !== 'none' &&
        dispatch(
          edit((d) =>
            putItem(d, 'align.stacks', { id: freeIdIn('stack', itemsOf(d, 'align.stacks')), pulley, pieces: [] }),
          ),
        )
      }
    />
  );
}
