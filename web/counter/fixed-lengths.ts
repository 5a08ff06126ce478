/* A part of its own: the whole path of a belt and all that pulls at it, which no other question on this page needs. */
export { lengthsOnFixed } from '@emery/core/counter';
