import { DeleteOutlined } from '@ant-design/icons';
import { Button } from 'antd';
import { useState } from 'react';
import { useChangeShop, useShop } from '../api/shop';
import { Choice } from '../ui/Choice';
import { Dialog } from '../ui/Dialog';
import { FigureField } from '../ui/FigureField';
import {
  CHECKS,
  type Check,
  checkRules,
  INSPECT_CHECK_NAMES,
  MOST_SHOP_LIMITS,
  PULLEY_KINDS,
  type ShopLimit,
} from '@emery/core/drive';
import {
  CHECK_WORDS,
  checkFigure,
  LIMITED,
  type LimitedCheck,
  lowIsWorn,
  PULLEY_KIND_WORDS,
  UNIT_WORDS,
  unitOf,
  withShopLimit,
} from '@emery/core/inspect';
import { SECTIONS } from '@emery/core/section';

const ANY = 'any';
const underWords = (check: Check) => (lowIsWorn(check as LimitedCheck) ? 'at or under' : 'from');

/** Which belts or pulleys a limit is for, in words. */
function scopeWords({ section, material, kind }: ShopLimit): string {
  const parts = [
    section,
    material && CHECK_WORDS.material.outcomes![material],
    kind && PULLEY_KIND_WORDS[kind].name.toLowerCase(),
  ].filter(Boolean);
  return parts.length === 0 ? 'every drive' : parts.join(', ');
}

/** What the shop holds for every drive: before Emery's defaults, and behind what a drive says of itself. */
export default function ShopLimits({ onClose }: { onClose: () => void }) {
  const shop = useShop();
  const change = useChangeShop();
  const limits = shop.data?.limits ?? [];
  const put = (next: readonly ShopLimit[], onSuccess?: () => void) =>
    change.mutate(
      { limits: next.length > 0 ? next : null, limitsWere: shop.data?.limits ?? null },
      { onSuccess: () => onSuccess?.() },
    );
  return (
    <Dialog title="Limits of the shop" onClose={onClose}>
      <p>
        These replace Emery&rsquo;s defaults. A drive&rsquo;s own limits and its manual take precedence. Each verdict
        shows which limit it used. Due dates of all drives are updated within a few minutes.
      </p>
      {change.error && (
        <p className="field-echo is-wrong" role="alert">
          Not saved: {change.error.message}
        </p>
      )}
      {limits.length === 0 && <p className="quiet">None yet: Emery&rsquo;s defaults apply.</p>}
      <ul className="deleted" aria-label="Limits of the shop">
        {limits.map((limit, k) => (
          <li key={`${limit.check} ${scopeWords(limit)}`}>
            <span>
              <strong>{INSPECT_CHECK_NAMES[limit.check]}</strong>, {scopeWords(limit)}: worn out{' '}
              {underWords(limit.check)} {checkFigure(limit.check, limit.replace)}
              {limit.watch !== undefined &&
                `, watch ${underWords(limit.check)} ${checkFigure(limit.check, limit.watch)}`}
              {limit.new !== undefined && `, new ${checkFigure(limit.check, limit.new)}`}
            </span>
            <Button
              icon={<DeleteOutlined />}
              aria-label={`Remove the limit of ${INSPECT_CHECK_NAMES[limit.check]}, ${scopeWords(limit)}`}
              onClick={() => put(limits.filter((_, other) => other !== k))}
            />
          </li>
        ))}
      </ul>
      {limits.length < MOST_SHOP_LIMITS && <NewLimit limits={limits} onPut={put} />}
    </Dialog>
  );
}

/** A new limit: of which check, for which belts or pulleys, and its figures. One of the same name is replaced. */
function NewLimit({
  limits,
  onPut,
}: {
  limits: readonly ShopLimit[];
  onPut: (next: readonly ShopLimit[], onSuccess: () => void) => void;
}) {
  const [check, setCheck] = useState<LimitedCheck>('rib-depth');
  const [section, setSection] = useState<string>(ANY);
  const [material, setMaterial] = useState<string>(ANY);
  const [kind, setKind] = useState<string>(ANY);
  const [figures, setFigures] = useState<Pick<Partial<ShopLimit>, 'replace' | 'watch' | 'new'>>({});
  const ofBelt = checkRules(check).on === 'belt';
  const unit = UNIT_WORDS[unitOf(check)!];
  const { replace } = figures;
  const add = () => {
    if (replace === undefined) return;
    const limit: ShopLimit = {
      check,
      ...(ofBelt && section !== ANY && { section }),
      ...(ofBelt && material !== ANY && { material }),
      ...(!ofBelt && kind !== ANY && { kind: kind as NonNullable<ShopLimit['kind']> }),
      ...figures,
      replace,
    };
    // What was not kept stays as it was typed.
    onPut(withShopLimit(limits, limit), () => setFigures({}));
  };
  const figure = (key: 'replace' | 'watch' | 'new', label: string) => (
    <FigureField
      key={`${check} ${key}`}
      label={label}
      unit={unit}
      value={figures[key] ?? null}
      min={0}
      max={1000}
      onCommit={(value) => setFigures((now) => ({ ...now, [key]: value }))}
      onClear={() => setFigures(({ [key]: _, ...rest }) => rest)}
    />
  );
  return (
    <section aria-label="Add a limit" className="shop-limit-new">
      <h2>Add a limit</h2>
      <div className="fields">
        <Choice<LimitedCheck>
          label="Check"
          value={check}
          options={LIMITED.map((value) => ({ value, label: INSPECT_CHECK_NAMES[value] }))}
          onChange={(next) => {
            setCheck(next);
            setFigures({});
          }}
        />
        {ofBelt ? (
          <>
            <Choice
              label="Section"
              value={section}
              options={[ANY, ...SECTIONS.map(({ name }) => name)].map((value) => ({
                value,
                label: value === ANY ? 'Any section' : value,
              }))}
              onChange={setSection}
            />
            <Choice
              label="Material"
              value={material}
              options={[ANY, ...CHECKS.material.outcomes].map((value) => ({
                value,
                label: value === ANY ? 'Any material' : CHECK_WORDS.material.outcomes![value]!,
              }))}
              onChange={setMaterial}
            />
          </>
        ) : (
          <Choice
            label="Kind of pulley"
            value={kind}
            options={[ANY, ...PULLEY_KINDS].map((value) => ({
              value,
              label: value === ANY ? 'Any kind' : PULLEY_KIND_WORDS[value as keyof typeof PULLEY_KIND_WORDS].name,
            }))}
            onChange={setKind}
          />
        )}
        {figure('replace', `Worn out ${underWords(check)}`)}
        {figure('watch', `Watch ${underWords(check)}`)}
        {check === 'rib-depth' && figure('new', 'When new')}
      </div>
      <div className="button-row is-after">
        <Button type="primary" disabled={replace === undefined} onClick={add}>
          Save for every drive
        </Button>
        {replace === undefined && <span className="quiet">Worn out: enter the figure.</span>}
      </div>
    </section>
  );
}
