import { DeleteOutlined } from '@ant-design/icons';
import { Button, Segmented, Slider, Switch } from 'antd';
import { useId, type ReactNode } from 'react';
import { edit, useBench } from '../../state/bench';
import { useSurveying } from './SurveyProvider';
import { Choice } from '../../ui/Choice';
import { FindingItem } from '../../bench/FindingItem';
import { LengthFigure } from '../../ui/LengthFigure';
import { PictureButton } from '../../ui/PictureButton';
import { QuantityField } from '../../ui/QuantityField';
import { TypedPlace } from '../../ui/typed-text';
import { PICTURE_ASKED } from './words';
import { AddPulley } from './AddPulley';
import { Fitted } from './Fitted';
import { pictureInHand } from './picture-in-hand';
import {
  changePulley,
  changeRim,
  findPulley,
  freeIdIn,
  type KeptPicture,
  pulleyLabel,
  putItem,
  removeItem,
  type SurveyPhoto,
} from '@emery/core/drive';
import { formatMm, fixed } from '@emery/core/quantity';
import { type PhotoFit, photosOf, photoWords } from '@emery/core/survey/photo';

/** Pictures: taken in, rims marked, and what they come to. */
export default function PictureLedger() {
  const { drive, dispatch } = useBench('drive', 'dispatch');
  const { fit: surveyFit, picture, setPicture } = useSurveying();
  const photos = photosOf(drive);
  const photo = pictureInHand(drive, picture);
  if (!photo) return <PictureIntake first />;
  const fit = surveyFit?.pictures.find(({ photo: id }) => id === photo.id) ?? null;
  return (
    <>
      {photos.length > 1 && (
        <Segmented
          block
          aria-label="Picture"
          value={photo.id}
          options={photos.map(({ id }, k) => ({ value: id, label: `Picture ${k + 1}` }))}
          onChange={(id) => setPicture({ id, marking: null })}
        />
      )}
      {picture.marking === null ? null : <RimInHand photo={photo} pulley={picture.marking} />}
      <Standing fit={fit?.camera ? fit : null} />
      <div className="block-head">
        <h2>Rims in the picture</h2>
        <AddPulley onAdded={(_, pulley) => setPicture({ marking: pulley })} />
      </div>
      <RimTable photo={photo} fit={fit} />
      {fit && <PictureFindings fit={fit} />}
      {surveyFit && fit?.camera && <Fitted fit={surveyFit} />}
      <Strength />
      <div className="fields">
        <DistanceField photo={photo} />
        <CroppedField photo={photo} />
      </div>
      <div className="button-row">
        <PictureIntake />
        <Button
          danger
          icon={<DeleteOutlined />}
          onClick={() => {
            setPicture({ id: null, marking: null });
            dispatch(edit((d) => removeItem(d, 'survey.photos', photo.id)));
          }}
        >
          Remove picture
        </Button>
      </div>
    </>
  );
}

/** Takes a picture in: from the camera, a file, or dropped here. */
function PictureIntake({ first = false }: { first?: boolean }) {
  const { drive, dispatch } = useBench('drive', 'dispatch');
  const { setPicture } = useSurveying();
  const onKept = (kept: KeptPicture) => {
    const id = freeIdIn('photo', photosOf(drive));
    dispatch(edit((d) => putItem(d, 'survey.photos', { id, ...kept })));
    setPicture({ id, marking: drive.stations[0]?.pulleys[0]?.id ?? null });
  };
  if (!first)
    return (
      <PictureButton forPhone={PICTURE_ASKED} label="Another picture" what="Another picture file" onKept={onKept} />
    );
  return (
    <PictureButton
      label="Take or choose a picture"
      what="Picture file"
      forPhone={PICTURE_ASKED}
      primary
      onKept={onKept}
      around={(button) => (
        <>
          <h2>A picture, square-on</h2>
          <p>
            Stand straight in front of the pulleys, two steps back, and zoom in rather than step closer. Hold the camera
            level. Get every rim in the picture.
          </p>
          <div className="button-row is-after">{button}</div>
        </>
      )}
    />
  );
}

