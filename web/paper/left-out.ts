/*
 * What the PDF maker could do as well, and Emery never asks of it: pictures in PNG, a password, a font packed as WOFF2.
 * None of it is built; whoever asks for it hears so at once.
 */
function never(): never {
  throw new Error('the PDF maker is built without this: see web/vite.config.ts');
}

export default never;
export const cbc = never;
export const ecb = never;
