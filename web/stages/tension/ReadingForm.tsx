import { Button } from 'antd';
import { edit, useBench } from '../../state/bench';
import { Choice } from '../../ui/Choice';
import { FigureField } from '../../ui/FigureField';
import { useForgetTyped, useTyped } from '../../ui/typed-text';
import { useTensionSums } from './sums';
import {
  BELT_AGE_WORDS,
  BELT_AGES,
  type BeltAge,
  changeBelt,
  freeIdIn,
  put,
  type TensionReading,
  type TensionWay,
} from '@emery/core/drive';
import { cannotTell } from '@emery/core/tension';

interface Figure {
  key: string;
  label: string;
  unit: string;
  min: number;
  max: number;
}

const FIGURES: Record<TensionWay, readonly Figure[]> = {
  push: [
    { key: 'newtons', label: 'Push', unit: 'N', min: 0.1, max: 2000 },
    { key: 'mm', label: 'Deflection', unit: 'mm', min: 0.1, max: 200 },
  ],
  'free-play': [{ key: 'mm', label: 'Deflection', unit: 'mm', min: 0.1, max: 200 }],
  twist: [{ key: 'degrees', label: 'Twist angle', unit: '°', min: 5, max: 360 }],
  gauge: [],
  pluck: [{ key: 'hz', label: 'Frequency', unit: 'Hz', min: 5, max: 5000 }],
  pointer: [{ key: 'degrees', label: 'Pointer, as drawn', unit: '°', min: -720, max: 720 }],
};
const GAUGE_UNITS = [
  { value: 'kgf', label: 'kgf' },
  { value: 'lbf', label: 'lbf' },
  { value: 'newtons', label: 'N' },
] as const;

/** One reading of a school, written in and kept. */
export function ReadingForm({ way, index }: { way: TensionWay; index: number }) {
  const { belt } = useTensionSums();
  const { dispatch } = useBench('dispatch');
  const forget = useForgetTyped();
  const [figures, setFigures] = useTyped<Record<string, number>>('figures', {});
  const [gauge, setGauge] = useTyped<'kgf' | 'lbf' | 'newtons'>('gauge unit', 'kgf');
  const [when, setWhen] = useTyped<BeltAge>('when', 'worn');
  const [turned, setTurned] = useTyped<'no' | 'forward' | 'back'>('turned', 'no');
  const { standing, source } = belt!;
  const span = standing.spans[index]!;
  if (cannotTell(standing, way, span.length)) return null;
  const wanted: readonly Figure[] =
    way === 'gauge'
      ? [{ key: gauge, label: 'Gauge reading', unit: gauge === 'newtons' ? 'N' : gauge, min: 0.1, max: 5000 }]
      : FIGURES[way];
  const complete = wanted.every(({ key }) => figures[key] !== undefined);
  const keep = () => {
    const own = Object.fromEntries(wanted.map(({ key }) => [key, figures[key]]));
    dispatch(
      edit((d) => {
        const kept = d.belts.find(({ id }) => id === source.id)!.tensionReadings;
        const reading = {
          id: freeIdIn('tension', kept),
          way,
          span: { from: span.from, to: span.to },
          ...own,
          when,
          ...(turned !== 'no' && { turned }),
          at: new Date().toISOString(),
          // The form asks for the figures of that way and no other.
        } as TensionReading;
        return changeBelt(d, source.id, { tensionReadings: put(kept, reading) });
      }),
    );
    forget();
  };
  return (
    <section className="reading-form" aria-label="A reading">
      <div className="fields">
        {way === 'gauge' && <Choice label="Gauge unit" value={gauge} options={GAUGE_UNITS} onChange={setGauge} />}
        {wanted.map(({ key, label, unit, min, max }) => (
          <FigureField
            key={key}
            label={label}
            unit={unit}
            value={figures[key] ?? null}
            min={min}
            max={max}
            onCommit={(value) => setFigures((now) => ({ ...now, [key]: value }))}
            onClear={() =>
              setFigures((now) => Object.fromEntries(Object.entries(now).filter(([name]) => name !== key)))
            }
          />
        ))}
        <Choice
          label="Belt state"
          value={when}
          options={BELT_AGES.map((value) => ({ value, label: BELT_AGE_WORDS[value] }))}
          onChange={setWhen}
        />
        {standing.arm !== null && (
          <Choice
            label="Engine turned by hand"
            value={turned}
            options={[
              { value: 'no', label: 'not just before' },
              { value: 'forward', label: 'forward' },
              { value: 'back', label: 'back' },
            ]}
            onChange={setTurned}
          />
        )}
      </div>
      <Button type="primary" disabled={!complete} onClick={keep}>
        Record reading
      </Button>
    </section>
  );
}
