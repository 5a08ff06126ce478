// What every browser has and jsdom lacks: the router asks for it when it is loaded.
const { TextDecoder, TextEncoder } = require('node:util');
Object.assign(globalThis, { TextDecoder, TextEncoder });
