import { Button } from 'antd';
import { useState } from 'react';
import { edit, useBench } from '../../state/bench';
import { Choice } from '../../ui/Choice';
import { QuantityField } from '../../ui/QuantityField';
import { FigureField } from '../../ui/FigureField';
import { TypedPlace, useTyped } from '../../ui/typed-text';
import { adjustersOf, armThrough, newAdjuster } from '@emery/core/adjuster';
import {
  type Adjuster,
  type Belt,
  changeBelt,
  changeStation,
  type Point,
  type Shims,
  type Slide,
  type SlotPivot,
  type SprungArm,
  type Station,
  stationLabel,
  type Turnbuckle,
} from '@emery/core/drive';
import { sectionFor } from '@emery/core/section';

const KINDS: readonly { value: Adjuster['kind'] | 'none'; label: string }[] = [
  { value: 'none', label: 'No adjuster' },
  { value: 'sprung-arm', label: 'Sprung arm' },
  { value: 'slot-pivot', label: 'Slot and pivot' },
  { value: 'slide', label: 'Slide' },
  { value: 'turnbuckle', label: 'Turnbuckle' },
  { value: 'shims', label: 'Split sheave, shims' },
  { value: 'fixed', label: 'Fixed centres' },
];

/** How the belt in hand is tightened: at which shaft, by what, and its measures. */
export function AdjusterFields({ source }: { source: Belt }) {
  const { drive, dispatch } = useBench('drive', 'dispatch');
  const on = drive.stations.filter(({ pulleys }) =>
    pulleys.some(({ id }) => source.route.some(({ pulley }) => pulley === id)),
  );
  const { stations: adjustable, unclear } = adjustersOf(drive, source);
  const adjusted = adjustable[0] ?? on.find(({ adjuster }) => adjuster);
  const [chosen, setChosen] = useState<string | null>(null);
  const station =
    on.find(({ id }) => id === chosen) ?? adjusted ?? on.find(({ role }) => role === 'tensioner') ?? on.at(-1);
  if (!station) return null;
  const { adjuster } = station;
  const set = (next: Adjuster | undefined) => dispatch(edit((d) => changeStation(d, station.id, { adjuster: next })));
  return (
    <div>
      <h2>How it is tightened</h2>
      {adjuster?.kind === 'sprung-arm' && (
        <p className="caution">
          <strong aria-hidden>▲</strong>
          <span>A sprung arm bites. Keep fingers out and let it down slowly.</span>
        </p>
      )}
      {adjustable.length > 1 && (
        <>
          {unclear && source.adjuster === undefined && (
            <p className="finding is-watch">
              <strong>▲ {adjustable.length} shafts on this belt have an adjuster.</strong> Say which one tightens it.
            </p>
          )}
          <div className="fields">
            <Choice
              label="This belt is tightened by"
              value={source.adjuster === undefined && unclear ? '' : adjustable[0]!.id}
              options={[
                ...(source.adjuster === undefined && unclear ? [{ value: '', label: 'not said yet' }] : []),
                ...adjustable.map((one) => ({ value: one.id, label: stationLabel(one) })),
              ]}
              onChange={(id) => {
                setChosen(id);
                dispatch(edit((d) => changeBelt(d, source.id, { adjuster: id === '' ? undefined : id })));
              }}
            />
          </div>
        </>
      )}
      <div className="fields">
        <Choice
          label="At"
          value={station.id}
          options={on.map((one) => ({ value: one.id, label: stationLabel(one) }))}
          onChange={setChosen}
        />
        <Choice
          label="By"
          value={adjuster?.kind ?? 'none'}
          options={[...KINDS]}
          onChange={(kind) => set(kind === 'none' ? undefined : newAdjuster(kind, station))}
        />
      </div>
      {adjuster?.kind === 'fixed' && sectionFor(source.section)?.kind === 'ribbed' && (
        <div className="fields">
          <Choice
            label="The belt is"
            value={source.build === 'stretch' ? 'stretch' : 'ordinary'}
            options={[
              { value: 'ordinary', label: 'ordinary' },
              { value: 'stretch', label: 'marked stretch-fit' },
            ]}
            onChange={(next) =>
              dispatch(edit((d) => changeBelt(d, source.id, { build: next === 'stretch' ? 'stretch' : undefined })))
            }
          />
        </div>
      )}
      {adjuster && (
        <TypedPlace at={`station ${station.id}`}>
          <Measures key={`${station.id} ${adjuster.kind}`} station={station} adjuster={adjuster} set={set} />
        </TypedPlace>
      )}
    </div>
  );
}

