/** That the drive has no belt of that id, and which it has. */
export const noBeltWords = (id: string, belts: readonly { id: string }[]): string =>
  `--belt: there is no belt "${id}"; this drive has ${belts.map((belt) => belt.id).join(', ') || 'none'}`;
