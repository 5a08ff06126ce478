import { Button } from 'antd';
import { useMemo, useState } from 'react';
import { useSavedDrive } from '../api/shop';
import { same } from '@emery/core/drive';
import { live } from '../live/messages';
import { useStore } from '../state/store';
import { useCoreSum } from '../state/use-core-sum';
import type { JobInHand } from './use-job';
import type { JobOpened } from '@emery/core/api';
import { PHASE_WORDS, type PlanChange, planChanges } from '@emery/core/job';

/** How often the drive is looked at for a plan that has changed, ms. */
const LOOK_MS = 20_000;
const CHANGE_WORDS: Record<PlanChange['change'], { mark: string; name: string }> = {
  add: { mark: '+', name: 'new step' },
  remove: { mark: '−', name: 'no longer needed' },
  reword: { mark: '~', name: 'now says' },
};
const keyOf = ({ change, step }: PlanChange) => `${change} ${step.id} ${step.text} ${step.caution ?? ''}`;

/** What has changed in the drive's plan since the job began, offered step by step; what is ticked stays as it is. */
export function PlanOffers({ job, hand }: { job: JobOpened; hand: JobInHand }) {
  const { driveId, sheet } = job;
  // Told live, there is nothing to look for.
  const saved = useSavedDrive(driveId, useStore(live) ? undefined : LOOK_MS).data?.document;
  const asked = useMemo(
    () => (saved && !same(saved, sheet.drive) ? { drive: saved, belt: sheet.belt, unit: sheet.unit } : null),
    [saved, sheet.drive, sheet.belt, sheet.unit],
  );
  const fresh = useCoreSum('jobCard', asked, 0).found?.output;
  const [left, setLeft] = useState<ReadonlySet<string>>(new Set());
  const offers = fresh
    ? planChanges(sheet.steps, fresh.steps, hand.run.done).filter((change) => !left.has(keyOf(change)))
    : [];
  if (offers.length === 0) return null;
  const take = (offer: PlanChange) => hand.happens({ kind: 'plan', ...offer });
  return (
    <section className="sheet job-offers" aria-label="The plan has changed">
      <h2>The plan has changed since this job started</h2>
      <p className="quiet">Accept the changes for the open steps. Ticked steps stay.</p>
      <ul className="at-hand">
        {offers.map((offer) => (
          <li key={keyOf(offer)}>
            <span>
              <strong>
                {CHANGE_WORDS[offer.change].mark} {PHASE_WORDS[offer.step.phase]}, {CHANGE_WORDS[offer.change].name}:
              </strong>{' '}
              {offer.step.text}
              {offer.step.caution && offer.change !== 'remove' && (
                <span className="job-caution"> ▲ {offer.step.caution}</span>
              )}
            </span>
            <Button type="primary" onClick={() => take(offer)}>
              Accept
            </Button>
            <Button onClick={() => setLeft(new Set([...left, keyOf(offer)]))}>Keep as is</Button>
          </li>
        ))}
      </ul>
      {offers.length > 1 && <Button onClick={() => offers.forEach(take)}>Accept all {offers.length}</Button>}
    </section>
  );
}
