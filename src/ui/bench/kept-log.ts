import { findStep, kindOfSheet } from '@/core/families/registry';
import type { StepEvaluation } from '@/core/judging/evaluate-unit';
import { pictureOf } from '@/core/procedure/picture';
import type { TraceEvent } from '@/core/procedure/step-analysis';
import { timelineEvents, type TimelineEvent } from '@/charts/timeline';
import type { JobView } from '@/server/views/job-view';

/** A kept log whose time-line can be looked into, with what it came to. */
export interface KeptLog {
  readonly runId: string;
  readonly result: StepEvaluation;
  readonly events: readonly TimelineEvent[];
}

/** What several steps found, each thing once. */
export function eventsOf(results: readonly Pick<StepEvaluation, 'analyses'>[]): readonly TraceEvent[] {
  const events = results.flatMap(({ analyses }) => analyses.at(-1)?.events ?? []);
  return [...new Map(events.map((event) => [`${event.id} ${event.time}`, event])).values()];
}

/** The log of a step that was kept last and counts; null where there is none, or its step has no time-line. */
export function keptLogOf(view: JobView, stepId: string): KeptLog | null {
  const kind = kindOfSheet(view.job.sheet);
  const step = kind && findStep(kind, stepId);
  const own = view.steps.find(({ id }) => id === stepId);
  if (step?.kind !== 'measured' || !own || !pictureOf(step.pictures, 'timeline')) return null;
  const run = own.runs.findLast((each) => each.recorded && each.ofThisRound && each.struckOut === null);
  if (!run) return null;
  // Only what came out of this log stands on it: what its own step found, or everything where that found nothing to be marked.
  const same = view.steps.filter(({ runs }) => runs.findLast((each) => each.ofThisRound)?.id === run.id);
  const found = timelineEvents(eventsOf([own.evaluation]));
  return {
    runId: run.id,
    result: own.evaluation,
    events: found.length > 0 ? found : timelineEvents(eventsOf(same.map(({ evaluation }) => evaluation))),
  };
}
