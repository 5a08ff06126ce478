import { MarkedRow } from '../../bench/MarkedRow';
import {
  AimOutlined,
  DeleteOutlined,
  EllipsisOutlined,
  ExperimentOutlined,
  PlusOutlined,
  SearchOutlined,
  SwapOutlined,
} from '@ant-design/icons';
import { Button, Dropdown } from 'antd';
import { memo, useCallback, useEffect, useMemo, useRef, useState } from 'react';
import { Link, useParams } from 'react-router';
import { edit, useBench, useSelected } from '../../state/bench';
import { sameMark, type Mark } from '../../state/mark';
import type { DriveAction } from '../../state/drive-history';
import { Choice } from '../../ui/Choice';
import { CountField } from '../../ui/CountField';
import { BeltChoice } from '../../bench/BeltChoice';
import { FindingList } from '../../bench/FindingList';
import { LengthFigure } from '../../ui/LengthFigure';
import { TypedPlace } from '../../ui/typed-text';
import { lazyPart } from '../../parts/lazy-part';
import {
  addBelt,
  type Belt,
  changeBelt,
  type Drive,
  fittingPulley,
  flipStop,
  insertStop,
  newBelt,
  obstacleLabel,
  pulleyLabel,
  removeBelt,
  removeStop,
  reverseRoute,
  type Station,
  stationLabel,
} from '@emery/core/drive';
import type { Severity } from '@emery/core/finding';
import { beltClearances, type BeltSolution, bestPlaceFor, type Clearance } from '@emery/core/path';
import { formatInchesDecimal, type LengthUnit, fixed } from '@emery/core/quantity';
import { sectionFor, SECTIONS } from '@emery/core/section';

const RouteFinder = lazyPart('The search for routes', () => import('./RouteFinder'));
const IdlerFinder = lazyPart('The search for an idler position', () => import('./IdlerFinder'));

const SECTION_OPTIONS = SECTIONS.map(({ name, kind }) => ({
  value: name,
  label: `${name} ${{ ribbed: 'ribbed', vee: 'V-belt', toothed: 'toothed' }[kind]}`,
}));

/** Route: which way the belt runs, and how long that makes it. */
export function RouteLedger() {
  const { drive, belt, setBelt, dispatch, setTapping, startWhatIf } = useBench(
    'drive',
    'belt',
    'setBelt',
    'dispatch',
    'setTapping',
    'startWhatIf',
  );
  const { driveId } = useParams();
  const [searching, setSearching] = useState<{ drive: Drive; what: 'routes' | 'idler' } | null>(null);
  const source = drive.belts.find(({ id }) => id === belt?.id);
  const latest = useRef(drive);
  useEffect(() => {
    latest.current = drive;
  });
  const find = useCallback(() => setSearching({ drive: latest.current, what: 'routes' }), []);
  const findIdler = useCallback(() => setSearching({ drive: latest.current, what: 'idler' }), []);
  const section = source?.section ?? 'PK';
  const another = useCallback(() => {
    const made = newBelt(latest.current, section);
    dispatch(edit((d) => addBelt(d, made)));
    setBelt(made.id);
    setTapping(true);
  }, [section, dispatch, setBelt, setTapping]);
  if (!belt || !source) {
    return (
      <>
        <h2>No belt yet</h2>
        <p>Add the belt, then tap the pulleys in the order it meets them.</p>
        <Button type="primary" icon={<PlusOutlined />} onClick={another}>
          Add belt
        </Button>
      </>
    );
  }
  if (searching) {
    const Finder = searching.what === 'routes' ? RouteFinder : IdlerFinder;
    return (
      <Finder
        drive={searching.drive}
        source={searching.drive.belts.find(({ id }) => id === belt.id) ?? source}
        onClose={() => setSearching(null)}
      />
    );
  }
  return (
    <>
      <BeltChoice />
      <Answer belt={belt} source={source} />
      <RouteTable belt={belt} source={source} />
      <LeastClearance belt={belt} />
      <OffBelt source={source} />
      <Verdict belt={belt} />
      <BeltFields source={source} belts={drive.belts} dispatch={dispatch} setBelt={setBelt} />
      <BeltTools driveId={driveId!} find={find} findIdler={findIdler} another={another} startWhatIf={startWhatIf} />
    </>
  );
}

