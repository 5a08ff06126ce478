import { Segmented } from 'antd';
import { useMemo } from 'react';
import { useBench, useSelected } from '../../state/bench';
import { TypedPlace } from '../../ui/typed-text';
import { lazyPart } from '../../parts/lazy-part';
import { EngineRule } from './EngineRule';
import { shaftInHand } from './in-hand';
import { ShaftSpeeds } from './ShaftSpeeds';
import { useSpeeds, type SpeedsView } from './SpeedsProvider';
import './speed.css';
import { speedsOf } from '@emery/core/speeds';

const UseLedger = lazyPart('Use', () => import('./UseLedger'));
const OutputLedger = lazyPart('Output', () => import('./OutputLedger'));
const PulleysLedger = lazyPart('Pulleys', () => import('./PulleysLedger'));
const CheckLedger = lazyPart('Tachometer check', () => import('./CheckLedger'));

const VIEWS: readonly { value: SpeedsView; label: string }[] = [
  { value: 'speeds', label: 'Speeds' },
  { value: 'use', label: 'Use' },
  { value: 'output', label: 'Output' },
  { value: 'pulleys', label: 'Pulleys' },
  { value: 'check', label: 'Check' },
];

/** Speeds: what every accessory turns, and which pulley to change. */
export default function SpeedLedger() {
  const { drive, solution } = useBench('drive', 'solution');
  const selected = useSelected();
  const { view, setView } = useSpeeds();
  const { shafts } = useMemo(() => speedsOf(drive, solution), [drive, solution]);
  const held = shaftInHand(drive, shafts, selected);
  if (!held) {
    return (
      <>
        <h2>The crank drives nothing yet</h2>
        <p>Put the crank and an accessory on one belt, under Route. Then Emery works out every shaft speed here.</p>
      </>
    );
  }
  const inHand = { station: held.station, ratio: held.shaft.speedRatio! };
  return (
    <>
      <EngineRule {...inHand} />
      <Segmented<SpeedsView> block value={view} options={[...VIEWS]} onChange={setView} aria-label="View" />
      <TypedPlace at={`station ${held.station.id} ${view}`}>
        {view === 'speeds' && <ShaftSpeeds key={held.station.id} {...inHand} />}
        {view === 'use' && <UseLedger />}
        {view === 'output' && <OutputLedger key={held.station.id} {...inHand} />}
        {view === 'pulleys' && <PulleysLedger {...inHand} />}
        {view === 'check' && <CheckLedger key={held.station.id} {...inHand} />}
      </TypedPlace>
    </>
  );
}
