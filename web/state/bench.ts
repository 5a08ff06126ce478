import { createContext, useCallback, useContext, useRef, useSyncExternalStore } from 'react';
import {
  createDriveStore,
  type DriveAction,
  type DriveHistory,
  type DriveStore,
  type EditGroup,
} from './drive-history';
import { Listeners } from './listeners';
import { identicalMark, sameMark, type Mark } from './mark';
import { createStore, useFields, useStore, type Readable, type Store } from './store';
import { type Drive, stationOf, tapped } from '@emery/core/drive';
import { type BeltSolution, type DriveSolution, solveDrive } from '@emery/core/path';
import type { LengthUnit } from '@emery/core/quantity';

/** A drive with what it comes to, and the belt in hand; null while it has none. */
export interface Worked {
  drive: Drive;
  solution: DriveSolution;
  belt: BeltSolution | null;
}

/** What the parts of the bench share of the open drive. */
export interface Bench extends Worked {
  unit: LengthUnit;
  /** As the drawing shows it: with the adjuster where a belt that is pointed at would have it, else as it is. */
  shown: Worked;
  /** A drive only looked at, such as a route that was found: `drive` and `solution` are then its. */
  preview: Drive | null;
  /** The history that edits go to: the drive's, or that of a what-if. */
  history: DriveHistory;
  canUndo: boolean;
  canRedo: boolean;
  /** True while taps put pulleys on the belt in order. */
  tapping: boolean;
  /**
   * Starts a what-if, with a first change to it if any, that every edit goes to until it is kept or thrown away; null
   * while one is under way.
   */
  startWhatIf: ((change?: (drive: Drive) => Drive) => void) | null;
}

/** What can be done on the bench. None of these ever changes, so nothing is drawn again for them. */
export interface BenchActions {
  /** Changes the drive, or the what-if that is under way. */
  dispatch: (action: DriveAction) => void;
  setUnit: (unit: LengthUnit) => void;
  setBelt: (id: string) => void;
  select: (mark: Mark | null) => void;
  hover: (mark: Mark | null) => void;
  setTapping: (on: boolean) => void;
  /** A tap on a shaft while tapping. */
  tap: (stationId: string) => void;
  /** A finger drawn across a shaft while tapping. */
  trace: (stationId: string) => void;
  setPose: (drive: Drive | null) => void;
  setPreview: (drive: Drive | null) => void;
  keepWhatIf: () => void;
  throwAwayWhatIf: () => void;
  /** Lets go of all that belongs to the stage that is left. */
  leaveStage: () => void;
}

/** The bench of one open drive, with what is in hand and what is pointed at, each followed on its own. */
export interface BenchStores extends Readable<Bench & BenchActions> {
  selection: Store<Mark | null>;
  pointed: Store<Mark | null>;
  whatIf: () => DriveStore | null;
  /** Follows the drive from here on. Returns what ends that. */
  connect: () => () => void;
}

/**
 * Makes the bench of an open drive. `store` is its history; `keptWhatIf` a what-if that was under way when the page was
 * left. What follows from the drive is worked out once, when it changes.
 */
