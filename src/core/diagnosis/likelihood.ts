import { compared } from './compared-figures';
import { findingAt, type LaidOut } from './laid-out';
import { integrateNuisances } from './nuisance';
import { pointChance, symptomChance } from './said-and-seen';
import type { State } from './states';
import { addBounds, addFailed, addLost } from './unmeasured-figures';

const { log } = Math;

/** What a state says of the evidence: the log likelihood of every finding, and what stands between them. */
export interface StateLikelihood {
  readonly byFinding: Float64Array;
  readonly total: number;
}

/** Likelihood of everything that was seen, if a state is what is the matter. */
export function likelihoodOf(laid: LaidOut, state: State): StateLikelihood {
  const byFinding = new Float64Array(laid.findings.length);
  const { each, cost } = integrateNuisances(compared(laid, state));
  laid.measured.forEach(({ figure }, at) => (byFinding[findingAt(laid, figure)] += each[at]));
  addBounds(laid, state.cells, byFinding);
  addLost(laid, state.cells, byFinding);
  addFailed(laid, state, byFinding);
  for (const { finding, point } of laid.points)
    byFinding[finding] += log(pointChance(laid.kind, state.hypothesis, point));
  for (const { finding, symptom, said } of laid.symptoms)
    byFinding[finding] += log(symptomChance(laid, state.hypothesis, symptom, said));
  return { byFinding, total: byFinding.reduce((sum, one) => sum + one, cost) };
}
