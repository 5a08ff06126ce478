import { Button } from 'antd';
import { edit, useBench } from '../../state/bench';
import { PictureDots, PointsPicture } from '../../views/picture/PointsPicture';
import { useSurveying } from './SurveyProvider';
import './picture.css';
import {
  changeRim,
  type Drive,
  type PhotoRim,
  type PicturePoint,
  pulleyLabel,
  type SurveyPhoto,
} from '@emery/core/drive';
import { fitEllipse, photosOf } from '@emery/core/survey/photo';
import { toDegrees } from '@emery/core/numeric';

/**
 * How near, px on the screen, a finger must come to a point to take hold of it; less on a small rim, or there would be
 * no room for a new one.
 */
const GRIP = { max: 20, min: 6, ofRim: 0.3 };
const ENOUGH = 5;

/** The picture itself, as taken, for putting points round the rim of one pulley. */
export default function PictureView({ photo, pulley }: { photo: SurveyPhoto; pulley: string }) {
  const { drive, dispatch } = useBench('drive', 'dispatch');
  const { fit: surveyFit, setPicture } = useSurveying();
  const points = photo.rims?.find((rim) => rim.pulley === pulley)?.points ?? [];
  const off = new Set(
    surveyFit?.pictures.find(({ photo: id }) => id === photo.id)?.circles.find((circle) => circle.pulley === pulley)
      ?.off,
  );
  const put = (at: PicturePoint, index: number) =>
    dispatch(
      edit((d) =>
        changeRim(d, photo.id, pulley, (old) => ({
          ...old,
          ...(old.points.length === 0 && { known: startsKnown(d, photo.id, pulley) }),
          points: index < 0 ? [...old.points, at] : old.points.map((point, k) => (k === index ? at : point)),
        })),
      ),
    );
  const takeOut = (index: number) =>
    dispatch(
      edit((d) =>
        changeRim(d, photo.id, pulley, (old) => ({ ...old, points: old.points.filter((_, k) => k !== index) })),
      ),
    );
  const next = nextToMark(drive, photo, pulley);
  return (
    <PointsPicture
      picture={photo}
      label={`Points round the rim of ${pulleyLabel(drive, pulley)}`}
      row={pulley}
      points={points}
      grip={(k) => Math.min(GRIP.max, Math.max(GRIP.min, GRIP.ofRim * (fitEllipse(points)?.b ?? 0) * k))}
      hint={(chosen, takeThisOut) => (
        <>
          <span>
            {pulleyLabel(drive, pulley)}:{' '}
            {points.length < ENOUGH
              ? `${points.length} of ${ENOUGH} points or more, all round its rim`
              : `${points.length} points. Drag one to correct it`}
          </span>
          {chosen >= 0 ? (
            <Button onClick={takeThisOut}>Remove this point</Button>
          ) : (
            points.length >= ENOUGH &&
            next && <Button onClick={() => setPicture({ marking: next })}>Next: {pulleyLabel(drive, next)}</Button>
          )}
        </>
      )}
      drawing={(shown, k, chosen) => (
        <>
          {(photo.rims ?? [])
            .filter((rim) => rim.pulley !== pulley)
            .map((rim) => (
              <RimDrawing key={rim.pulley} rim={rim} k={k} name={pulleyLabel(drive, rim.pulley)} />
            ))}
          <RimDrawing rim={{ pulley, points: shown }} k={k} active off={off} inHand={chosen} />
        </>
      )}
      onPut={put}
      onTakeOut={takeOut}
    />
  );
}

interface RimProps {
  rim: Pick<PhotoRim, 'pulley' | 'points'>;
  k: number;
  name?: string;
  active?: boolean;
  off?: ReadonlySet<number>;
  inHand?: number;
}

function RimDrawing({ rim, k, name, active = false, off, inHand = -1 }: RimProps) {
  const ellipse = fitEllipse(rim.points);
  return (
    <g className={`rim${active ? ' is-active' : ''}`} data-rim={rim.pulley}>
      {ellipse && (
        <ellipse
          rx={ellipse.a}
          ry={ellipse.b}
          transform={`translate(${ellipse.x} ${ellipse.y}) rotate(${toDegrees(ellipse.angle)})`}
        />
      )}
      {active && <PictureDots points={rim.points} k={k} chosen={inHand} off={off} />}
      {ellipse && name && (
        <text x={ellipse.x} y={ellipse.y} fontSize={15 / k} textAnchor="middle" strokeWidth={3 / k}>
          {name}
        </text>
      )}
    </g>
  );
}

/** A first rim gives the scale, and so does every pulley that was measured; the others are told by the picture. */
function startsKnown(drive: Drive, photoId: string, pulley: string): boolean {
  const read = drive.survey?.diameters?.some((reading) => reading.pulley === pulley) ?? false;
  const others = photosOf(drive).find(({ id }) => id === photoId)?.rims ?? [];
  return read || !others.some(({ known }) => known);
}

/** The next pulley, after this one, that has not enough points yet. */
function nextToMark(drive: Drive, photo: SurveyPhoto, pulley: string): string | null {
  const ids = drive.stations.flatMap(({ pulleys }) => pulleys.map(({ id }) => id));
  const at = ids.indexOf(pulley);
  const marked = (id: string) => (photo.rims?.find((rim) => rim.pulley === id)?.points.length ?? 0) >= ENOUGH;
  return [...ids.slice(at + 1), ...ids.slice(0, at)].find((id) => !marked(id)) ?? null;
}
