import { Progress } from 'antd';
import { BringList } from '../../jobs/BringList';
import { useBench } from '../../state/bench';
import { StoppedSum } from '../../ui/StoppedSum';
import { useBring } from './sums';

/** What to bring for the job. */
export default function BringView() {
  const { drive } = useBench('drive');
  const { bring, progress, stopped } = useBring();
  return (
    <>
      {!bring && progress !== null && (
        <Progress percent={100} status="active" showInfo={false} aria-label="Every belt is being sized" />
      )}
      <StoppedSum stopped={stopped} />
      {bring && <BringList drive={drive} bring={bring} />}
    </>
  );
}
