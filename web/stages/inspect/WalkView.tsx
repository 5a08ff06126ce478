import { Button } from 'antd';
import { useRef } from 'react';
import { useGoToStage } from '../../bench/use-go-to-stage';
import { edit, useBench } from '../../state/bench';
import { Choice } from '../../ui/Choice';
import { FigureField } from '../../ui/FigureField';
import { TypedPlace } from '../../ui/typed-text';
import { KindCard } from '../KindCard';
import { CheckCard } from './CheckCard';
import { GlanceCard } from './GlanceCard';
import { useInspect } from './InspectProvider';
import { useInspection, useLook, useOdometer, usePartInHand } from './sums';
import { VERDICT_MARKS } from './marks';
import { type Check, ODOMETER_UNITS, ODOMETER_WORDS, stationOf } from '@emery/core/drive';
import { useParams } from 'react-router';
import { useVehicle } from '../../api/shop';
import { openDriveOf } from '../../state/open-drives';
import { OdometerOffer } from '../../ui/OdometerOffer';
import { odometerDoubtWords, grouped } from '@emery/core/quantity';
import {
  changeInspect,
  CHECK_WORDS,
  checksOf,
  GLANCE,
  inspectedLabel,
  type InspectItem,
  judgedWords,
  partKey,
  readOdometer,
  skipPart,
  VERDICT_WORDS,
} from '@emery/core/inspect';

const isGlance = (check: Check) => (GLANCE as readonly Check[]).includes(check);
/** What is asked only where it tells something, or is asked for: the other checks come first. */
const SELDOM: readonly Check[] = ['length'];

/** The walk: one part at a time in the order the belt meets them, with the checks it needs. */
export function WalkView() {
  const { drive, items } = useInspection();
  const { dispatch, select, setBelt } = useBench('dispatch', 'select', 'setBelt');
  const { setAt, setPlacing } = useInspect();
  const part = usePartInHand();
  const look = useLook();
  const top = useRef<HTMLElement>(null);
  if (!part) return null;
  const key = partKey(part);
  const index = items.indexOf(part);
  const next = items[index + 1];
  const goTo = (item: InspectItem | undefined) => {
    if (!item) return;
    setAt(partKey(item));
    setPlacing(null);
    // It is lit in the drawing and on the belt as well.
    const station = item.on === 'belt' ? undefined : stationOf(drive, item.target)?.id;
    select(station === undefined ? null : { kind: 'pulley', station, pulley: item.target });
    if (item.on === 'belt') setBelt(item.target);
    top.current?.scrollIntoView({ block: 'start' });
    top.current?.querySelector('h2')?.focus();
  };
  const { checks } = checksOf(drive, part);
  const cautions = [...new Set(checks.flatMap((check) => CHECK_WORDS[check].caution ?? []))];
  // EPDM wears without a crack: once it is said to be that, nobody is sent to count.
  const epdm = part.judged.some(({ code, finding }) => code === 'material' && finding?.outcome === 'epdm');
  const first = checks.filter((check) => !isGlance(check) && !SELDOM.includes(check) && !(check === 'cracks' && epdm));
  return (
    <section className="walk" aria-label="Walk" ref={top}>
      {index === 0 && <Odometer />}
      <Parts items={items} inHand={key} onGo={goTo} />
      <div className="block-head">
        <h2 tabIndex={-1}>{inspectedLabel(drive, part)}</h2>
        <VerdictFlag item={part} />
      </div>
      {cautions.length > 0 && (
        <p className="caution">
          <strong aria-hidden>▲</strong> {cautions.join(' ')}
        </p>
      )}
      <TypedPlace at={key}>
        {part.on === 'pulley' && <KindCard pulley={part.target} />}
        {first.map((check) => (
          <CheckCard key={`${key} ${check}`} part={part} check={check} />
        ))}
        {checks.some(isGlance) && <GlanceCard part={part} />}
        {checks
          .filter((check) => SELDOM.includes(check))
          .map((check) => (
            <CheckCard key={`${key} ${check}`} part={part} check={check} />
          ))}
      </TypedPlace>
      {part.on === 'arm' && <Spring part={part} />}
      <div className="walk-foot">
        <Button disabled={index === 0} onClick={() => goTo(items[index - 1])}>
          Back
        </Button>
        {part.judged.length === 0 && (
          <Button
            onClick={() => {
              dispatch(edit((d) => skipPart(d, part, look())));
              goTo(next);
            }}
          >
            Skip
          </Button>
        )}
        <WalkNext next={next} onGo={() => goTo(next)} label={next ? inspectedLabel(drive, next) : ''} />
      </div>
    </section>
  );
}

