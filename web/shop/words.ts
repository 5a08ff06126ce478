/** What folds the drives of a vehicle in and out. */
export const foldWords = (drives: number, open: boolean): string =>
  open ? 'Show fewer drives' : `Show all ${drives} drives`;