/** The length: the largest figure on the bench. */
function Answer({ belt, source }: { belt: BeltSolution; source: Belt }) {
  const { unit } = useBench('unit');
  const { basis, mm } = belt.length;
  const what =
    source.ribs && sectionFor(source.section)?.kind === 'ribbed'
      ? `${source.section}, ${source.ribs} ribs`
      : source.section;
  return (
    <div className="answer" data-testid="answer">
      <div className="label">Belt length, {basis}</div>
      {mm === null ? (
        <div className="answer-none">no length</div>
      ) : (
        <div className="answer-figure" data-length-mm={mm}>
          <LengthFigure mm={mm} unit={unit} />
          <span className="answer-other">
            <LengthFigure mm={mm} unit={unit === 'in' ? 'mm' : 'in'} />
          </span>
        </div>
      )}
      <div className="answer-note">
        {what} · {mm === null ? 'see the findings below' : `${formatInchesDecimal(mm)} · from the drawing`}
      </div>
    </div>
  );
}

function RouteTable({ belt, source }: { belt: BeltSolution; source: Belt }) {
  const { drive, unit, select, dispatch, tapping, setTapping } = useBench(
    'drive',
    'unit',
    'select',
    'dispatch',
    'tapping',
    'setTapping',
  );
  const selected = useSelected();
  const low = new Map(
    belt.findings.flatMap(({ code, pulley, severity }) =>
      pulley && (code === 'low-wrap' || severity === 'fault') ? [[pulley, severity] as const] : [],
    ),
  );
  const rows = belt.contacts.map((contact, index) => {
    const pulley: Mark = { kind: 'pulley', station: contact.station, pulley: contact.pulley };
    const span: Mark = { kind: 'span', belt: belt.id, index };
    return { contact, index, pulley, span, after: belt.spans[index]?.length ?? null };
  });
  const inHand = rows.find(({ pulley, span }) => sameMark(selected, pulley) || sameMark(selected, span));
  return (
    <>
      {rows.length > 0 && (
        <table className="ledger-table">
          <thead>
            <tr>
              <th>Pulley</th>
              <th>Rides on</th>
              <th className="figure">Wrap</th>
              <th className="figure">Span after</th>
              <th className="figure is-narrow">Turns per crank turn</th>
            </tr>
          </thead>
          <tbody>
            {rows.map(({ contact, index, after }) => (
              <RouteRow
                key={`${contact.pulley} ${index}`}
                belt={belt.id}
                index={index}
                station={contact.station}
                pulley={contact.pulley}
                name={pulleyLabel(drive, contact.pulley).replace(', sheave', '')}
                rides={contact.side === 'back' ? 'back' : SIDES[sectionFor(source.section)!.kind]}
                severity={low.get(contact.pulley)}
                wrap={contact.wrapDeg === null ? '—' : `${Math.round(contact.wrapDeg)}°`}
                after={after === null ? null : Math.round(after)}
                ratio={contact.speedRatio === null ? '—' : fixed(contact.speedRatio, 2)}
                unit={unit}
              />
            ))}
          </tbody>
        </table>
      )}
      <RouteActions
        belt={belt.id}
        count={rows.length}
        at={inHand?.index ?? null}
        tapping={tapping}
        setTapping={setTapping}
        select={select}
        dispatch={dispatch}
      />
    </>
  );
}

interface RouteRowProps {
  belt: string;
  index: number;
  station: string;
  pulley: string;
  name: string;
  rides: string;
  severity: Severity | undefined;
  wrap: string;
  /** The span after it, whole mm. */
  after: number | null;
  ratio: string;
  unit: LengthUnit;
}

/** One pulley of the route. Drawn again only when what it says is another. */
const RouteRow = memo(function RouteRow(props: RouteRowProps) {
  const { belt, index, station, pulley, name, rides, severity, wrap, after, ratio, unit } = props;
  const { select } = useBench('select');
  const span: Mark = { kind: 'span', belt, index };
  return (
    <MarkedRow mark={{ kind: 'pulley', station, pulley }} also={span}>
      <td>
        <button type="button" className="row-button">
          {index + 1} {name}
        </button>
      </td>
      <td>{rides}</td>
      <td className="figure">
        {severity && (
          <span className={`flag is-${severity}`} title={severity === 'fault' ? 'see below' : 'low wrap, see below'}>
            {severity === 'fault' ? '■' : '▲ low'}{' '}
          </span>
        )}
        {wrap}
      </td>
      <td
        className="figure"
        onClick={(event) => {
          event.stopPropagation();
          select(span);
        }}
      >
        {after === null ? '—' : <LengthFigure mm={after} unit={unit} places={0} />}
      </td>
      <td className="figure">{ratio}</td>
    </MarkedRow>
  );
});

