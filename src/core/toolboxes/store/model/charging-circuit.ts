import {
  advanceAccumulator,
  gasAmount,
  settledAccumulator,
  type GasAccumulatorSpec,
  type GasAccumulatorState,
} from '../../../physics/gas-accumulator';
import { accumulatorOf, type StoreUnit } from './store-unit';

const { max, min, sqrt } = Math;

/** What faults change in a charging circuit. */
export interface CircuitCondition {
  /** Absolute precharge as a share of what it should be; 0 for a gas side that has failed. */
  gas: number;
  /** Pump flow as a share. */
  flow: number;
  /** Internal leak, times that of a sound unit; and what is added to it at cut-out, m3/s. */
  leakFactor: number;
  extraLeak: number;
  /** Back through the pump's outlet valve while it stands, at cut-out, m3/s. */
  outletLeak: number;
  /** Added to the thresholds, Pa. */
  cutInShift: number;
  cutOutShift: number;
  lampShift: number;
  /** The switch never stops the pump. */
  stuck: boolean;
  /** The pump does not turn. */
  dead: boolean;
  /** A relief valve that stands open above this share of cut-out; Infinity for a sound one. */
  reliefShare: number;
}

export function soundCircuit(): CircuitCondition {
  return {
    gas: 1,
    flow: 1,
    leakFactor: 1,
    extraLeak: 0,
    outletLeak: 0,
    cutInShift: 0,
    cutOutShift: 0,
    lampShift: 0,
    stuck: false,
    dead: false,
    reliefShare: Infinity,
  };
}

/** A pump loses this share of its flow between no pressure and cut-out. */
const pumpSlip = 0.04;
/** A relief valve opens at this share of cut-out in any case, and is wide open this much above. */
const reliefShare = 1.12;
const reliefWidth = 0.02;
/** Flow of a bleed valve wide open at 10 MPa, m3/s. */
const bleedFlow = 20e-6;
const bleedReference = 10e6;
/** The lamp goes out again only this much above its threshold, as a share of it. */
const lampBand = 0.03;
/** Gas that is left in an accumulator whose gas side has failed: a bubble, as a share of its volume. */
const failedBubble = 0.004;

/** What acts on a circuit at one instant. */
export interface CircuitDrive {
  /** The pump is supplied: motor live, or engine running. */
  readonly live: boolean;
  /** Opening of the bleed valve, 0 to 1. */
  readonly bleed: number;
  /** Fluid that brakes take from it in this step, m3. */
  readonly taken: number;
  /** Leak that others add, m3/s. */
  readonly elsewhere: number;
}

/** A store with its pump, switch, leaks and lamp, in motion. */
export interface ChargingCircuit {
  readonly state: GasAccumulatorState;
  readonly running: () => boolean;
  /** How long before now its switch went, where it did in the last step; else 0, s. */
  readonly sinceSwitched: () => number;
  readonly lamp: () => boolean;
  /** Gauge pressure, Pa. */
  readonly pressure: () => number;
  readonly advance: (dt: number, drive: CircuitDrive) => void;
  readonly snapshot: () => number[];
  readonly restore: (numbers: readonly number[]) => void;
}

export interface CircuitSurroundings {
  /** Pa absolute */
  readonly ambient: number;
  /** Temperature of the shell, K. */
  readonly environment: number;
}

function specWith(store: StoreUnit, condition: CircuitCondition, ambient: number): GasAccumulatorSpec {
  const spec = accumulatorOf(store, ambient, condition.gas);
  // A failed gas side keeps a bubble at the atmosphere: stiff at once.
  return condition.gas > 0 ? spec : { ...spec, precharge: ambient, volume: store.volume * failedBubble };
}

/**
 * Dynamic model of a charging circuit: pump with slip and a switch between cut-in and cut-out, a leak in proportion to
 * pressure, bleed valve as an orifice, relief valve, gas accumulator with one thermal time constant.
 */