/** The pulley whose rim takes points: its size, and the points taken back. */
function RimInHand({ photo, pulley }: { photo: SurveyPhoto; pulley: string }) {
  const { drive, unit, dispatch } = useBench('drive', 'unit', 'dispatch');
  const { setPicture } = useSurveying();
  const id = useId();
  const rim = photo.rims?.find((rim) => rim.pulley === pulley);
  const found = findPulley(drive, pulley);
  const count = rim?.points.length ?? 0;
  if (!found) return null;
  return (
    <div className="rim-in-hand">
      <div className="block-head">
        <h2>{pulleyLabel(drive, pulley)}</h2>
        <Button type={count >= 5 ? 'primary' : 'default'} onClick={() => setPicture({ marking: null })}>
          Back to the drawing
        </Button>
      </div>
      <p>Place points all round the edge of its rim, on the same edge you measure across.</p>
      <div className="fields">
        {found.surface === 'toothed' ? null : (
          <TypedPlace at={`pulley ${pulley}`}>
            <QuantityField
              key={pulley}
              label="Diameter, where known"
              mm={found.diameter ?? 0}
              unit={unit}
              onCommit={(diameter) =>
                dispatch(
                  edit((d) =>
                    changeRim(changePulley(d, pulley, { diameter }), photo.id, pulley, (old) => ({
                      ...old,
                      known: true,
                    })),
                  ),
                )
              }
            />
          </TypedPlace>
        )}
        <div className="field">
          <label className="label" htmlFor={id}>
            Diameter known
          </label>
          <span className="switch-line">
            <Switch
              id={id}
              checked={rim?.known ?? false}
              disabled={count === 0}
              onChange={(known) => dispatch(edit((d) => changeRim(d, photo.id, pulley, (old) => ({ ...old, known }))))}
            />
            <span className="quiet">{rim?.known ? 'gives the scale' : 'from the picture'}</span>
          </span>
        </div>
      </div>
      <div className="button-row is-after">
        <Button
          disabled={count === 0}
          onClick={() =>
            dispatch(
              edit((d) => changeRim(d, photo.id, pulley, (old) => ({ ...old, points: old.points.slice(0, -1) }))),
            )
          }
        >
          Undo last point
        </Button>
        <Button
          disabled={count === 0}
          onClick={() => dispatch(edit((d) => changeRim(d, photo.id, pulley, (old) => ({ ...old, points: [] }))))}
        >
          Clear this rim
        </Button>
      </div>
    </div>
  );
}

/**
 * How the camera stood, in the figures that tell how far to trust the picture. Their place is there from the first:
 * what comes below must not move away under a thumb when they do.
 */
function Standing({ fit }: { fit: PhotoFit | null }) {
  const widest = Math.max(0, ...(fit?.circles ?? []).map(({ plusMinus }) => plusMinus));
  return (
    <dl className="picture-figures">
      <Figure name="Centres to">{fit ? `± ${formatMm(widest)}` : '—'}</Figure>
      <Figure name="Scale to">{fit ? `± ${fixed(100 * fit.scaleShare, 1)} %` : '—'}</Figure>
      <Figure name="From square">{fit ? `${fixed(fit.tiltDeg, 0)}°` : '—'}</Figure>
    </dl>
  );
}

function Figure({ name, children }: { name: string; children: ReactNode }) {
  return (
    <div>
      <dt className="label">{name}</dt>
      <dd>{children}</dd>
    </div>
  );
}

