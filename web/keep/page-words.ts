/** What the page is called, for whoever only leads to it. */
export const KEEP_PAGE = 'Backups and health';
