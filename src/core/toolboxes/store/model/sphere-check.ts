import { asDials } from '../../../dials/default-dial';
import { readingComponents } from '../../../instruments/uncertainty';
import type { Instrument } from '../../../instruments/instrument';
import { prechargeTemperature, restatePrecharge } from '../../../physics/gas-law';
import type { WorkshopLimits } from '../../../procedure/workshop-limits';

const { hypot } = Math;

/** A shell's temperature is taken to about this, one sigma, K. */
const shellStandard = 1;
/** A charging tool's own dial, where the workshop has none on record, reads to this share, one sigma. */
const toolShare = 0.02 / 3;

/** What was read on the charging tool. */
export interface SphereReading {
  /** Pa gauge, and of the shell, K. */
  readonly reading: number;
  readonly temperature: number;
  /** Local atmosphere, Pa absolute. */
  readonly ambient: number;
  readonly instruments: ReadonlyMap<string, Instrument>;
  /** ISO time, against which the calibration is judged. */
  readonly at: string;
}

/**
 * Precharge (Pa gauge at 20 °C) and its standard uncertainty (Pa) from a charging tool's reading. It is read by eye: a gauge of the store
 * that nobody named counts as an ordinary dial, not as the stand-in's transducer.
 */
export function restateSphereReading({ reading, temperature, ambient, instruments, at }: SphereReading): {
  readonly precharge: number;
  readonly standard: number;
} {
  const instrument = asDials(instruments).get('accumulator_pressure');
  const gauge = instrument
    ? hypot(...readingComponents(instrument, reading, at).map((part) => part.standard))
    : toolShare * reading;
  return {
    precharge: restatePrecharge(reading, temperature, prechargeTemperature, ambient),
    standard: hypot(gauge, ((reading + ambient) * shellStandard) / temperature),
  };
}

/** Between which precharges (Pa gauge at 20 °C) a sphere is right, by its sheet's and the workshop's tolerance. */
export function spherePrechargeLimits(
  precharge: number,
  { prechargeTolerance }: Pick<WorkshopLimits, 'prechargeTolerance'>,
): readonly [number, number] {
  return [precharge * (1 - prechargeTolerance), precharge * (1 + prechargeTolerance)];
}
