import {
  useEffect,
  useRef,
  useState,
  type KeyboardEvent,
  type PointerEvent,
  type ReactNode,
  type RefObject,
} from 'react';
import { isNarrow } from './use-narrow';
import { PlainButton } from './PlainButton';
import { PhoneButton } from '../take/WithPhone';
import type { LengthUnit } from '@emery/core/quantity';

interface Props {
  unit: LengthUnit;
  /** True where the length may be below zero. */
  signed: boolean;
  /** Told after every touch what has been entered so far, as it would be written. */
  onWrite: (text: string) => void;
  onEnter: () => void;
  /** A phone is to write it. */
  onPhone?: () => void;
}

/**
 * A tape reading with one thumb: whole inches, then the sixteenth on a strip of tape; or millimetres with a decimal.
 */
export function TapePad({ unit: shopUnit, signed, onWrite, onEnter, onPhone = () => undefined }: Props) {
  const [unit, setUnit] = useState(shopUnit);
  const [digits, setDigits] = useState('');
  const [sixteenths, setSixteenths] = useState(0);
  const [below, setBelow] = useState(false);
  const liftedRef = useRef(-Infinity);
  const pad = useInSight();

  const write = (nextDigits: string, nextSixteenths: number, nextUnit: LengthUnit, nextBelow = below) => {
    setBelow(nextBelow);
    setDigits(nextDigits);
    setSixteenths(nextSixteenths);
    setUnit(nextUnit);
    const text = textOf(nextDigits, nextSixteenths, nextUnit);
    onWrite(nextBelow && text !== '' ? `-${text}` : text);
  };
  const press = (key: string) => {
    if (key === 'back') write(digits.slice(0, -1), sixteenths, unit);
    else if (key === '.' && (digits.includes('.') || unit === 'in')) return;
    else if (digits.length < 7) write(digits + key, sixteenths, unit);
  };

  return (
    // A touch on the pad must not take the focus from the field it fills in.
    <div ref={pad} className="tape-pad" role="group" aria-label="Tape pad" onPointerDown={leavesFocus}>
      <div className="tape-pad-keys">
        {['7', '8', '9', '4', '5', '6', '1', '2', '3', '0', '.', 'back'].map((key) => (
          <PadKey
            key={key}
            name={key === 'back' ? 'Delete the last digit' : key}
            disabled={key === '.' && unit === 'in'}
            liftedRef={liftedRef}
            onPress={() => press(key)}
          >
            {key === 'back' ? '⌫' : key}
          </PadKey>
        ))}
      </div>
      {unit === 'in' && <SixteenthStrip value={sixteenths} onChange={(next) => write(digits, next, unit)} />}
      <div className="tape-pad-foot">
        {signed && (
          <PlainButton aria-pressed={below} onClick={() => write(digits, sixteenths, unit, !below)}>
            {below ? '− below' : '+ above'}
          </PlainButton>
        )}
        <PlainButton
          onClick={() => write(unit === 'in' ? digits : digits.split('.')[0]!, 0, unit === 'in' ? 'mm' : 'in')}
        >
          {unit === 'in' ? 'in → mm' : 'mm → in'}
        </PlainButton>
        <PlainButton primary onClick={onEnter}>
          Enter
        </PlainButton>
      </div>
      <div className="tape-pad-foot">
        <PhoneButton kind="reading" onPress={onPhone} />
      </div>
    </div>
  );
}

const leavesFocus = (event: PointerEvent): void => event.preventDefault();

/** In the hand the field goes to the top, and all of its pad stands below it in sight. */
function useInSight(): RefObject<HTMLDivElement | null> {
  const pad = useRef<HTMLDivElement>(null);
  useEffect(() => {
    const field = pad.current?.closest('.field');
    if (!isNarrow() || !field) return;
    const { top, bottom } = field.getBoundingClientRect();
    // A page that shows all of it already stays as it is; in a ledger something may stand before its foot.
    if (field.closest('.ledger') || top < 0 || bottom > window.innerHeight) field.scrollIntoView?.({ block: 'start' });
  }, []);
  return pad;
}

/** A finger that has gone further than this meanwhile was no press, px. */
const STILL_PX = 24;
/** A browser's click comes no later than this after the finger was lifted, ms. */
const CLICK_MS = 700;

