import { fixed } from '@emery/core/quantity';
import { Button, Segmented } from 'antd';
import { useStore } from '../../state/store';
import { edit, useBench } from '../../state/bench';
import { FigureField } from '../../ui/FigureField';
import { useTyped } from '../../ui/typed-text';
import { hand } from './hand';
import { useTensionSums } from './sums';
import { changeBelt } from '@emery/core/drive';
import { massOf } from '@emery/core/loads';
import { calibrated, DEFAULT_HAND, spanFigures } from '@emery/core/tension';

/** What thumb, fingers and belt are: calibrated on a belt of known tension, weighed on a kitchen scale. */
export function HandPanel({ index }: { index: number }) {
  const { belt } = useTensionSums();
  const { dispatch } = useBench('dispatch');
  const own = useStore(hand);
  const { standing, source } = belt!;
  const [what, setWhat] = useTyped<'free-play' | 'twist'>('calibrate', 'free-play');
  const [known, setKnown] = useTyped<number | null>('known', null);
  const [read, setRead] = useTyped<number | null>('read', null);
  const [grams, setGrams] = useTyped<number | null>('grams', null);
  const { kgPerMetre, weighed } = massOf(source);
  const span = spanFigures(standing, index);
  const usual = own.thumbN === DEFAULT_HAND.thumbN && own.twistNm === DEFAULT_HAND.twistNm;
  const calibrate = () => {
    const check = what === 'twist' ? { way: what, degrees: read! } : { way: what, mm: read! };
    const { value, plusMinus } = calibrated(span, known!, check);
    hand.set(
      what === 'twist'
        ? { ...own, twistNm: value, twistPlusMinusNm: plusMinus }
        : { ...own, thumbN: value, thumbPlusMinusN: plusMinus },
    );
    setRead(null);
  };
  const setMass = (kg: number | undefined) => dispatch(edit((d) => changeBelt(d, source.id, { kgPerMetre: kg })));
  return (
    <details className="hand-panel">
      <summary>Calibrate your thumb, your fingers and the belt mass</summary>
      <p data-testid="hand">
        Your thumb pushes {fixed(own.thumbN, 0)} ± {fixed(own.thumbPlusMinusN, 0)} N and your fingers twist{' '}
        {fixed(own.twistNm, 2)} ± {fixed(own.twistPlusMinusNm, 2)} N·m{usual ? ': defaults' : ', as calibrated here'}.
        Check a belt of known tension on this span to calibrate them. The figures stay on this device.
      </p>
      <Segmented
        value={what}
        options={[
          { value: 'free-play', label: 'Thumb' },
          { value: 'twist', label: 'Twist' },
        ]}
        onChange={setWhat}
        aria-label="What to calibrate"
      />
      <div className="fields">
        <FigureField
          label="Known tension"
          unit="N"
          value={known}
          min={10}
          max={5000}
          onCommit={setKnown}
          onClear={() => setKnown(null)}
        />
        <FigureField
          label={what === 'twist' ? 'Twist angle' : 'Deflection under my thumb'}
          unit={what === 'twist' ? '°' : 'mm'}
          value={read}
          min={0.2}
          max={what === 'twist' ? 360 : 200}
          onCommit={setRead}
          onClear={() => setRead(null)}
        />
      </div>
      <div className="button-row">
        <Button disabled={known === null || read === null} onClick={calibrate}>
          Calibrate
        </Button>
        {!usual && <Button onClick={() => hand.set(DEFAULT_HAND)}>Back to the defaults</Button>}
      </div>
      <div className="fields is-after">
        <FigureField
          label={weighed ? 'Mass per metre' : 'Mass per metre (a default)'}
          unit="g"
          value={kgPerMetre * 1000}
          min={1}
          max={5000}
          onCommit={(value) => setMass(value / 1000)}
          onClear={() => setMass(undefined)}
        />
        <FigureField
          label="or the whole belt, on a scale"
          unit="g"
          value={grams}
          min={5}
          max={20_000}
          onCommit={(value) => {
            setGrams(value);
            setMass(value / standing.cordLength);
          }}
          onClear={() => setGrams(null)}
        />
      </div>
    </details>
  );
}
