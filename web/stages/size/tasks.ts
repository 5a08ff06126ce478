import type { Drive } from '@emery/core/drive';
import { sizeBelt } from '@emery/core/seating';
import { answerFor, type GrowthDefaults, sizeTogether } from '@emery/core/size';

type Lengths = readonly number[];

/** The long sums of Size. */
export const sizeTasks = {
  size: (
    {
      drive,
      belt,
      also,
      stock,
      growth,
    }: { drive: Drive; belt: string; also: Lengths; stock: Lengths; growth?: GrowthDefaults | null },
    onProgress: (fraction: number) => void,
  ) => answerFor(drive, belt, { also, stock, growth, onProgress }),
  together: ({
    drive,
    first,
    second,
    stock,
    otherStock,
  }: {
    drive: Drive;
    first: string;
    second: string;
    stock: Lengths;
    otherStock: Lengths;
  }) => {
    const lengths = (belt: string, from: Lengths) =>
      (sizeBelt(drive, belt, { stock: from })?.candidates ?? [])
        .filter(({ verdict }) => verdict === 'fits')
        .map(({ lengthMm }) => lengthMm);
    return sizeTogether(drive, first, second, { first: lengths(first, stock), second: lengths(second, otherStock) });
  },
};