/**
 * A key that counts when the finger is lifted, whatever moved under it meanwhile: the click that follows goes to what
 * is there by then, another key or none. A click alone is the keyboard's.
 */
function PadKey({
  name,
  disabled,
  liftedRef,
  onPress,
  children,
}: {
  name: string;
  disabled: boolean;
  /** When a key of this pad was last pressed, ms: the click that follows may be another key's. */
  liftedRef: RefObject<number>;
  onPress: () => void;
  children: ReactNode;
}) {
  const down = useRef<{ x: number; y: number } | null>(null);
  return (
    <PlainButton
      aria-label={name}
      disabled={disabled}
      onPointerDown={({ button, clientX, clientY }) =>
        (down.current = button === 0 ? { x: clientX, y: clientY } : null)
      }
      onPointerCancel={() => (down.current = null)}
      onPointerUp={({ clientX, clientY, timeStamp }) => {
        const from = down.current;
        down.current = null;
        if (!from || Math.hypot(clientX - from.x, clientY - from.y) > STILL_PX) return;
        liftedRef.current = timeStamp;
        onPress();
      }}
      onClick={({ timeStamp }) => {
        if (timeStamp - liftedRef.current > CLICK_MS) onPress();
        liftedRef.current = -Infinity;
      }}
    >
      {children}
    </PlainButton>
  );
}

function textOf(digits: string, sixteenths: number, unit: LengthUnit): string {
  if (unit === 'mm') return digits === '' ? '' : `${digits} mm`;
  const fraction = sixteenths > 0 ? `${sixteenths}/16` : '';
  if (digits === '' && fraction === '') return '';
  return `${[digits, fraction].filter(Boolean).join(' ')}"`;
}

const WIDTH = 320;
const HEIGHT = 60;
const EDGE = 14;
const at = (sixteenth: number) => EDGE + (sixteenth / 16) * (WIDTH - 2 * EDGE);

/** One inch of tape, wide enough for a thumb: touch or slide to the mark. */
function SixteenthStrip({ value, onChange }: { value: number; onChange: (value: number) => void }) {
  const choose = (event: PointerEvent<SVGSVGElement>) => {
    if (event.type === 'pointermove' && event.buttons === 0) return;
    const box = event.currentTarget.getBoundingClientRect();
    const share = ((event.clientX - box.left) / box.width) * WIDTH;
    onChange(Math.min(15, Math.max(0, Math.round(((share - EDGE) / (WIDTH - 2 * EDGE)) * 16))));
  };
  const onKey = (event: KeyboardEvent) => {
    const step = { ArrowRight: 1, ArrowUp: 1, ArrowLeft: -1, ArrowDown: -1 }[event.key];
    if (step === undefined) return;
    event.preventDefault();
    onChange(Math.min(15, Math.max(0, value + step)));
  };
  return (
    <svg
      className="sixteenths"
      viewBox={`0 0 ${WIDTH} ${HEIGHT}`}
      role="slider"
      tabIndex={0}
      aria-label="Sixteenths of an inch"
      aria-valuemin={0}
      aria-valuemax={15}
      aria-valuenow={value}
      aria-valuetext={`${value}/16`}
      onPointerDown={choose}
      onPointerMove={choose}
      onKeyDown={onKey}
    >
      {Array.from({ length: 17 }, (_, k) => (
        <line key={k} x1={at(k)} x2={at(k)} y1={0} y2={tickLength(k)} />
      ))}
      {[4, 8, 12].map((k) => (
        <text key={k} x={at(k)} y={46} textAnchor="middle">
          {{ 4: '1/4', 8: '1/2', 12: '3/4' }[k]}
        </text>
      ))}
      <path className="sixteenths-mark" d={`M${at(value)} 30l-8 14h16Z`} />
      <text className="sixteenths-value" x={Math.min(WIDTH - 30, Math.max(22, at(value)))} y={58} textAnchor="middle">
        {value}/16
      </text>
    </svg>
  );
}

/** An inch's own marks are the longest, and halves, quarters and eighths shorter by turns. */
const tickLength = (sixteenths: number) =>
  11 + 6 * [2, 4, 8, 16].filter((part) => sixteenths % part === 0).length - Number(sixteenths % 2 === 0);
