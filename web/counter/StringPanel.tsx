import { useEffect } from 'react';
import { useStockedLengths } from '../api/stock';
import { lazyModule, lazyPart } from '../parts/lazy-part';
import { useStore } from '../state/store';
import { Chips } from '../ui/Chips';
import { PlainButton } from '../ui/PlainButton';
import { useOneOf, useText } from './asked';
import { BeltAsk, useBelt } from './belt-asked';
import { Bends, useBends } from './Bends';
import { KeepAsDrive } from './KeepAsDrive';
import { LengthAsk, PickAsk, useLength } from './fields';
import { StringAnswered } from './StringAnswered';
import {
  HELD,
  HELD_WORDS,
  keptDrive,
  lengthsToAsk,
  STATE_OF_HELD,
  stringFindings,
  stringLength,
} from '@emery/core/counter';
import { type Lay, LAY_WORDS, LAYS, type Measurement, type Tool, TOOL_WORDS, TOOLS } from '@emery/core/drive';
import { formatMm } from '@emery/core/quantity';
import { liesEitherWay, TOOL_DEFAULTS } from '@emery/core/size';

const KnownDrive = lazyPart('The drives of the shop', () => import('./KnownDrive'));

/** Only fixed centres ask what a belt may drive, and that weighs as much as all else here. */
const onFixed = lazyModule(() => import('./fixed-lengths'));

const LAID: readonly Tool[] = TOOLS.filter((tool) => tool !== 'marking');
const NOT_SAID = '';
const LAY_CHIPS: { value: Lay | ''; label: string }[] = [
  { value: NOT_SAID, label: 'not checked' },
  ...LAYS.map((lay) => ({ value: lay, label: LAY_WORDS[lay] })),
];

/** From a string, a strap or the old belt to the belt to ask for. */
export default function StringPanel() {
  const belt = useBelt();
  const [tool, setTool] = useOneOf('tool', LAID, 'string');
  const [doubled, setDoubled] = useText('doubled');
  const [lay, setLay] = useOneOf<Lay | ''>('lay', [NOT_SAID, ...LAYS], NOT_SAID);
  const [held, setHeld] = useOneOf('held', HELD, 'running');
  const [driveId, setDriveId] = useText('drive');
  const read = useLength('read', 'Reading');
  const around = useLength('around', "Round one of the gauge's wheels");
  const takesUp = useLength('takes', 'Adjuster range');
  const thick = useLength('thick', 'Thickness', 40);
  const back = useBends('back');
  const smooth = useBends('smooth');
  const defaults = TOOL_DEFAULTS[tool];
  const laid = tool !== 'old-belt' && tool !== 'gauge';
  // A gauge is never read doubled, whatever was said of the string before it.
  const doubles = tool !== 'gauge' && doubled !== '';
  const measurement: Omit<Measurement, 'id'> | null =
    read.value === null || (tool === 'gauge' && around.value === null)
      ? null
      : {
          tool,
          mm: read.value,
          ...(doubles && { doubled: true }),
          ...(liesEitherWay(tool) && lay !== NOT_SAID && { lay }),
          ...(laid && thick.value !== null && { thickness: thick.value }),
          ...(tool === 'gauge' && { circumference: around.value! }),
        };
  const riding = laid && driveId === '' ? [...back.riding, ...smooth.riding] : [];
  const asked = measurement && { section: belt.section, measurement, riding };
  const answer = asked && stringLength(asked);
  const stocked = useStockedLengths(belt.section.name, belt.ribs).data?.lengths ?? [];
  const fixed = held === 'fixed';
  const fixedNote = fixed ? ON_FIXED_CENTRES : undefined;
  const sums = useStore(onFixed);
  useEffect(() => {
    // With the server away it is tried again with all other parts.
    if (fixed) onFixed.fetch().catch(() => undefined);
  }, [fixed]);
  const stock = stocked.map(({ lengthMm }) => lengthMm);
  const lengthsFor = (found: NonNullable<typeof answer>) =>
    held === 'fixed'
      ? (sums?.lengthsOnFixed(belt.section, found, { stock, ribs: belt.ribs }) ?? null)
      : lengthsToAsk(belt.section, found, held, { takesUpMm: takesUp.value, stock, riding });
  const lengths = answer && lengthsFor(answer);
  const keep = () =>
    keptDrive(`${TOOL_WORDS[tool].name} of ${formatMm(read.value!, 0)}`, {
      section: belt.section.name,
      ...(belt.ribs !== null && { ribs: belt.ribs }),
      measurement: {
        ...measurement!,
        ...(STATE_OF_HELD[held] !== 'as-drawn' && { state: STATE_OF_HELD[held] }),
      },
      riding,
    });

  return (
    <>
      <div className="counter-asks">
        <div className="fields">
          <PickAsk
            label="Measured with"
            value={tool}
            options={LAID.map((value) => ({ value, label: TOOL_WORDS[value].name }))}
            onChange={setTool}
          />
          <LengthAsk label={tool === 'gauge' ? 'Between the wheels’ centres' : 'Reading'} ask={read} first />
          {tool === 'gauge' && <LengthAsk label="Round one wheel" ask={around} />}
          {driveId === '' && <BeltAsk belt={belt} />}
          {tool !== 'gauge' && (
            <Chips
              label="How it was measured"
              value={doubled === '' ? 'once' : 'doubled'}
              options={[
                { value: 'once', label: 'straight' },
                { value: 'doubled', label: 'doubled on the bench' },
              ]}
              onChange={(value) => setDoubled(value === 'once' ? '' : 'yes')}
            />
          )}
          {liesEitherWay(tool) && <Chips label="How it lay" value={lay} options={LAY_CHIPS} onChange={setLay} />}
          <Chips
            label="Adjuster position"
            value={held}
            options={HELD.map((value) => ({ value, label: HELD_WORDS[value] }))}
            onChange={setHeld}
          />
        </div>
        {laid && driveId === '' && <Bends on="back" label="Pulleys on the belt's back: wrap on each" bends={back} />}
        <details className="counter-more">
          <summary>More, where it matters</summary>
          <div className="fields">
            {held !== 'fixed' && <LengthAsk label="Adjuster range, as belt length" ask={takesUp} />}
            {laid && <LengthAsk label={`Thickness (default ${formatMm(defaults.thickness)})`} ask={thick} />}
          </div>
          {laid && driveId === '' && <Bends on="smooth" label="Smooth pulleys on its drive side" bends={smooth} />}
        </details>
        {laid && driveId === '' && (
          <PlainButton onClick={() => setDriveId('?')}>This drive is already in the shop</PlainButton>
        )}
      </div>
      {driveId !== '' && <KnownDrive measurement={measurement} held={held} />}
      {driveId === '' && (
        <StringAnswered
          belt={{ section: belt.section, ribs: belt.ribs }}
          answer={answer}
          lengths={lengths}
          findings={answer ? stringFindings(answer) : []}
          note={held === 'running' && takesUp.value === null ? RANGE_UNKNOWN : fixedNote}
          {...(fixed && { does: 'is neither too loose nor too tight' })}
        >
          <KeepAsDrive drive={asked && keep} />
        </StringAnswered>
      )}
    </>
  );
}

const RANGE_UNKNOWN = 'The adjuster range is not known, so this is the nearest length.';
const ON_FIXED_CENTRES =
  'On fixed centres the length alone sets the tension, and the load decides how much is needed. Save it as a drive and add what it drives: the chance rises.';
