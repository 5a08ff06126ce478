import type { Drive } from '@emery/core/drive';
import { type IdlerWish, proposeIdlers, searchRoutes } from '@emery/core/route';

type OnProgress = (fraction: number) => void;

/** The long sums of Route. */
export const routeTasks = {
  routes: ({ drive, belt, top }: { drive: Drive; belt: string; top: number }, onProgress: OnProgress) =>
    searchRoutes(drive, belt, { top, onProgress }),
  idlers: (
    { drive, belt, wish }: { drive: Drive; belt: string; wish: Pick<IdlerWish, 'station' | 'diameter' | 'top'> },
    onProgress: OnProgress,
  ) => proposeIdlers(drive, belt, { ...wish, onProgress }),
};
