import { useMemo, useRef } from 'react';
import { useBench, useSelected } from '../../state/bench';
import { useSizeOf } from '../../ui/use-size-of';
import { shaftInHand } from './in-hand';
import { OutputCurve } from './OutputCurve';
import { SpeedLines } from './SpeedLines';
import { useSpeeds } from './SpeedsProvider';
import { UseBars } from './UseBars';
import './speed.css';
import { speedsOf } from '@emery/core/speeds';

/**
 * The main picture of Speeds, across the engine's speed: what the shafts turn and the band of the one in hand, the
 * vehicle's use, or what an alternator gives.
 */
export default function SpeedChart() {
  const { drive, solution } = useBench('drive', 'solution');
  const selected = useSelected();
  const { view } = useSpeeds();
  const holder = useRef<HTMLElement>(null);
  const size = useSizeOf(holder);
  const { shafts } = useMemo(() => speedsOf(drive, solution), [drive, solution]);
  const held = shaftInHand(drive, shafts, selected);
  const showsUse = view === 'use' && (drive.use?.bins.length ?? 0) > 0;
  const otherwise = view === 'output' && (held?.station.output?.length ?? 0) > 1 ? 'output' : 'speeds';
  const what = showsUse ? 'use' : otherwise;
  const drawn = size.width < 120 ? null : held;
  const title = {
    use: 'Running time by engine speed',
    output: 'Output against engine speed',
    speeds: 'Accessory speed against engine speed',
  }[what];
  return (
    <section className="unrolled sheet speed-chart" aria-label={title} ref={holder}>
      {!held && <p className="unrolled-empty">Shaft speeds appear here once the crank drives them.</p>}
      {drawn && what === 'use' && (
        <UseBars use={drive.use!} station={drawn.station} ratio={drawn.shaft.speedRatio!} {...size} />
      )}
      {drawn && what === 'output' && <OutputCurve station={drawn.station} ratio={drawn.shaft.speedRatio!} {...size} />}
      {drawn && what === 'speeds' && <SpeedLines held={drawn.station} shafts={shafts} {...size} />}
    </section>
  );
}
