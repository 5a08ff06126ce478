import { QuestionOutlined, RedoOutlined, UndoOutlined } from '@ant-design/icons';
import { App as AntApp, Button, Result, Spin, Tooltip } from 'antd';
import { memo, useCallback, useEffect, useMemo, useState } from 'react';
import { Link, useNavigate, useParams } from 'react-router';
import { ask, type ApiProblem } from '../api/client';
import { useDrive, useShop } from '../api/shop';
import { FrontView } from '../front-view/FrontView';
import { lazyPart } from '../parts/lazy-part';
import { PartBoundary } from '../parts/PartBoundary';
import { UnitSwitch } from '../shop/UnitSwitch';
import { RouteLedger } from '../route/RouteLedger';
import { useSurveyFit } from '../survey/use-survey-fit';
import { pictureInHand } from '../survey/picture-in-hand';
import { UnrolledBelt } from '../unrolled/UnrolledBelt';
import {
  BenchContext,
  edit,
  type Bench,
  type Mark,
  type PictureInHand,
  type Stage,
  type Surveying,
} from './bench-context';
import { createDriveStore, type DriveAction, type DriveStore } from './drive-history';
import { ConflictPanel, LeftDraftPanel } from './ConflictPanel';
import { KeysHelp } from './KeysHelp';
import { SaveSign } from './SaveSign';
import { STAGE_MARKS, STAGES, stageState } from './stages';
import { SizingProvider } from '../size/SizingProvider';
import { SpeedsProvider } from '../speed/SpeedsProvider';
import { useBenchKeys } from './use-bench-keys';
import { useHistory, useKept, useLeftDrafts, useOpenDrive, useSaveState } from './use-open-drive';
import { openDriveOf, type OpenDrive } from './open-drives';
import '../ledger/ledger.css';
import { keepAt, keptAt, TypedPlace } from '../ledger/typed-text';
import './bench.css';
import { type Drive, findPulley, stationOf, tapped } from '@emery/core/drive';
import { solveDrive } from '@emery/core/path';

const CHART_TO_COME = <section className="unrolled sheet" aria-busy />;
/** Fetched where they are wanted, or once the bench is drawn: it opens with what the route needs. */
const PictureView = lazyPart(
  'The picture',
  () => import('../survey/PictureView'),
  <section className="front-view sheet" aria-label="Picture" aria-busy />,
);
const WhatIfPanel = lazyPart('The what-if', () => import('./WhatIfPanel'));
const SurveyLedger = lazyPart('Survey', () => import('../survey/SurveyLedger'));
const SizeLedger = lazyPart('Size', () => import('../size/SizeLedger'));
const SizeChart = lazyPart('The chart of Size', () => import('../size/SizeChart'), CHART_TO_COME);
const SpeedLedger = lazyPart('Speeds', () => import('../speed/SpeedLedger'));
const SpeedChart = lazyPart('The chart of Speeds', () => import('../speed/SpeedChart'), CHART_TO_COME);

/** One drive on the bench: reads it, unless this page has something of it that is unsent, then hands over. */
export default function BenchPage() {
  const { driveId = '' } = useParams();
  return <OpenBench key={driveId} id={driveId} />;
}

function OpenBench({ id }: { id: string }) {
  const [unsent] = useState(() => openDriveOf(id) !== null);
  const { data, error, refetch } = useDrive(id, !unsent);
  const open = useOpenDrive(id, data);
  if (open) return <BenchFrame open={open} />;
  if (!error) return <Spin className="page-spin" description="Opening the drive" />;
  const gone = (error as ApiProblem).status === 404;
  return (
    <Result
      status="warning"
      title={gone ? 'This drive is not in the shop' : 'The drive could not be read'}
      subTitle={error.message}
      extra={[
        <Link key="shop" to="/">
          Back to the shop
        </Link>,
        !gone && (
          <Button key="again" onClick={() => void refetch()}>
            Try again
          </Button>
        ),
      ]}
    />
  );
}

