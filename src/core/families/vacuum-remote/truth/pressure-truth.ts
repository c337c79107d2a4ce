import type { StepContext } from '../../../procedure/step-context';
import { appliedInput } from '../steps/step-parts';
import { leverLag } from '../unit/air-side';
import type { PlantCondition } from '../unit/faults';
import type { RemoteUnit } from '../unit/remote-unit';

const { exp } = Math;
/** A release with a time constant up to this has settled when its residual is read, s. */
export const settles = 0.1;
const steps = 2_000;

/** Mean rate (Pa/s) at which a pressure falls over a hold, losing a share of itself (1/s). */
export function meanDecay(pressure: number, share: number, seconds: number): number {
  return (pressure * (1 - exp(-share * seconds))) / seconds;
}

/** What happens to an output once the lever is let go, and how little of it counts as gone. */
export interface LettingGo {
  /** Output (Pa gauge or N) that the balance gives at an input, Pa gauge. */
  readonly balance: (input: number) => number;
  /** Time constant of its way back, s. */
  readonly lag: (input: number) => number;
  readonly gone: number;
}

/**
 * From the input falling through a tenth of what was held to the output being gone, s; null where that takes longer than a rest.
 * The lever's line empties with its own time constant, the output follows.
 */
export function releaseTruth(context: StepContext<RemoteUnit>, { balance, lag, gone }: LettingGo): number | null {
  const held = appliedInput(context);
  const longest = 5;
  const dt = longest / steps / 5;
  let output = balance(held);
  const tenth = leverLag * Math.log(10);
  for (let time = 0; time < longest; time += dt) {
    const input = held * exp(-time / leverLag);
    output = balance(input) + (output - balance(input)) * exp(-dt / lag(input));
    if (output <= gone) return time - tenth;
  }
  return null;
}

/** Only what is not held off by friction, cannot breathe or leaks across is on the balance's own line. */
export function balances(condition: PlantCondition): boolean {
  return (
    condition.controlStick === 0 &&
    condition.checkSlip === 0 &&
    !condition.bypassBlocked &&
    condition.powerFriction === 0
  );
}

/** Whether the power piston gets the whole of the vacuum, and all the air that it asks for. */
export function breathes(condition: PlantCondition): boolean {
  const { diaphragmLeak, vacuumValveLeak, atmosphereValveLeak, reservoirLeak, hose, breather } = condition;
  return diaphragmLeak + vacuumValveLeak + atmosphereValveLeak + reservoirLeak === 0 && hose === 1 && breather === 1;
}
