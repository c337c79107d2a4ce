import { differenceComponents, differenceResolution, random } from '../../instruments/uncertainty';
import type { Pull } from '../../traces/pull';
import { columnOf, meanOf, sampleInterval, type Trace } from '../../traces/trace';
import type { Characteristic } from '../../procedure/step-analysis';
import type { StepContext } from '../../procedure/step-context';
import type { AnalysisProblem } from '../../vocabulary/analysis-problem';
import { absent, measured } from '../../procedure/analysis-result';
import { heldSeconds, lowestHeld } from '../../traces/lowest-held';

/** Supply vacuum around a pull, Pa. */
export interface SupplyDuringPull {
  readonly rest: number;
  readonly restStandard: number;
  readonly atReference: number;
}

/** Supply vacuum at rest before the pull, and when the lever passed `reference` (SI above its zero). */
export function supplyDuringPull(trace: Trace, pull: Pull, reference: number): SupplyDuringPull | null {
  const supply = columnOf(trace, 'supply_vacuum');
  if (!supply) return null;
  const before =
    pull.restBefore.to > pull.restBefore.from ? pull.restBefore : { from: 0, to: Math.max(2, pull.apply.from) };
  const rest = meanOf(supply, before.from, before.to);
  const target = reference + (pull.zero ?? 0);
  let at = pull.apply.from;
  while (at < pull.apply.to - 1 && pull.smooth[at] < target) at++;
  const half = Math.max(1, Math.round(0.25 / sampleInterval(trace)));
  return {
    rest: rest.mean,
    restStandard: rest.deviation / Math.sqrt(Math.max(1, rest.count)),
    atReference: meanOf(supply, Math.max(0, at - half), at + half + 1).mean,
  };
}

/** Below this share of the rated vacuum a push says nothing of a vacuum unit; below a tenth of it nobody opened the source. */
const leastShare = 0.3;
const openedShare = 0.1;

/** Vacuum that was too little for the unit to work with; null where it was enough, or where nobody recorded it. */
export function tooLittleVacuum(supply: SupplyDuringPull | null, rated: number): AnalysisProblem | null {
  if (!supply || supply.rest >= leastShare * rated) return null;
  return supply.rest < openedShare * rated
    ? { code: 'source-never-opened', vacuum: supply.rest }
    : { code: 'too-little-vacuum', vacuum: supply.rest, needed: leastShare * rated };
}

/** Supply at rest minus its lowest level held half a second while applied, Pa. */
export function supplySag(
  trace: Trace,
  pull: Pull,
  supply: SupplyDuringPull | null,
  context: StepContext<unknown>,
): Characteristic[] {
  const column = columnOf(trace, 'supply_vacuum');
  if (!column || !supply) return [absent('supply-sag', { code: 'supply-missing' })];
  const lowest = lowestHeld(trace, column, { from: pull.apply.from, to: Math.max(pull.wayBack.to, pull.plateau.to) });
  if (!lowest) return [absent('supply-sag', { code: 'hold-too-short', seconds: 0, needed: heldSeconds })];
  const instrument = context.instruments.get('supply_vacuum');
  return [
    measured('supply-sag', supply.rest - lowest.mean, [
      random('noise', Math.hypot(supply.restStandard, lowest.standard)),
      ...(instrument
        ? [
            differenceResolution(instrument),
            ...differenceComponents(instrument, lowest.mean, supply.rest, context.date),
          ]
        : []),
    ]),
  ];
}
