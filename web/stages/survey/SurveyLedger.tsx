import { useOwnText } from '../../ui/use-own-text';
import { steady } from '../../ui/steady';
import { MarkedRow } from '../../bench/MarkedRow';
import { CopyOutlined, DeleteOutlined, PlusOutlined } from '@ant-design/icons';
import { Button, Input, Segmented, Switch } from 'antd';
import { memo, useId } from 'react';
import { edit, useBench, useBenchStores, useDrive, useSelected } from '../../state/bench';
import { useSurveying, type Surveying } from './SurveyProvider';
import { Choice } from '../../ui/Choice';
import { CountField } from '../../ui/CountField';
import { FindingList } from '../../bench/FindingList';
import { LengthFigure } from '../../ui/LengthFigure';
import { QuantityField } from '../../ui/QuantityField';
import { StoppedSum } from '../../ui/StoppedSum';
import { TypedPlace } from '../../ui/typed-text';
import { lazyPart } from '../../parts/lazy-part';
import { AddPulley } from './AddPulley';
import { DiameterReadings } from './DiameterReadings';
import { ObstacleLedger } from './ObstacleLedger';
import { ROLE_OPTIONS } from './role-options';
import { TapeLedger } from './TapeLedger';
import {
  addPulley,
  changePulley,
  changeStation,
  duplicateStation,
  newPulley,
  type Pulley,
  removePulley,
  removeStation,
  ROLE_LABELS,
  type Rotation,
  type Station,
  stationLabel,
} from '@emery/core/drive';
import { CURED_BY_MEASURING } from '@emery/core/path';
import type { LengthUnit } from '@emery/core/quantity';
import type { Surface } from '@emery/core/section';
import { type EditGroup, runOfEdits } from '../../state/drive-history';

const PictureLedger = lazyPart('The picture', () => import('./PictureLedger'));

const RIMS = [
  { value: 'plain', label: 'Plain' },
  { value: 'flanged', label: 'Flanged, keep the belt on' },
] as const;
const SURFACES: { value: Surface; label: string }[] = [
  { value: 'ribbed', label: 'Ribbed' },
  { value: 'vee', label: 'V groove' },
  { value: 'smooth', label: 'Smooth' },
  { value: 'toothed', label: 'Toothed' },
];
const WAYS: { value: 'any' | Rotation; label: string }[] = [
  { value: 'any', label: 'Either direction' },
  { value: 'cw', label: 'Clockwise' },
  { value: 'ccw', label: 'Counter-clockwise' },
];
/** Between twin sheaves, mm: a starting figure, to be measured. */
const SHEAVE_STEP = 16;

/** Survey: what was measured, of the pulleys and between them. */
export default function SurveyLedger() {
  const { surveying, setSurveying, stopped: surveyStopped, setPicture } = useSurveying();
  return (
    <>
      <p className="caution">
        <strong aria-hidden>▲</strong>
        <span>Key out and battery off before your hands go in. Fans can start by themselves.</span>
      </p>
      <Segmented<Surveying>
        block
        aria-label="View"
        value={surveying}
        options={[
          { value: 'pulleys', label: 'Pulleys' },
          { value: 'tapes', label: 'Tapes' },
          { value: 'picture', label: 'Picture' },
        ]}
        onChange={(what) => {
          setPicture({ marking: null });
          setSurveying(what);
        }}
      />
      {surveying !== 'pulleys' && <StoppedSum stopped={surveyStopped} />}
      {surveying === 'tapes' && <TapeLedger />}
      {surveying === 'picture' && <PictureLedger />}
      {surveying === 'pulleys' && <PulleyLedger />}
    </>
  );
}

