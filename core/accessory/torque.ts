import type { ElectricalLoad, Role, Station, TorqueCurve } from '../drive';
import { inOrder, monotoneAt } from '../numeric';
import { cubedPower, loadOf, outputAt } from './output';

/** Volts of the vehicle while it charges. A default. */
export const CHARGING_VOLTS = 14;
/** What of the shaft's power an alternator gives as current. A default. */
export const ALTERNATOR_EFFICIENCY = 0.6;
/** Below this speed of its own an alternator gives nothing to speak of; its torque is held there, rev/min. */
const LEAST_CHARGING_RPM = 800;

/** Where an accessory's torque comes from. */
export type TorqueSource = 'points' | 'power' | 'loads' | 'default' | 'none';

/** What an accessory takes in one state: at its own speed, N·m. */
export interface TorqueState {
  state: string;
  source: TorqueSource;
  nm: (rpm: number) => number;
}

/** Roles whose power grows with the cube of speed: they move air or water. */
const CUBED: ReadonlySet<Role> = new Set<Role>(['fan', 'water-pump']);
const CHARGES: ReadonlySet<Role> = new Set<Role>(['alternator', 'generator']);
/** What turns with the belt and takes nothing of its own. */
const TAKES_NOTHING: ReadonlySet<Role> = new Set<Role>(['crankshaft', 'idler', 'tensioner', 'jackshaft']);

/**
 * Emery's defaults by role, heaviest state first: a steady torque, N·m, or a power that grows with the cube of speed.
 * Round figures to start from, shown as defaults; never a unit's specification.
 */
const DEFAULTS: Partial<Record<Role, readonly { state: string; nm?: number; power?: { rpm: number; kw: number } }[]>> =
  {
    'water-pump': [{ state: 'pumping', power: { rpm: 5000, kw: 1.2 } }],
    fan: [
      { state: 'coupled', power: { rpm: 2500, kw: 1.8 } },
      { state: 'idling', power: { rpm: 2500, kw: 0.4 } },
    ],
    'power-steering': [
      { state: 'full lock', nm: 10 },
      { state: 'straight ahead', nm: 2.5 },
    ],
    'ac-compressor': [
      { state: 'clutch in', nm: 14 },
      { state: 'clutch out', nm: 0.5 },
    ],
    'air-pump': [{ state: 'pumping', nm: 5 }],
    supercharger: [
      { state: 'full boost', power: { rpm: 12_000, kw: 18 } },
      { state: 'off boost', power: { rpm: 12_000, kw: 4 } },
    ],
    'vacuum-pump': [{ state: 'pumping', nm: 1.5 }],
    other: [{ state: 'working', nm: 3 }],
  };
/** What an alternator gives where nobody wrote its loads down, A. Defaults. */
const DEFAULT_AMPS = [
  { state: 'lights on', amps: 70 },
  { state: 'lights off', amps: 20 },
];

const perRadian = (rpm: number) => (rpm * 2 * Math.PI) / 60;

/** The torque, N·m, of a power at a speed, rev/min, above 0. */
export const torqueOfPower = (kw: number, rpm: number) => (kw * 1000) / perRadian(rpm);

/**
 * The states of an accessory, its first the one that counts where none is named: from its own points, else from its
 * power, else for an alternator from the loads of the vehicle, else by Emery's default for its role. A shaft that takes
 * nothing of its own has one, without a name.
 */
export function torqueStates(
  { role, torque, power, output }: Pick<Station, 'role' | 'torque' | 'power' | 'output'>,
  loads: readonly ElectricalLoad[] = [],
): readonly TorqueState[] {
  if (torque && torque.length > 0) return torque.map(fromPoints);
  if (power) {
    const steady = torqueOfPower(power.kw, power.rpm);
    const nm = CUBED.has(role) ? (rpm: number) => steady * (rpm / power.rpm) ** 2 : () => steady;
    return [{ state: 'as written', source: 'power', nm }];
  }
  if (CHARGES.has(role)) {
    const source = loads.length > 0 ? 'loads' : 'default';
    const all = loads.reduce((sum, { amps }) => sum + amps, 0);
    const states =
      loads.length > 0
        ? [
            { state: 'as switched', amps: loadOf(loads) },
            { state: 'all loads on', amps: all },
          ]
        : DEFAULT_AMPS;
    return states.map(({ state, amps }) => ({ state, source, nm: charging(amps, output) }));
  }
  if (TAKES_NOTHING.has(role)) return [{ state: '', source: 'none', nm: () => 0 }];
  return (DEFAULTS[role] ?? DEFAULTS.other!).map(({ state, nm, power: known }) => ({
    state,
    source: 'default',
    nm: known ? (rpm) => (rpm > 0 ? torqueOfPower(cubedPower(known, rpm), rpm) : 0) : () => nm ?? 0,
  }));
}

function fromPoints({ state, points }: TorqueCurve): TorqueState {
  const curve = inOrder(points.map(({ rpm, nm }) => ({ x: rpm, y: nm })));
  return { state, source: 'points', nm: (rpm) => monotoneAt(curve, rpm) };
}

/** Of a current: watts over efficiency and speed. It gives no more than its maker's curve has at that speed. */
function charging(wanted: number, output: Station['output']): (rpm: number) => number {
  return (rpm) => {
    const amps = output && output.length > 0 ? Math.min(wanted, outputAt(output, rpm)!) : wanted;
    return (amps * CHARGING_VOLTS) / ALTERNATOR_EFFICIENCY / perRadian(Math.max(LEAST_CHARGING_RPM, rpm));
  };
}

/** Which state of each accessory counts: one by name, the heaviest or lightest at its speed, or one for each. */
export interface LoadChoice {
  state?: string;
  all?: 'heaviest' | 'lightest';
  /** By station. */
  by?: Readonly<Record<string, string>>;
}

/** The state of an accessory that a choice comes to, at its own speed. */
export function stateChosen(
  states: readonly TorqueState[],
  station: string,
  { state, all, by }: LoadChoice,
  rpm: number,
): TorqueState {
  const named = by?.[station] ?? state;
  const found = states.find((state) => state.state === named);
  if (found || !all) return found ?? states[0]!;
  const sign = all === 'heaviest' ? 1 : -1;
  return states.reduce((best, next) => (sign * (next.nm(rpm) - best.nm(rpm)) > 0 ? next : best));
}
