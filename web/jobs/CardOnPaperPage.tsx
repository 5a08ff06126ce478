import { useUnit } from '../habits/habits';
import { Spin } from 'antd';
import { useMemo } from 'react';
import { useParams, useSearchParams } from 'react-router';
import { useSavedDrive, useShop } from '../api/shop';
import { useCoreSum } from '../state/use-core-sum';
import { Paper } from './Paper';
import { useEstimate } from './use-estimate';
import { useStockFor } from './use-stock-for';
import type { Belt } from '@emery/core/drive';
import { estimateLines } from '@emery/core/job';

const NO_BELTS: readonly Belt[] = [];

/** The card of a drive on paper, before any job is begun. */
export default function CardOnPaperPage() {
  const { driveId = '' } = useParams();
  const [search] = useSearchParams();
  const { data, error } = useSavedDrive(driveId);
  const shop = useShop();
  const unit = useUnit();
  const belt = search.get('belt');
  const asked = useMemo(
    () => (data && shop.data ? { drive: data.document, belt, unit } : null),
    [data, shop.data, belt, unit],
  );
  const card = useCoreSum('jobCard', asked, 0);
  const stock = useStockFor(data?.document.belts ?? NO_BELTS);
  const brings = useMemo(() => (asked && stock ? { ...asked, stock } : null), [asked, stock]);
  const bring = useCoreSum('jobBring', brings, 0);
  const estimate = useEstimate(card.found?.output.steps ?? null, bring.found?.output ?? null);
  const stopped = card.stopped ?? bring.stopped;
  if (error ?? stopped)
    return <p className="shop-none">{error?.message ?? `The card was not written: ${stopped!.why}`}</p>;
  if (!data || !asked || !card.found || !bring.found) return <Spin className="page-spin" />;
  const { order, steps } = card.found.output;
  return (
    <Paper
      back={`/drives/${driveId}/job`}
      printed={{
        vehicle: data.vehicleName,
        drive: data.name,
        shop: shop.data?.name ?? '',
        facts: ['Date ____________', 'Odometer ____________', 'By ____________'],
        sheet: {
          drive: data.document,
          unit: asked.unit,
          belt,
          off: order.off,
          on: order.on,
          steps,
          bring: bring.found.output,
        },
        estimate: estimate ? estimateLines(estimate) : [],
        done: new Map(),
      }}
    />
  );
}
