import { findRibs, type GreyPicture } from '@emery/core/inspect/ribs';

/** The long sum of Inspect: ribs in a close-up. */
export const inspectTasks = {
  ribs: ({ picture, pitchMm }: { picture: GreyPicture; pitchMm: number }, onProgress: (share: number) => void) =>
    findRibs(picture, pitchMm, onProgress),
};
