import { TextDecoder, TextEncoder } from 'node:util';

/** Sees no size change: nothing is laid out here. */
class ResizeObserver {
  observe = () => undefined;
  unobserve = () => undefined;
  disconnect = () => undefined;
}

/* What every browser has and jsdom lacks: the router and the interface's parts ask for it. */
Object.assign(globalThis, { TextDecoder, TextEncoder, ...(!('ResizeObserver' in globalThis) && { ResizeObserver }) });

/* Of a pseudo-element jsdom knows no style and says so at length; that of its element stands in. */
if ('window' in globalThis) {
  const { getComputedStyle } = window;
  window.getComputedStyle = (element) => getComputedStyle(element);
}
