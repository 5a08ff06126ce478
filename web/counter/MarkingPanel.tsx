import { useStockedLengths } from '../api/stock';
import { AskForBelt } from '../ask-for/AskForBelt';
import { LengthFigure } from '../ui/LengthFigure';
import { useText, useUnit } from './asked';
import { BeltAsk, useBelt } from './belt-asked';
import { FigureAsk, LengthAsk, useFigure, useLength } from './fields';
import { KeepAsDrive } from './KeepAsDrive';
import { Headline } from './Headline';
import { keptMarking } from '@emery/core/counter';
import { formatMm } from '@emery/core/quantity';
import { askFor, type MarkingReading, readMarking, SCHEME_WORDS } from '@emery/core/section';

/** So many ways to read a marking are told. */
const MOST_READINGS = 4;
/** So many of the nearest lengths in stock. */
const NEAREST = 5;

/** What a marking means, the belt in other schemes, and what the shelf has near it; or a marking from a size. */
export default function MarkingPanel() {
  const [text, put] = useText('marking');
  const [taken, take] = useText('reads', '0');
  const belt = useBelt();
  const length = useLength('length', 'Marked length');
  const width = useFigure('width', 'Width', 3, 80);
  const marked = text.trim() !== '';
  const readings = marked ? readMarking(text) : [];
  const sized: MarkingReading | null =
    marked || length.value === null
      ? null
      : {
          section: belt.section.name,
          ribs: belt.ribs,
          widthMm: belt.section.kind === 'toothed' ? width.value : null,
          lengthMm: length.value,
          basis: belt.section.basis,
          scheme: '',
          likelihood: 1,
        };
  const read = sized ?? readings[Number(taken)] ?? readings[0] ?? null;
  return (
    <>
      <div className="counter-asks">
        <FigureAsk
          label="Printed on the belt"
          ask={{
            text,
            put: (next) => put(next.slice(0, 60)),
            value: null,
            problem:
              marked && readings.length === 0 ? 'No general marking scheme matches. Check for a worn character.' : null,
            echo: 'Spaces, capitals and material do not matter.',
          }}
          text
          first
          placeholder="such as 6PK1805"
        />
        {readings.length > 0 && (
          <div className="marking-readings" role="group" aria-label="Possible meanings">
            {readings.slice(0, MOST_READINGS).map((reading, k) => (
              <button
                key={`${reading.scheme} ${reading.section} ${reading.lengthMm}`}
                type="button"
                className={`marking-read${reading === read ? ' is-chosen' : ''}`}
                aria-pressed={reading === read}
                onClick={() => take(String(k))}
              >
                <strong>
                  {reading.section}
                  {reading.ribs !== null && `, ${reading.ribs} ribs`}, {formatMm(reading.lengthMm, 0)} {reading.basis}
                </strong>{' '}
                <span className="quiet">
                  {SCHEME_WORDS[reading.scheme]}
                  {readings.length > 1 && `; ${Math.round(100 * reading.likelihood)} % likely`}
                </span>
              </button>
            ))}
          </div>
        )}
        {!marked && (
          <>
            <h2>Or enter its size</h2>
            <div className="fields">
              <BeltAsk belt={belt} />
              <LengthAsk label={`Marked length, ${belt.section.basis}`} ask={length} />
              {belt.section.kind === 'toothed' && <FigureAsk label="Width, mm" ask={width} />}
            </div>
          </>
        )}
      </div>
      {read ? <Read read={read} /> : <NothingYet />}
    </>
  );
}

function NothingYet() {
  return (
    <div className="counter-answer">
      <p className="counter-empty">Enter what is printed on a belt. Its meaning appears here as you type.</p>
      <KeepAsDrive drive={null} />
    </div>
  );
}

function Read({ read }: { read: MarkingReading }) {
  const unit = useUnit();
  const { section, ribs, lengthMm, basis, widthMm } = read;
  const stock = useStockedLengths(section, ribs).data?.lengths ?? [];
  const nearest = [...stock]
    .sort((a, b) => Math.abs(a.lengthMm - lengthMm) - Math.abs(b.lengthMm - lengthMm))
    .slice(0, NEAREST)
    .sort((a, b) => a.lengthMm - b.lengthMm);
  return (
    <div id="answer" className="counter-answer" aria-live="polite">
      <Headline>
        <LengthFigure mm={lengthMm} unit={unit} /> · <LengthFigure mm={lengthMm} unit={unit === 'in' ? 'mm' : 'in'} />
      </Headline>
      <div className="label">
        {section}
        {ribs !== null && `, ${ribs} ribs`}, {basis} length
      </div>
      <div className="answer-figure" data-testid="marking-answer" data-mm={lengthMm}>
        <LengthFigure mm={lengthMm} unit={unit} />
        <span className="answer-other">
          <LengthFigure mm={lengthMm} unit={unit === 'in' ? 'mm' : 'in'} />
        </span>
      </div>
      {widthMm !== null && <p>{formatMm(widthMm)} wide.</p>}
      <AskForBelt ask={askFor(read)} section={section} ribs={ribs} schemes />
      {nearest.length > 0 && (
        <table className="ledger-table" aria-label="Nearest belts in the list">
          <thead>
            <tr>
              <th>Nearest in the list</th>
              <th className="figure">Difference</th>
              <th className="figure">On the shelf</th>
            </tr>
          </thead>
          <tbody>
            {nearest.map((length) => (
              <tr key={length.lengthMm}>
                <td>
                  <LengthFigure mm={length.lengthMm} unit={unit} />
                </td>
                <td className="figure">
                  {`${length.lengthMm < lengthMm ? '−' : '+'}${formatMm(Math.abs(length.lengthMm - lengthMm))}`}
                </td>
                <td className="figure">{length.shelf}</td>
              </tr>
            ))}
          </tbody>
        </table>
      )}
      <KeepAsDrive drive={() => keptMarking(read)} />
    </div>
  );
}
