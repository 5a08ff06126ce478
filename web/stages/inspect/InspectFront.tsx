import type { ReactNode } from 'react';
import { lazyPart } from '../../parts/lazy-part';
import { useEscape } from '../../ui/use-key';
import { useInspect } from './InspectProvider';

const RibPicture = lazyPart(
  'The close-up',
  () => import('./RibPicture'),
  <section className="front-view sheet" aria-label="Picture" aria-busy />,
);

/** The close-up while it is looked at, else the drawing. */
export function InspectFront({ wanted, children }: { wanted: boolean; children: ReactNode }) {
  const { view, closeUp, setCloseUp } = useInspect();
  const shown = wanted && view === 'close-up' && closeUp !== null;
  useEscape(() => setCloseUp(null), shown);
  return shown ? <RibPicture key={closeUp.picture.hash} /> : children;
}
