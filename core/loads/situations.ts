import { grouped } from '../quantity';
import type { EngineMarks, LoadChoice } from '../accessory';
import type { Running } from './demand';

/** A state of the whole drive that is picked in one place. */
export interface Situation {
  id: 'idle' | 'road' | 'wading';
  name: string;
  choice: LoadChoice;
  wet: boolean;
  rpm: (marks: EngineMarks) => number;
}

/** The states to look at first: what slips at idle, on the road, and in water. */
export const SITUATIONS: readonly Situation[] = [
  { id: 'idle', name: 'Idle, everything on', choice: { all: 'heaviest' }, wet: false, rpm: ({ idle }) => idle },
  { id: 'road', name: 'Motorway', choice: { all: 'lightest' }, wet: false, rpm: ({ cruise }) => cruise },
  {
    id: 'wading',
    name: 'Wading',
    choice: { all: 'heaviest' },
    wet: true,
    rpm: ({ idle, cruise }) => Math.round((idle + cruise) / 20) * 10,
  },
];

/** What a window is worked out over: idle, cruise and redline with those loads, dry, and wet as well where wanted. */
export function statesThatMatter(
  { idle, cruise, redline }: EngineMarks,
  choice: LoadChoice,
  wetToo: boolean,
): Running[] {
  const dry = [idle, cruise, redline].map((rpm): Running => ({ ...choice, rpm, wet: false }));
  return wetToo ? [...dry, ...dry.map((running) => ({ ...running, wet: true }))] : dry;
}

/** What a state is called. */
export function stateWords({ rpm, wet }: Running): string {
  return `${grouped(Math.round(rpm))} rev/min${wet ? ', wet' : ''}`;
}