/** The pulley in hand above, all of them below. */
function PulleyLedger() {
  const { select } = useBench('select');
  const selected = useSelected();
  const held = selected?.kind === 'pulley' ? selected.station : null;
  const station = useDrive(({ stations }) => stations.find(({ id }) => id === held));
  const section = useDrive(({ belts }) => belts[0]?.section ?? 'PK');
  const any = useDrive(({ stations }) => stations.length > 0);

  return (
    <>
      <div className="block-head">
        <h2>{station ? stationLabel(station) : 'Pulleys'}</h2>
        <AddPulley onAdded={(station, pulley) => select({ kind: 'pulley', station, pulley })} />
      </div>
      {station ? (
        <TypedPlace at={`station ${station.id}`}>
          <StationFields key={station.id} station={station} section={section} />
        </TypedPlace>
      ) : (
        any && <p className="quiet">Tap a pulley to enter its measurements, or drag it to its position.</p>
      )}
      {any && <PulleyTable />}
      {any && <ObstacleBlock />}
      <CrankBlock />
      <SurveyFindings />
    </>
  );
}

function StationFields({ station, section }: { station: Station; section: string }) {
  const bench = useBenchStores();
  const { unit, dispatch, select } = useBench('unit', 'dispatch', 'select');
  const selected = useSelected();
  const many = station.pulleys.length > 1;
  const pulley =
    station.pulleys.find(({ id }) => selected?.kind === 'pulley' && id === selected.pulley) ?? station.pulleys[0]!;
  const change = (fields: Partial<Station>, group?: EditGroup) =>
    dispatch(edit((d) => changeStation(d, station.id, fields), group));
  const changeSheave = (fields: Partial<Pulley>) => dispatch(edit((d) => changePulley(d, pulley.id, fields)));

  const addSheave = () => {
    const plane = Math.max(...station.pulleys.map((p) => p.plane ?? 0)) + SHEAVE_STEP;
    const made = {
      ...newPulley(bench.get().drive, station.id, station.role, section, plane),
      ...(pulley.diameter !== undefined && { diameter: pulley.diameter }),
    };
    dispatch(edit((d) => addPulley(d, station.id, made)));
    select({ kind: 'pulley', station: station.id, pulley: made.id });
  };
  const removeSheave = () => dispatch(edit((d) => removePulley(d, pulley.id)));
  const duplicate = () => {
    const copy = duplicateStation(bench.get().drive, station.id);
    dispatch(edit(() => copy.drive));
    select({ kind: 'pulley', station: copy.id, pulley: copy.drive.stations.at(-1)!.pulleys[0]!.id });
  };
  const remove = () => {
    select(null);
    dispatch(edit((d) => removeStation(d, station.id)));
  };

  return (
    <div>
      <div className="fields">
        <NameField
          value={station.label ?? ''}
          placeholder={ROLE_LABELS[station.role]}
          onChange={(label) => change({ label: label || undefined }, runOfEdits(`label ${station.id}`))}
        />
        <Choice label="Accessory" value={station.role} options={ROLE_OPTIONS} onChange={(role) => change({ role })} />
        <QuantityField label="Right of crank (x)" mm={station.x} unit={unit} signed onCommit={(x) => change({ x })} />
        <QuantityField label="Above crank (y)" mm={station.y} unit={unit} signed onCommit={(y) => change({ y })} />
      </div>
      {many && (
        <Segmented
          className="sheave-tabs"
          block
          value={pulley.id}
          options={station.pulleys.map(({ id }, index) => ({ value: id, label: `Sheave ${index + 1}` }))}
          onChange={(id) => select({ kind: 'pulley', station: station.id, pulley: id })}
        />
      )}
      <TypedPlace at={`pulley ${pulley.id}`}>
        <div className="fields" key={pulley.id}>
          {pulley.surface === 'toothed' ? (
            <CountField
              label="Teeth"
              value={pulley.teeth}
              max={400}
              onCommit={(teeth) => changeSheave({ teeth: teeth ?? 0 })}
            />
          ) : (
            <QuantityField
              label={DIAMETERS[pulley.surface]}
              mm={pulley.diameter ?? 0}
              unit={unit}
              onCommit={(diameter) => changeSheave({ diameter })}
            />
          )}
          <Choice
            label="Surface"
            value={pulley.surface}
            options={SURFACES}
            onChange={(surface) => changeSheave(withSurface(pulley, surface))}
          />
          {pulley.surface === 'ribbed' && (
            <CountField
              label="Grooves"
              value={pulley.grooves}
              max={60}
              optional
              hint={pulley.grooves === undefined ? 'not counted yet' : ''}
              onCommit={(grooves) => changeSheave({ grooves })}
            />
          )}
          {pulley.surface === 'vee' && (
            <QuantityField
              label="Belt top above rim"
              mm={pulley.ride ?? 0}
              unit={unit}
              signed
              onCommit={(ride) => changeSheave({ ride })}
            />
          )}
          <QuantityField
            label="Plane, out from crank's"
            mm={pulley.plane ?? 0}
            unit={unit}
            signed
            onCommit={(plane) => changeSheave({ plane })}
          />
          {pulley.surface === 'smooth' && (
            <Choice
              label="Rims"
              value={pulley.flanged ? 'flanged' : 'plain'}
              options={RIMS}
              onChange={(rims) => changeSheave({ flanged: rims === 'flanged' ? true : undefined })}
            />
          )}
          {station.role !== 'crankshaft' && (
            <Choice
              label="Required rotation"
              value={station.requires ?? 'any'}
              options={WAYS}
              onChange={(way) => change({ requires: way === 'any' ? undefined : way })}
            />
          )}
        </div>
        {pulley.surface !== 'toothed' && (
          <DiameterReadings key={`${pulley.id} readings`} sheaves={station.pulleys} pulley={pulley} />
        )}
      </TypedPlace>
      {station.role !== 'crankshaft' && (
        <MayBeLeftOut id={station.id} optional={station.optional ?? false} region={station.region} />
      )}
      <ShaftActions
        many={many}
        addSheave={addSheave}
        removeSheave={removeSheave}
        duplicate={duplicate}
        remove={remove}
      />
    </div>
  );
}

