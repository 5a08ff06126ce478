import { useMemo } from 'react';
import { Button } from 'antd';
import { edit, useBench } from '../../state/bench';
import { useCoreSum } from '../../state/use-core-sum';
import { LengthFigure } from '../../ui/LengthFigure';
import { StoppedSum } from '../../ui/StoppedSum';
import { useSizing } from './SizingProvider';
import { type Belt, changeBelt } from '@emery/core/drive';
import { formatLength, formatMm } from '@emery/core/quantity';

/** Two belts that one adjuster tightens: lengths chosen together. */
export function TogetherLedger({ source, other }: { source: Belt; other: Belt }) {
  const { drive, unit, dispatch } = useBench('drive', 'unit', 'dispatch');
  const { stock } = useSizing();
  const number = (belt: Belt) => drive.belts.findIndex(({ id }) => id === belt.id) + 1;
  const asked = useMemo(() => {
    const own = stock.map(({ lengthMm }) => lengthMm);
    const same = other.section === source.section && other.ribs === source.ribs;
    return { drive, first: source.id, second: other.id, stock: own, otherStock: same ? own : [] };
  }, [drive, source, other, stock]);
  const { found, stopped } = useCoreSum('together', asked, 300);
  const answer = found?.input.drive === drive ? found.output : null;
  if (stopped) return <StoppedSum stopped={stopped} />;
  if (!answer) return null;
  if (answer.pairs.length === 0)
    return <p className="quiet">No two of these lengths fit both belts on this adjuster.</p>;
  const take = ([first, second]: [number, number]) =>
    dispatch(edit((d) => changeBelt(changeBelt(d, source.id, { length: first }), other.id, { length: second })));
  const heads = [source, other].map((belt) => `Belt ${number(belt)}`);
  return (
    <section aria-label="Both belts together">
      <h2>Both belts on one adjuster</h2>
      <p>
        {answer.matched
          ? 'They run side by side on twin sheaves: buy them as a matched set of one length, or one belt carries all the load.'
          : `Chosen together, so that both are right at one adjuster position. With belt ${number(source)} taut, belt ${number(other)} is:`}
      </p>
      <table className="ledger-table folds">
        <thead>
          <tr>
            <th>{heads[0]}</th>
            <th>{heads[1]}</th>
            <th className="figure">New</th>
            <th className="figure">Stretched</th>
            <th aria-label="Use both" />
          </tr>
        </thead>
        <tbody>
          {answer.pairs.map(({ lengths, looseNew, looseWorn }) => (
            <tr key={lengths.join()}>
              <td data-head={heads[0]}>
                <LengthFigure mm={lengths[0]} unit={unit} />
              </td>
              <td data-head={heads[1]}>
                <LengthFigure mm={lengths[1]} unit={unit} />
              </td>
              <td className="figure" data-head="new">
                {loose(looseNew)}
              </td>
              <td className="figure" data-head="stretched">
                {loose(looseWorn)}
              </td>
              <td>
                <Button
                  onClick={() => take(lengths)}
                  aria-label={`Use ${formatLength(lengths[0], unit)} and ${formatLength(lengths[1], unit)}`}
                >
                  Use
                </Button>
              </td>
            </tr>
          ))}
        </tbody>
      </table>
    </section>
  );
}

function loose(mm: number): string {
  return Math.abs(mm) < 0.5 ? 'right' : `${formatMm(Math.abs(mm))} ${mm > 0 ? 'loose' : 'tight'}`;
}