export function createBench(store: DriveStore, unit: LengthUnit, keptWhatIf: Drive | null = null): BenchStores {
  const listeners = new Listeners();
  const selection = createStore<Mark | null>(null, identicalMark);
  const pointed = createStore<Mark | null>(null, identicalMark);
  let whatIf = keptWhatIf ? createDriveStore(keptWhatIf) : null;
  let unfollow: (() => void) | null = null;
  let [beltId, preview, pose, tapping] = [null as string | null, null as Drive | null, null as Drive | null, false];
  let now: Bench & BenchActions;

  const worked = (drive: Drive, before: Worked | undefined): Worked => {
    const solution = before?.drive === drive ? before.solution : solveDrive(drive);
    const belt = solution.belts.find(({ id }) => id === beltId) ?? solution.belts[0] ?? null;
    return before?.drive === drive && before.belt === belt ? before : { drive, solution, belt };
  };
  let here: Worked | undefined;
  let posed: Worked | undefined;
  let others = store.get().others;
  /** What others change comes into a what-if as well: kept, it would take it back. */
  const update = () => {
    const newer = store.get().others;
    if (newer !== others) {
      others = newer;
      if (whatIf && newer) return whatIf.dispatch({ type: 'merge', ...newer });
    }
    const history = (whatIf ?? store).get();
    here = worked(preview ?? history.present, here);
    posed = pose ? worked(pose, posed) : undefined;
    const [canUndo, canRedo] = [history.past.length > 0, history.future.length > 0];
    now = {
      ...now,
      ...here,
      history,
      canUndo,
      canRedo,
      unit,
      preview,
      tapping,
      shown: posed ?? here,
      startWhatIf: whatIf ? null : start,
    };
    listeners.tell();
  };
  const connect = () => {
    unfollow?.();
    // The drive's own history is followed throughout: a replacement may come while a what-if is under way.
    const both = [store.subscribe(update), whatIf?.subscribe(update)];
    update();
    const stop = () => both.forEach((end) => end?.());
    unfollow = stop;
    return () => {
      unfollow?.();
      unfollow = null;
    };
  };
  /** Goes over to the other history, where the bench follows one. */
  const follow = () => (unfollow ? void connect() : update());
  const start = (change = (drive: Drive) => drive) => {
    whatIf = createDriveStore(change(store.get().present));
    follow();
  };
  const endWhatIf = () => {
    whatIf = null;
    follow();
  };
  const actions: BenchActions = {
    dispatch: (action) => {
      preview = pose = null;
      const target = whatIf ?? store;
      const before = target.get();
      target.dispatch(action);
      if (target.get() === before) update();
    },
    setUnit: (next) => {
      unit = next;
      update();
    },
    setBelt: (id) => {
      beltId = id;
      update();
    },
    select: selection.set,
    hover: pointed.set,
    setTapping: (on) => {
      tapping = on;
      update();
    },
    tap: (stationId) => {
      const source = here!.drive.belts.find(({ id }) => id === here!.belt?.id);
      if (!source) return;
      const first = source.route[0];
      const closes = source.route.length > 1 && first && stationOf(here!.drive, first.pulley)?.id === stationId;
      if (closes) actions.setTapping(false);
      else actions.dispatch(edit((drive) => tapped(drive, source.id, stationId)));
    },
    trace: (stationId) => {
      const belt = here!.belt?.id;
      if (belt !== undefined) actions.dispatch(edit((drive) => tapped(drive, belt, stationId, false)));
    },
    setPose: (drive) => {
      if (pose === drive) return;
      pose = drive;
      update();
    },
    setPreview: (drive) => {
      preview = drive;
      update();
    },
    keepWhatIf: () => {
      const taken = whatIf!.get().present;
      endWhatIf();
      store.dispatch(edit(() => taken));
    },
    throwAwayWhatIf: endWhatIf,
    leaveStage: () => {
      preview = pose = null;
      tapping = false;
      update();
    },
  };
  // What is not an action is filled in at once below.
  now = { ...actions } as Bench & BenchActions;
  update();
  return { get: () => now, connect, subscribe: listeners.add, selection, pointed, whatIf: () => whatIf };
}

export const BenchContext = createContext<BenchStores | null>(null);

export function useBenchStores(): BenchStores {
  const bench = useContext(BenchContext);
  if (!bench) throw new Error('outside a bench');
  return bench;
}

/** The fields of those names of the bench; the component is drawn again only when one of them is another. */
export function useBench<K extends keyof (Bench & BenchActions)>(...fields: K[]): Pick<Bench & BenchActions, K> {
  return useFields(useBenchStores(), fields);
}

/** What `select` takes from the drive; the component is drawn again only when that is another. */
export function useDrive<T>(select: (drive: Drive) => T): T {
  const { get, subscribe } = useBenchStores();
  return useSyncExternalStore(subscribe, () => select(get().drive));
}

/** The drive and the belt in hand while they are wanted; the last ones at other times, and nothing is drawn again. */
export function useWhile(wanted: boolean): Pick<Worked, 'drive' | 'belt'> {
  const { get, subscribe } = useBenchStores();
  const last = useRef<Bench | null>(null);
  const snapshot = () => {
    if (wanted || last.current === null) {
      const now = get();
      if (last.current?.drive !== now.drive || last.current.belt !== now.belt) last.current = now;
    }
    return last.current!;
  };
  return useSyncExternalStore(subscribe, snapshot);
}

/** What is in hand. */
export const useSelected = (): Mark | null => useStore(useBenchStores().selection);

/** The class of what a mark stands for: in hand, pointed at, or neither. Only it is drawn again when that changes. */
export function useLit(mark: Mark): '' | 'is-selected' | 'is-hovered' {
  const { selection, pointed } = useBenchStores();
  const selected = useFollowed(selection, mark);
  const hovered = useFollowed(pointed, mark);
  if (selected) return 'is-selected';
  return hovered ? 'is-hovered' : '';
}

function useFollowed({ get, subscribe }: Store<Mark | null>, mark: Mark): boolean {
  return useSyncExternalStore(
    subscribe,
    useCallback(() => sameMark(get(), mark), [get, mark]),
  );
}

/** A change of the drive as an action. */
export const edit = (change: (drive: Drive) => Drive, group?: EditGroup): DriveAction => ({
  type: 'edit',
  change,
  ...(group !== undefined && { group }),
});
