import { Button, Progress } from 'antd';
import { useMemo, useState } from 'react';
import { edit, useBench } from '../../state/bench';
import { useCoreSum } from '../../state/use-core-sum';
import { Thumbnail } from '../../bench/Thumbnail';
import { Choice } from '../../ui/Choice';
import { LengthFigure } from '../../ui/LengthFigure';
import { QuantityField } from '../../ui/QuantityField';
import { StoppedSum } from '../../ui/StoppedSum';
import { type Belt, type Drive, placeIdler, pulleyLabel, STARTING_SIZES, stationLabel } from '@emery/core/drive';
import { sketchOf } from '@emery/core/path';
import { formatLength } from '@emery/core/quantity';
import type { IdlerProposal } from '@emery/core/route';

const NEW = '';

/**
 * Where an idler would raise the worst wrap. Looking at a place lays it on the drawing; nothing is changed until it is
 * taken.
 */
export default function IdlerFinder({ drive, source, onClose }: { drive: Drive; source: Belt; onClose: () => void }) {
  const { preview, setPreview, dispatch, unit } = useBench('preview', 'setPreview', 'dispatch', 'unit');
  const onBelt = new Set(drive.belts.flatMap(({ route }) => route.map(({ pulley }) => pulley)));
  const spare = drive.stations.filter(
    ({ role, pulleys }) => role === 'idler' && pulleys.every(({ id }) => !onBelt.has(id)),
  );
  const [station, setStation] = useState(spare[0]?.id ?? NEW);
  const [diameter, setDiameter] = useState(STARTING_SIZES.idler);
  // The search belongs to the drive as it was when the finder was opened.
  const [opened] = useState(drive);
  const asked = useMemo(
    () => ({ drive: opened, belt: source.id, wish: station === NEW ? { diameter } : { station } }),
    [opened, source.id, station, diameter],
  );
  const { found, progress, stopped } = useCoreSum('idlers', asked, 0);
  const search = found?.input === asked ? found.output : null;

  const close = () => {
    setPreview(null);
    onClose();
  };
  const withIdler = (d: Drive, { station: placed, index, stop }: IdlerProposal) =>
    placeIdler(d, source.id, placed, index, stop);
  const take = (proposal: IdlerProposal) => {
    close();
    dispatch(edit((d) => withIdler(d, proposal)));
  };
  const outcome = search && search.proposals.length > 0 ? 'An idler here would help' : 'No idler helps here';
  return (
    <section aria-label="Positions for an idler">
      <div className="block-head">
        <h2>{search ? outcome : 'Trying positions for an idler'}</h2>
        <Button onClick={close}>{search ? 'Back' : 'Cancel'}</Button>
      </div>
      <div className="fields">
        {spare.length > 0 && (
          <Choice
            label="Idler"
            value={station}
            options={[
              ...spare.map((station) => ({ value: station.id, label: stationLabel(station) })),
              { value: NEW, label: 'A new one' },
            ]}
            onChange={setStation}
          />
        )}
        {station === NEW && (
          <QuantityField label="Diameter (a default)" mm={diameter} unit={unit} onCommit={setDiameter} />
        )}
      </div>
      {!search && !stopped && (
        <Progress
          percent={Math.round((progress ?? 0) * 100)}
          showInfo={false}
          aria-label="Share of the positions tried"
        />
      )}
      <StoppedSum stopped={stopped} />
      {search && search.stepMm > 20 && (
        <p className="quiet">
          A large drive, so positions were tried {formatLength(search.stepMm, unit, 0)} apart first. A better one may be
          in between.
        </p>
      )}
      {search?.proposals.length === 0 && (
        <p className="finding is-note">
          No position of this idler improves the lowest wrap with enough room. Try another size, or another route.
        </p>
      )}
      <ol className="routes">
        {search?.proposals.map((proposal, index) => {
          const there = withIdler(drive, proposal);
          const shown =
            preview !== null &&
            JSON.stringify(preview.stations) === JSON.stringify(there.stations) &&
            JSON.stringify(preview.belts) === JSON.stringify(there.belts);
          const route = source.route;
          const [before, after] = [route[proposal.index - 1]!, route[proposal.index % route.length]!];
          return (
            <li key={index} className={shown ? 'is-shown' : ''}>
              <button
                type="button"
                className="route-found"
                aria-pressed={shown}
                onClick={() => setPreview(shown ? null : there)}
              >
                <Thumbnail sketch={sketchOf(there)} label={`Position ${index + 1}`} />
                <span>
                  <strong className="route-length">
                    {Math.round(proposal.worst.beforeDeg)}° to {Math.round(proposal.worst.afterDeg)}°
                  </strong>{' '}
                  <span className="quiet">wrap at {pulleyLabel(drive, proposal.worst.pulley)}</span>
                  <span className="route-reasons">
                    Between {pulleyLabel(drive, before.pulley)} and {pulleyLabel(drive, after.pulley)},{' '}
                    {formatLength(proposal.station.x, unit)} right and {formatLength(proposal.station.y, unit)} up. Belt{' '}
                    <LengthFigure mm={proposal.lengthMm} unit={unit} />. The tightest clearance is then{' '}
                    {pulleyLabel(there, proposal.then.pulley)} with {Math.round(proposal.then.wrapDeg)}°.
                  </span>
                </span>
              </button>
              {shown && (
                <Button type="primary" onClick={() => take(proposal)}>
                  Place it here
                </Button>
              )}
            </li>
          );
        })}
      </ol>
    </section>
  );
}
