/*
 * What a person sees of a page, as lines of plain text: words, fields with what stands in them, buttons with their
 * state, and every shape of a drawing with its place to the pixel.
 */

const BLOCKS = new Set(
  'P LI H1 H2 H3 H4 TR DIV SECTION DT DD UL OL DL TABLE FORM LEGEND SUMMARY DETAILS NAV HEADER MAIN ASIDE FIELDSET'.split(
    ' ',
  ),
);
const SHAPES = ['d', 'x', 'y', 'x1', 'y1', 'x2', 'y2', 'cx', 'cy', 'r', 'width', 'height', 'points', 'transform'];

/** Numbers to the whole, or to three figures where they are small: what a pixel shows, and a tenth of a degree. */
const rounded = (text: string): string =>
  text.replace(/-?\d+\.\d+(e-?\d+)?/g, (number) => {
    const value = Number(number);
    return String(Math.abs(value) >= 10 ? Math.round(value) + 0 : Number(value.toPrecision(2)) + 0);
  });

const states = (element: Element): string =>
  [
    ...[...element.classList].filter((name) => name.startsWith('is-')),
    ...['aria-pressed', 'aria-checked', 'aria-expanded', 'aria-current', 'aria-invalid', 'aria-selected']
      .filter((name) => element.hasAttribute(name) && element.getAttribute(name) !== 'false')
      .map((name) => name.slice(5)),
    ...(element.matches(':disabled') ? ['disabled'] : []),
  ].join(' ');

const within = (words: string) => (words === '' ? '' : ` {${words}}`);

/** What controls are called, as the page is now: labels are looked up once. */
export function namer(): (element: Element) => string {
  const labels = new Map([...document.querySelectorAll('label')].map((label) => [label.htmlFor, label] as const));
  return (element) => {
    const labelled = element.getAttribute('aria-labelledby');
    const own =
      element.getAttribute('aria-label') ??
      (labelled &&
        labelled
          .split(' ')
          .map((id) => document.getElementById(id)?.textContent ?? '')
          .join(' ')) ??
      (element.matches('input, textarea') ? (element.id && labels.get(element.id)) || element.closest('label') : null)
        ?.textContent ??
      element.textContent ??
      '';
    return own.replace(/\s+/g, ' ').trim().slice(0, 80);
  };
}

function control(element: Element, nameOf: (element: Element) => string): string | null {
  if (element instanceof HTMLInputElement || element instanceof HTMLTextAreaElement) {
    const chosen = element.type === 'radio' || element.type === 'checkbox';
    const value = chosen ? ((element as HTMLInputElement).checked ? 'x' : ' ') : element.value;
    return `[${nameOf(element)}: ${value}]${within(states(element))}`;
  }
  if (element.matches('button, [role="switch"], [role="slider"], a[href]')) {
    const value = element.getAttribute('aria-valuetext') ?? element.getAttribute('aria-valuenow');
    const to = element.getAttribute('href');
    return `<${nameOf(element)}${value === null ? '' : `: ${value}`}${to === null ? '' : ` -> ${to}`}>${within(states(element))}`;
  }
  return null;
}

function shapes(svg: Element): string[] {
  const lines = [`svg ${svg.getAttribute('aria-label') ?? ''}`.trimEnd()];
  const walk = (element: Element): void => {
    const own = SHAPES.filter((name) => element.hasAttribute(name)).map(
      (name) => `${name}=${rounded(element.getAttribute(name)!)}`,
    );
    const text = element.children.length === 0 ? (element.textContent ?? '').trim() : '';
    const name = element.getAttribute('class')?.trim() ?? '';
    if (own.length > 0 || text !== '' || name !== '')
      lines.push(` ${[element.tagName, name, ...own, text].filter(Boolean).join(' ')}`);
    if (element.tagName !== 'text' || element.querySelector('tspan')) for (const child of element.children) walk(child);
  };
  for (const child of svg.children) walk(child);
  return lines;
}

/** The lines of a part of the page; drawings with their shapes where they are wanted. */
export function seen(root: Element, { drawings = true } = {}): string[] {
  const nameOf = namer();
  const lines: string[] = [];
  let line = '';
  const end = () => {
    const text = line.replace(/\s+/g, ' ').trim();
    if (text !== '') lines.push(text);
    line = '';
  };
  const walk = (node: Node): void => {
    if (node.nodeType === Node.TEXT_NODE) {
      line += node.textContent;
      return;
    }
    if (!(node instanceof Element) || node.matches('style, script, .anticon, [hidden]')) return;
    if (node instanceof SVGElement) {
      if (!drawings) return;
      end();
      lines.push(...shapes(node));
      return;
    }
    const own = control(node, nameOf);
    if (own !== null) {
      line += ` ${own} `;
      return;
    }
    const block = BLOCKS.has(node.tagName);
    if (block) {
      end();
      const dress = [...node.classList].filter((name) => !/^(ant-|css-|is-)/.test(name));
      if (dress.length > 0) lines.push(`.${dress.join('.')}`);
    }
    if (node.matches('[role="alert"]')) line += '! ';
    for (const child of node.childNodes) walk(child);
    const state = states(node);
    if (state !== '' && line !== '') line += ` {${state}}`;
    if (block) end();
    else if (node.matches('td, th')) line += ' | ';
  };
  walk(root);
  end();
  return lines.map((text) => text.replace(/[0-9a-f]{8}-[0-9a-f-]{27}/g, '(id)'));
}

/** What lies over the page just now: sheets, and lists that fell down. */
export const overPage = (): Element[] => [
  ...document.querySelectorAll('.ant-modal, .ant-dropdown:not(.ant-dropdown-hidden)'),
];

/** The controls of a part of the page in their order, each by what it is called. */
export function controlsOf(root: Element): Element[] {
  return [
    ...root.querySelectorAll(
      'button, input, textarea, [role="switch"], [role="slider"], [role="button"], [role="menuitem"], summary, a[href]',
    ),
  ].filter(
    (element) =>
      !element.matches('[type="file"], [type="search"], :disabled, [aria-disabled="true"]') &&
      !element.closest('[hidden]'),
  );
}
