/* A part of its own: the whole path of a belt and all that pulls at it, which no other question on this page needs. */
export { commonWindows } from '@emery/core/counter';