interface NameFieldProps {
  value: string;
  placeholder: string;
  onChange: (name: string) => void;
}

const NameField = steady(function NameField({ value, placeholder, onChange }: NameFieldProps) {
  const id = useId();
  return (
    <div className="field">
      <label className="label" htmlFor={id}>
        Name
      </label>
      <Input id={id} placeholder={placeholder} maxLength={80} {...useOwnText(value, onChange)} />
    </div>
  );
});

interface ShaftActionsProps {
  many: boolean;
  addSheave: () => void;
  removeSheave: () => void;
  duplicate: () => void;
  remove: () => void;
}

const ShaftActions = steady(function ShaftActions({
  many,
  addSheave,
  removeSheave,
  duplicate,
  remove,
}: ShaftActionsProps) {
  return (
    <div className="button-row">
      <Button icon={<PlusOutlined />} onClick={addSheave}>
        Sheave on this shaft
      </Button>
      {many && <Button onClick={removeSheave}>Remove sheave</Button>}
      <Button icon={<CopyOutlined />} onClick={duplicate}>
        Duplicate
      </Button>
      <Button icon={<DeleteOutlined />} danger onClick={remove}>
        Delete
      </Button>
    </div>
  );
});

/** A pulley not bought yet, and how far from where it is drawn it may be put. */
const MayBeLeftOut = memo(function MayBeLeftOut({ id: station, optional, region }: MayBeLeftOutProps) {
  const { unit, dispatch } = useBench('unit', 'dispatch');
  const id = useId();
  const set = (fields: (now: Station) => Partial<Station>) =>
    dispatch(edit((d) => changeStation(d, station, fields(d.stations.find((candidate) => candidate.id === station)!))));
  return (
    <div className="fields">
      <div className="field">
        <label className="label" htmlFor={id}>
          Optional
        </label>
        <span className="switch-line">
          <Switch
            id={id}
            checked={optional}
            onChange={(on) => set(() => ({ optional: on || undefined, ...(!on && { region: undefined }) }))}
          />
        </span>
      </div>
      {optional && (
        <QuantityField
          label="Allowed radius (0: anywhere)"
          mm={region?.radius ?? 0}
          unit={unit}
          onCommit={(radius) => set(({ x, y }) => ({ region: radius > 0 ? { x, y, radius } : undefined }))}
        />
      )}
    </div>
  );
});

