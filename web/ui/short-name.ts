/** A text of at most so many characters, its end left out where it is longer. */
export function shortName(text: string, most: number): string {
  const characters = [...text];
  return characters.length <= most
    ? text
    : `${characters
        .slice(0, Math.max(1, most - 1))
        .join('')
        .trimEnd()}…`;
}
