import { grouped } from '@emery/core/quantity';
import { Button, Checkbox, Progress } from 'antd';
import { useState } from 'react';
import { edit, useBench } from '../../state/bench';
import { useCoreSum } from '../../state/use-core-sum';
import { Thumbnail } from '../../bench/Thumbnail';
import { LengthFigure } from '../../ui/LengthFigure';
import { StoppedSum } from '../../ui/StoppedSum';
import { type Belt, changeBelt, type Drive, pulleyLabel, type Rotation } from '@emery/core/drive';
import { sketchOf, solveBelt } from '@emery/core/path';
import { type RouteFound, routeReason } from '@emery/core/route';

const SHOWN = 8;

/**
 * The routes a belt could run over the pulleys drawn, best first. Looking at one lays it on the drawing; nothing is
 * changed until it is taken.
 */
export default function RouteFinder({ drive, source, onClose }: { drive: Drive; source: Belt; onClose: () => void }) {
  const { preview, setPreview, dispatch, unit } = useBench('preview', 'setPreview', 'dispatch', 'unit');
  // The search belongs to the drive as it was when the finder was opened.
  const [asked] = useState({ drive, belt: source.id, top: SHOWN });
  const { found: outcome, progress, stopped } = useCoreSum('routes', asked, 0);
  const search = outcome?.output ?? null;
  const [compared, setCompared] = useState<readonly number[]>([]);
  // The two looked at last.
  const compare = (index: number) =>
    setCompared((now) => (now.includes(index) ? now.filter((shown) => shown !== index) : [...now, index].slice(-2)));

  const close = () => {
    setPreview(null);
    onClose();
  };
  const withRoute = ({ route }: RouteFound) => changeBelt(drive, source.id, { route });
  const take = ({ route }: RouteFound) => {
    close();
    dispatch(edit((d) => changeBelt(d, source.id, { route })));
  };

  return (
    <section aria-label="Routes found">
      <div className="block-head">
        <h2>
          {search
            ? `${search.routes.length === SHOWN ? 'The best ' : ''}${search.routes.length} possible`
            : 'Looking for routes'}
        </h2>
        <Button onClick={close}>{search ? 'Back' : 'Cancel'}</Button>
      </div>
      {!search && !stopped && (
        <Progress percent={Math.round((progress ?? 0) * 100)} showInfo={false} aria-label="Share of the search done" />
      )}
      <StoppedSum stopped={stopped} />
      {search && !search.complete && (
        <p className="finding is-watch">
          <strong>Not every route was checked.</strong>{' '}
          {search.sets.of > 1
            ? `There are ${grouped(search.sets.of)} ways to leave parts off; the ${grouped(search.sets.looked)} that leave off fewest were checked. Mark fewer parts as optional.`
            : 'Too many pulleys to try every order.'}
        </p>
      )}
      {search?.routes.length === 0 && (
        <p className="finding is-watch">
          <strong>No route fits all these pulleys.</strong> Mark an idler as optional, or check sizes, planes and the
          required direction of rotation.
        </p>
      )}
      {search && compared.length === 2 && (
        <Comparison
          drive={drive}
          routes={compared.map((index) => ({
            index,
            found: search.routes[index]!,
            there: withRoute(search.routes[index]!),
          }))}
          onClose={() => setCompared([])}
        />
      )}
      <ol className="routes">
        {search?.routes.map((found, index) => {
          const there = withRoute(found);
          const shown = preview !== null && JSON.stringify(preview.belts) === JSON.stringify(there.belts);
          return (
            <li key={index} className={shown ? 'is-shown' : ''}>
              <button
                type="button"
                className="route-found"
                aria-pressed={shown}
                onClick={() => setPreview(shown ? null : there)}
              >
                <Thumbnail sketch={sketchOf(there)} label={`Route ${index + 1}`} />
                <span>
                  <strong className="route-length">
                    <LengthFigure mm={found.lengthMm} unit={unit} />
                  </strong>{' '}
                  <span className="quiet">least wrap {Math.round(found.leastWrapDeg)}°</span>
                  <span className="route-reasons">
                    {sentence(found.reasons.map((reason) => routeReason(drive, reason, unit)))}
                  </span>
                </span>
              </button>
              <span className="button-row">
                <Checkbox className="route-compare" checked={compared.includes(index)} onChange={() => compare(index)}>
                  Compare
                </Checkbox>
                {shown && (
                  <Button type="primary" onClick={() => take(found)}>
                    Use this route
                  </Button>
                )}
              </span>
            </li>
          );
        })}
      </ol>
    </section>
  );
}

/** Two routes side by side: drawings, lengths, and the wrap at every pulley of either. */
function Comparison({
  drive,
  routes,
  onClose,
}: {
  drive: Drive;
  routes: { index: number; found: RouteFound; there: Drive }[];
  onClose: () => void;
}) {
  const { unit } = useBench('unit');
  const solved = routes.map(({ there }) =>
    solveBelt(there, there.belts.find(({ route }) => routes.some(({ found }) => found.route === route))!.id)!,
  );
  const pulleys = [...new Set(solved.flatMap(({ contacts }) => contacts.map(({ pulley }) => pulley)))];
  const wrapOf = (k: number, pulley: string) => solved[k]!.contacts.find((contact) => contact.pulley === pulley);
  return (
    <div className="comparison" role="group" aria-label="Two routes compared">
      <table className="ledger-table">
        <thead>
          <tr>
            <th>
              <Button onClick={onClose}>Close</Button>
            </th>
            {routes.map(({ index, there }) => (
              <th key={index}>
                Route {index + 1}
                <Thumbnail sketch={sketchOf(there)} label={`Route ${index + 1} compared`} />
              </th>
            ))}
          </tr>
        </thead>
        <tbody>
          <tr>
            <td>Belt length</td>
            {routes.map(({ index, found }) => (
              <td key={index}>
                <strong>
                  <LengthFigure mm={found.lengthMm} unit={unit} />
                </strong>
              </td>
            ))}
          </tr>
          {pulleys.map((pulley) => {
            const [first, second] = [wrapOf(0, pulley), wrapOf(1, pulley)];
            const apart = Math.abs((first?.wrapDeg ?? 0) - (second?.wrapDeg ?? 0)) > 2;
            return (
              <tr key={pulley}>
                <td>{pulleyLabel(drive, pulley)}</td>
                {[first, second].map((contact, k) => (
                  <td key={k} className={apart ? 'differs' : 'quiet'}>
                    {contact
                      ? `${Math.round(contact.wrapDeg ?? 0)}°${first?.rotation === second?.rotation ? '' : TURN_WORDS[contact.rotation]}`
                      : 'left off'}
                  </td>
                ))}
              </tr>
            );
          })}
        </tbody>
      </table>
    </div>
  );
}

function sentence(parts: string[]): string {
  const text = parts.join('; ');
  return `${text.charAt(0).toUpperCase()}${text.slice(1)}.`;
}

/** Which way a pulley turns, where two routes turn it apart. */
const TURN_WORDS: Record<Rotation, string> = { cw: ', clockwise', ccw: ', counter-clockwise' };
