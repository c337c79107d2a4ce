import { noCorrections, type Corrections, type StepAnalysis } from './step-analysis';

/** What two steps, or two circuits of one, found out about the bench: of the same thing the later counts. */
export function mergeCorrections<Both extends Partial<Corrections>>(first: Both, later: Partial<Corrections>): Both {
  return {
    ...first,
    ...later,
    ...(first.precharge || later.precharge ? { precharge: { ...first.precharge, ...later.precharge } } : {}),
    ...(first.soakLeak || later.soakLeak ? { soakLeak: { ...first.soakLeak, ...later.soakLeak } } : {}),
  };
}

/** What analyses found out about the bench, one after the other, on top of what was known before. */
export function correctionsOf(analyses: readonly StepAnalysis[], known: Corrections = noCorrections): Corrections {
  return analyses.reduce((all, { corrections }) => (corrections ? mergeCorrections(all, corrections) : all), known);
}
