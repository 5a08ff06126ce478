import { useNavigate } from 'react-router';
import { useKeys, withModifier } from '../ui/use-key';

/** From any page the key c opens the counter. */
export function CounterKey() {
  const navigate = useNavigate();
  useKeys((event) => {
    if (event.key.toLowerCase() !== 'c' || withModifier(event)) return false;
    if (window.location.pathname.startsWith('/counter')) return false;
    void navigate('/counter');
    return true;
  });
  return null;
}
