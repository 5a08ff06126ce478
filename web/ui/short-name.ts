/** A text of at most so many characters, its end left out where it is longer. */
export function shortName(text: string, limit: number): string {
  const characters = [...text];
  return characters.length <= limit
    ? text
    : `${characters
        .slice(0, Math.max(1, limit - 1))
        .join('')
        .trimEnd()}…`;
}
