import { type MarkedBelt, markingsOf, type MarkingText } from './marking';
import { sectionFor } from './sections';

/** A belt with what to ask for at a counter. */
export interface AskFor {
  lengthMm: number;
  /** In the usual schemes; none for a section that no scheme writes without its width. */
  markings: MarkingText[];
  /** The same in plain words: ribs or teeth, section, length and what line it is taken on. */
  plain: string;
}

const BUILD_WORDS = { double: ', ribs on both sides', stretch: ', made to stretch on', cogged: ', notched' };

/** How a belt is asked for at a counter. Its section must be one that Emery knows. */
export function askFor(belt: MarkedBelt): AskFor {
  const section = sectionFor(belt.section)!;
  const { lengthMm, ribs = null, widthMm = null, build } = belt;
  const size =
    section.kind === 'toothed'
      ? `${Math.round(lengthMm / section.pitch)} teeth, ${section.name}, ${section.pitch} mm pitch${
          widthMm === null ? '' : `, ${Math.round(widthMm * 10) / 10} mm wide`
        }`
      : `${ribs === null ? section.name : `${ribs}-rib ${section.name}`}, ${Math.round(lengthMm)} mm ${section.basis}`;
  return { lengthMm, plain: `${size}${build ? BUILD_WORDS[build] : ''}`, markings: markingsOf(belt) };
}
