/** Where a drive starts from, and what it wants next. */
export { LAYOUT_SECTION, LAYOUT_WORDS, layoutDrive, LAYOUTS, startedFrom, type Layout } from './layouts';
export { nextAsk, unmeasured, type NextAsk, type NextOptions } from './next';
export { nextWords } from './words';