/** What Tension measured of the arm's spring, or the way there. */
function Spring({ part }: { part: InspectItem }) {
  const go = useGoToStage();
  const spring = part.judged.find(({ code }) => code === 'spring');
  return spring ? (
    <p>{judgedWords(spring)}</p>
  ) : (
    <p className="quiet">
      Spring force left must be measured, not felt. <Button onClick={() => go('tension')}>To Tension</Button>
    </p>
  );
}

function WalkNext({ next, label, onGo }: { next: InspectItem | undefined; label: string; onGo: () => void }) {
  const { setView } = useInspect();
  return next ? (
    <Button type="primary" className="walk-next" onClick={onGo}>
      <span className="walk-next-name">Next: {label}</span>
    </Button>
  ) : (
    <Button type="primary" className="walk-next" onClick={() => setView('verdicts')}>
      See the verdicts
    </Button>
  );
}

/** A verdict as a mark and a word; a part that was passed over says so. */
export function VerdictFlag({ item: { verdict, skipped } }: { item: InspectItem }) {
  const word = skipped !== null && verdict === 'not looked at' ? 'Skipped' : VERDICT_WORDS[verdict];
  return (
    <span className={`part-verdict is-${verdict.replaceAll(' ', '-')}`} data-testid="part-verdict">
      <span aria-hidden>{VERDICT_MARKS[verdict]}</span> {word}
    </span>
  );
}

/** All parts as marks in the order of the walk; a tap goes there. */
function Parts({
  items,
  inHand,
  onGo,
}: {
  items: readonly InspectItem[];
  inHand: string;
  onGo: (item: InspectItem) => void;
}) {
  const { drive } = useBench('drive');
  return (
    <div className="walk-parts" role="group" aria-label="Parts">
      {items.map((item) => {
        const { verdict } = item;
        const here = partKey(item) === inHand;
        return (
          <button
            key={partKey(item)}
            type="button"
            className={`walk-part is-${verdict.replaceAll(' ', '-')}${here ? ' is-here' : ''}`}
            aria-current={here ? 'step' : undefined}
            aria-label={`${inspectedLabel(drive, item)}: ${VERDICT_WORDS[verdict].toLowerCase()}`}
            title={inspectedLabel(drive, item)}
            onClick={() => onGo(item)}
          >
            {VERDICT_MARKS[verdict]}
          </button>
        );
      })}
    </div>
  );
}

/** Where the odometer stands in this look, and what it counts. */
function Odometer() {
  const { drive, dispatch } = useBench('drive', 'dispatch');
  const { now, last, write } = useOdometer();
  const unit = drive.inspect?.odometerUnit ?? 'km';
  const { began } = useInspect();
  const { driveId = '' } = useParams();
  const vehicleId = openDriveOf(driveId)?.opened.vehicleId ?? '';
  const vehicle = useVehicle(vehicleId, vehicleId !== '').data;
  const take = (reading: number) => {
    write(reading);
    dispatch(edit((d) => readOdometer(d, reading, { at: began })));
  };
  return (
    <div className="fields walk-odometer">
      <FigureField
        label="Odometer now"
        unit={unit}
        value={now}
        min={0}
        max={1e7}
        doubtOf={(reading) => odometerDoubtWords(reading, last, unit)}
        onCommit={take}
        onClear={() => {
          write(null);
          dispatch(edit((d) => readOdometer(d, undefined, { at: began })));
        }}
      />
      <Choice
        label="Odometer unit"
        value={unit}
        options={ODOMETER_UNITS.map((value) => ({ value, label: ODOMETER_WORDS[value] }))}
        onChange={(odometerUnit) => dispatch(edit((d) => changeInspect(d, { odometerUnit })))}
      />
      {now === null && vehicle && vehicle.odometerUnit === unit && (
        <OdometerOffer reading={vehicle.odometer} unit={unit} onTake={take} />
      )}
      {now !== null && last !== null && now < last && (
        <p role="status">
          ▲ That is less than at the last inspection, {grouped(last)} {unit}.
        </p>
      )}
      {now === null && (
        <p className="quiet">
          {last === null ? 'Wear and distance together give a wear rate.' : `Last: ${grouped(last)} ${unit}.`}
        </p>
      )}
    </div>
  );
}