interface MayBeLeftOutProps {
  id: string;
  optional: boolean;
  region: Station['region'];
}

const DIAMETERS: Record<Surface, string> = {
  ribbed: 'Diameter over ribs',
  vee: 'Diameter over rim',
  smooth: 'Diameter of face',
  toothed: 'Teeth',
};

/** What a pulley needs to be of another surface: teeth instead of a diameter, or a diameter again. */
function withSurface(pulley: Pulley, surface: Surface): Partial<Pulley> {
  if (surface === 'toothed') return { surface, teeth: pulley.teeth ?? 24 };
  return { surface, ...(pulley.diameter === undefined && { diameter: 100 }) };
}

function PulleyTable() {
  const stations = useDrive((drive) => drive.stations);
  const { unit } = useBench('unit');
  return (
    <table className="ledger-table">
      <thead>
        <tr>
          <th>Pulley</th>
          <th className="figure">Diameter</th>
          <th className="figure">Right (x)</th>
          <th className="figure">Up (y)</th>
        </tr>
      </thead>
      <tbody>
        {stations.map((station) => (
          <PulleyRow key={station.id} station={station} unit={unit} />
        ))}
      </tbody>
    </table>
  );
}

const PulleyRow = memo(function PulleyRow({ station, unit }: { station: Station; unit: LengthUnit }) {
  return (
    <MarkedRow mark={{ kind: 'pulley', station: station.id, pulley: station.pulleys[0]!.id }}>
      <td>
        <button type="button" className="row-button">
          {stationLabel(station)}
        </button>
      </td>
      <td className="figure">
        {station.pulleys.map((pulley, index) => (
          <span key={pulley.id}>
            {index > 0 && ' / '}
            {pulley.surface === 'toothed' && `${pulley.teeth} T`}
            {pulley.surface !== 'toothed' &&
              (pulley.diameter ? <LengthFigure mm={pulley.diameter} unit={unit} /> : '—')}
          </span>
        ))}
      </td>
      <td className="figure">
        <LengthFigure mm={station.x} unit={unit} />
      </td>
      <td className="figure">
        <LengthFigure mm={station.y} unit={unit} />
      </td>
    </MarkedRow>
  );
});

/** Kept out of a drag's redraw, like all in this ledger that no shaft's place changes. */
const ObstacleBlock = memo(ObstacleLedger);
const CrankBlock = memo(CrankWay);

function CrankWay() {
  const { dispatch } = useBench('dispatch');
  const [empty, way] = [useDrive(({ stations }) => stations.length === 0), useDrive((drive) => drive.crankRotation)];
  if (empty) return null;
  return (
    <div className="block-head">
      <span className="label" id="crank-way">
        Crank rotation, seen from the front
      </span>
      <Segmented<Rotation>
        aria-labelledby="crank-way"
        value={way}
        options={[
          { value: 'cw', label: 'Clockwise' },
          { value: 'ccw', label: 'Counter-clockwise' },
        ]}
        onChange={(crankRotation) => dispatch(edit((d) => ({ ...d, crankRotation })))}
      />
    </div>
  );
}

/** Of all findings those that a reading put right would cure. */
function SurveyFindings() {
  const { solution } = useBench('solution');
  const seen = new Set<string>();
  const findings = [...solution.findings, ...solution.belts.flatMap((belt) => belt.findings)].filter(
    ({ code, pulley, other }) => {
      const key = `${code} ${pulley} ${other}`;
      if (!CURED_BY_MEASURING.has(code) || seen.has(key)) return false;
      seen.add(key);
      return true;
    },
  );
  return <FindingList findings={findings} />;
}
