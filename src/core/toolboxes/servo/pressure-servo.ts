import type { CautionId } from '../../vocabulary/caution-id';
import type { BenchControls } from '../../physics/bench-controls';
import type { GuidePhase } from '../../procedure/guide-phase';
import type { Hazard, Interlock } from '../../procedure/interlock';
import { limitFrom } from '../../procedure/limit';
import type { StepContext } from '../../procedure/step-context';
import type { WorkshopLimits } from '../../procedure/workshop-limits';
import { kneeForce, masterPressure, servoForce, type Branch, type ServoUnit } from './servo-law';

/** Tolerances of a servo's sheet that its curve is judged by; every one falls back to the workshop's. */
interface ServoSpec {
  readonly cutInTolerancePercent?: number;
  readonly jumpInTolerancePercent?: number;
  readonly slopeTolerancePercent?: number;
  readonly runOutTolerancePercent?: number;
  readonly hysteresisMaxN?: number;
}

/** A servo that is fed by a pressure. */
export interface PressureServo extends ServoUnit {
  readonly spec: ServoSpec;
}

/** How a family's pressure-fed servo is pushed. */
export interface ServoSetup<Unit extends PressureServo> {
  readonly lever: 'rod_force' | 'pedal_force';
  /** Rod force to each newton at the lever. */
  readonly leverage: (unit: Unit) => number;
  /** Channel of what feeds the servo: a pressure, or a voltage. */
  readonly feed: string;
  /** Whether that channel shows what there is to boost with, or only what is being used of it. */
  readonly feedShows: 'supply' | 'boost';
  /** What that is in a sound unit, SI. */
  readonly supply: (context: StepContext<Unit>) => number;
  /** F_a at a feed (SI of its channel), N. */
  readonly assist: (unit: Unit, pressure: number) => number;
  readonly controls: Partial<BenchControls>;
  /** The feed is drawn on as it is used: what the knee belongs to is read where the lever is held at its highest. */
  readonly feedAtTop?: true;
  /** How a feed is taken off that is not simply left out. */
  readonly feedOff?: GuidePhase;
  readonly startsFrom: 'empty' | 'charged';
  readonly cautions: readonly CautionId[];
  /** What must be proved gone before it is pushed with and without its feed, and what feeding it brings back; left out where nothing is. */
  readonly guards?: {
    readonly powered: Interlock;
    readonly unpowered: Interlock;
    readonly brings: readonly Hazard[];
  };
}

/** Output (Pa gauge) at a force of the lever (N) and a feed pressure (Pa gauge). */
export function servoOutput<Unit extends PressureServo>(
  setup: ServoSetup<Unit>,
  unit: Unit,
  lever: number,
  pressure: number,
  branch: Branch = 'apply',
): number {
  const force = servoForce(unit, lever * setup.leverage(unit), setup.assist(unit, pressure), branch);
  return masterPressure(unit, force);
}

/** Force of the lever at run-out, N; null where assist never reaches cut-in. */
export function servoKnee<Unit extends PressureServo>(
  setup: ServoSetup<Unit>,
  unit: Unit,
  pressure: number,
): number | null {
  const knee = kneeForce(unit, setup.assist(unit, pressure));
  return knee === null ? null : knee / setup.leverage(unit);
}

/** Force of the lever that an assist curve is pushed to: clear beyond run-out, N. */
export function servoPush<Unit extends PressureServo>(setup: ServoSetup<Unit>, unit: Unit, pressure: number): number {
  const knee = servoKnee(setup, unit, pressure) ?? (unit.cutInForce * 2) / setup.leverage(unit);
  return Math.max(knee * 1.35, knee + 250 / setup.leverage(unit));
}

const percent = (value: number | undefined) => (value === undefined ? undefined : value / 100);

export function tolerancesOf({ spec }: PressureServo, shop: WorkshopLimits) {
  return {
    cutIn: limitFrom(
      { field: 'cutInTolerancePercent', value: percent(spec.cutInTolerancePercent) },
      { key: 'cutInForceTolerance', value: shop.cutInForceTolerance },
    ),
    jumpIn: limitFrom(
      { field: 'jumpInTolerancePercent', value: percent(spec.jumpInTolerancePercent) },
      { key: 'jumpInTolerance', value: shop.jumpInTolerance },
    ),
    slope: limitFrom(
      { field: 'slopeTolerancePercent', value: percent(spec.slopeTolerancePercent) },
      { key: 'slopeTolerance', value: shop.slopeTolerance },
    ),
    runOut: limitFrom(
      { field: 'runOutTolerancePercent', value: percent(spec.runOutTolerancePercent) },
      { key: 'runOutTolerance', value: shop.runOutTolerance },
    ),
  };
}

/** Lowest and highest output (Pa gauge) of a sound servo: the loosest cut-in and slope on either side. */
export function servoBand<Unit extends PressureServo>(
  setup: ServoSetup<Unit>,
  unit: Unit,
  at: { readonly lever: number; readonly pressure: number },
  shop: WorkshopLimits,
): readonly [number, number] {
  const { cutIn, slope } = tolerancesOf(unit, shop);
  const shifted = (sign: 1 | -1) => {
    const lever = Math.max(0, at.lever + (sign * cutIn.value * unit.cutInForce) / setup.leverage(unit));
    return servoOutput(setup, unit, lever, at.pressure) * (1 + sign * slope.value * 0.5);
  };
  return [shifted(-1), shifted(1)];
}
