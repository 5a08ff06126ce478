import { useEffect, useState } from 'react';

/** So long the button says that it has copied, ms. */
const SAID_MS = 2500;

/** A marking, or a link, that one tap copies. */
export function CopyText({ text, label = text, large = false }: { text: string; label?: string; large?: boolean }) {
  const [said, setSaid] = useState<'copied' | 'not copied' | null>(null);
  useEffect(() => {
    if (said === null) return;
    const timer = setTimeout(() => setSaid(null), SAID_MS);
    return () => clearTimeout(timer);
  }, [said]);
  const copy = () =>
    (navigator.clipboard?.writeText(text) ?? Promise.reject(new Error('no clipboard'))).then(
      () => setSaid('copied'),
      () => setSaid('not copied'),
    );
  return (
    <button
      type="button"
      className={`copy-text${large ? ' is-large' : ''}`}
      aria-label={`Copy ${label}`}
      onClick={() => void copy()}
    >
      <span>{label}</span>
      <span className={`copy-word${said ? ' is-said' : ''}`} role="status">
        {said ?? 'copy'}
      </span>
    </button>
  );
}
