import { Progress } from 'antd';
import { BringList } from '../../jobs/BringList';
import { Estimate } from '../../jobs/Estimate';
import { useEstimate } from '../../jobs/use-estimate';
import { useBench } from '../../state/bench';
import { StoppedSum } from '../../ui/StoppedSum';
import { useBring, useCard } from './sums';

/** What to bring for the job. */
export default function BringView() {
  const { drive } = useBench('drive');
  const { bring, progress, stopped } = useBring();
  const { card } = useCard();
  const estimate = useEstimate(card?.steps ?? null, bring);
  return (
    <>
      {!bring && progress !== null && (
        <Progress percent={100} status="active" showInfo={false} aria-label="Sizing every belt" />
      )}
      <StoppedSum stopped={stopped} />
      {bring && <BringList drive={drive} bring={bring} />}
      {estimate && <Estimate estimate={estimate} open />}
    </>
  );
}
