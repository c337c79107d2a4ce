import type { FloorCard } from '@/server/jobs/floor-view';

export interface NeedsNow {
  readonly title: string;
  readonly detail: string;
  readonly href: string;
}

function needOf(view: FloorCard): (NeedsNow & { urgency: number }) | null {
  const { job, openRun, steps } = view;
  const unit = `${job.serial}, ${job.sheet.name}, ${job.vehicle}`;
  const stepTitle = (id: string) => steps.find((step) => step.id === id)?.title ?? id;
  if (openRun) {
    const href = `/jobs/${job.id}/bench/${openRun.step}`;
    const title = stepTitle(openRun.step);
    switch (openRun.kind) {
      case 'interrupted':
        return { urgency: 0, title: `${title} was interrupted`, detail: `${unit}. Resume or repeat it.`, href };
      case 'complete':
        return { urgency: 1, title: `${title} waits to be kept`, detail: unit, href };
      case 'recording':
        return { urgency: 2, title: `${title} is running`, detail: unit, href };
    }
  }
  if (job.place === 'ready' || job.place === 'gone' || job.place === 'waiting-parts') return null;
  const failed = steps.filter((step) => step.evaluation.verdict === 'fail');
  const href = `/jobs/${job.id}`;
  if (view.conclusion && job.place === 'on-bench')
    return { urgency: 3, title: view.conclusion.title, detail: unit, href };
  if (failed.length > 0 && job.place === 'on-bench')
    return { urgency: 3, title: `${failed[0].title} failed`, detail: `${unit}. Decide what to do.`, href };
  if (view.blocking.length === 0)
    return { urgency: 1, title: 'Ready to be signed', detail: unit, href: `${href}/release` };
  const undecided = steps.find((step) => step.evaluation.verdict === 'undecided');
  if (undecided)
    return { urgency: 4, title: `${undecided.title} is undecided`, detail: `${unit}. See what would decide it.`, href };
  return null;
}

/** Instruments that are read at some bench of the house although their calibration is overdue. */
function overdueNeed(views: readonly FloorCard[]): (NeedsNow & { urgency: number }) | null {
  const names = [...new Set(views.flatMap((view) => view.overdue.map((each) => each.name)))];
  if (names.length === 0) return null;
  const title = names.length === 1 ? 'A calibration is overdue' : `${names.length} calibrations are overdue`;
  return { urgency: 5, title, detail: `${names.join(', ')}. Their errors count double.`, href: '/instruments' };
}

/** Everything that needs a person now, most urgent first. */
export function needsNow(views: readonly FloorCard[]): NeedsNow[] {
  return [...views.map(needOf), overdueNeed(views)]
    .filter((need) => need !== null)
    .sort((p, q) => p.urgency - q.urgency);
}