interface MeasuresProps {
  station: Station;
  adjuster: Adjuster;
  set: (next: Adjuster) => void;
}

/** The fields of an adjuster that hold a place, and those that hold a number. */
type PlacesOf<A> = { [K in keyof A]-?: A[K] extends Point ? K : never }[keyof A] & string;
type NumbersOf<A> = { [K in keyof A]-?: Required<A>[K] extends number ? K : never }[keyof A] & string;

/** What is asked of one kind of adjuster, in the order in which a mechanic measures it. */
interface Asked<A> {
  places?: readonly (readonly [field: PlacesOf<A>, label: string])[];
  lengths?: readonly (readonly [field: NumbersOf<A>, label: string])[];
  angles?: readonly (readonly [field: NumbersOf<A>, label: string])[];
  figures?: readonly (readonly [field: NumbersOf<A>, label: string, unit: string])[];
}

const ARM: Asked<SprungArm> = {
  places: [['pivot', 'Pivot']],
  lengths: [['armLength', 'Arm length']],
  angles: [
    ['fullAngle', 'Angle pulled right back'],
    ['shortMark', 'Angle at short mark'],
    ['longMark', 'Angle at long mark'],
    ['freeAngle', 'Angle let go'],
  ],
  figures: [
    ['springTorqueAtFree', 'Spring torque let go', 'N·m'],
    ['springRate', 'Spring rate', 'N·m per degree'],
  ],
};
const SLOT: Asked<SlotPivot> = {
  places: [['pivot', 'Pivot']],
  angles: [
    ['inAngle', 'Angle at slack end'],
    ['outAngle', 'Angle at tight end'],
  ],
};
const SLIDE: Asked<Slide> = { lengths: [['travel', 'How far']], angles: [['direction', 'Direction it slides']] };
const LINK: Asked<Turnbuckle> = {
  places: [
    ['pivot', 'Pivot'],
    ['anchor', 'Link anchor'],
    ['lug', 'Link lug now'],
  ],
  lengths: [
    ['minLength', 'Shortest link'],
    ['maxLength', 'Longest link, safe thread'],
  ],
};

function Measures({ station, adjuster, set }: MeasuresProps) {
  switch (adjuster.kind) {
    case 'sprung-arm':
      return (
        <>
          <MeasureFields adjuster={adjuster} asked={ARM} set={set} />
          <ThreePlaces station={station} adjuster={adjuster} set={set} />
        </>
      );
    case 'slot-pivot':
      return <MeasureFields adjuster={adjuster} asked={SLOT} set={set} />;
    case 'slide':
      return <MeasureFields adjuster={adjuster} asked={SLIDE} set={set} />;
    case 'turnbuckle':
      return <MeasureFields adjuster={adjuster} asked={LINK} set={set} />;
    case 'shims':
      return <ShimFields adjuster={adjuster} set={set} />;
    case 'fixed':
      return <div className="fields" />;
  }
}

interface MeasureFieldsProps<A extends Adjuster> {
  adjuster: A;
  asked: Asked<A>;
  set: (next: Adjuster) => void;
}

