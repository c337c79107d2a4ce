import { limitFrom } from '../../../procedure/limit';
import type { GuidePhase } from '../../../procedure/guide-phase';
import type { StepContext } from '../../../procedure/step-context';
import type { MeasuredStep } from '../../../procedure/step-definition';
import type { VacuumInlineUnit } from '../unit/geometry';
import { inlineBench } from '../unit/bench-stand';
import { runOutForce } from '../unit/quasi-static';
import { inlineVehicle } from '../unit/vehicle-stand';

export type Context = StepContext<VacuumInlineUnit>;
export type Measured = MeasuredStep<VacuumInlineUnit>;

export { home, rest, supplyOn } from '../../../toolboxes/vacuum/vacuum-unit-steps';

export const engineOn = { engine: 1 } as const;

/** Channel of the rod on the bench, of the pedal in the vehicle. */
export function leverOf(context: Context): string {
  return lever(context).channel;
}

const lever = (context: Context) => (context.plan === 'vehicle' ? inlineVehicle : inlineBench).lever;
const supply = (context: Context) => (context.plan === 'vehicle' ? inlineVehicle : inlineBench).supply;

/** Supply vacuum of the plan's source, Pa. */
export function vacuumNow(context: Context): number {
  return supply(context).at(context.unit, context.ambient);
}

/** Rod force (N) at a level of the plan's lever. */
export function rodForceAt(context: Context, level: number): number {
  return context.plan === 'vehicle' ? level * context.unit.leverage : level;
}

/** Lever level (N) of the reserve test: the stated pedal force, on the bench at the rod. */
export function reserveLevel(context: Context): number {
  const { reserveForce, leverage } = context.unit;
  return context.plan === 'vehicle' ? reserveForce : reserveForce * leverage;
}

/** Rod force at which the applied steps are held: clear beyond run-out, N. */
export function appliedForce(context: Context): number {
  const knee = runOutForce(context.unit, vacuumNow(context)) ?? context.unit.cutInForce * 2;
  return knee * 1.15;
}

/** Push to a level and hold it there for a moment. */
export function pushTo(channel: string, level: number, seconds: number, controls: GuidePhase['controls']): GuidePhase {
  return {
    instruction: { code: 'pull-to-hold', channel, level, seconds: 1 },
    controls,
    lever: { to: level, seconds },
    end: { kind: 'input-held', level, tolerance: 0.08 * level, seconds: 1.2 },
  };
}

/** Hold where it is for `seconds`. */
export function holdThere(level: number, seconds: number, controls: GuidePhase['controls']): GuidePhase {
  return {
    instruction: { code: 'hold-there', seconds },
    controls,
    lever: { to: level, seconds: 0 },
    end: { kind: 'seconds', seconds },
  };
}

/** Let back to rest. */
export function letBack(channel: string, seconds: number, controls: GuidePhase['controls']): GuidePhase {
  return {
    instruction: { code: 'let-back-slowly', channel },
    controls,
    lever: { to: 0, seconds },
    end: { kind: 'input-below', level: 10 },
  };
}

/** One stroke of a reserve: press, hold, let go, wait. */
export function stroke(channel: string, level: number, number: number, controls: GuidePhase['controls']): GuidePhase[] {
  const instruction = { code: 'stroke', channel, level, number } as const;
  return [
    {
      instruction,
      controls,
      lever: { to: level, seconds: 0.6 },
      end: { kind: 'input-held', level, tolerance: 0.1 * level, seconds: 1.2 },
    },
    { instruction, controls, lever: { to: 0, seconds: 0.3 }, end: { kind: 'input-below', level: 10 } },
    { instruction, controls, lever: { to: 0, seconds: 0 }, end: { kind: 'seconds', seconds: 1.2 } },
  ];
}

const scaled = (value: number | undefined, factor: number) => (value === undefined ? undefined : value * factor);

/** Residual output allowed after release, Pa. */
export function residualLimit({ unit: { spec }, workshopLimits }: Context) {
  return limitFrom(
    { field: 'residualMaxKpa', value: scaled(spec.residualMaxKpa, 1e3) },
    { key: 'residual', value: workshopLimits.residual },
  );
}

export function vacuumLossSeconds({ unit: { spec }, workshopLimits }: Context): number {
  return spec.vacuumLossSeconds ?? workshopLimits.vacuumLossSeconds;
}