function RimTable({ photo, fit }: { photo: SurveyPhoto; fit: PhotoFit | null }) {
  const { drive, unit } = useBench('drive', 'unit');
  const { picture, setPicture } = useSurveying();
  return (
    <table className="ledger-table">
      <thead>
        <tr>
          <th>Pulley</th>
          <th className="figure">Points</th>
          <th className="figure">Diameter</th>
          <th className="figure">Centre ±</th>
        </tr>
      </thead>
      <tbody>
        {drive.stations.flatMap(({ pulleys }) =>
          pulleys.map(({ id, diameter }) => {
            const rim = photo.rims?.find(({ pulley }) => pulley === id);
            const circle = fit?.circles.find(({ pulley }) => pulley === id);
            return (
              <tr
                key={id}
                className={picture.marking === id ? 'is-selected' : ''}
                onClick={() => setPicture({ id: photo.id, marking: id })}
              >
                <td>
                  <button type="button" className="row-button" aria-label={`Mark the rim of ${pulleyLabel(drive, id)}`}>
                    {pulleyLabel(drive, id)}
                  </button>
                </td>
                <td className="figure">{rim?.points.length ?? '—'}</td>
                <td className="figure">
                  {rim?.known && (
                    <>
                      <LengthFigure mm={diameter ?? 0} unit={unit} />{' '}
                      <span className="quiet">{circle && !circle.known ? 'left out' : 'known'}</span>
                    </>
                  )}
                  {!rim?.known && circle && (
                    <>
                      <LengthFigure mm={circle.diameter} unit={unit} />{' '}
                      <span className="quiet">± {formatMm(circle.diameterPlusMinus)}</span>
                    </>
                  )}
                  {!rim?.known && !circle && '—'}
                </td>
                <td className="figure">{circle ? formatMm(circle.plusMinus) : '—'}</td>
              </tr>
            );
          }),
        )}
      </tbody>
    </table>
  );
}

function PictureFindings({ fit }: { fit: PhotoFit }) {
  const { drive, unit } = useBench('drive', 'unit');
  return (
    <ul className="findings" aria-label="Findings in the picture">
      {fit.findings.map((finding, index) => (
        <FindingItem key={index} severity={finding.severity} words={photoWords(drive, finding, unit)} />
      ))}
    </ul>
  );
}

/** How strongly the picture shows under the drawing. */
function Strength() {
  const { picture, setPicture } = useSurveying();
  const id = useId();
  return (
    <div className="field">
      <span className="label" id={id}>
        Picture under the drawing
      </span>
      <Slider
        ariaLabelledByForHandle={id}
        value={Math.round(100 * picture.strength)}
        tooltip={{ formatter: (value) => (value === 0 ? 'hidden' : `${value} %`) }}
        onChange={(value) => setPicture({ strength: value / 100 })}
      />
    </div>
  );
}

function DistanceField({ photo }: { photo: SurveyPhoto }) {
  const { unit, dispatch } = useBench('unit', 'dispatch');
  const set = (mm: number) =>
    dispatch(
      edit((d) => {
        const { cameraDistance: _old, ...rest } = photosOf(d).find(({ id }) => id === photo.id) ?? photo;
        return putItem(d, 'survey.photos', mm > 0 ? { ...rest, cameraDistance: mm } : (rest as SurveyPhoto));
      }),
    );
  return (
    <TypedPlace at={`picture ${photo.id}`}>
      <QuantityField
        label="Lens to crank pulley (0: not measured)"
        mm={photo.cameraDistance ?? 0}
        unit={unit}
        onCommit={set}
      />
    </TypedPlace>
  );
}

/** Asks whether the picture is whole: a cut-down one has its middle elsewhere than the camera looked. */
function CroppedField({ photo }: { photo: SurveyPhoto }) {
  const { dispatch } = useBench('dispatch');
  const answered = photo.cropped ? 'cropped' : 'whole';
  const said = photo.cropped === undefined ? 'unsaid' : answered;
  const set = (next: keyof typeof WHOLENESS) =>
    dispatch(
      edit((d) => {
        const { cropped: _old, ...rest } = photosOf(d).find(({ id }) => id === photo.id) ?? photo;
        return putItem(
          d,
          'survey.photos',
          next === 'unsaid' ? (rest as SurveyPhoto) : { ...(rest as SurveyPhoto), cropped: next === 'cropped' },
        );
      }),
    );
  return (
    <Choice
      label="The picture is"
      value={said}
      options={Object.entries(WHOLENESS).map(([value, label]) => ({ value: value as keyof typeof WHOLENESS, label }))}
      onChange={set}
    />
  );
}

const WHOLENESS = { unsaid: 'not known', whole: 'whole', cropped: 'cropped' };
