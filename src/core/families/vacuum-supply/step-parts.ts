import { type GuidePhase, home } from '../../procedure/guide-phase';
import type { MeasuredStep } from '../../procedure/step-definition';
import type { VacuumSupplyUnit } from './geometry';

import type { Context } from './supply-context';

export type { Context };
export type Measured = MeasuredStep<VacuumSupplyUnit>;

export const pedal = 'pedal_force';
export const on: GuidePhase['controls'] = { engine: 1 };
export const off: GuidePhase['controls'] = {};
/** Pedal force of a stroke, N. */
export const strokeForce = 150;

/** A stroke of the pedal and `waits` seconds after it. */
export function stroke(number: number, controls: GuidePhase['controls'], waits = 1.5): GuidePhase[] {
  const instruction = { code: 'stroke', channel: pedal, level: strokeForce, number } as const;
  return [
    {
      instruction,
      controls,
      lever: { to: strokeForce, seconds: 0.5 },
      end: { kind: 'input-held', level: strokeForce, tolerance: 0.15 * strokeForce, seconds: 0.8 },
    },
    { instruction, controls, lever: { to: 0, seconds: 0.3 }, end: { kind: 'input-below', level: 10 } },
    { instruction, controls, lever: home, end: { kind: 'seconds', seconds: waits } },
  ];
}

/** Time in which a sound source has settled, s. */
export function settlingSeconds({ unit }: Context): number {
  return Math.max(8, (5 * unit.volume) / unit.speed);
}

export const fraction = (percent: number | undefined) => (percent === undefined ? undefined : percent / 100);
