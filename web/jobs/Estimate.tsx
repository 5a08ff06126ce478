import { useChangeShop } from '../api/shop';
import { FigureField } from '../ui/FigureField';
import { estimateLines, type JobEstimate } from '@emery/core/job';

/** What a job is estimated to take and cost, line by line; with what an hour costs, which the shop says once. */
export function Estimate({ estimate, open }: { estimate: JobEstimate; open: boolean }) {
  const change = useChangeShop();
  return (
    <section aria-label="Estimate">
      <h2>Estimate</h2>
      <ul className="bring-lines">
        {estimateLines(estimate).map((line) => (
          <li key={line}>{line}</li>
        ))}
      </ul>
      {open && (
        <FigureField
          label="Price of an hour"
          unit="in the currency of the list"
          value={estimate.hourRate}
          least={0}
          most={1e6}
          onCommit={(hourRate) => change.mutate({ hourRate })}
          onClear={() => change.mutate({ hourRate: null })}
        />
      )}
    </section>
  );
}
