import { useUnit } from '../habits/habits';
import { Button, Spin } from 'antd';
import {
  memo,
  type MouseEvent,
  type PointerEvent,
  type ReactNode,
  useCallback,
  useEffect,
  useRef,
  useState,
} from 'react';
import { Link, useParams } from 'react-router';
import { IN } from '../access/words';
import { useMe } from '../api/access';
import type { ApiProblem } from '../api/client';
import { useDrive } from '../api/shop';
import { lazyPart } from '../parts/lazy-part';
import { PartBoundary } from '../parts/PartBoundary';
import { STAGES, stageOf } from '../stages';
import { NextLine } from '../stages/NextLine';
import type { Stage } from '../stages/stage';
import { BenchContext, createBench, useBench, useBenchStores } from '../state/bench';
import { openDriveOf, type OpenDrive } from '../state/open-drives';
import { useStore } from '../state/store';
import { useOpenDrive } from '../state/use-open-drive';
import '../ui/ledger.css';
import { isNarrow } from '../ui/use-narrow';
import { keepAt, keptAt, TypedPlace } from '../ui/typed-text';
import { FrontView } from '../views/front/FrontView';
import { BenchHeader } from './BenchHeader';
import { DriveNotices } from './DriveNotices';
import { FullNotice } from './FullNotice';
import { KeysHelp } from './KeysHelp';
import { StageRail } from './StageRail';
import { strip } from '../state/strip';
import { StripTools } from './StripTools';
import { useBenchKeys } from './use-bench-keys';
import { ChangedLine } from '../together/ChangedLine';
import { useHere } from '../together/use-here';
import { useGoToStage } from './use-go-to-stage';
import { useMarkOfAddress } from './use-mark-of-address';
import './bench.css';
import './bench-print.css';
import type { Drive } from '@emery/core/drive';

const WhatIfPanel = lazyPart('The what-if', () => import('./WhatIfPanel'));

/** One drive on the bench: reads it, unless this page has something of it that is unsent, then hands over. */
export default function BenchPage() {
  const { driveId = '' } = useParams();
  return <OpenBench key={driveId} id={driveId} />;
}

function OpenBench({ id }: { id: string }) {
  const [unsent] = useState(() => openDriveOf(id) !== null);
  const { data, error, refetch } = useDrive(id, !unsent);
  const open = useOpenDrive(id, data);
  if (open) return <DriveBench open={open} />;
  if (!error) return <Spin className="page-spin" description="Opening the drive" />;
  const gone = (error as ApiProblem).status === 404;
  return (
    <section className="bench-none" role="alert">
      <h1>{gone ? 'This drive is not in the shop' : 'The drive could not be read'}</h1>
      <p>{error.message}</p>
      <p className="button-row">
        <Link to="/">Back to the shop</Link>
        {!gone && <Button onClick={() => void refetch()}>Try again</Button>}
      </p>
    </section>
  );
}

/** Makes the bench of an open drive, and keeps a what-if that is under way when the page is left. */
function DriveBench({ open }: { open: OpenDrive }) {
  const place = `drive ${open.opened.id}`;
  const unit = useUnit();
  const [bench] = useState(() => createBench(open.store, unit, keptAt(`${place}/what-if`) as Drive | undefined));
  useEffect(() => bench.connect(), [bench]);
  useEffect(() => bench.get().setUnit(unit), [bench, unit]);
  useMarkOfAddress(bench);
  useEffect(() => {
    const keep = () => keepAt(`${place}/what-if`, bench.whatIf()?.get().present);
    window.addEventListener('pagehide', keep);
    return () => {
      window.removeEventListener('pagehide', keep);
      keep();
    };
  }, [place, bench]);
  return (
    <BenchContext value={bench}>
      <TypedPlace at={place}>
        <BenchFrame open={open} />
      </TypedPlace>
    </BenchContext>
  );
}

function BenchFrame({ open }: { open: OpenDrive }) {
  const bench = useBenchStores();
  const { stage: asked } = useParams();
  const [routed] = useState(() => bench.get().drive.belts.some(({ route }) => route.length > 1));
  const stage = stageOf(asked, routed);
  const goTo = useGoToStage();
  const [keysOpen, setKeysOpen] = useState(false);
  const showKeys = useCallback(() => setKeysOpen(true), []);
  useHere(open.opened.id, stage.id, goTo);
  useBenchKeys({ stage, goTo, showKeys });
  return (
    <>
      <div className="bench">
        <BenchHeader open={open} showKeys={showKeys} />
        <StageRail stage={stage} goTo={goTo} />
        <DriveNotices open={open} />
        <PreviewNotice />
        <ReadsOnly />
        <StageProviders stage={stage}>
          <BenchParts stage={stage} open={open} />
        </StageProviders>
      </div>
      <FullNotice />
      <ChangedLine drive={open.opened.id} />
      {keysOpen && <KeysHelp onClose={() => setKeysOpen(false)} />}
    </>
  );
}

