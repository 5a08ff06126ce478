import { readSpeedLog, type SpeedLogRead } from '../speed/read-speed-log';
import { readStockFile, type StockFileRead } from '../stock/read-stock-file';
import type { Drive } from '@emery/core/drive';
import { type IdlerSearch, type IdlerWish, proposeIdlers, type RouteSearch, searchRoutes } from '@emery/core/route';
import { sizeBelt } from '@emery/core/seating';
import { answerFor, type SizeAnswer, sizeTogether, type TogetherAnswer } from '@emery/core/size';
import {
  choosePulleys,
  type PulleyAtHand,
  type PulleySearch,
  type ShopBands,
  type SpeedTarget,
} from '@emery/core/speeds';
import { fitSurvey, type SurveyFit } from '@emery/core/survey';

/** The long sums, run beside the page. What goes in and out is plain data; cancelling is ending the worker. */
export interface CoreTasks {
  survey: { input: Drive; output: SurveyFit };
  size: {
    input: { drive: Drive; belt: string; also: readonly number[]; stock: readonly number[] };
    output: SizeAnswer | null;
  };
  idlers: {
    input: { drive: Drive; belt: string; wish: Pick<IdlerWish, 'station' | 'diameter' | 'top'> };
    output: IdlerSearch;
  };
  together: {
    input: { drive: Drive; first: string; second: string; stock: readonly number[]; otherStock: readonly number[] };
    output: TogetherAnswer | null;
  };
  routes: { input: { drive: Drive; belt: string; top: number }; output: RouteSearch };
  pulleys: {
    input: {
      drive: Drive;
      targets: readonly SpeedTarget[];
      atHand: readonly PulleyAtHand[];
      bands: ShopBands;
      changes: number;
    };
    output: PulleySearch;
  };
  log: { input: File; output: SpeedLogRead };
  stock: { input: File; output: StockFileRead };
  /** Nothing: has the worker's code fetched while the server is there. */
  nothing: { input: null; output: null };
}

export type CoreTask = keyof CoreTasks;
export type CoreMessage = { progress: number } | { output: unknown } | { fault: string };

const RUN: {
  [T in CoreTask]: (
    input: CoreTasks[T]['input'],
    onProgress: (share: number) => void,
  ) => CoreTasks[T]['output'] | Promise<CoreTasks[T]['output']>;
} = {
  size: ({ drive, belt, also, stock }, onProgress) => answerFor(drive, belt, { also, stock, onProgress }),
  survey: (drive) => fitSurvey(drive, drive.survey?.readings ?? []),
  idlers: ({ drive, belt, wish }, onProgress) => proposeIdlers(drive, belt, { ...wish, onProgress }),
  together: ({ drive, first, second, stock, otherStock }) => {
    const lengths = (belt: string, from: readonly number[]) =>
      (sizeBelt(drive, belt, { stock: from })?.candidates ?? [])
        .filter(({ verdict }) => verdict === 'fits')
        .map(({ lengthMm }) => lengthMm);
    return sizeTogether(drive, first, second, { first: lengths(first, stock), second: lengths(second, otherStock) });
  },
  routes: ({ drive, belt, top }, onProgress) => searchRoutes(drive, belt, { top, onProgress }),
  pulleys: ({ drive, targets, atHand, bands, changes }, onProgress) =>
    choosePulleys(drive, targets, atHand, { bands, changes, onProgress }),
  log: readSpeedLog,
  stock: readStockFile,
  nothing: () => null,
};

self.onmessage = async <T extends CoreTask>({ data }: MessageEvent<{ task: T; input: CoreTasks[T]['input'] }>) => {
  const tell = (message: CoreMessage) => self.postMessage(message);
  try {
    tell({ output: await RUN[data.task](data.input, (progress) => tell({ progress })) });
  } catch (error) {
    tell({ fault: error instanceof Error ? error.message : String(error) });
  }
};