function BenchFrame({ open: { opened, store, saver, left } }: { open: OpenDrive }) {
  const place = `drive ${opened.id}`;
  const stored = useHistory(store);
  // A what-if is worked on like the drive itself, in a store of its own that nothing saves; leaving the page and coming
  // back finds it.
  const [whatIf, setWhatIf] = useState<DriveStore | null>(() => {
    const kept = keptAt(`${place}/what-if`) as Drive | undefined;
    return kept ? createDriveStore(kept) : null;
  });
  useEffect(() => {
    const keep = () => keepAt(`${place}/what-if`, whatIf?.get().present);
    keep();
    window.addEventListener('pagehide', keep);
    return () => {
      window.removeEventListener('pagehide', keep);
      keep();
    };
  }, [place, whatIf]);
  const history = useHistory(whatIf ?? store);
  const save = useSaveState(saver);
  const kept = useKept(saver);
  const [draft] = useLeftDrafts(left);
  const shop = useShop();
  const navigate = useNavigate();
  const { message } = AntApp.useApp();
  const { stage: asked } = useParams();
  const [preview, setPreview] = useState<Drive | null>(null);
  const [pose, setPose] = useState<Drive | null>(null);
  const drive = preview ?? history.present;
  const stage: Stage =
    STAGES.find(({ id }) => id === asked)?.id ??
    (drive.belts.some(({ route }) => route.length > 1) ? 'route' : 'survey');
  const [beltId, setBelt] = useState<string | null>(null);
  const [selected, select] = useState<Mark | null>(null);
  const [hovered, hover] = useState<Mark | null>(null);
  const [tapping, setTapping] = useState(false);
  const [tapeAsked, setTapeAsked] = useState<{ from: string; to: string } | null>(null);
  const [surveying, setSurveying] = useState<Surveying>('pulleys');
  const [picture, changePicture] = useState<PictureInHand>({ id: null, marking: null, strength: 0.45 });
  const setPicture = useCallback(
    (change: Partial<PictureInHand>) => changePicture((now) => ({ ...now, ...change })),
    [],
  );
  const { fit: surveyFit, stopped: surveyStopped } = useSurveyFit(drive);
  const [keysOpen, setKeysOpen] = useState(false);
  const unit = shop.data?.unit ?? 'in';
  const dispatch = useCallback(
    (action: DriveAction) => {
      setPreview(null);
      setPose(null);
      (whatIf ?? store).dispatch(action);
    },
    [store, whatIf],
  );

  const solution = useMemo(() => solveDrive(drive), [drive]);
  const belt = solution.belts.find(({ id }) => id === beltId) ?? solution.belts[0] ?? null;

  const beltInHand = belt?.id;
  const tap = useCallback(
    (stationId: string) => {
      const source = drive.belts.find(({ id }) => id === beltInHand);
      if (!source) return;
      const first = source.route[0];
      if (source.route.length > 1 && first && stationOf(drive, first.pulley)?.id === stationId) setTapping(false);
      else dispatch(edit((d) => tapped(d, source.id, stationId)));
    },
    [drive, beltInHand, dispatch],
  );
  const trace = useCallback(
    (stationId: string) => {
      if (beltInHand !== undefined) dispatch(edit((d) => tapped(d, beltInHand, stationId, false)));
    },
    [beltInHand, dispatch],
  );

  const goTo = useCallback(
    (next: Stage) => {
      setTapping(false);
      setPreview(null);
      setPose(null);
      setPicture({ marking: null });
      void navigate(`/drives/${opened.id}/${next}`, { replace: true });
    },
    [navigate, opened.id, setPicture],
  );

  const startWhatIf = useMemo(
    () => (whatIf ? null : (change = (d: Drive) => d) => setWhatIf(createDriveStore(change(store.get().present)))),
    [whatIf, store],
  );

  const bench: Bench = useMemo(
    () => ({
      drive,
      solution,
      unit,
      stage,
      belt,
      setBelt,
      selected,
      select,
      hovered,
      hover,
      tapping,
      setTapping,
      tap,
      trace,
      surveyFit,
      surveyStopped,
      tapeAsked,
      setTapeAsked,
      surveying,
      setSurveying,
      picture,
      setPicture,
      setPose,
      preview,
      setPreview,
      startWhatIf,
      dispatch,
    }),
    [
      drive,
      solution,
      unit,
      stage,
      belt,
      selected,
      hovered,
      tapping,
      tap,
      trace,
      surveyFit,
      surveyStopped,
      tapeAsked,
      surveying,
      picture,
      setPicture,
      preview,
      startWhatIf,
      dispatch,
    ],
  );
  const marked =
    stage === 'survey' && picture.marking !== null && findPulley(drive, picture.marking)
      ? pictureInHand(drive, picture)
      : null;
  const posed: Bench = useMemo(() => {
    if (!pose) return bench;
    const posedSolution = solveDrive(pose);
    return {
      ...bench,
      drive: pose,
      solution: posedSolution,
      belt: posedSolution.belts.find(({ id }) => id === bench.belt?.id) ?? null,
    };
  }, [bench, pose]);
  const showKeys = useCallback(() => setKeysOpen(true), []);
  useBenchKeys({ bench, goTo, showKeys });

  useEffect(() => {
    document.title = `${opened.vehicleName} · ${drive.name ?? 'Drive'} · Emery`;
  }, [opened.vehicleName, drive.name]);

  /** Makes a drive of its own of `document`. False, and said so, where that did not work. */
  const keptAsCopy = async (document: Drive, word: string): Promise<boolean> => {
    const copy = { ...document, name: `${document.name ?? 'Drive'} (${word})`.slice(0, 200) };
    try {
      await ask('POST', '/drives', { vehicleId: opened.vehicleId, document: copy });
    } catch (error) {
      void message.error(`The copy was not made, so nothing was changed. ${(error as Error).message}`);
      return false;
    }
    void message.success(`It is kept as "${copy.name}" with the same vehicle.`);
    return true;
  };
  const keepBoth = async () => {
    if (save.kind === 'conflict' && (await keptAsCopy(stored.present, 'mine'))) takeTheirs();
  };
  const takeTheirs = () => {
    if (save.kind !== 'conflict') return;
    const theirs = save.theirs.document;
    // Let the saver go first: what the replacement brings is already on the server.
    setWhatIf(null);
    store.dispatch({ type: 'replace', drive: theirs });
    saver.takeTheirs();
  };
  const takeUpDraft = () => {
    setWhatIf(null);
    store.dispatch({ type: 'replace', drive: draft!.document });
    if (saver.isKept()) left.forget(draft!);
  };
  const bringBack = async () => {
    try {
      // What is there again already needs no bringing back.
      if (save.kind === 'gone' && save.deleted === 'vehicle')
        await ask('POST', `/vehicles/${opened.vehicleId}/restore`).catch(unlessThere);
      else await ask('POST', `/drives/${opened.id}/restore`).catch(unlessThere);
      saver.revive();
    } catch (error) {
      void message.error(`It was not brought back. ${(error as Error).message}`);
    }
  };

  return (
    <BenchContext value={bench}>
      <TypedPlace at={place}>
        <div className="bench">
          <header className="header">
            <Link to="/" className="wordmark">
              Emery
            </Link>
            <span className="header-where">
              <span className="header-vehicle">{opened.vehicleName}</span>
              <input
                className="header-name"
                aria-label="Name of the drive"
                value={drive.name ?? ''}
                placeholder="Drive without a name"
                maxLength={200}
                size={Math.max(8, (drive.name ?? '').length)}
                disabled={whatIf !== null}
                onChange={(event) => dispatch(edit((d) => ({ ...d, name: event.target.value }), 'name'))}
              />
            </span>
            <SaveSign state={save} kept={kept} />
            <HeaderTools
              canUndo={history.past.length > 0}
              canRedo={history.future.length > 0}
              dispatch={dispatch}
              showKeys={showKeys}
            />
          </header>
          <nav className="rail" aria-label="Stages">
            {STAGES.map(({ id, name }, index) => {
              const state = stageState(id, drive, solution);
              return (
                <button
                  key={id}
                  type="button"
                  className={`rail-stage is-${state.replace(' ', '-')}${id === stage ? ' is-here' : ''}`}
                  aria-current={id === stage ? 'step' : undefined}
                  onClick={() => goTo(id)}
                >
                  <span className="rail-number">{index + 1}</span> {name}
                  <span className="rail-mark">
                    <span aria-hidden>{STAGE_MARKS[state]}</span> <span className="rail-state">{state}</span>
                  </span>
                </button>
              );
            })}
          </nav>
          {save.kind === 'conflict' && (
            <ConflictPanel
              mine={stored.present}
              theirs={save.theirs}
              unit={unit}
              onKeepMine={() => saver.keepMine(stored.present)}
              onTakeTheirs={takeTheirs}
              onKeepBoth={() => void keepBoth()}
            />
          )}
          {draft && save.kind !== 'conflict' && (
            <LeftDraftPanel
              key={draft.key}
              drive={stored.present}
              draft={draft}
              unit={unit}
              onTakeUp={takeUpDraft}
              onKeepCopy={() => void keptAsCopy(draft.document, 'draft').then((made) => made && left.forget(draft))}
              onThrowAway={() => left.forget(draft)}
            />
          )}
          {save.kind === 'refused' && (
            <p className="bench-notice" role="alert">
              <strong>■ The server did not take this:</strong> {save.why} What you drew is{' '}
              {kept ? 'kept on this device' : 'on this page alone: leave it open'}, and it is tried again by itself.
            </p>
          )}
          {save.kind === 'gone' && (
            <p className="bench-notice" role="alert">
              <strong>
                ■{' '}
                {save.deleted === 'vehicle'
                  ? 'The vehicle of this drive was deleted meanwhile, and the drive with it.'
                  : 'This drive was deleted meanwhile.'}
              </strong>{' '}
              What you drew is {kept ? 'kept here' : 'on this page alone: leave it open'}.{' '}
              <Button onClick={() => void bringBack()}>Bring it back</Button>
            </p>
          )}
          {preview && (
            <p className="bench-what-if" role="status">
              You are looking at a what-if. Nothing is changed until you take it.{' '}
              <Button onClick={() => setPreview(null)}>Back to the drive as it is</Button>
            </p>
          )}
          <SizingProvider wanted={stage === 'size'} drive={drive} belt={belt?.id ?? null}>
            <SpeedsProvider wanted={stage === 'speeds'} drive={drive}>
              <main className={`bench-parts is-${stage}`}>
                {marked ? (
                  <PictureView key={marked.id} photo={marked} pulley={picture.marking!} />
                ) : (
                  <BenchContext value={posed}>
                    <PartBoundary name="The drawing">
                      <FrontView />
                    </PartBoundary>
                  </BenchContext>
                )}
                <PartBoundary name="The chart" key={`chart ${stage}`}>
                  {stage === 'size' ? <SizeChart /> : stage === 'speeds' ? <SpeedChart /> : <UnrolledBelt />}
                </PartBoundary>
                <aside className="ledger sheet" aria-label="Ledger">
                  {whatIf && (
                    <WhatIfPanel
                      before={stored.present}
                      after={history.present}
                      unit={unit}
                      stage={stage}
                      onKeep={() => {
                        const taken = whatIf.get().present;
                        setWhatIf(null);
                        store.dispatch(edit(() => taken));
                      }}
                      onThrowAway={() => setWhatIf(null)}
                    />
                  )}
                  <PartBoundary name="The ledger" key={stage}>
                    {stage === 'survey' ? (
                      <SurveyLedger />
                    ) : stage === 'route' ? (
                      <RouteLedger />
                    ) : stage === 'size' ? (
                      <SizeLedger />
                    ) : (
                      <SpeedLedger />
                    )}
                  </PartBoundary>
                </aside>
              </main>
            </SpeedsProvider>
          </SizingProvider>
        </div>
      </TypedPlace>
      {keysOpen && <KeysHelp open onClose={() => setKeysOpen(false)} />}
    </BenchContext>
  );
}

/** Somebody else brought it back first: as good. */
function unlessThere(error: ApiProblem): void {
  if (error.status !== 404) throw error;
}

interface HeaderToolsProps {
  canUndo: boolean;
  canRedo: boolean;
  dispatch: (action: DriveAction) => void;
  showKeys: () => void;
}

/** Kept out of a drag's redraw, like all that is not the drive. */
const HeaderTools = memo(function HeaderTools({ canUndo, canRedo, dispatch, showKeys }: HeaderToolsProps) {
  return (
    <span className="header-tools">
      <Tooltip title="Undo (Ctrl+Z)">
        <Button
          type="text"
          icon={<UndoOutlined />}
          aria-label="Undo"
          disabled={!canUndo}
          onClick={() => dispatch({ type: 'undo' })}
        />
      </Tooltip>
      <Tooltip title="Redo (Ctrl+Shift+Z)">
        <Button
          type="text"
          icon={<RedoOutlined />}
          aria-label="Redo"
          disabled={!canRedo}
          onClick={() => dispatch({ type: 'redo' })}
        />
      </Tooltip>
      <UnitSwitch />
      <Button type="text" icon={<QuestionOutlined />} aria-label="Keys" onClick={showKeys} />
    </span>
  );
});
