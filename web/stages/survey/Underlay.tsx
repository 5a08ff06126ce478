import type { LayerProps } from '../stage';
import { memo, useState } from 'react';
import { useBench } from '../../state/bench';
import { useSurveying } from './SurveyProvider';
import { pictureAddress } from '../../views/picture/address';
import { pictureInHand } from './picture-in-hand';
import './picture.css';
import type { SurveyPhoto } from '@emery/core/drive';
import type { FittedPicture } from '@emery/core/survey';
import { type Camera, squareUp } from '@emery/core/survey/photo';

/** How a picture lies under the drawing: its camera, and where its frame lies on the drive. */
interface Laid extends FittedPicture {
  photo: string;
  camera: Camera;
}

interface View {
  k: number;
  tx: number;
  ty: number;
}

/** The picture in hand under the drawing, squared up and to scale, as strongly as the user wants it. */
export function Underlay({ k, tx, ty }: LayerProps) {
  const { drive } = useBench('drive');
  const { fit: surveyFit, picture } = useSurveying();
  const photo = pictureInHand(drive, picture);
  const found = surveyFit?.pictures.find(({ photo: id }) => id === photo?.id);
  // While a fit is worked out anew the picture stays where the last one had it.
  const [last, setLast] = useState<Laid | null>(null);
  if (found?.camera && (last?.camera !== found.camera || last.turn !== found.turn || last.shiftX !== found.shiftX))
    setLast({ ...found, camera: found.camera });
  if (!photo || last?.photo !== photo.id || picture.strength === 0) return null;
  const crank = drive.stations.find(({ role }) => role === 'crankshaft') ?? drive.stations[0];
  return (
    <LaidPicture
      photo={photo}
      laid={last}
      strength={picture.strength}
      crankX={crank?.x ?? 0}
      crankY={crank?.y ?? 0}
      k={k}
      tx={tx}
      ty={ty}
    />
  );
}

interface Props extends View {
  photo: SurveyPhoto;
  laid: Laid;
  strength: number;
  crankX: number;
  crankY: number;
}

const LaidPicture = memo(function LaidPicture({ photo, laid, strength, crankX, crankY, k, tx, ty }: Props) {
  const { camera, shiftX, shiftY, turn } = laid;
  const [a, b, c, d, e, f, g, h, i] = squareUp(camera);
  const [cos, sin] = [Math.cos(turn), Math.sin(turn)];
  // From px to the camera's mm, turned and shifted onto the drive, then to the screen: all of it one homography.
  const frame = (p: number, q: number, w: number): [number, number] => [p - shiftX * w, q - shiftY * w];
  const columns = (
    [
      [a, d, g],
      [b, e, h],
      [c, f, i],
    ] as const
  ).map(([p, q, w]) => {
    const [u, v] = frame(p, q, w);
    const [x, y] = [cos * u + sin * v + crankX * w, -sin * u + cos * v + crankY * w];
    return [k * x + tx * w, -k * y + ty * w, w] as const;
  });
  const [first, second, third] = columns as [
    readonly [number, number, number],
    readonly [number, number, number],
    readonly [number, number, number],
  ];
  const matrix = [
    first[0],
    first[1],
    0,
    first[2],
    second[0],
    second[1],
    0,
    second[2],
    0,
    0,
    1,
    0,
    third[0],
    third[1],
    0,
    third[2],
  ].map((value) => value / third[2]);
  return (
    <div className="underlay" aria-hidden>
      <img
        src={pictureAddress(photo.hash)}
        alt=""
        width={photo.width}
        height={photo.height}
        style={{ opacity: strength, transform: `matrix3d(${matrix.join(',')})` }}
        draggable={false}
      />
    </div>
  );
});
