import { random, systematic, type Estimate } from '../../instruments/uncertainty';
import { fitLine } from '../../fitting/line';
import type { Drive } from './drive';
import type { Clocked } from './drive-clock';
import type { BlendedUnit } from './geometry';
import type { SensorDoubt } from './sensor-doubt';

const { hypot, sqrt } = Math;

/** Braking of at least this long counts, s, and so many stretches are needed. */
const longEnough = 1;
export const stretchesNeeded = 10;
/** Mass of a vehicle with whoever sits in it, tyre and rotating parts: standard uncertainty of what slows down, as a share. */
const massDoubt = 0.03;

/** One stretch of braking, means in N·m: friction that the pressures say, what the motor gave, and what slowing down took in all. */
export interface BrakedStretch {
  readonly at: number;
  readonly friction: number;
  readonly regen: number;
  readonly slowing: number;
}

/** Stretches of braking above the handover, each as long as it may be cut. */
export function brakedStretches(unit: BlendedUnit, drive: Drive, speed: Clocked): readonly BrakedStretch[] {
  const { clock, regen, friction, stretches } = drive;
  const { mass, tyreRadius } = unit.vehicle;
  return stretches.flatMap(([begin, end]): BrakedStretch[] => {
    const fast = (i: number) => speed.known[i] === 1 && speed.value[i] > unit.handoverHigh;
    let from = begin;
    while (from < end && !fast(from)) from++;
    let to = from;
    while (to + 1 < end && fast(to + 1)) to++;
    const seconds = (to - from) * clock.step;
    if (from >= end || seconds < longEnough) return [];
    let [sumRegen, sumFriction] = [0, 0];
    for (let i = from; i < to; i++) {
      sumRegen += regen.value[i];
      sumFriction += friction.value[i];
    }
    const lost = (speed.value[from] - speed.value[to]) / seconds;
    return [
      {
        at: clock.start + from * clock.step,
        friction: sumFriction / (to - from),
        regen: sumRegen / (to - from),
        slowing: mass * tyreRadius * lost,
      },
    ];
  });
}

/**
 * What the brakes give of what their pressures say: slope of the torque that slowing down took, less the motor's, over the torque that the
 * pressures say; the road's own drag is in the intercept. Null with fewer than ten stretches, or where they do not differ.
 */
export function frictionGain(stretches: readonly BrakedStretch[], doubt: SensorDoubt): Estimate | null {
  if (stretches.length < stretchesNeeded) return null;
  const x = stretches.map(({ friction }) => friction);
  const over = (of: (stretch: BrakedStretch) => number) => fitLine(x, stretches.map(of));
  const fit = over(({ slowing, regen }) => slowing - regen);
  if (fit.termination !== 'converged') return null;
  return {
    value: fit.slope,
    components: [
      random('fit', sqrt(fit.slopeVariance)),
      // What is wrong with mass or motor goes into the slope as far as they rise with friction.
      systematic('gauge-gain', fit.slope * (hypot(...doubt.gains) / doubt.gains.length)),
      systematic('gauge-gain', doubt.regenGain * over(({ regen }) => regen).slope),
      systematic('model', massDoubt * over(({ slowing }) => slowing).slope),
    ],
  };
}
