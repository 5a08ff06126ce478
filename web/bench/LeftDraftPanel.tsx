import { DAY_AND_TIME } from '../ui/day-and-time';
import { Button } from 'antd';
import { group } from 'd3-array';
import type { ReactNode } from 'react';
import { LengthFigure } from '../ui/LengthFigure';
import type { LeftOldDraft } from '../state/draft-store';
import { Thumbnail } from './Thumbnail';
import { type Drive, driveDifferences } from '@emery/core/drive';
import { sketchOf } from '@emery/core/path';
import type { LengthUnit } from '@emery/core/quantity';

interface LeftProps {
  drive: Drive;
  draft: LeftOldDraft;
  unit: LengthUnit;
  onTakeUp: () => void;
  onKeepCopy: () => void;
  onThrowAway: () => void;
}

/** A draft that an older Emery left on this device over an older version, which nobody has decided about yet. */
export function LeftDraftPanel({ drive, draft, unit, onTakeUp, onKeepCopy, onThrowAway }: LeftProps) {
  return (
    <TwoVersions
      title={`▲ An unsaved draft of ${DAY_AND_TIME.format(new Date(draft.at))} is on this device`}
      lead="Another page changed it and could not save it. It stays here until you choose."
      mine={{ title: 'The draft', drive: draft.document }}
      theirs={{ title: 'The drive on this screen', drive }}
      names={['the draft', 'the drive']}
      unit={unit}
    >
      <Button type="primary" onClick={onKeepCopy}>
        Keep the draft as a copy
      </Button>
      <Button onClick={onTakeUp}>Continue with the draft</Button>
      <Button danger onClick={onThrowAway}>
        Discard the draft
      </Button>
    </TwoVersions>
  );
}

interface Shown {
  title: string;
  drive: Drive;
}

/** Two versions of one drive side by side, with all that differs, part by part. */
function TwoVersions({
  title,
  lead,
  mine,
  theirs,
  names,
  unit,
  children,
}: {
  title: string;
  lead: string;
  mine: Shown;
  theirs: Shown;
  names: [string, string];
  unit: LengthUnit;
  children: ReactNode;
}) {
  const parts = group(driveDifferences(mine.drive, theirs.drive, unit, names), ({ part }) => part);
  return (
    <section className="conflict" role="alertdialog" aria-label={title}>
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
