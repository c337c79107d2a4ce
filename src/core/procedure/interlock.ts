import type { StepVerdict } from '../vocabulary/verdict';

/** What must be on record before a step opens. */
export type Interlock =
  /** The system was proved dead in this job. */
  | { readonly kind: 'dead-once' }
  /** The system was proved dead, and nothing has charged it since. */
  | { readonly kind: 'dead-now' }
  /** These steps are done and none of them failed. */
  | { readonly kind: 'steps-clear'; readonly steps: readonly string[] };

/** What of a step decides whether it opens, and whether it opens others. */
export interface GuardedStep {
  readonly id: string;
  /** What must be on record before the step opens; left out where nothing must. */
  readonly interlock?: Interlock;
  /** What the step does to stored pressure: proves it gone, or puts it there; left out where it does neither. */
  readonly pressure?: 'proves-dead' | 'charges';
}

/** A run of a step in the order of time, with what it came to. */
export interface RecordedStep {
  readonly step: string;
  readonly verdict: StepVerdict;
}

/** Why a step does not open. */
export type Lock =
  /** The step that proves the system dead has to be done first, or again. */
  | { readonly code: 'not-proved-dead'; readonly step: string }
  | { readonly code: 'charged-since'; readonly step: string }
  | { readonly code: 'not-clear'; readonly step: string };

/**
 * What keeps a step shut, from the runs recorded so far (struck-out ones left out); null when it is open. A proof holds
 * until a later step of the job puts pressure in again, whatever that step came to.
 */
export function lockOf(
  steps: readonly GuardedStep[],
  planSteps: readonly string[],
  id: string,
  recorded: readonly RecordedStep[],
): Lock | null {
  const interlock = steps.find((step) => step.id === id)?.interlock;
  if (!interlock) return null;
  if (interlock.kind === 'steps-clear') {
    const short = interlock.steps.find((step) => {
      const last = recorded.filter((run) => run.step === step).at(-1);
      return !last || (last.verdict !== 'pass' && last.verdict !== 'recorded');
    });
    return short === undefined ? null : { code: 'not-clear', step: short };
  }
  const pressureOf = (run: RecordedStep) => steps.find((step) => step.id === run.step)?.pressure;
  const proofs = planSteps.filter((step) => steps.find((each) => each.id === step)?.pressure === 'proves-dead');
  const [proof] = proofs;
  if (proof === undefined) throw new Error(`${id} waits for a proof that no step of its plan gives`);
  const isProof = (run: RecordedStep) => pressureOf(run) === 'proves-dead' && run.verdict === 'pass';
  if (!recorded.some(isProof)) return { code: 'not-proved-dead', step: proof };
  if (interlock.kind === 'dead-once') return null;
  const last = recorded.filter((run) => isProof(run) || pressureOf(run) === 'charges').at(-1);
  return last && isProof(last) ? null : { code: 'charged-since', step: proof };
}
