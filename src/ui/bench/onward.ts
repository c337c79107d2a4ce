import type { JobView, StepView } from '@/server/views/job-view';

/** Where a bench leads on to. */
export interface Onward {
  /** The next step of the sheet, from this one on, that nobody has done; null where there is none. */
  readonly later: StepView | null;
  readonly href: string;
  /** Once this step is kept: what then tells most is not what told most before, so that the server says where to. */
  readonly hrefOnceKept: string;
}

export function onwardFrom({ job, steps }: JobView, stepId: string): Onward {
  const at = steps.findIndex((each) => each.id === stepId);
  const later = steps.slice(at + 1).find((each) => each.evaluation.verdict === 'not-run') ?? null;
  const href = later ? `/jobs/${job.id}/bench/${later.id}` : `/jobs/${job.id}`;
  return { later, href, hrefOnceKept: job.orderedBy === 'worth' ? `/jobs/${job.id}/bench` : href };
}