function MeasureFields<A extends Adjuster>({ adjuster, asked, set }: MeasureFieldsProps<A>) {
  const { unit } = useBench('unit');
  // `Asked` names fields of just these types.
  const placeOf = (field: PlacesOf<A>) => adjuster[field] as Point;
  const numberOf = (field: NumbersOf<A>) => (adjuster[field] as number | undefined) ?? 0;
  return (
    <div className="fields">
      {asked.places?.flatMap(([field, label]) =>
        (['x', 'y'] as const).map((axis) => (
          <QuantityField
            key={`${field}-${axis}`}
            label={`${label}, ${axis === 'x' ? 'right (x)' : 'up (y)'}`}
            mm={placeOf(field)[axis]}
            unit={unit}
            signed
            onCommit={(mm) => set({ ...adjuster, [field]: { ...placeOf(field), [axis]: mm } })}
          />
        )),
      )}
      {asked.lengths?.map(([field, label]) => (
        <QuantityField
          key={field}
          label={label}
          mm={numberOf(field)}
          unit={unit}
          onCommit={(mm) => set({ ...adjuster, [field]: mm })}
        />
      ))}
      {asked.angles?.map(([field, label]) => (
        <FigureField
          key={field}
          label={label}
          unit="°"
          value={numberOf(field)}
          onCommit={(value) => set({ ...adjuster, [field]: value })}
        />
      ))}
      {asked.figures?.map(([field, label, figureUnit]) => (
        <FigureField
          key={field}
          label={label}
          unit={figureUnit}
          least={0}
          value={numberOf(field)}
          onCommit={(value) => set({ ...adjuster, [field]: value })}
        />
      ))}
    </div>
  );
}

function ShimFields({ adjuster, set }: { adjuster: Shims; set: (next: Adjuster) => void }) {
  const { unit } = useBench('unit');
  const { shims } = adjuster;
  return (
    <div className="fields">
      {shims.map((mm, k) => (
        <QuantityField
          key={k}
          label={`Shim ${k + 1} between the halves`}
          mm={mm}
          unit={unit}
          onCommit={(next) =>
            set({ ...adjuster, shims: shims.map((old, i) => (i === k ? next : old)).filter((one) => one > 0) })
          }
        />
      ))}
      <div className="field">
        <span className="label">&nbsp;</span>
        <Button onClick={() => set({ ...adjuster, shims: [...shims, shims.at(-1) ?? 0.8] })}>One more shim</Button>
      </div>
    </div>
  );
}

/** An arm measured as a mechanic can: the roller's centre seen at three places of its swing gives pivot and length. */
function ThreePlaces({ station, adjuster, set }: MeasuresProps & { adjuster: SprungArm }) {
  const { unit } = useBench('unit');
  const [places, setPlaces] = useTyped<{ x: number; y: number }[] | null>('three places', null);
  if (!places)
    return (
      <Button onClick={() => setPlaces([0, 1, 2].map(() => ({ x: station.x, y: station.y })))}>
        Find pivot from three places of the roller
      </Button>
    );
  const found = armThrough(places[0]!, places[1]!, places[2]!);
  const sensible = found && found.length < 1000;
  return (
    <div className="reading-form">
      <p>Where the roller's centre stands at three places of its swing, from the crank.</p>
      <div className="fields">
        {places.flatMap(({ x, y }, k) => [
          <QuantityField
            key={`${k}x`}
            label={`Place ${k + 1}, right (x)`}
            mm={x}
            unit={unit}
            signed
            onCommit={(mm) => setPlaces(places.map((old, i) => (i === k ? { ...old, x: mm } : old)))}
          />,
          <QuantityField
            key={`${k}y`}
            label={`Place ${k + 1}, up (y)`}
            mm={y}
            unit={unit}
            signed
            onCommit={(mm) => setPlaces(places.map((old, i) => (i === k ? { ...old, y: mm } : old)))}
          />,
        ])}
      </div>
      <div className="button-row is-after">
        <Button
          type="primary"
          disabled={!sensible}
          onClick={() => {
            const tenth = (value: number) => Math.round(10 * value) / 10;
            set({
              ...adjuster,
              pivot: { x: tenth(found!.pivot.x), y: tenth(found!.pivot.y) },
              armLength: tenth(found!.length),
            });
            setPlaces(null);
          }}
        >
          {sensible ? 'Take pivot and length' : 'Three different places, please'}
        </Button>
        <Button onClick={() => setPlaces(null)}>Not now</Button>
      </div>
    </div>
  );
}
