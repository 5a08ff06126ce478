import { useEffect, useLayoutEffect, useRef, useState } from 'react';
import { refusedEdit } from '../state/full-drive';
import { useStore } from '../state/store';
import { PlainButton } from '../ui/PlainButton';
import './full-notice.css';

/** Room between the button and what is told beside it, and around the page, px. */
const GAP = 8;

/** Beside the button that was pressed: why nothing was changed. It goes with the next edit, or when it is pressed. */
export function FullNotice() {
  const refused = useStore(refusedEdit);
  const pressed = useLastPressed();
  const own = useRef<HTMLDivElement>(null);
  const [at, setAt] = useState<{ left: number; top: number } | null>(null);
  useLayoutEffect(() => {
    if (!refused || !own.current) return setAt(null);
    const beside = pressed.current?.isConnected ? pressed.current.getBoundingClientRect() : null;
    const { width, height } = own.current.getBoundingClientRect();
    const { innerWidth, innerHeight } = window;
    const below = (beside?.bottom ?? innerHeight / 2) + GAP;
    const above = (beside?.top ?? innerHeight / 2) - GAP - height;
    setAt({
      left: Math.max(GAP, Math.min(beside?.left ?? (innerWidth - width) / 2, innerWidth - width - GAP)),
      top: Math.max(GAP, below + height > innerHeight ? above : below),
    });
  }, [refused, pressed]);
  useEffect(() => () => refusedEdit.set(null), []);
  if (!refused) return null;
  return (
    <div ref={own} className="full-notice" style={at ?? { left: 0, top: 0, visibility: 'hidden' }}>
      <p key={refused.times} role="alert">
        {refused.text}
      </p>
      <PlainButton onClick={() => refusedEdit.set(null)}>OK</PlainButton>
    </div>
  );
}

/** What was pressed last, by finger, mouse or key. */
function useLastPressed() {
  const pressed = useRef<Element | null>(null);
  useEffect(() => {
    const note = ({ target }: Event) => {
      if (!(target instanceof Element) || target.closest('.full-notice')) return;
      pressed.current = target.closest('button, [role="button"], label, input, select, textarea') ?? target;
    };
    document.addEventListener('pointerdown', note, true);
    document.addEventListener('keydown', note, true);
    return () => {
      document.removeEventListener('pointerdown', note, true);
      document.removeEventListener('keydown', note, true);
    };
  }, []);
  return pressed;
}
