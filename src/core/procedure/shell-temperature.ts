import type { AnalysisProblem } from '../vocabulary/analysis-problem';

/** Temperature of a store's shell: measured, or the air's, long enough settled in it or not. */
export type Shell =
  { readonly kind: 'stated'; readonly temperature: number } | { readonly kind: 'as-air'; readonly settled: boolean };

/** A thermometer on a shell, or an hour in the shop's air, K. */
const known = 1;
/** What a shop's change of temperature, or the way there, makes of a shell that nobody let settle: within so many K. */
const unsettledWithin = 5;

/** The shell and the air around it, K. */
export interface ShellAndAir {
  readonly shell: Shell;
  readonly airTemperature: number;
}

/** Shell temperature (K) with its standard uncertainty (K), and what was taken for granted of it. */
export function shellTemperature({ shell, airTemperature }: ShellAndAir): {
  readonly value: number;
  readonly standard: number;
  readonly notes: readonly AnalysisProblem[];
} {
  if (shell.kind === 'stated') return { value: shell.temperature, standard: known, notes: [] };
  if (shell.settled) return { value: airTemperature, standard: known, notes: [] };
  return {
    value: airTemperature,
    standard: unsettledWithin / Math.sqrt(3),
    notes: [{ code: 'shell-taken-as-air', within: unsettledWithin }],
  };
}
