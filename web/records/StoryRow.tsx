import { grouped } from '@emery/core/quantity';
import type { ReactNode } from 'react';
import { Link } from 'react-router';
import { pictureAddress } from '../views/picture/address';
import type { RecordListed } from '@emery/core/api';
import type { StoryKind } from '@emery/core/records';

const STAGE_OF: Record<Exclude<StoryKind, 'job'>, string> = {
  belt: 'inspect',
  part: 'inspect',
  tension: 'tension',
  inspection: 'inspect',
  alignment: 'align',
  noise: 'noise',
};

/** One thing that happened, with its day, its odometer and its pictures; a tap goes to where it was written down. */
export function StoryRow({ record, whose }: { record: RecordListed; whose: ReactNode }) {
  const { kind, jobId, driveId, at, readingAt, unit, odometerUnit, title, detail, pictures } = record;
  const to = kind === 'job' ? `/jobs/${jobId}` : `/drives/${driveId}/${STAGE_OF[kind]}`;
  return (
    <li className="due-row">
      <span className="due-when">
        <strong>{at === null ? 'no day' : at.slice(0, 10)}</strong>
        {readingAt !== null && (
          <span className="quiet">
            {grouped(readingAt)} {unit ?? odometerUnit}
          </span>
        )}
      </span>
      <span className="due-what">
        <Link to={to}>{title}</Link>
        {detail && <span className="quiet">{detail}</span>}
        {pictures.length > 0 && (
          <span className="story-pictures">
            {pictures.map(({ hash }) => (
              <a key={hash} href={pictureAddress(hash)}>
                <img src={pictureAddress(hash)} alt={`Of ${title}`} loading="lazy" />
              </a>
            ))}
          </span>
        )}
      </span>
      <span className="due-whose">{whose}</span>
    </li>
  );
}
