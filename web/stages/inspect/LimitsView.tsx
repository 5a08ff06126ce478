import { edit, useBench } from '../../state/bench';
import { Choice } from '../../ui/Choice';
import { FigureField } from '../../ui/FigureField';
import { TypedPlace } from '../../ui/typed-text';
import { type Check, INSPECT_CHECK_NAMES, type InspectLimit } from '@emery/core/drive';
import {
  changeInspect,
  checksOf,
  LIMITED,
  type LimitedCheck,
  type Limits,
  limitsOf,
  partsOf,
  putLimit,
  unitOf,
} from '@emery/core/inspect';

type Whose = Limits['from'];
const WHOSE: readonly { value: Whose; label: string }[] = [
  { value: 'default', label: 'Emery’s default' },
  { value: 'shop', label: 'The shop’s own' },
  { value: 'manual', label: 'The manual’s' },
];

/** What each figure is held against, and whose that is. */
export default function LimitsView() {
  const { drive, belt, dispatch } = useBench('drive', 'belt', 'dispatch');
  const asked = new Set(partsOf(drive).flatMap((part): readonly Check[] => checksOf(drive, part).checks));
  const life = drive.inspect?.life;
  const unit = drive.inspect?.odometerUnit ?? 'km';
  return (
    <section className="limits" aria-label="Limits">
      <p>
        Defaults are Emery&rsquo;s own, and no vehicle&rsquo;s specification. What the service manual says goes before
        them: enter it here.
      </p>
      {LIMITED.filter((check) => asked.has(check)).map((check) => (
        <TypedPlace key={check} at={check}>
          <LimitFields check={check} beltId={belt?.id} />
        </TypedPlace>
      ))}
      <h2>Life of a belt</h2>
      <div className="fields">
        <FigureField
          label={life ? 'It lasts' : 'It lasts (a default by material)'}
          unit={unit}
          value={life?.distance ?? null}
          least={1}
          most={1e7}
          onCommit={(distance) =>
            dispatch(edit((d) => changeInspect(d, { life: { distance, from: life?.from ?? 'shop' } })))
          }
          onClear={() => dispatch(edit((d) => changeInspect(d, { life: undefined })))}
        />
        {life && (
          <Choice<'shop' | 'manual'>
            label="Whose"
            value={life.from}
            options={[
              { value: 'shop', label: 'The shop’s own' },
              { value: 'manual', label: 'The manual’s' },
            ]}
            onChange={(from) => dispatch(edit((d) => changeInspect(d, { life: { ...life, from } })))}
          />
        )}
      </div>
    </section>
  );
}

const UNITS = { mm: 'mm', degrees: '°', cracks: 'per rib', percent: '%' };

function LimitFields({ check, beltId }: { check: LimitedCheck; beltId: string | undefined }) {
  const { drive, dispatch } = useBench('drive', 'dispatch');
  const belt = drive.belts.find(({ id }) => id === beltId) ?? drive.belts[0];
  const limits = limitsOf(drive, check, belt);
  if (!limits) return null;
  const { from, replace, watch, lowIsWorn } = limits;
  const own = drive.inspect?.limits?.find((one) => one.check === check);
  const put = (change: Partial<Omit<InspectLimit, 'check'>>) =>
    dispatch(
      edit((d) =>
        putLimit(d, check, {
          from: from === 'default' ? 'shop' : from,
          replace: replace ?? watch,
          ...(own?.watch !== undefined && { watch: own.watch }),
          ...change,
        }),
      ),
    );
  const unit = UNITS[unitOf(check)!];
  return (
    <div className="limit" role="group" aria-label={INSPECT_CHECK_NAMES[check]}>
      <h2>{INSPECT_CHECK_NAMES[check]}</h2>
      <div className="fields">
        <FigureField
          label={lowIsWorn ? 'Done at or under' : 'Done from'}
          unit={unit}
          value={replace}
          least={0}
          most={1000}
          onCommit={(value) => put({ replace: value })}
        />
        <FigureField
          label={lowIsWorn ? 'Watched at or under' : 'Watched from'}
          unit={unit}
          value={watch}
          least={0}
          most={1000}
          onCommit={(value) => put({ watch: value })}
        />
        <Choice<Whose>
          label="Whose"
          value={from}
          options={WHOSE}
          onChange={(next) =>
            next === 'default' ? dispatch(edit((d) => putLimit(d, check, null))) : put({ from: next })
          }
        />
      </div>
    </div>
  );
}
