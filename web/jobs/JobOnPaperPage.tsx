import { grouped } from '@emery/core/quantity';
import { Spin } from 'antd';
import { useParams } from 'react-router';
import { useShop } from '../api/shop';
import { Paper } from './Paper';
import { useJob } from './use-job';
import { estimateLines, runFacts, tookLines } from '@emery/core/job';

/** A job on paper: as it stands, or as it was signed off. */
export default function JobOnPaperPage() {
  const { jobId = '' } = useParams();
  const { job, error, run } = useJob(jobId);
  const shop = useShop();
  if (error && !job) return <p className="shop-none">{error.message}</p>;
  if (!job) return <Spin className="page-spin" />;
  const { estimate: estimated } = job.sheet;
  const estimate = estimated ? [...estimateLines(estimated), ...tookLines(run, estimated)] : [];
  const facts = [
    `Begun ${job.startedAt.slice(0, 10)}${job.startedBy ? ` by ${job.startedBy}` : ''}`,
    job.signedAt ? `Signed off ${job.signedAt.slice(0, 10)} by ${job.signedBy}` : 'Not signed off',
    run.odometer === null ? 'Odometer ________' : `Odometer ${grouped(run.odometer)} ${job.odometerUnit}`,
    ...runFacts(job.sheet.drive, run),
  ];
  return (
    <Paper
      back={`/jobs/${job.id}`}
      printed={{
        vehicle: [job.vehicleName, job.plate].filter(Boolean).join(' · '),
        drive: job.name,
        shop: shop.data?.name ?? '',
        facts,
        sheet: job.sheet,
        estimate,
        done: new Map([...run.done].map(([step, { by }]) => [step, by])),
      }}
    />
  );
}
