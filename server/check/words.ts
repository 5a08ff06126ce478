/** What is said of changes that a drive does not allow. */
export const MERGE = { full: 'Drive full', unfit: 'does not fit the drive' } as const;