interface RouteActionsProps {
  belt: string;
  count: number;
  /** The stop in hand; null for none. */
  at: number | null;
  tapping: boolean;
  setTapping: (on: boolean) => void;
  select: (mark: Mark | null) => void;
  dispatch: (action: DriveAction) => void;
}

/** What can be done with the stop in hand and with the whole order. Kept out of a drag's redraw. */
const RouteActions = memo(function RouteActions({
  belt,
  count,
  at,
  tapping,
  setTapping,
  select,
  dispatch,
}: RouteActionsProps) {
  const move = (index: number, by: number) =>
    dispatch(
      edit((d) => {
        const stop = d.belts.find(({ id }) => id === belt)!.route[index]!;
        return insertStop(removeStop(d, belt, index), belt, (index + by + count) % count, stop);
      }),
    );
  const startAgain = () => {
    dispatch(edit((d) => changeBelt(d, belt, { route: [] })));
    select(null);
    setTapping(true);
  };
  const orders: Record<string, () => void> = {
    earlier: () => move(at!, -1),
    later: () => move(at!, 1),
    round: () => dispatch(edit((d) => reverseRoute(d, belt))),
    again: startAgain,
  };
  const orderItems = [
    ...(at === null
      ? []
      : [
          { key: 'earlier', label: 'This pulley earlier' },
          { key: 'later', label: 'This pulley later' },
        ]),
    { key: 'round', label: 'Reverse the order', disabled: count < 3 },
    { key: 'again', label: 'Clear the route' },
  ];
  if (tapping) {
    return (
      <div className="button-row">
        <Button type="primary" onClick={() => setTapping(false)}>
          Done
        </Button>
      </div>
    );
  }
  return (
    <div className="button-row">
      {at !== null && (
        <>
          <Button type="primary" icon={<SwapOutlined />} onClick={() => dispatch(edit((d) => flipStop(d, belt, at)))}>
            Flip side
          </Button>
          <Button onClick={() => dispatch(edit((d) => removeStop(d, belt, at)))}>Remove from belt</Button>
        </>
      )}
      {count === 0 ? (
        <Button type="primary" onClick={() => setTapping(true)}>
          Tap the route
        </Button>
      ) : (
        <Dropdown trigger={['click']} menu={{ items: orderItems, onClick: ({ key }) => orders[key]!() }}>
          <Button icon={<EllipsisOutlined />}>Order</Button>
        </Dropdown>
      )}
    </div>
  );
});

const SIDES = { ribbed: 'ribs', vee: 'V', toothed: 'teeth' };

/**
 * How near the belt comes to anything it does not touch, itself included: at the span or pulley in hand, or at the
 * tightest.
 */
function LeastClearance({ belt }: { belt: BeltSolution }) {
  const { drive, unit, select } = useBench('drive', 'unit', 'select');
  const selected = useSelected();
  const clear = useMemo(() => beltClearances(drive, belt), [drive, belt]);
  const known = [
    ...clear.spans.flatMap((span, index) =>
      span ? [{ ...span, at: { kind: 'span' as const, belt: belt.id, index } }] : [],
    ),
    ...clear.contacts.flatMap((contact, index) =>
      contact
        ? [
            {
              ...contact,
              at: {
                kind: 'pulley' as const,
                station: belt.contacts[index]!.station,
                pulley: belt.contacts[index]!.pulley,
              },
            },
          ]
        : [],
    ),
  ];
  if (known.length === 0) return null;
  const inHand = known.find(({ at }) =>
    at.kind === 'span'
      ? selected?.kind === 'span' && selected.belt === at.belt && selected.index === at.index
      : selected?.kind === 'pulley' && selected.pulley === at.pulley,
  );
  const shown = inHand ?? known.reduce((found, next) => (next.mm < found.mm ? next : found));
  const between = ({ from, to }: { from: string; to: string }) =>
    `${pulleyLabel(drive, from)} to ${pulleyLabel(drive, to)}`;
  const here =
    shown.at.kind === 'span' ? between(belt.spans[shown.at.index]!) : `Belt on ${pulleyLabel(drive, shown.at.pulley)}`;
  return (
    <button type="button" className="clearance" onClick={() => select(shown.at)}>
      <span className="label">{inHand ? 'Clearance here' : 'Smallest clearance'}</span>
      <strong>{shown.mm < 0 ? 'none, it rubs' : <LengthFigure mm={shown.mm} unit={unit} />}</strong>
      <span>
        {here}, from {thingMet(drive, shown, between)}
      </span>
    </button>
  );
}

