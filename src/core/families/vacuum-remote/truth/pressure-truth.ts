import type { PlantCondition } from '../unit/faults';

const { exp } = Math;
/** Mean rate (Pa/s) at which a pressure falls over a hold, losing a share of itself (1/s). */
export function meanDecay(pressure: number, share: number, seconds: number): number {
  return (pressure * (1 - exp(-share * seconds))) / seconds;
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
