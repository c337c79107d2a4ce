import { prepareBlended } from '@/core/families/blended-braking/geometry';
import { readDrive, samplesOf, type Drive } from '@/core/families/blended-braking/drive';
import { blendedSchema } from '@/core/families/blended-braking/sheet';
import { onClock } from '@/core/families/blended-braking/drive-clock';
import { sensorDoubtOf } from '@/core/families/blended-braking/sensor-doubt';
import type { Trace } from '@/core/traces/trace';

/** A shuttle that brakes with its motor too. */
export const shuttleSpec = blendedSchema.parse({
  frictionCoefficientFront: 0.38,
  pistonAreaFrontMm2: 2290,
  effectiveRadiusFrontMm: 130,
  frictionCoefficientRear: 0.38,
  pistonAreaRearMm2: 900,
  effectiveRadiusRearMm: 120,
  tyreRadiusMm: 310,
  massKg: 1700,
});
export const shuttle = prepareBlended(shuttleSpec);

/** Nobody named its sensors. */
export const ownSensors = sensorDoubtOf(shuttle, new Map(), '2026-11-27');

/** What a log says of the shuttle's braking; throws where it says nothing. */
export function drivenIn(trace: Trace): Drive {
  const read = readDrive(trace, shuttle);
  if (read.kind !== 'drive') throw new Error(`nothing can be read of it: ${read.kind}`);
  return read.drive;
}

/** A channel of a log on the clock of its drive. */
export function clockedIn(trace: Trace, { clock }: Drive, channel: string) {
  const samples = samplesOf(trace, channel);
  if (!samples) throw new Error(`the log has no ${channel}`);
  return onClock(samples, clock, 'straight');
}