/** What each stage keeps for its parts; it stays when another stage is in hand. */
function StageProviders({ stage, children }: { stage: Stage; children: ReactNode }) {
  return STAGES.reduceRight(
    (inside, { id, Provider }) => (Provider ? <Provider wanted={id === stage.id}>{inside}</Provider> : inside),
    children,
  );
}

/** The drawing, or what the stage in hand shows in its place. All stand around it all the time, so that it stays. */
function Fronts({ stage, children }: { stage: Stage; children: ReactNode }) {
  return STAGES.reduceRight(
    (inside, { id, Front }) => (Front ? <Front wanted={id === stage.id}>{inside}</Front> : inside),
    children,
  );
}

/**
 * A touch on what enters a reading leaves the focus in its field: else the pad under the field goes with the focus, and
 * the button moves away from under the thumb before it is lifted.
 */
function keepsFocus(event: PointerEvent<HTMLElement>): void {
  if (isNarrow() && (event.target as Element).closest('.reading-form > .button-row:last-child')) event.preventDefault();
}

/** On a phone, a view that is chosen comes to the top: its question, field and button stand below it in sight. */
function toItsQuestion({ target, currentTarget }: MouseEvent<HTMLElement>): void {
  const views = (target as Element).closest('.ant-segmented');
  if (!isNarrow() || views?.parentElement !== currentTarget || views.getAttribute('aria-label') !== 'View') return;
  requestAnimationFrame(() => views.scrollIntoView({ block: 'start' }));
}

const BenchParts = memo(function BenchParts({ stage, open }: { stage: Stage; open: OpenDrive }) {
  const { Chart, Ledger } = stage;
  const shown = useStore(strip);
  const ledger = useRef<HTMLElement>(null);
  // Another stage begins at its own question, wherever the last one was left.
  useEffect(() => void ledger.current?.scrollTo?.(0, 0), [stage]);
  return (
    <main className={`bench-parts is-${stage.id} is-strip-${shown}`}>
      <Fronts stage={stage}>
        <PartBoundary name="The drawing">
          <FrontView stage={stage} />
        </PartBoundary>
      </Fronts>
      <PartBoundary name="The chart" key={`chart ${stage.id}`}>
        <Chart />
      </PartBoundary>
      <StripTools />
      <aside
        className="ledger sheet"
        aria-label="Ledger"
        ref={ledger}
        onClick={toItsQuestion}
        onPointerDown={keepsFocus}
      >
        <WhatIfBesideDrive stage={stage} open={open} />
        <NextLine stage={stage.id} />
        <PartBoundary name="The ledger" key={stage.id}>
          <Ledger />
        </PartBoundary>
      </aside>
    </main>
  );
});

/** Who may not save is told before anything is drawn. */
function ReadsOnly() {
  if (useMe()?.role !== 'counter') return null;
  return (
    <p className="bench-what-if" role="status">
      {IN.readsOnly}
    </p>
  );
}

function PreviewNotice() {
  const { preview, setPreview } = useBench('preview', 'setPreview');
  if (!preview) return null;
  return (
    <p className="bench-what-if" role="status">
      This is a what-if. Nothing changes until you keep it.{' '}
      <Button onClick={() => setPreview(null)}>Back to the drive as it is</Button>
    </p>
  );
}

function WhatIfBesideDrive({ stage, open: { store } }: { stage: Stage; open: OpenDrive }) {
  const { startWhatIf } = useBench('startWhatIf');
  return startWhatIf === null ? <WhatIfNow stage={stage} store={store} /> : null;
}

function WhatIfNow({ stage, store }: { stage: Stage; store: OpenDrive['store'] }) {
  const { history, unit, keepWhatIf, throwAwayWhatIf } = useBench('history', 'unit', 'keepWhatIf', 'throwAwayWhatIf');
  const stored = useStore(store);
  return (
    <WhatIfPanel
      before={stored.present}
      after={history.present}
      unit={unit}
      Lines={stage.WhatIf}
      onKeep={keepWhatIf}
      onThrowAway={throwAwayWhatIf}
    />
  );
}
