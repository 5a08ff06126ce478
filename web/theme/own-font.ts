/** A page waits no longer than this for its font, ms: then it stands in the browser's own. */
const LONGEST_MS = 1500;

let there: Promise<unknown> | null = null;

/**
 * A page's code, once the font of its words is there as well: fetched beside it. Drawn before, lines break elsewhere
 * when the font comes, and a key moves away from under the thumb that presses it.
 */
export async function withFont<T>(page: Promise<T>): Promise<T> {
  there ??= Promise.race([
    document.fonts.load('16px "Encode Sans Variable"').catch(() => null),
    new Promise((resolve) => setTimeout(resolve, LONGEST_MS)),
  ]);
  const [loaded] = await Promise.all([page, there]);
  return loaded;
}
