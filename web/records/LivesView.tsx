import { grouped } from '@emery/core/quantity';
import { scaleLinear } from 'd3-scale';
import { useRef, useState } from 'react';
import { useLives } from '../api/records';
import { Choice } from '../ui/Choice';
import { useSizeOf } from '../ui/use-size-of';
import { kmPer } from '@emery/core/drive';
import type { Survival } from '@emery/core/records';

const MARGIN = { left: 52, right: 20, top: 16, bottom: 38 };

/** How long belts of a kind last in this shop, with what is still running counted. */
export default function LivesView() {
  const [kind, setKind] = useState('');
  const { data } = useLives(kind);
  const holder = useRef<HTMLDivElement>(null);
  const { width } = useSizeOf(holder);
  const survival = data?.survival;
  return (
    <>
      <div className="answer" data-testid="lives-answer">
        <div className="label">Half last longer than</div>
        <div className="answer-figure">
          {!survival || survival.medianKm === null ? (
            <span className="answer-other">not known yet</span>
          ) : (
            <>
              {grouped(Math.round(survival.medianKm))} <span className="answer-other">km</span>
            </>
          )}
        </div>
        {survival && (
          <div className="answer-note">
            {survival.belts === 1 ? '1 belt' : `${grouped(survival.belts)} belts`} with a known distance,{' '}
            {grouped(survival.ended)} of them worn out or broken. The others are still running or came off sound: each
            counts with its distance so far. Hours count as {kmPer('h')} km each (a default).
          </div>
        )}
      </div>
      <div className="fields">
        <Choice
          label="Kind of belt"
          value={kind}
          options={[
            { value: '', label: 'All kinds' },
            ...(data?.kinds ?? []).map(({ kind: value, belts, ended }) => ({
              value,
              label: `${value}: ${belts === 1 ? '1 belt' : `${belts} belts`}, ${ended} ended`,
            })),
          ]}
          onChange={setKind}
        />
      </div>
      <div ref={holder} className="sheet lives-chart">
        {survival && survival.steps.length > 0 && width >= 120 && (
          <Curve survival={survival} width={width} height={Math.min(380, Math.max(240, width * 0.45))} />
        )}
        {survival && survival.steps.length === 0 && (
          <p className="unrolled-empty">
            No belt of that kind has worn out or broken with a known distance yet. Record the odometer at fitting and at
            removal.
          </p>
        )}
      </div>
      {survival && survival.steps.length > 0 && (
        <table className="ledger-table" aria-label="Share still running">
          <thead>
            <tr>
              <th>After, km</th>
              <th className="figure">distance so far</th>
              <th className="figure">last on</th>
              <th className="figure">±</th>
            </tr>
          </thead>
          <tbody>
            {thinned(survival.steps).map(({ km, atRisk, share, plusMinus }) => (
              <tr key={km}>
                <td>{grouped(Math.round(km))}</td>
                <td className="figure">{atRisk}</td>
                <td className="figure">{Math.round(100 * share)} %</td>
                <td className="figure">{Math.round(100 * plusMinus)} %</td>
              </tr>
            ))}
          </tbody>
        </table>
      )}
    </>
  );
}

const MOST_ROWS = 24;
/** A table as long as a person reads; the curve has every step. */
const thinned = (steps: Survival['steps']) => {
  const every = Math.ceil(steps.length / MOST_ROWS);
  return steps.filter((_, k) => k % every === 0 || k === steps.length - 1);
};

function Curve({ survival: { steps }, width, height }: { survival: Survival; width: number; height: number }) {
  const last = steps.at(-1)!.km;
  const x = scaleLinear([0, last * 1.06 || 1], [MARGIN.left, width - MARGIN.right]);
  const y = scaleLinear([0, 1], [height - MARGIN.bottom, MARGIN.top]);
  /** A staircase: level to each end, then down. */
  const stairs = (at: (step: Survival['steps'][number]) => number) =>
    `M${x(0)} ${y(1)}${steps.map((step) => `H${x(step.km)}V${y(at(step))}`).join('')}H${width - MARGIN.right}`;
  const clamp = (value: number) => Math.min(1, Math.max(0, value));
  const upper = stairs(({ share, plusMinus }) => clamp(share + plusMinus));
  const lower = [...steps].reverse();
  const back = `V${y(clamp(lower[0]!.share - lower[0]!.plusMinus))}${lower
    .map(({ km }, k) => {
      const before = lower[k + 1];
      return `H${x(km)}V${y(before ? clamp(before.share - before.plusMinus) : 1)}`;
    })
    .join('')}`;
  return (
    <svg width={width} height={height} role="img" aria-label="Share of belts still running after a distance">
      {[0, 0.25, 0.5, 0.75, 1].map((share) => (
        <g key={share}>
          <path className="lives-grid" d={`M${MARGIN.left} ${y(share)}H${width - MARGIN.right}`} />
          <text className="lives-text" x={MARGIN.left - 8} y={y(share) + 4} textAnchor="end">
            {100 * share} %
          </text>
        </g>
      ))}
      {x.ticks(Math.max(2, Math.floor(width / 160))).map((km) => (
        <text key={km} className="lives-text" x={x(km)} y={height - MARGIN.bottom + 20} textAnchor="middle">
          {grouped(km)} km
        </text>
      ))}
      <path className="lives-doubt" d={`${upper}${back}Z`} />
      <path className="lives-line" d={stairs(({ share }) => share)} />
    </svg>
  );
}