export function chargingCircuit(
  store: StoreUnit,
  condition: CircuitCondition,
  surroundings: CircuitSurroundings,
  charged: boolean,
): ChargingCircuit {
  const { ambient } = surroundings;
  const spec = specWith(store, condition, ambient);
  const cutIn = store.cutIn + condition.cutInShift;
  const cutOut = store.cutOut + condition.cutOutShift;
  const lampBelow = store.lamp + condition.lampShift;
  const relief = store.cutOut * min(reliefShare, condition.reliefShare);
  const leakPerPascal = (store.internalLeak * condition.leakFactor + condition.extraLeak) / store.cutOut;
  const outletPerPascal = condition.outletLeak / store.cutOut;
  const reached = min(cutOut, condition.dead ? cutOut : relief);
  const state = settledAccumulator(spec, charged ? ambient + reached : ambient, surroundings);
  if (gasAmount(spec) <= 0) throw new Error('an accumulator needs some gas');
  let running = 0;
  let sinceSwitched = 0;
  let lamp = state.pressure - ambient < lampBelow ? 1 : 0;

  const pressureNow = () => state.pressure - ambient;
  const motion = (): number[] => [state.fluid, state.temperature, state.pressure, state.held];
  const moveBack = (to: readonly number[]) => {
    [state.fluid, state.temperature, state.pressure, state.held] = to;
  };

  /** Whether the pump is supplied at a pressure; between the thresholds it is as it was. */
  const switchedAt = (pressure: number, was: number): number => {
    if (pressure < cutIn) return 1;
    return pressure > cutOut && !condition.stuck ? 0 : was;
  };

  function flow(dt: number, { bleed, taken, elsewhere }: Omit<CircuitDrive, 'live'>): void {
    const pressure = pressureNow();
    const pumping = running > 0 && !condition.dead;
    const pumped = pumping ? store.pumpFlow * condition.flow * (1 + pumpSlip * (1 - pressure / store.cutOut)) : 0;
    const back = pumping ? 0 : outletPerPascal * pressure;
    const bled = bleed > 0 ? bleed * bleedFlow * sqrt(max(0, pressure) / bleedReference) : 0;
    const relieved = pressure > relief ? (2 * store.pumpFlow * (pressure - relief)) / (relief * reliefWidth) : 0;
    const net = pumped - leakPerPascal * pressure - back - bled - relieved - elsewhere;
    advanceAccumulator(spec, state, dt, net * dt - taken, surroundings);
  }

  /** A step in which a threshold is crossed is gone in two, so that how long steps are does not move where a pump stops. */
  function flowAndSwitch(dt: number, drive: CircuitDrive): void {
    const [before, pressure] = [motion(), pressureNow()];
    flow(dt, drive);
    if (!drive.live) return;
    const next = switchedAt(pressureNow(), running);
    if (next === running) return;
    const share = ((running > 0 ? cutOut : cutIn) - pressure) / (pressureNow() - pressure);
    moveBack(before);
    flow(share * dt, { ...drive, taken: share * drive.taken });
    running = next;
    sinceSwitched = (1 - share) * dt;
    flow(sinceSwitched, { ...drive, taken: (1 - share) * drive.taken });
  }

  return {
    state,
    running: () => running > 0 && !condition.dead,
    sinceSwitched: () => sinceSwitched,
    lamp: () => lamp > 0,
    pressure: pressureNow,
    advance(dt, drive) {
      sinceSwitched = 0;
      running = drive.live ? switchedAt(pressureNow(), running) : 0;
      flowAndSwitch(dt, drive);
      const now = pressureNow();
      if (now < lampBelow) lamp = 1;
      else if (now > lampBelow * (1 + lampBand)) lamp = 0;
    },
    snapshot: () => [...motion(), running, lamp],
    restore(numbers) {
      moveBack(numbers);
      [running, lamp] = numbers.slice(4);
    },
  };
}
