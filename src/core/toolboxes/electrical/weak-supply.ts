import { integrated } from '../../traces/time-mean';
import { ownSamples } from '../../traces/own-samples';
import { columnOf, type Trace } from '../../traces/trace';
import type { AnalysisProblem } from '../../vocabulary/analysis-problem';

/** Below this share of the rated voltage a supply is called weak; what the unit then does is what it is judged by. */
const weakShare = 0.95;

/** Says that a supply is weak, where it is, V. */
export function weakSupply(voltage: number, rated: number): readonly AnalysisProblem[] {
  return voltage < weakShare * rated ? [{ code: 'weak-supply', voltage, rated }] : [];
}

/** Says it of what a trace recorded at the unit's terminals, on its mean; nothing where nobody did. */
export function weakSupplyIn(trace: Trace, rated: number): readonly AnalysisProblem[] {
  const column = columnOf(trace, 'supply_voltage');
  if (!column) return [];
  const samples = ownSamples(trace, column);
  const { time } = samples;
  const mean = integrated(samples).mean(time[0], time[time.length - 1]);
  return Number.isFinite(mean) ? weakSupply(mean, rated) : [];
}
