import { group } from 'd3-array';
import type { ReactNode } from 'react';
import { LengthFigure } from '../ui/LengthFigure';
import { Thumbnail } from './Thumbnail';
import { type Drive, driveDifferences } from '@emery/core/drive';
import { sketchOf } from '@emery/core/path';
import type { LengthUnit } from '@emery/core/quantity';

interface Shown {
  title: string;
  drive: Drive;
}

/** Two versions of one drive side by side, with all that differs, part by part. */
export function TwoVersions({
  title,
  lead,
  mine,
  theirs,
  names,
  unit,
  role = 'alertdialog',
  children,
}: {
  title: string;
  lead: string;
  mine: Shown;
  theirs: Shown;
  names: [string, string];
  unit: LengthUnit;
  /** Asked over the page, or a part of something that was opened. */
  role?: 'alertdialog' | 'group';
  children: ReactNode;
}) {
  const parts = group(driveDifferences(mine.drive, theirs.drive, unit, names), ({ part }) => part);
  return (
    <section className="conflict" role={role} aria-label={title}>
      <h2>{title}</h2>
      <p>{lead}</p>
      <div className="conflict-pair">
        {[mine, theirs].map((version) => (
          <Version key={version.title} {...version} unit={unit} />
        ))}
      </div>
      <div className="conflict-list" tabIndex={0} role="group" aria-label="What differs">
        {[...parts].map(([part, differences]) => (
          <section key={part}>
            <h3>
              {part}{' '}
              <span className="quiet">
                {differences.length === 1 ? '1 difference' : `${differences.length} differences`}
              </span>
            </h3>
            <ul>
              {differences.map(({ path, text }) => (
                <li key={`${path} ${text}`}>{text}</li>
              ))}
            </ul>
          </section>
        ))}
        {parts.size === 0 && <p>No differences.</p>}
      </div>
      <div className="button-row">{children}</div>
    </section>
  );
}

function Version({ title, drive, unit }: Shown & { unit: LengthUnit }) {
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
