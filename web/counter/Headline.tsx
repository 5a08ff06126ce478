import { createContext, useContext, type ReactNode } from 'react';
import { createPortal } from 'react-dom';

/** Where the answer's one line stands while the answer itself is out of sight: on a narrow screen. */
export const HeadlinePlace = createContext<HTMLElement | null>(null);

/** The answer in one line, in sight while the questions are answered; the answer itself says it again to who hears. */
export function Headline({ children }: { children: ReactNode }) {
  const place = useContext(HeadlinePlace);
  return place && createPortal(<span className="counter-headline-text">{children}</span>, place);
}
