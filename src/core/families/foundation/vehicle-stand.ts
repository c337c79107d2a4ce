import { pressureOfFoot, rearPressure } from '../../calculators/brake-force';
import type { Stand } from '../../contract/plan';
import type { Plant, Surroundings } from '../../physics/plant';
import type { FoundationCondition } from './faults';
import { soundRatio, soundSwitch, type FoundationUnit } from './geometry';

const { exp, max } = Math;

/** Lags of the foot, of the booster that fills and empties, and of pressure in a sound line, s. */
const footLag = 0.05;
const assistLag = 0.6;
const lineLag = 0.03;
/** Free play and give of a pedal, m and m to each newton; what the brakes swallow where the sheet does not say, m3. */
const freePlay = 6e-3;
const give = 12e-6;
const usualVolume = 9e-6;
/** Pressure at which the brakes have taken in most of that, Pa. */
const swallowedAt = 1.2e6;
/** A lamp lights below this at the rear against the front, as a share. */
const lampShare = 0.35;

/** How far the pedal goes (m) for a pressure (Pa) and a force (N). */
function travelOf(unit: FoundationUnit, condition: FoundationCondition, pressure: number, force: number): number {
  if (force < 1) return 0;
  const { masterArea, pedalRatio } = unit.master;
  const volume = (unit.displaced ?? usualVolume) * (1 - exp(-pressure / swallowedAt));
  const lost = (condition.slack + condition.air) * (1 - exp(-force / 40));
  return freePlay + give * force + lost + (volume / masterArea) * pedalRatio * 0.6;
}

/** Where the stop-lamp switch of a condition closes, SI of what works it. */
export function switchAt(unit: FoundationUnit, { switchOff }: FoundationCondition): number {
  const { least, most } = unit.stopLamp;
  return soundSwitch(unit) + (switchOff * (most - least)) / 2;
}

/** Front pressure of an axle pair whose pedal is pressed, Pa: by the foot alone, or with the assist `share` up. */
export function masterAt(unit: FoundationUnit, { bypass }: FoundationCondition, force: number, share: number): number {
  const assisted = 1 + (soundRatio(unit) - 1) * share;
  return pressureOfFoot(unit.master, force) * assisted * (1 - bypass);
}

/** Rear pressure of a condition at a front pressure, Pa. */
export function rearAt({ vehicle }: FoundationUnit, condition: FoundationCondition, front: number): number {
  const valve = vehicle.proportioning;
  const shifted = valve && {
    split: valve.split * condition.split,
    slope: max(0, valve.slope + condition.slopeMore),
  };
  return condition.rearShare * condition.slopeBelow * rearPressure({ ...vehicle, proportioning: shifted }, front);
}

/** A vehicle that stands: pedal, master cylinder, both axles, stop-lamp switch, red lamp, engine. */
export function foundationPlant(unit: FoundationUnit, condition: FoundationCondition, around: Surroundings): Plant {
  let [foot, assist, master, front, rear] = [0, around.startsFrom === 'charged' ? 1 : 0, 0, 0, 0];
  let running = 0;
  const closes = switchAt(unit, condition);
  const follow = (now: number, to: number, dt: number, lag: number) => now + (to - now) * (1 - exp(-dt / lag));
  return {
    channels: [
      'pedal_force',
      'pedal_travel',
      'master_pressure',
      'front_pressure',
      'rear_pressure',
      'stop_switch',
      'lamp_red',
      'engine_on',
    ],
    largestStep: 0.002,
    advance(dt, controls) {
      running = controls.engine > 0 ? 1 : 0;
      foot = follow(foot, controls.lever, dt, footLag);
      assist = follow(assist, running, dt, assistLag);
      master = follow(master, masterAt(unit, condition, foot, assist), dt, lineLag);
      // A swollen hose lets in late, and keeps some of it back.
      const falls = master < front;
      front = follow(front, falls ? max(master, condition.trapped) : master, dt, condition.hoseLag);
      rear = follow(rear, rearAt(unit, condition, front), dt, lineLag);
    },
    read(out) {
      out[0] = foot;
      out[1] = travelOf(unit, condition, master, foot);
      out[2] = master;
      out[3] = front;
      out[4] = rear;
      out[5] = out[unit.stopLamp.by === 'master_pressure' ? 2 : 1] >= closes ? 1 : 0;
      out[6] = condition.shuttled || (front > 5e5 && rear < lampShare * front && condition.rearShare < 0.5) ? 1 : 0;
      out[7] = running;
    },
    snapshot: () => [foot, assist, master, front, rear, running],
    restore(state) {
      [foot, assist, master, front, rear, running] = state;
    },
  };
}

/** The vehicle as it stands: a foot on the pedal, nothing else feeds what is behind the unit. */
export const foundationVehicle = {
  lever: { channel: 'pedal_force', maximum: () => 500 },
  supply: null,
} as const satisfies Stand<FoundationUnit>;
