import type { Drive } from '@emery/core/drive';

/** Whether two documents, both as the server writes them, say the same. */
export const sameDocument = (a: Drive, b: Drive): boolean => JSON.stringify(a) === JSON.stringify(b);
