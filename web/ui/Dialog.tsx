import { Modal } from 'antd';
import { useEffect, useRef, useState, type ReactNode, type RefObject } from 'react';
import { lastFocused } from './last-focused';

interface Props {
  title: string;
  onClose: () => void;
  /** What is in focus once it is open; the first thing that can be where it does not say. */
  first?: RefObject<{ focus: () => void } | null>;
  width?: number;
  /** True where a touch beside it does not close it: something is written in it. */
  firm?: boolean;
  /** True where the focus comes back whatever takes it meanwhile: the next thing is done where this one began. */
  stays?: boolean;
  /** True where it comes without moving, so that a thumb finds what it reaches for. */
  still?: boolean;
  children: ReactNode;
}

/** A sheet over the page, there as long as it is drawn. What was in focus before it is so again after it. */
export function Dialog({ title, onClose, first, width, firm = false, stays = false, still = false, children }: Props) {
  const [before] = useState(lastFocused);
  const body = useRef<HTMLDivElement>(null);
  useEffect(
    () => () => {
      giveBack(before);
      // What comes in with what was done here takes the focus a moment later.
      if (stays) setTimeout(() => before?.isConnected && before.focus({ preventScroll: true }), 0);
    },
    [before, stays],
  );
  // Whoever was quicker than the sheet is typing in it: a focus that moved now would put the rest into another field.
  const begin = () => {
    if (!body.current?.contains(document.activeElement)) first?.current?.focus();
  };
  return (
    <Modal
      title={title}
      open
      footer={null}
      onCancel={onClose}
      {...(width !== undefined && { width })}
      {...(firm && { mask: { closable: false } })}
      {...(still && { transitionName: '', maskTransitionName: '' })}
      afterOpenChange={(open) => open && begin()}
    >
      <div ref={body} style={{ display: 'contents' }}>
        {children}
      </div>
    </Modal>
  );
}

/**
 * The page's own part where what was in focus is gone with what was done; nothing where something else has the focus,
 * or nothing had it.
 */
function giveBack(before: HTMLElement | null): void {
  if (before === null) return;
  const now = document.activeElement;
  if (now && now !== document.body && now.isConnected) return;
  const main = document.querySelector<HTMLElement>('main');
  if (before.isConnected) before.focus({ preventScroll: true });
  else if (main) {
    main.tabIndex = -1;
    main.focus({ preventScroll: true });
  }
}
