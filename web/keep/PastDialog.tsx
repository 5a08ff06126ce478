import { Button, Spin } from 'antd';
import { group } from 'd3-array';
import { useState } from 'react';
import { usePast, usePastVersion } from '../api/keep';
import { TwoVersions } from '../bench/TwoVersions';
import { edit, useBench } from '../state/bench';
import { DAY, timeOfDay } from '../ui/day-and-time';
import { Dialog } from '../ui/Dialog';
import { PAST } from './words';
import './keep.css';
import type { PastListed } from '@emery/core/api';
import type { Drive } from '@emery/core/drive';

interface Props {
  id: string;
  onClose: () => void;
}

/** A drive as it was: by day, with who saved it, what differs from now, and the way back. */
export default function PastDialog({ id, onClose }: Props) {
  const { drive, unit, dispatch, startWhatIf } = useBench('drive', 'unit', 'dispatch', 'startWhatIf');
  const [chosen, setChosen] = useState<number | null>(null);
  const version = usePastVersion(id, chosen);
  const bringBack = (document: Drive) => {
    dispatch(edit(() => document));
    onClose();
  };
  return (
    <Dialog title={PAST.title} onClose={onClose} width={980}>
      <p className="quiet">{PAST.lead}</p>
      <div className="past">
        <Versions id={id} chosen={chosen} onChoose={setChosen} />
        <div aria-live="polite">
          {chosen === null && <p>{PAST.choose}</p>}
          {version.isFetching && <Spin />}
          {version.error && (
            <p className="finding is-fault" role="alert">
              {version.error.message}
            </p>
          )}
          {version.data && (
            <TwoVersions
              title={PAST.then(version.data.at)}
              lead={PAST.backHint}
              mine={{ title: PAST.then(version.data.at), drive: version.data.document }}
              theirs={{ title: PAST.now, drive }}
              names={PAST.names}
              unit={unit}
              role="group"
            >
              <Button
                type="primary"
                size="large"
                // In a what-if there is nothing to bring it back to.
                disabled={startWhatIf === null}
                onClick={() => bringBack(version.data.document)}
              >
                {PAST.back}
              </Button>
            </TwoVersions>
          )}
        </div>
      </div>
    </Dialog>
  );
}

interface VersionsProps {
  id: string;
  chosen: number | null;
  onChoose: (revision: number) => void;
}

function Versions({ id, chosen, onChoose }: VersionsProps) {
  const [pages, setPages] = useState<(number | null)[]>([null]);
  return (
    <div className="past-list" role="group" aria-label={PAST.open}>
      {pages.map((before, k) => (
        <PageOfVersions
          key={before}
          id={id}
          before={before}
          isFirst={k === 0}
          chosen={chosen}
          onChoose={onChoose}
          onMore={k === pages.length - 1 ? (next) => setPages([...pages, next]) : null}
        />
      ))}
    </div>
  );
}

interface PageProps extends VersionsProps {
  before: number | null;
  isFirst: boolean;
  onMore: ((before: number) => void) | null;
}

function PageOfVersions({ id, before, isFirst, chosen, onChoose, onMore }: PageProps) {
  const { data, error } = usePast(id, before);
  if (error)
    return (
      <p className="finding is-fault" role="alert">
        {error.message}
      </p>
    );
  if (!data) return <Spin />;
  const [newest] = data.versions;
  const last = data.versions.at(-1);
  return (
    <>
      {[...group(data.versions, ({ at }) => DAY.format(new Date(at)))].map(([day, versions]) => (
        <section key={day}>
          <h3>{day}</h3>
          <ul>
            {versions.map((version) => (
              <li key={version.revision}>
                <Button
                  className="past-version"
                  type={version.revision === chosen ? 'primary' : 'default'}
                  aria-pressed={version.revision === chosen}
                  disabled={isFirst && version === newest}
                  onClick={() => onChoose(version.revision)}
                >
                  <VersionLine version={version} isNow={isFirst && version === newest} />
                </Button>
              </li>
            ))}
          </ul>
        </section>
      ))}
      {data.more && last && onMore && (
        <Button type="link" onClick={() => onMore(last.revision)}>
          {PAST.more}
        </Button>
      )}
    </>
  );
}

function VersionLine({ version: { at, by }, isNow }: { version: PastListed; isNow: boolean }) {
  return (
    <>
      <strong>{isNow ? PAST.newest : timeOfDay(new Date(at))}</strong>
      <span>{by === '' ? PAST.byNobody : by}</span>
    </>
  );
}
