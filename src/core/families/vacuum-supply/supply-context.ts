import { readingComponents, type UncertaintyComponent } from '../../instruments/uncertainty';
import type { StepContext } from '../../procedure/step-context';
import { columnOf, meanOf, type Trace } from '../../traces/trace';
import type { AnalysisProblem } from '../../vocabulary/analysis-problem';
import type { VacuumSupplyUnit } from './geometry';

export type Context = StepContext<VacuumSupplyUnit>;

/** A volume measured with rule and calliper is good to about this. */
export const volumeShare = 0.05;

export function gaugeAt(vacuum: number, context: Context): UncertaintyComponent[] {
  const instrument = context.instruments.get('supply_vacuum');
  return instrument ? readingComponents(instrument, vacuum, context.date) : [];
}

export function volumeOf(context: Context): number {
  return context.unit.volume + (context.benchVolume ?? 0);
}

/** The vehicle's own sensor and the gauge on the tee may differ by this, Pa. */
const sensorMayDiffer = 3_000;

/** The sensor over the scan tool against the gauge on the tee. */
export function sensorNotes(trace: Trace): AnalysisProblem[] {
  const supply = columnOf(trace, 'supply_vacuum');
  const sensor = columnOf(trace, 'reservoir_vacuum');
  if (!supply || !sensor) return [];
  const from = Math.floor(supply.length / 2);
  const difference = meanOf(sensor, from).mean - meanOf(supply, from).mean;
  return Math.abs(difference) > sensorMayDiffer ? [{ code: 'sensor-differs', difference }] : [];
}
