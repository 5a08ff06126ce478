import { useStore } from '../../state/store';
import { driveHere, followed, others } from '../../live/here';
import { thisDevice } from '../../live/messages';
import { justChanged } from '../../together/changed';
import { TOGETHER } from '../../together/words';
import type { LabelledPulley } from './PulleyLabels';

interface Props {
  pulleys: readonly LabelledPulley[];
  /** The view, px a mm and px. */
  k: number;
  tx: number;
  ty: number;
}

/** What others have in hand on this drive, what they changed just now, and where whoever is followed points. */
export function OthersLayer({ pulleys, k, tx, ty }: Props) {
  const here = useStore(others).filter(({ device }) => device !== thisDevice());
  const marked = useStore(justChanged);
  const pointing = useStore(followed)?.pointing ?? null;
  const drive = driveHere();
  // Ids are alike on many drives.
  const changed = marked?.drive === drive ? marked : null;
  const point = pointing?.drive === drive ? pointing : null;
  const inHand = new Set(here.flatMap(({ tabs }) => tabs.filter((tab) => tab.drive === drive).map(({ part }) => part)));
  const pointed = point?.part ?? '';
  const name = here.find(({ device }) => device === followed.get()?.device);
  return (
    <g className="others-layer" aria-hidden>
      {pulleys.map(({ station, x, y, r }) => {
        const ids = station.pulleys.map(({ id }) => id);
        const isChanged = changed?.stations.has(station.id) ?? false;
        const isHeld = ids.some((id) => inHand.has(id) || id === pointed);
        if (!isChanged && !isHeld) return null;
        return (
          <circle key={station.id} className={isChanged ? 'others-changed' : 'others-held'} cx={x} cy={y} r={r + 7} />
        );
      })}
      {point?.at && (
        <g className="others-point" transform={`translate(${point.at.x * k + tx} ${-point.at.y * k + ty})`}>
          <circle r={9} />
          <circle className="others-dot" r={2.5} />
          <text x={14} y={5}>
            {name ? TOGETHER.someone(name.name, name.kind) : ''}
          </text>
        </g>
      )}
    </g>
  );
}
