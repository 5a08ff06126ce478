import { edit, useBench } from '../../state/bench';
import { Choice } from '../../ui/Choice';
import { FigureField } from '../../ui/FigureField';
import { TypedPlace } from '../../ui/typed-text';
import { useChangeShop, useShop } from '../../api/shop';
import { type Check, checkRules, INSPECT_CHECK_NAMES, type InspectLimit, type ShopLimit } from '@emery/core/drive';
import {
  changeInspect,
  checksOf,
  LIMITED,
  type LimitedCheck,
  type Limits,
  limitsOf,
  partsOf,
  putLimit,
  UNIT_WORDS,
  unitOf,
  withShopLimit,
} from '@emery/core/inspect';

type Whose = Limits['from'];
const WHOSE: readonly { value: Whose; label: string }[] = [
  { value: 'default', label: 'Emery’s default' },
  { value: 'shop-wide', label: 'The shop’s limit, for every drive' },
  { value: 'shop', label: 'This drive’s own' },
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
        Defaults are Emery&rsquo;s own, not a specification. The shop&rsquo;s limits take precedence over them, limits
        entered here over those, and the service manual over all.
      </p>
      {LIMITED.filter((check) => asked.has(check)).map((check) => (
        <TypedPlace key={check} at={check}>
          <LimitFields check={check} beltId={belt?.id} />
        </TypedPlace>
      ))}
      <h2>Expected belt life</h2>
      <div className="fields">
        <FigureField
          label={life ? 'Expected life' : 'Expected life (a default by material)'}
          unit={unit}
          value={life?.distance ?? null}
          min={1}
          max={1e7}
          onCommit={(distance) =>
            dispatch(edit((d) => changeInspect(d, { life: { distance, from: life?.from ?? 'shop' } })))
          }
          onClear={() => dispatch(edit((d) => changeInspect(d, { life: undefined })))}
        />
        {life && (
          <Choice<'shop' | 'manual'>
            label="Source"
            value={life.from}
            options={[
              { value: 'shop', label: 'This drive’s own' },
              { value: 'manual', label: 'The manual’s' },
            ]}
            onChange={(from) => dispatch(edit((d) => changeInspect(d, { life: { ...life, from } })))}
          />
        )}
      </div>
    </section>
  );
}

function LimitFields({ check, beltId }: { check: LimitedCheck; beltId: string | undefined }) {
  const { drive, dispatch } = useBench('drive', 'dispatch');
  const belt = drive.belts.find(({ id }) => id === beltId) ?? drive.belts[0];
  const held = useShop().data?.limits ?? null;
  const change = useChangeShop();
  const ofBelt = checkRules(check).on === 'belt';
  const limits = limitsOf(drive, check, ofBelt ? { belt } : {});
  if (!limits) return null;
  const { from, replace, watch, lowIsWorn } = limits;
  const own = drive.inspect?.limits?.find((limit) => limit.check === check);
  const put = (change: Partial<Omit<InspectLimit, 'check'>>) =>
    dispatch(
      edit((d) =>
        putLimit(d, check, {
          from: from === 'manual' ? from : 'shop',
          replace: replace ?? watch,
          ...(own?.watch !== undefined && { watch: own.watch }),
          ...(own?.new !== undefined && { new: own.new }),
          ...change,
        }),
      ),
    );
  const unit = UNIT_WORDS[unitOf(check)!];
  const scope = ofBelt && belt ? { section: belt.section } : {};
  /** What this drive goes by, for every drive of the shop: kept in its settings, and here as they hold it. */
  const holdForAll = () => {
    const { watch: ownWatch, new: ownNew } = own ?? {};
    const limit: ShopLimit = {
      check,
      ...scope,
      replace: replace ?? watch,
      ...(ownWatch !== undefined && { watch: ownWatch }),
      ...(ownNew !== undefined && { new: ownNew }),
    };
    // Among those that the settings hold now, which may be others than when this drive was opened.
    const shop = withShopLimit(held ?? [], limit);
    change.mutate(
      { limits: shop, limitsWere: held },
      { onSuccess: () => dispatch(edit((d) => changeInspect(putLimit(d, check, null), { shop }))) },
    );
  };
  return (
    <div className="limit" role="group" aria-label={INSPECT_CHECK_NAMES[check]}>
      <h2>{INSPECT_CHECK_NAMES[check]}</h2>
      {change.error && (
        <p className="field-echo is-wrong" role="alert">
          Not saved for every drive: {change.error.message}
        </p>
      )}
      <div className="fields">
        <FigureField
          label={lowIsWorn ? 'Worn out at or under' : 'Worn out from'}
          unit={unit}
          value={replace}
          min={0}
          max={1000}
          onCommit={(value) => put({ replace: value })}
        />
        <FigureField
          label={lowIsWorn ? 'Watch at or under' : 'Watch from'}
          unit={unit}
          value={watch}
          min={0}
          max={1000}
          onCommit={(value) => put({ watch: value })}
        />
        {check === 'rib-depth' && limits.fresh !== null && (
          <FigureField
            label={own?.new === undefined ? 'When new (a default by section)' : 'When new'}
            unit={unit}
            value={limits.fresh}
            min={0}
            max={1000}
            onCommit={(value) => put({ new: value })}
          />
        )}
        <Choice<Whose>
          label="Source"
          value={from}
          options={from === 'shop-wide' ? WHOSE.filter(({ value }) => value !== 'default') : WHOSE}
          onChange={(next) => {
            if (next === 'default') dispatch(edit((d) => putLimit(d, check, null)));
            else if (next === 'shop-wide') holdForAll();
            else put({ from: next });
          }}
        />
      </div>
    </div>
  );
}