function thingMet(
  drive: Drive,
  { pulley, onBelt, obstacle, span }: Clearance,
  between: (ends: { from: string; to: string }) => string,
): string {
  if (pulley !== undefined) return `${onBelt ? 'the belt on ' : ''}${pulleyLabel(drive, pulley)}`;
  return obstacle !== undefined ? obstacleLabel(drive, obstacle) : `the span ${between(span!)}`;
}

/** Shafts that are on no belt, to be put on this one where they fit best. */
function OffBelt({ source }: { source: Belt }) {
  const { drive, dispatch, select, tapping, belt } = useBench('drive', 'dispatch', 'select', 'tapping', 'belt');
  const selected = useSelected();
  const taken = new Set(drive.belts.flatMap(({ route }) => route.map(({ pulley }) => pulley)));
  const off = drive.stations.filter(({ pulleys }) => pulleys.every(({ id }) => !taken.has(id)));
  if (off.length === 0 || tapping || source.route.length === 0) return null;
  const putOn = (station: Station) => {
    const pulley = fittingPulley(drive, source, station);
    // A span in hand says where; otherwise the place that gives the shortest belt that can run.
    const spanAt = selected?.kind === 'span' && selected.belt === belt?.id ? selected.index + 1 : null;
    const place = bestPlaceFor(drive, source.id, pulley.id)!;
    dispatch(edit((d) => insertStop(d, source.id, spanAt ?? place.index, place.stop)));
    select({ kind: 'pulley', station: station.id, pulley: pulley.id });
  };
  return (
    <div>
      <div className="label">Not on any belt</div>
      <div className="button-row">
        {off.map((station) => (
          <Button key={station.id} icon={<PlusOutlined />} onClick={() => putOn(station)}>
            Add to belt {stationLabel(station)}
          </Button>
        ))}
      </div>
    </div>
  );
}

function Verdict({ belt }: { belt: BeltSolution }) {
  if (belt.findings.length > 0) return <FindingList findings={belt.findings} />;
  return (
    <p className="settled">
      <strong>This route works.</strong> Every pulley has the right face, direction and enough wrap.
    </p>
  );
}

interface BeltFieldsProps {
  source: Belt;
  belts: readonly Belt[];
  dispatch: (action: DriveAction) => void;
  setBelt: (id: string) => void;
}

/** What the belt is. Kept out of a drag's redraw: moving a pulley changes no belt. */
const BeltFields = memo(function BeltFields({ source, belts, dispatch, setBelt }: BeltFieldsProps) {
  const kind = sectionFor(source.section)?.kind;
  const remove = () => {
    const rest = belts.filter(({ id }) => id !== source.id);
    dispatch(edit((d) => removeBelt(d, source.id)));
    if (rest[0]) setBelt(rest[0].id);
  };
  return (
    <TypedPlace at={`belt ${source.id}`}>
      <div className="fields">
        <Choice
          label="Belt section"
          value={source.section}
          options={SECTION_OPTIONS}
          onChange={(section) =>
            dispatch(
              edit((d) =>
                changeBelt(d, source.id, {
                  section,
                  ribs: sectionFor(section)?.kind === 'ribbed' ? (source.ribs ?? 6) : undefined,
                }),
              ),
            )
          }
        />
        {kind === 'ribbed' && (
          <CountField
            label="Ribs"
            value={source.ribs}
            max={60}
            onCommit={(ribs) => dispatch(edit((d) => changeBelt(d, source.id, { ribs })))}
          />
        )}
        <div className="field">
          <span className="label">&nbsp;</span>
          <Button icon={<DeleteOutlined />} onClick={remove}>
            Remove belt
          </Button>
        </div>
      </div>
    </TypedPlace>
  );
});

interface BeltToolsProps {
  driveId: string;
  find: () => void;
  findIdler: () => void;
  another: () => void;
  startWhatIf: (() => void) | null;
}

const BeltTools = memo(function BeltTools({ driveId, find, findIdler, another, startWhatIf }: BeltToolsProps) {
  return (
    <div className="button-row">
      <Button icon={<SearchOutlined />} onClick={find}>
        Find routes
      </Button>
      <Button icon={<AimOutlined />} onClick={findIdler}>
        Find an idler position
      </Button>
      {startWhatIf && (
        <Button icon={<ExperimentOutlined />} onClick={() => startWhatIf()}>
          Try a what-if
        </Button>
      )}
      <Button icon={<PlusOutlined />} onClick={another}>
        Add another belt
      </Button>
      <Link to={`/drives/${driveId}/card`} className="button-link">
        Routing card
      </Link>
    </div>
  );
});
