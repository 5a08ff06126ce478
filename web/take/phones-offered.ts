import { createContext } from 'react';

/** Whether fields offer to be filled in by a phone: not where a page is to stand at once, as at the counter. */
export const PhonesOffered = createContext(false);
