import type { StepVerdict } from '../vocabulary/verdict';

/** What can hurt until it was proved gone: pressure in a store, a motor that moves by itself, the charge of a bank of capacitors. */
export type Hazard = 'pressure' | 'motion' | 'charge';

/** What must be on record before a step opens. */
export type Interlock =
  /** Each of `once` was proved gone in this job; each of `now` too, and nothing has brought it back since. */
  | { readonly kind: 'gone'; readonly once: readonly Hazard[]; readonly now: readonly Hazard[] }
  /** These steps are done and none of them failed. */
  | { readonly kind: 'steps-clear'; readonly steps: readonly string[] };

/** Opens once these were proved gone in the job. */
export function goneOnce(...once: readonly Hazard[]): Interlock {
  return { kind: 'gone', once, now: [] };
}

/** Opens while these are proved gone: hands go in. */
export function goneNow(...now: readonly Hazard[]): Interlock {
  return { kind: 'gone', once: [], now };
}

/** What of a step decides whether it opens, and whether it opens others. */
export interface GuardedStep {
  readonly id: string;
  /** What must be on record before the step opens; left out where nothing must. */
  readonly interlock?: Interlock;
  /** What a pass of the step proves gone, and what it puts there whatever it comes to; left out where there is none. */
  readonly proves?: readonly Hazard[];
  readonly brings?: readonly Hazard[];
}

/** A run of a step in the order of time, with what it came to. */
export interface RecordedStep {
  readonly step: string;
  readonly verdict: StepVerdict;
}

/** Why a step does not open. */
export type Lock =
  /** The step that proves it gone has to be done first, or again. */
  | { readonly code: 'not-proved'; readonly hazard: Hazard; readonly step: string }
  | { readonly code: 'back-since'; readonly hazard: Hazard; readonly step: string }
  | { readonly code: 'not-clear'; readonly step: string };

/** Whether a step has to do with something that is proved gone. */
export function touchesHazard(step: GuardedStep): boolean {
  return step.proves !== undefined || step.brings !== undefined;
}

/**
 * What keeps a step shut, from the runs recorded so far (struck-out ones left out); null when it is open. A proof holds
 * until a later step of the job brings the hazard back, whatever that step came to.
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
  const stepOf = (run: RecordedStep) => steps.find((step) => step.id === run.step);
  for (const hazard of [...interlock.once, ...interlock.now]) {
    const proof = proofOf(steps, planSteps, id, hazard);
    const proved = (run: RecordedStep) => run.verdict === 'pass' && stepOf(run)?.proves?.includes(hazard) === true;
    if (!recorded.some(proved)) return { code: 'not-proved', hazard, step: proof };
    if (!interlock.now.includes(hazard)) continue;
    const last = recorded.filter((run) => proved(run) || stepOf(run)?.brings?.includes(hazard)).at(-1);
    if (!last || !proved(last)) return { code: 'back-since', hazard, step: proof };
  }
  return null;
}

/** The last step before `id` in the plan that proves a hazard gone, else the first; throws where none does (a programmer's error). */
function proofOf(steps: readonly GuardedStep[], planSteps: readonly string[], id: string, hazard: Hazard): string {
  const proofs = planSteps.filter((step) => steps.find((each) => each.id === step)?.proves?.includes(hazard));
  const before = proofs.filter((step) => planSteps.indexOf(step) < planSteps.indexOf(id));
  const proof = before.at(-1) ?? proofs.at(0);
  if (proof === undefined) throw new Error(`${id} waits for a proof that no step of its plan gives`);
  return proof;
}
