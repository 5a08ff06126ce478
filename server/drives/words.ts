/** What is said of a patch of a drive that is none, and of a drive that takes none. */
export const PATCH = {
  wholeNumber: 'must be a whole number',
  positive: 'must be 1 or more',
  revision: 'is missing: the revision it was made from',
  changes: 'is missing: a list of what was changed',
  otherSave: 'names a save that was taken with other changes; give each save a name of its own',
  after: 'must be the number of a version, 0 or more',
} as const;
