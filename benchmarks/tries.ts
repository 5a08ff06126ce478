import { boughtUntilOneFits, coverageOf, preparedLayouts, type Tenth, WAYS_TO_BUY } from '../core/test/try-in';
import { deviates } from '@emery/core/numeric';

/** Layouts of each kind; there are four kinds. */
const EACH = 500;

/** How far what Size says of belts tried on is so, and how many belts are bought: prints both, asserts nothing. */
export function benchTries(): void {
  for (const [name, layout] of preparedLayouts()) {
    coverageOf(layout, EACH, deviates(1)).forEach((found, tried) => {
      const { places, withinOne, withinTwo, said, so, chances } = found;
      const percent = (hits: number) => `${((100 * hits) / places).toFixed(1)} %`;
      const [sigma, error] = [Math.sqrt(said / places), Math.sqrt(so / places)];
      process.stdout.write(
        `${name}, ${tried} tried: ${percent(withinOne)} within one ±, ${percent(withinTwo)} within two; ± said ` +
          `${sigma.toFixed(2)} mm, was ${error.toFixed(2)} mm; chances said:so ${tenths(chances)}\n`,
      );
    });
    const bought = boughtUntilOneFits(layout, EACH, deviates(2));
    for (const way of WAYS_TO_BUY) {
      const mean = bought[way].reduce((sum, belts) => sum + belts, 0) / Math.max(1, bought[way].length);
      process.stdout.write(`${name}, ${way}: ${mean.toFixed(2)} belts bought on the average\n`);
    }
  }
}

const tenths = (list: readonly Tenth[]) =>
  list
    .filter(({ count }) => count > 0)
    .map(({ count, said, so }) => `${(said / count).toFixed(2)}:${(so / count).toFixed(2)}`)
    .join(' ');
