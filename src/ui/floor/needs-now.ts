import type { FloorCard } from '@/server/views/floor-view';

export interface NeedsNow {
  readonly title: string;
  readonly detail: string;
  readonly href: string;
}

function needOf(view: FloorCard): (NeedsNow & { urgency: number }) | null {
  const { job, openRun } = view;
  const unit = `${job.serial}, ${job.sheet.name}, ${job.vehicle}`;
  if (openRun) {
    const href = `/jobs/${job.id}/bench/${openRun.step}`;
    const { title } = openRun;
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
  const href = `/jobs/${job.id}`;
  if (view.conclusion !== null && job.place === 'on-bench')
    return { urgency: 3, title: view.conclusion, detail: unit, href };
  if (view.failed !== null && job.place === 'on-bench')
    return { urgency: 3, title: `${view.failed} failed`, detail: `${unit}. Decide what to do.`, href };
  if (!view.blocked) return { urgency: 1, title: 'Ready to be signed', detail: unit, href: `${href}/release` };
  if (view.undecided !== null)
    return { urgency: 4, title: `${view.undecided} is undecided`, detail: `${unit}. See what would decide it.`, href };
  return null;
}

/** Instruments that are read at some bench of the house although their calibration is overdue. */
function overdueNeed(views: readonly FloorCard[]): (NeedsNow & { urgency: number }) | null {
  const names = [...new Set(views.flatMap((view) => view.overdue))];
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
