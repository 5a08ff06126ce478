import { Fragment, useMemo } from 'react';
import { useBench } from '../../state/bench';
import { useSpeeds } from './SpeedsProvider';
import { type Drive, pulleyLabel, stationLabel } from '@emery/core/drive';
import { formatLength } from '@emery/core/quantity';
import { VERDICT_WORDS } from '@emery/core/size';
import { type BandPlace, type DriveEffect, effectOf, PLACE_WORDS, rpmFigure } from '@emery/core/speeds';

interface Props {
  /** The present drive first, then what is laid beside it. */
  effects: readonly { name: string; drive: Drive }[];
}

/**
 * Drives side by side: what every shaft turns at idle and redline, belt lengths, least wraps, and how a belt that was
 * taken would sit.
 */
export function SpeedCompare({ effects }: Props) {
  const { unit } = useBench('unit');
  const { bands } = useSpeeds();
  const worked = useMemo(
    () => effects.map(({ name, drive }) => ({ name, drive, effect: effectOf(drive, bands) })),
    [effects, bands],
  );
  const { drive, effect: present } = worked[0]!;
  const shaftOf = (effect: DriveEffect, station: string) => effect.shafts.find((shaft) => shaft.station === station);
  const beltOf = (effect: DriveEffect, belt: string) => effect.belts.find((entry) => entry.belt === belt);
  const moved = drive.stations.filter(({ id }) =>
    worked.some(
      ({ effect }) => Math.abs((shaftOf(effect, id)?.ratio ?? 0) - (shaftOf(present, id)?.ratio ?? 0)) > 1e-6,
    ),
  );
  return (
    <div className="scroll-across" role="region" aria-label="Drives side by side" tabIndex={0}>
      <table className="ledger-table compare-table" aria-label="Side by side">
        <thead>
          <tr>
            <th>rev/min, idle · redline</th>
            {worked.map(({ name }) => (
              <th key={name} className="figure">
                {name}
              </th>
            ))}
          </tr>
        </thead>
        <tbody>
          {moved.length === 0 && (
            <tr>
              <td colSpan={worked.length + 1}>No shaft speed changes.</td>
            </tr>
          )}
          {moved.map((station) => (
            <tr key={station.id}>
              <td>{stationLabel(station)}</td>
              {worked.map(({ name, effect }) => {
                const shaft = shaftOf(effect, station.id);
                return (
                  <td key={name} className="figure">
                    {shaft?.place ? (
                      <>
                        <Placed rpm={shaft.idle!} place={shaft.place.idle} /> ·{' '}
                        <Placed rpm={shaft.redline!} place={shaft.place.redline} />
                      </>
                    ) : (
                      '—'
                    )}
                  </td>
                );
              })}
            </tr>
          ))}
          {present.belts.map(({ belt }, index) => (
            <Fragment key={belt}>
              <tr>
                <td>{present.belts.length > 1 ? `Belt ${index + 1}` : 'Belt'} length</td>
                {worked.map(({ name, effect }) => {
                  const mm = beltOf(effect, belt)?.lengthMm ?? null;
                  return (
                    <td key={name} className="figure">
                      {mm === null ? 'has no path' : formatLength(mm, unit)}
                    </td>
                  );
                })}
              </tr>
              <tr>
                <td>Least wrap</td>
                {worked.map(({ name, drive: own, effect }) => {
                  const { leastWrapDeg, leastWrapAt } = beltOf(effect, belt) ?? {
                    leastWrapDeg: null,
                    leastWrapAt: null,
                  };
                  return (
                    <td key={name} className="figure">
                      {leastWrapDeg === null ? '—' : `${Math.round(leastWrapDeg)}°, ${pulleyLabel(own, leastWrapAt!)}`}
                    </td>
                  );
                })}
              </tr>
              {present.belts[index]!.takes && (
                <tr>
                  <td>Its adjuster takes</td>
                  {worked.map(({ name, effect }) => {
                    const takes = beltOf(effect, belt)?.takes;
                    return (
                      <td key={name} className="figure">
                        {takes ? `${formatLength(takes.from, unit)} to ${formatLength(takes.to, unit)}` : '—'}
                      </td>
                    );
                  })}
                </tr>
              )}
              {present.belts[index]!.taken && (
                <tr>
                  <td>{formatLength(present.belts[index]!.taken!.lengthMm, unit)} taken</td>
                  {worked.map(({ name, effect }) => {
                    const taken = beltOf(effect, belt)?.taken;
                    return (
                      <td key={name} className="figure">
                        {taken
                          ? `${VERDICT_WORDS[taken.verdict]}${taken.position === null ? '' : `, ${Math.round(100 * taken.position)} %`}`
                          : '—'}
                      </td>
                    );
                  })}
                </tr>
              )}
            </Fragment>
          ))}
        </tbody>
      </table>
    </div>
  );
}

function Placed({ rpm, place }: { rpm: number; place: BandPlace }) {
  return (
    <span className="length">
      {place !== 'right' && (
        <span className={`flag is-${place === 'beyond' ? 'fault' : 'watch'}`} title={PLACE_WORDS[place].word}>
          {PLACE_WORDS[place].mark}
          <span className="visually-hidden"> {PLACE_WORDS[place].word} </span>
        </span>
      )}
      {rpmFigure(rpm)}
    </span>
  );
}
