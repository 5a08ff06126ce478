import { Fragment, useMemo } from 'react';
import type { WhatIfProps } from '../stage';
import { formatLength } from '@emery/core/quantity';
import { sizeBelt, type Sizing } from '@emery/core/seating';
import { VERDICT_WORDS } from '@emery/core/size';

/** Adjuster windows, and where a belt that was taken sits, before and after. */
export default function SizeWhatIf({ before, after, unit }: WhatIfProps) {
  const rows = useMemo(
    () =>
      after.belts.flatMap((belt, index) => {
        const lengths = typeof belt.length === 'number' && belt.length > 0 ? [belt.length] : [];
        const [was, is] = [sizeBelt(before, belt.id, { lengths }), sizeBelt(after, belt.id, { lengths })];
        return is
          ? [
              {
                id: belt.id,
                name: after.belts.length > 1 ? `Belt ${index + 1}` : 'Belt',
                length: lengths[0] ?? null,
                was,
                is,
              },
            ]
          : [];
      }),
    [before, after],
  );
  const range = (sizing: Sizing | null) => {
    if (!sizing || sizing.findings.some(({ code }) => code === 'no-path')) return 'no path';
    const { window, fits, curve } = sizing;
    // On fixed centres the lengths that make a tension that is right; nothing without an adjuster.
    const [from, to] = curve
      ? [window.shortMark ?? window.slackEnd, window.longMark ?? window.tightEnd]
      : [fits?.from, fits?.to];
    if (typeof from === 'number' && typeof to === 'number')
      return `${formatLength(from, unit)} to ${formatLength(to, unit)}`;
    return curve ? 'no usable range' : 'no adjuster given';
  };
  const sits = (sizing: Sizing | null) => {
    const candidate = sizing?.candidates[0];
    if (!candidate) return 'no path';
    const { verdict, position, tensionN } = candidate;
    const placed = position === null || verdict === 'not-known' ? '' : `, ${Math.round(100 * position)} %`;
    const at = sizing.tension ? `, ${Math.round(tensionN ?? 0)} N` : placed;
    return `${VERDICT_WORDS[verdict]}${at}`;
  };
  return (
    <table className="ledger-table">
      <thead>
        <tr>
          <th aria-label="Belt" />
          <th>Now</th>
          <th>What-if</th>
        </tr>
      </thead>
      <tbody>
        {rows.map(({ id, name, length, was, is }) => (
          <Fragment key={id}>
            <tr>
              <td>{name} fits from</td>
              <td>{range(was)}</td>
              <td>{range(is)}</td>
            </tr>
            {length !== null && (
              <tr>
                <td>{formatLength(length, unit)} taken</td>
                <td>{sits(was)}</td>
                <td>{sits(is)}</td>
              </tr>
            )}
          </Fragment>
        ))}
      </tbody>
    </table>
  );
}
