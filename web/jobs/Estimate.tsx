import { useChangeShop } from '../api/shop';
import { FigureField } from '../ui/FigureField';
import { estimateLines, type JobEstimate, type JobRun, tookLines } from '@emery/core/job';

/**
 * What a job is estimated to take and cost, line by line; with what an hour costs, which the shop says once;
 * of a job that was done, what it took beside it.
 */
export function Estimate({ estimate, open, run }: { estimate: JobEstimate; open: boolean; run?: JobRun }) {
  const change = useChangeShop();
  return (
    <section aria-label="Estimate">
      <h2>Estimate</h2>
      <ul className="bring-lines">
        {[...estimateLines(estimate), ...(run ? tookLines(run, estimate) : [])].map((line) => (
          <li key={line}>{line}</li>
        ))}
      </ul>
      {open && (
        <FigureField
          label="Labour rate per hour"
          unit="in the currency of the price list"
          value={estimate.hourRate}
          min={0}
          max={1e6}
          onCommit={(hourRate) => change.mutate({ hourRate })}
          onClear={() => change.mutate({ hourRate: null })}
        />
      )}
    </section>
  );
}
