import { Button } from 'antd';
import type { SumStopped } from '../state/use-core-sum';

/** A sum that came to no end, the same wherever one is run. Nothing where none has stopped. */
export function StoppedSum({ stopped }: { stopped: SumStopped | null }) {
  if (!stopped) return null;
  return (
    <p className="finding is-fault" role="alert">
      <strong>The calculation stopped.</strong> {stopped.why}. <Button onClick={stopped.again}>Try again</Button>
    </p>
  );
}
