import { Button } from 'antd';
import { PictureDots, PointsPicture } from '../../views/picture/PointsPicture';
import { useCloseUpReading } from './close-up';
import { type CloseUpInHand, useInspect } from './InspectProvider';
import './inspect.css';
import type { PicturePoint } from '@emery/core/drive';

const GRIP_PX = 18;

/** The close-up as taken, for putting marks on the tips of its ribs and the floors of its grooves. */
export default function RibPicture() {
  const { closeUp, setCloseUp } = useInspect();
  const reading = useCloseUpReading();
  const { picture, marks, row } = closeUp!;
  const points = marks[row];
  const put = (next: readonly PicturePoint[]) => {
    // A mark that a hand put is a hand's: the finder's own ± goes.
    const { sigmaPx: _, ...rest } = marks;
    setCloseUp({ ...closeUp!, marks: { ...rest, [row]: next } });
  };
  const toRow = (next: CloseUpInHand['row']) => setCloseUp({ ...closeUp!, row: next });
  const off = reading?.ok ? new Set(reading.off[row]) : undefined;
  return (
    <PointsPicture
      picture={picture}
      label={row === 'tips' ? 'Marks on the tips of the ribs' : 'Marks on the floors of the grooves'}
      row={row}
      points={points}
      grip={() => GRIP_PX}
      hint={(chosen, takeOut) => (
        <>
          <span>
            {row === 'tips' ? 'Tips of the ribs' : 'Floors of the grooves'}: {points.length} marked
            {points.length < 2 ? ', two or more' : '. Drag one to correct it'}
          </span>
          {chosen >= 0 ? (
            <Button onClick={takeOut}>Remove this mark</Button>
          ) : (
            <Button onClick={() => toRow(row === 'tips' ? 'valleys' : 'tips')}>
              {row === 'tips' ? 'Mark the floors' : 'Mark the tips'}
            </Button>
          )}
        </>
      )}
      drawing={(shown, k, chosen) => {
        const other = row === 'tips' ? 'valleys' : 'tips';
        return (
          <g className="rib-marks">
            <RowLine points={shown} />
            <RowLine points={marks[other]} />
            <PictureDots points={marks[other]} k={k} className="is-other" />
            <PictureDots points={shown} k={k} chosen={chosen} off={off} />
          </g>
        );
      }}
      onPut={(at, index) => put(index < 0 ? [...points, at] : points.map((point, k) => (k === index ? at : point)))}
      onTakeOut={(index) => put(points.filter((_, k) => k !== index))}
    />
  );
}

/** A line through the marks of a row. */
function RowLine({ points }: { points: readonly PicturePoint[] }) {
  const sorted = [...points].sort(([ax, ay], [bx, by]) => ax + ay / 1e6 - (bx + by / 1e6));
  return points.length < 2 ? null : <polyline points={sorted.map((point) => point.join(',')).join(' ')} />;
}
