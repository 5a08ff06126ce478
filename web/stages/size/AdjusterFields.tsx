import { Button } from 'antd';
import { useState } from 'react';
import { edit, useBench } from '../../state/bench';
import { Choice } from '../../ui/Choice';
import { QuantityField } from '../../ui/QuantityField';
import { FigureField } from '../../ui/FigureField';
import { TypedPlace, useTyped } from '../../ui/typed-text';
import { ADJUSTER_KINDS, adjusterKind, adjustersOf, armThrough, type Asked, newAdjuster } from '@emery/core/adjuster';
import {
  type Adjuster,
  type Belt,
  changeBelt,
  changeStation,
  type Point,
  type SprungArm,
  type Station,
  stationLabel,
} from '@emery/core/drive';
import { sectionFor } from '@emery/core/section';

const KINDS: readonly { value: Adjuster['kind'] | 'none'; label: string }[] = [
  { value: 'none', label: 'No adjuster' },
  ...(Object.keys(ADJUSTER_KINDS) as Adjuster['kind'][]).map((value) => ({ value, label: adjusterKind(value).label })),
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
  const caution = adjuster && adjusterKind(adjuster.kind).caution;
  const set = (next: Adjuster | undefined) => dispatch(edit((d) => changeStation(d, station.id, { adjuster: next })));
  return (
    <div>
      <h2>How the belt is tightened</h2>
      {caution && (
        <p className="caution">
          <strong aria-hidden>▲</strong>
          <span>{caution}</span>
        </p>
      )}
      {adjustable.length > 1 && (
        <>
          {unclear && source.adjuster === undefined && (
            <p className="finding is-watch">
              <strong>▲ {adjustable.length} shafts on this belt have an adjuster.</strong> Choose which one tightens it.
            </p>
          )}
          <div className="fields">
            <Choice
              label="This belt is tightened by"
              value={source.adjuster === undefined && unclear ? '' : adjustable[0]!.id}
              options={[
                ...(source.adjuster === undefined && unclear ? [{ value: '', label: 'not chosen yet' }] : []),
                ...adjustable.map((station) => ({ value: station.id, label: stationLabel(station) })),
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
          options={on.map((station) => ({ value: station.id, label: stationLabel(station) }))}
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

/** What is asked of the adjuster's kind. */
function Measures({ station, adjuster, set }: MeasuresProps) {
  const { asked } = adjusterKind(adjuster.kind);
  return (
    <>
      <MeasureFields adjuster={adjuster} asked={asked} set={set} />
      {asked.fromThreePlaces && adjuster.kind === 'sprung-arm' && (
        <ThreePlaces station={station} adjuster={adjuster} set={set} />
      )}
    </>
  );
}

interface MeasureFieldsProps<A extends Adjuster> {
  adjuster: A;
  asked: Asked<A>;
  set: (next: Adjuster) => void;
}

function MeasureFields<A extends Adjuster>({ adjuster, asked, set }: MeasureFieldsProps<A>) {
  const { unit } = useBench('unit');
  // `Asked` names fields of just these types.
  const placeOf = (field: keyof A) => adjuster[field] as Point;
  const numberOf = (field: keyof A) => (adjuster[field] as number | undefined) ?? 0;
  const listOf = (field: keyof A) => adjuster[field] as readonly number[];
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
          min={0}
          value={numberOf(field)}
          onCommit={(value) => set({ ...adjuster, [field]: value })}
        />
      ))}
      {asked.thicknesses?.map(([field, label, more]) => (
        <Thicknesses
          key={field}
          label={label}
          more={more}
          list={listOf(field)}
          set={(list) => set({ ...adjuster, [field]: list })}
        />
      ))}
    </div>
  );
}

interface ThicknessesProps {
  label: (n: number) => string;
  more: string;
  list: readonly number[];
  set: (list: number[]) => void;
}

/** Thicknesses one under another, and one more; 0 takes one out. */
function Thicknesses({ label, more, list, set }: ThicknessesProps) {
  const { unit } = useBench('unit');
  return (
    <>
      {list.map((mm, k) => (
        <QuantityField
          key={k}
          label={label(k + 1)}
          mm={mm}
          unit={unit}
          onCommit={(next) => set(list.map((old, i) => (i === k ? next : old)).filter((mm) => mm > 0))}
        />
      ))}
      <div className="field">
        <span className="label">&nbsp;</span>
        <Button onClick={() => set([...list, list.at(-1) ?? 0.8])}>{more}</Button>
      </div>
    </>
  );
}

/** An arm measured as a mechanic can: the roller's centre seen at three places of its swing gives pivot and length. */
function ThreePlaces({ station, adjuster, set }: MeasuresProps & { adjuster: SprungArm }) {
  const { unit } = useBench('unit');
  const [places, setPlaces] = useTyped<{ x: number; y: number }[] | null>('three places', null);
  if (!places)
    return (
      <Button onClick={() => setPlaces([0, 1, 2].map(() => ({ x: station.x, y: station.y })))}>
        Find pivot from three roller positions
      </Button>
    );
  const found = armThrough(places[0]!, places[1]!, places[2]!);
  const sensible = found && found.length < 1000;
  return (
    <div className="reading-form">
      <p>The roller's centre at three positions of its swing, from the crank.</p>
      <div className="fields">
        {places.flatMap(({ x, y }, k) => [
          <QuantityField
            key={`${k}x`}
            label={`Position ${k + 1}, right (x)`}
            mm={x}
            unit={unit}
            signed
            onCommit={(mm) => setPlaces(places.map((old, i) => (i === k ? { ...old, x: mm } : old)))}
          />,
          <QuantityField
            key={`${k}y`}
            label={`Position ${k + 1}, up (y)`}
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
          {sensible ? 'Use this pivot and length' : 'Enter three different positions'}
        </Button>
        <Button onClick={() => setPlaces(null)}>Cancel</Button>
      </div>
    </div>
  );
}
