import type { ReactNode } from 'react';
import { Link } from 'react-router';
import { useToday } from './use-today';
import type { DueExpected } from '@emery/core/api';
import type { OdometerUnit } from '@emery/core/drive';
import { DUE_STATE_WORDS, dueBy, type DueKind, dueState } from '@emery/core/records';

/** Where one goes to put a thing right. */
const STAGE_OF: Record<DueKind, string> = {
  change: 'job',
  'set-again': 'tension',
  look: 'tension',
  listen: 'noise',
  wear: 'inspect',
  life: 'inspect',
};

interface Props {
  due: DueExpected;
  driveId: string;
  vehicle: { odometer: number | null; unit: OdometerUnit };
  whose: ReactNode;
}

/** One thing that is due: when, what, by what it is due, and whose it is. */
export function DueRow({ due, driveId, vehicle, whose }: Props) {
  const state = dueState(due, useToday(), vehicle);
  const { mark, word } = DUE_STATE_WORDS[state];
  return (
    <li className={`due-row is-${state.replace(' ', '-')}`}>
      <span className="due-when">
        <strong>{due.expected ?? 'no day'}</strong>
        <span className={`flag ${state === 'due' ? 'is-watch' : ''}`}>
          {mark} {word}
        </span>
      </span>
      <span className="due-what">
        <Link to={`/drives/${driveId}/${STAGE_OF[due.kind]}`}>{due.text}</Link>
        <span className="quiet">{dueBy(due, vehicle.unit)}</span>
      </span>
      <span className="due-whose">{whose}</span>
    </li>
  );
}
