import { TextDecoder, TextEncoder } from 'node:util';

/** Sees no size change: nothing is laid out here. */
class ResizeObserver {
  observe = () => undefined;
  unobserve = () => undefined;
  disconnect = () => undefined;
}

/** Passes on that something was posted, a turn later. */
class MessageChannel {
  port1 = { onmessage: null as (() => void) | null };
  port2 = { postMessage: () => void setTimeout(() => this.port1.onmessage?.(), 0) };
}

/* What every browser has and jsdom lacks: the router and the interface's parts ask for it. */
Object.assign(globalThis, {
  TextDecoder,
  TextEncoder,
  ...(!('ResizeObserver' in globalThis) && { ResizeObserver }),
  ...(!('MessageChannel' in globalThis) && { MessageChannel }),
});

/* Of a pseudo-element jsdom knows no style and says so at length; that of its element stands in. */
if ('window' in globalThis) {
  const { getComputedStyle } = window;
  window.getComputedStyle = (element) => getComputedStyle(element);
}
