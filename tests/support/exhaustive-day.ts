import type { Day } from '@/core/day-plan/day';
import type { DayPlan } from '@/core/day-plan/plan';

/** A plan's worth: minutes late first, then sum of minutes from now until each job is done. */
export interface Worth {
  readonly late: number;
  readonly finish: number;
}

export const worthOf = (day: Day, { jobs, late }: DayPlan): Worth => ({
  late,
  finish: jobs.reduce((sum, { finish }) => sum + (finish ?? Infinity) - day.now, 0),
});

export const better = (p: Worth, q: Worth): boolean => p.late < q.late || (p.late === q.late && p.finish < q.finish);

interface State {
  readonly next: number[];
  readonly ready: number[];
  readonly benchOf: number[];
  readonly personFree: number[];
  readonly benchFree: number[];
  readonly mounted: (string | null)[];
  readonly holder: number[];
  readonly order: number;
}

/**
 * The best of all plans of a small day of which nothing has begun, or `known` where none is better: tasks and set-ups in every order of
 * their beginnings, on every bench, by everybody.
 */
export function exhaustiveBest(day: Day, known: Worth): Worth {
  let best = known;
  const { people, benches, jobs, now, setUpMinutes } = day;
  const left = jobs.map(({ tasks }) =>
    tasks.map((_, i) => tasks.slice(i).reduce((sum, t) => sum + t.hands + t.alone, 0)),
  );
  const firstBench = jobs.map(({ tasks }) => tasks.findIndex((t) => t.bench));
  const lastBench = jobs.map(({ tasks }) => tasks.findLastIndex((t) => t.bench));
  const inHours = (person: number, ready: number, minutes: number): number => {
    for (const { from, to } of people[person].hours) {
      const at = Math.max(from, ready);
      if (at + minutes <= to) return at;
    }
    return Infinity;
  };
  const bound = ({ next, ready }: State): Worth => {
    let late = 0;
    let finish = 0;
    jobs.forEach((job, j) => {
      const done = ready[j] + (left[j][next[j]] ?? 0);
      finish += done - now;
      if (job.promised !== null) late += Math.max(0, done - job.promised);
    });
    return { late, finish };
  };
  const go = (state: State): void => {
    if (!better(bound(state), best)) return;
    if (jobs.every(({ tasks }, j) => state.next[j] >= tasks.length)) {
      best = bound(state);
      return;
    }
    jobs.forEach((job, j) => {
      const i = state.next[j];
      if (i >= job.tasks.length) return;
      const task = job.tasks[i];
      // The bench is chosen, and set up, before the first task that wants it; a set-up is a step of its own.
      const mounts = task.bench && i === firstBench[j] && state.benchOf[j] < 0;
      const choices = mounts
        ? benches.flatMap(({ setUps }, b) =>
            state.holder[b] < 0 && (job.setUp === null || setUps.includes(job.setUp)) ? [b] : [],
          )
        : [state.benchOf[j]];
      for (const b of choices) {
        const changes = mounts && job.setUp !== null && state.mounted[b] !== job.setUp;
        if (changes) {
          people.forEach((_, p) => {
            const from = inHours(p, Math.max(state.personFree[p], state.benchFree[b]), setUpMinutes);
            // In the order of their beginnings: what comes earlier was tried in another order.
            if (from === Infinity || from < state.order) return;
            const until = from + setUpMinutes;
            go({
              ...state,
              order: from,
              personFree: state.personFree.with(p, until),
              benchFree: state.benchFree.with(b, until),
              mounted: state.mounted.with(b, job.setUp),
              holder: state.holder.with(b, j),
              benchOf: state.benchOf.with(j, b),
            });
          });
          continue;
        }
        const ready = Math.max(state.ready[j], task.bench ? state.benchFree[b] : 0);
        const who =
          task.hands === 0
            ? [-1]
            : people.flatMap(({ roles }, p) => (task.role === null || roles.includes(task.role) ? [p] : []));
        for (const p of who) {
          const from = p < 0 ? ready : inHours(p, Math.max(ready, state.personFree[p]), task.hands);
          if (from === Infinity || from < state.order) continue;
          const until = from + task.hands + task.alone;
          const done = task.bench && i === lastBench[j];
          go({
            ...state,
            order: from,
            next: state.next.with(j, i + 1),
            ready: state.ready.with(j, until),
            personFree: p < 0 ? state.personFree : state.personFree.with(p, from + task.hands),
            benchOf: task.bench ? state.benchOf.with(j, b) : state.benchOf,
            benchFree: done ? state.benchFree.with(b, until) : state.benchFree,
            holder: done ? state.holder.with(b, -1) : task.bench ? state.holder.with(b, j) : state.holder,
          });
        }
      }
    });
  };
  go({
    next: jobs.map(() => 0),
    ready: jobs.map(({ booked }) => Math.max(now, booked)),
    benchOf: jobs.map(() => -1),
    personFree: people.map(() => now),
    benchFree: benches.map(() => now),
    mounted: benches.map(({ mounted }) => mounted),
    holder: benches.map(() => -1),
    order: -Infinity,
  });
  return best;
}
