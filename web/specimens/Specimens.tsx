import { useState, type ReactNode } from 'react';
import { FindingItem } from '../bench/FindingItem';
import { STAGE_MARKS } from '../stages/marks';
import { Choice } from '../ui/Choice';
import { CountField } from '../ui/CountField';
import { FigureField } from '../ui/FigureField';
import { LengthFigure } from '../ui/LengthFigure';
import { QuantityField } from '../ui/QuantityField';
import { TapePad } from '../ui/TapePad';
import { TextField } from '../ui/TextField';
import { TypedPlace } from '../ui/typed-text';
import { type Drive, newBelt, newDrive, newStation } from '@emery/core/drive';
import type { Severity } from '@emery/core/finding';
import { specimensOf } from '@emery/core/specimens';

/** Two shafts and a belt, for findings to name. */
function specimenDrive(): Drive {
  const empty = newDrive('Specimen');
  const crank = newStation(empty, 'crankshaft', 0, 0, 'PK');
  const example = { ...empty, stations: [crank], belts: [newBelt(empty, 'PK')] };
  return { ...example, stations: [crank, newStation(example, 'alternator', 300, 120, 'PK')] };
}

const SEVERITIES: readonly Severity[] = ['fault', 'watch', 'note'];

/** Every field, figure and finding of the interface, in both units. */
export function Specimens() {
  return (
    <div className="specimens">
      <h1>Specimens</h1>
      <Fields />
      <Figures />
      <Findings />
    </div>
  );
}

function Group({ title, children }: { title: string; children: ReactNode }) {
  return (
    <section>
      <h2>{title}</h2>
      <div className="specimens-grid">{children}</div>
    </section>
  );
}

function Fields() {
  const [values, setValues] = useState({ mm: 169.9, count: 6, degrees: 40, name: 'Front drive', kind: 'ribbed' });
  const set = (change: Partial<typeof values>) => setValues((now) => ({ ...now, ...change }));
  return (
    <TypedPlace at="specimens">
      <Group title="Fields">
        {(['mm', 'in'] as const).map((unit) => (
          <QuantityField
            key={unit}
            label={`Length, ${unit}`}
            mm={values.mm}
            unit={unit}
            onCommit={(mm) => set({ mm })}
          />
        ))}
        <QuantityField label="Signed length" mm={-values.mm} unit="in" signed onCommit={(mm) => set({ mm: -mm })} />
        <CountField label="Count" value={values.count} max={60} onCommit={(count) => set({ count: count ?? 0 })} />
        <CountField
          label="Count not known"
          value={undefined}
          max={60}
          optional
          hint="not counted yet"
          onCommit={() => undefined}
        />
        <FigureField label="Angle" unit="°" value={values.degrees} onCommit={(degrees) => set({ degrees })} />
        <TextField label="Name" value={values.name} max={80} onChange={(name) => set({ name })} />
        <TextField label="Name with a problem" value="" max={80} problem="Write a name." onChange={() => undefined} />
        <Choice
          label="One of a few"
          value={values.kind}
          options={['ribbed', 'vee', 'smooth'].map((value) => ({ value, label: value }))}
          onChange={(kind) => set({ kind })}
        />
        {(['mm', 'in'] as const).map((unit) => (
          <TapePad key={unit} unit={unit} signed onWrite={() => undefined} onEnter={() => undefined} />
        ))}
      </Group>
    </TypedPlace>
  );
}

function Figures() {
  const lengths = [0, 0.8, 12.7, 169.8625, 1805.6, -63.5];
  return (
    <Group title="Figures">
      {(['mm', 'in'] as const).map((unit) => (
        <p key={unit}>
          {lengths.map((mm) => (
            <span key={mm}>
              <LengthFigure mm={mm} unit={unit} />{' '}
            </span>
          ))}
        </p>
      ))}
      <p>
        {Object.entries(STAGE_MARKS).map(([state, mark]) => (
          <span key={state}>
            {mark} {state}{' '}
          </span>
        ))}
      </p>
    </Group>
  );
}

function Findings() {
  const specimens = specimensOf(specimenDrive());
  const kinds = [...new Set(specimens.map(({ kind }) => kind))];
  return kinds.map((kind) => (
    <Group key={kind} title={`Findings of ${kind}`}>
      {(['mm', 'in'] as const).map((unit) => (
        <ul key={unit} className="findings">
          {specimens
            .filter((specimen) => specimen.kind === kind)
            .map(({ code, words }, index) => (
              <FindingItem key={`${code} ${index}`} severity={SEVERITIES[index % 3]!} words={words(unit)} />
            ))}
        </ul>
      ))}
    </Group>
  ));
}
