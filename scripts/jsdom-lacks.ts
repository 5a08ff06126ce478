import { TextDecoder, TextEncoder } from 'node:util';

/* What every browser has and jsdom lacks: the router asks for it when it is loaded. */
Object.assign(globalThis, { TextDecoder, TextEncoder });
