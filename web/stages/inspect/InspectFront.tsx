import { useEffect, type ReactNode } from 'react';
import { lazyPart } from '../../parts/lazy-part';
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
  useEffect(() => {
    if (!shown) return;
    const onKey = (event: KeyboardEvent) => {
      const target = event.target as HTMLElement;
      if (event.key !== 'Escape' || target.closest('input, textarea, .ant-modal')) return;
      // It closes the picture and nothing else.
      event.stopPropagation();
      setCloseUp(null);
    };
    window.addEventListener('keydown', onKey, true);
    return () => window.removeEventListener('keydown', onKey, true);
  }, [shown, setCloseUp]);
  return shown ? <RibPicture key={closeUp.picture.hash} /> : children;
}
