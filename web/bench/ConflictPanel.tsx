import { Button } from 'antd';
import { stationLabel, type Drive } from '@emery/core/drive';
import { sketchOf } from '@emery/core/path';
import { formatLength, type LengthUnit } from '@emery/core/quantity';
import type { DriveOpened } from '../api/shop';
import { LengthFigure } from '../ledger/LengthFigure';
import { Thumbnail } from './Thumbnail';

interface Props {
  mine: Drive;
  theirs: DriveOpened;
  unit: LengthUnit;
  onKeepMine: () => void;
  onTakeTheirs: () => void;
  onKeepBoth: () => void;
}

const clock = new Intl.DateTimeFormat(undefined, { day: 'numeric', month: 'short', hour: '2-digit', minute: '2-digit', hour12: false });

/** Two people saved one drive: both are shown, and nothing is decided without the user. */
export function ConflictPanel({ mine, theirs, unit, onKeepMine, onTakeTheirs, onKeepBoth }: Props) {
  const changes = differences(mine, theirs.document, unit);
  return (
    <section className="conflict" role="alertdialog" aria-labelledby="conflict-title">
      <h2 id="conflict-title">■ This drive was saved somewhere else at {clock.format(new Date(theirs.updatedAt))}</h2>
      <p>Nothing was overwritten. Look at both, then choose.</p>
      <div className="conflict-pair">
        <Version title="Yours, on this screen" drive={mine} unit={unit} />
        <Version title="Theirs, saved" drive={theirs.document} unit={unit} />
      </div>
      {changes.length > 0 && (
        <ul className="conflict-list">
          {changes.slice(0, 8).map((change) => (
            <li key={change}>{change}</li>
          ))}
          {changes.length > 8 && <li>and {changes.length - 8} more</li>}
        </ul>
      )}
      <div className="button-row">
        <Button type="primary" onClick={onKeepBoth}>
          Keep both: mine as a copy
        </Button>
        <Button onClick={onTakeTheirs}>Take theirs</Button>
        <Button danger onClick={onKeepMine}>
          Replace theirs with mine
        </Button>
      </div>
    </section>
  );
}

function Version({ title, drive, unit }: { title: string; drive: Drive; unit: LengthUnit }) {
  const sketch = sketchOf(drive);
  return (
    <figure>
      <Thumbnail sketch={sketch} label={title} />
      <figcaption>
        <strong>{title}</strong>
        {sketch.belts.length === 0 && 'no belt'}
        {sketch.belts.map(({ id, lengthMm }) => (
          <div key={id}>{lengthMm === null ? 'no length' : <LengthFigure mm={lengthMm} unit={unit} />}</div>
        ))}
      </figcaption>
    </figure>
  );
}

/** What differs, in words, from theirs to mine. */
function differences(mine: Drive, theirs: Drive, unit: LengthUnit): string[] {
  const found: string[] = [];
  const text = (value: unknown) => JSON.stringify(value);
  for (const station of mine.stations) {
    const other = theirs.stations.find(({ id }) => id === station.id);
    const name = stationLabel(station);
    if (!other) found.push(`${name}: only in yours`);
    else if (station.x !== other.x || station.y !== other.y) {
      const at = (s: { x: number; y: number }) => `${formatLength(s.x, unit)}, ${formatLength(s.y, unit)}`;
      found.push(`${name}: at ${at(station)} in yours, ${at(other)} in theirs`);
    } else if (text(station) !== text(other)) found.push(`${name}: read differently`);
  }
  for (const station of theirs.stations) if (!mine.stations.some(({ id }) => id === station.id)) found.push(`${stationLabel(station)}: only in theirs`);
  if (text(mine.belts) !== text(theirs.belts)) found.push('The belts or their routes differ');
  if (mine.crankRotation !== theirs.crankRotation) found.push('The crank turns the other way');
  if (mine.name !== theirs.name) found.push(`Named "${mine.name ?? ''}" in yours, "${theirs.name ?? ''}" in theirs`);
  return found;
}
