import type { PulleyFigure, PulleyPlace } from './stage';

/** How far the belt lies round a pulley. */
export function wrapFigure({ contact }: PulleyPlace): PulleyFigure {
  if (contact === undefined) return { text: 'on no belt' };
  return { text: contact.wrapDeg === null ? 'wrap not known' : `${Math.round(contact.wrapDeg)}° wrap` };
}

export const useWrapFigure = () => wrapFigure;
