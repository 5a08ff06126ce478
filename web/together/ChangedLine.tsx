import { useStore } from '../state/store';
import { justChanged } from './changed';

/** Says for a moment what somebody else changed. It stands above the page and moves nothing on it. */
export function ChangedLine({ drive }: { drive: string }) {
  const changed = useStore(justChanged);
  return (
    <p className="changed-line" role="status">
      {changed?.drive === drive && <span>{changed.text}</span>}
    </p>
  );
}
