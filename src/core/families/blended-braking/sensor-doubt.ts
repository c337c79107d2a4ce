import type { Instrument } from '../../instruments/instrument';
import { systematic, unreadZero, classError, type UncertaintyComponent } from '../../instruments/uncertainty';
import { torquePerPascal, wheelChannels } from './drive';
import type { BlendedUnit } from './geometry';

const { hypot, sqrt } = Math;

/** What a vehicle's own sensors are good for where nobody named them: zero (Pa) and gain of a pressure, gain of the motor's torque. */
export const ownZero = 50e3;
export const ownGain = 0.01;
const regenGain = 0.02;

/** Standard uncertainties of what a drive's torque is made of. */
export interface SensorDoubt {
  /** N·m of each wheel, and share of its torque. */
  readonly zeros: readonly number[];
  readonly gains: readonly number[];
  readonly regenGain: number;
  /** Wheels whose sensors nobody named. */
  readonly assumed: readonly string[];
}

/** Zero of a gauge, and what it bends where its class is of full scale, Pa. */
function offsetOf(instrument: Instrument, date: string): number {
  const bends = instrument.classOf === 'full-scale' ? classError(instrument, 0, date) / 3 : 0;
  return hypot(unreadZero(instrument, date), bends);
}

/** What the sensors of a drive are good for: the workshop's own gauges where it named some, the vehicle's where not. */
export function sensorDoubtOf(
  unit: BlendedUnit,
  instruments: ReadonlyMap<string, Instrument>,
  date: string,
): SensorDoubt {
  const perPascal = torquePerPascal(unit);
  const named = wheelChannels.map((channel) => {
    const instrument = instruments.get(channel);
    return instrument && !instrument.ofStandIn ? instrument : null;
  });
  return {
    zeros: named.map((each, at) => perPascal[at] * (each ? offsetOf(each, date) : ownZero)),
    gains: named.map((each) => (each ? classError(each, each.range, date) / each.range / sqrt(3) : ownGain)),
    regenGain,
    assumed: wheelChannels.filter((_, at) => named[at] === null),
  };
}

/** What a figure takes from each wheel: by how much it moves with its zero, and the torque (N·m) that its gain acts on; the motor likewise. */
export interface Taken {
  readonly wheels: readonly { readonly share: number; readonly torque: number }[];
  readonly regen: number;
}

/** Systematic parts of a figure that takes so much of each sensor, N·m. */
export function sensorParts(
  { zeros, gains, regenGain: ofRegen }: SensorDoubt,
  { wheels, regen }: Taken,
): UncertaintyComponent[] {
  return [
    systematic('gauge-zero', hypot(...wheels.map(({ share }, at) => share * zeros[at]))),
    systematic('gauge-gain', hypot(...wheels.map(({ torque }, at) => torque * gains[at]), regen * ofRegen)),
  ];
}
