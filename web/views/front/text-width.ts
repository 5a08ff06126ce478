/** What a character takes where nothing is laid out, px: about the middle of the font. */
const GUESS = { 'label-name': 7, 'label-figure': 6.6 } as const;
/** The size that the marks of the front view are laid out for, px. */
const USUAL = { 'label-name': 15, 'label-figure': 14 } as const;

export type LabelClass = keyof typeof GUESS;

interface Measured {
  /** Of the text, of the usual. */
  scale: number;
  widths: Map<string, number>;
  probe: SVGTextElement | null;
}

const known = new Map<string, Measured>();

/** Measured once for each size of text that the style sheets give: a phone has another than a bench. */
function measuredOf(kind: LabelClass, narrow: boolean): Measured {
  const key = `${kind} ${narrow}`;
  const found = known.get(key);
  if (found) return found;
  const svg = document.createElementNS('http://www.w3.org/2000/svg', 'svg');
  svg.setAttribute('class', 'labels visually-hidden');
  svg.setAttribute('aria-hidden', 'true');
  svg.style.position = 'fixed';
  const probe = document.createElementNS('http://www.w3.org/2000/svg', 'text');
  probe.setAttribute('class', kind);
  svg.append(probe);
  document.body.append(svg);
  const size = parseFloat(getComputedStyle(probe).fontSize);
  const laidOut = typeof probe.getComputedTextLength === 'function' && size > 0;
  const made: Measured = {
    scale: laidOut ? size / USUAL[kind] : 1,
    widths: new Map(),
    probe: laidOut ? probe : null,
  };
  if (!laidOut) svg.remove();
  known.set(key, made);
  return made;
}

/** How large the text of labels is, of the usual. */
export const textScaleOf = (kind: LabelClass, narrow: boolean): number => measuredOf(kind, narrow).scale;

/** The width of a text on the front view, px: the sum of its characters, each of which is measured once. */
export function textWidth(text: string, kind: LabelClass, narrow: boolean): number {
  const { widths, probe } = measuredOf(kind, narrow);
  let sum = 0;
  for (const character of text) {
    let width = widths.get(character);
    if (width === undefined) {
      width = GUESS[kind];
      if (probe) {
        // A space alone has no width.
        probe.textContent = `n${character}n`;
        const both = probe.getComputedTextLength();
        probe.textContent = 'nn';
        width = both - probe.getComputedTextLength();
        probe.textContent = '';
      }
      widths.set(character, width);
    }
    sum += width;
  }
  return sum;
}

/** A text no wider than that many px, shortened with an ellipsis where it has to be. */
export function shortened(text: string, limit: number, kind: LabelClass, narrow: boolean): string {
  if (textWidth(text, kind, narrow) <= limit) return text;
  const characters = [...text];
  while (characters.length > 1 && textWidth(`${characters.join('')}…`, kind, narrow) > limit) characters.pop();
  return `${characters.join('').trimEnd()}…`;
}

/** The first letters of a name's words, two at most. */
export const initials = (name: string): string =>
  name
    .split(/\s+/)
    .map((word) => [...word][0] ?? '')
    .slice(0, 2)
    .join('')
    .toUpperCase();
