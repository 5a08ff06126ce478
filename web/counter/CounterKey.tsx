import { useEffect } from 'react';
import { useNavigate } from 'react-router';
import { isWriting } from '../ui/is-writing';

/** From any page the key c opens the counter, unless something is being written. */
export function CounterKey() {
  const navigate = useNavigate();
  useEffect(() => {
    const onKey = (event: KeyboardEvent) => {
      if (event.key.toLowerCase() !== 'c' || event.ctrlKey || event.metaKey || event.altKey) return;
      if (isWriting(event) || event.defaultPrevented || window.location.pathname.startsWith('/counter')) return;
      event.preventDefault();
      void navigate('/counter');
    };
    window.addEventListener('keydown', onKey);
    return () => window.removeEventListener('keydown', onKey);
  }, [navigate]);
  return null;
}
