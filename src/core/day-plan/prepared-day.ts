import type { Day, DayTask, Stretch } from './day';
import type { PlacedTask, WhyNot } from './plan';

/** A task with those who may do it, by their numbers. */
export interface PreparedTask extends DayTask {
  /** Number among the tasks of all jobs. */
  readonly number: number;
  /** Who has fewer roles comes first: a lead is kept for what needs one. */
  readonly people: readonly number[];
}

export interface PreparedJob {
  readonly id: string;
  readonly setUp: string | null;
  readonly promised: number | null;
  readonly booked: number;
  /** What has not begun, up to what can have no place at all. */
  readonly tasks: readonly PreparedTask[];
  /** The first task that can have no place, and why; all after it wait for it. */
  readonly stuck: { readonly at: number; readonly why: WhyNot } | null;
  /** From when its next task can begin. */
  readonly ready: number;
  /** Benches that it can stand on; only the one on which it is mounted, where it is. */
  readonly benches: readonly number[];
  /** How many of `tasks` there are up to the last that wants a bench. */
  readonly onBench: number;
  /** Whether it has its bench already. */
  readonly mounted: boolean;
}

export interface PreparedDay {
  readonly day: Day;
  readonly jobs: readonly PreparedJob[];
  readonly begun: readonly PlacedTask[];
  /** What is taken of each person's time by what has begun. */
  readonly busy: readonly (readonly Stretch[])[];
  /** From when each bench is free, if no job keeps it. */
  readonly freeAt: readonly number[];
  /** The job that freed it last, or keeps it, by number; -1 where none does. */
  readonly heldBy: readonly number[];
  /** Anybody, who has fewer roles first. */
  readonly anybody: readonly number[];
  readonly taskCount: number;
}

function whoMay(day: Day, { role, person }: DayTask, anybody: readonly number[]): readonly number[] {
  return anybody.filter(
    (at) => (role === null || day.people[at].roles.includes(role)) && (person === null || day.people[at].id === person),
  );
}

function impossible(day: Day, task: DayTask, people: readonly number[]): WhyNot | null {
  if (task.hands === 0) return null;
  if (people.length === 0 && task.role !== null)
    return task.person === null
      ? { kind: 'no-role', role: task.role }
      : { kind: 'not-theirs', person: task.person, role: task.role };
  const fits = people.some((at) =>
    day.people[at].hours.some(({ from, to }) => to - Math.max(from, day.now) >= task.hands),
  );
  return fits ? null : { kind: 'no-hours', minutes: task.hands, role: task.role };
}

/**
 * The day with everything that does not hang on the order of its tasks. A job is not mounted where one of its later bench tasks can have no
 * place at all: it would keep the bench for ever.
 */
export function prepareDay(day: Day): PreparedDay {
  const anybody = day.people
    .map((person, at) => ({ at, roles: person.roles.length }))
    .sort((p, q) => p.roles - q.roles || p.at - q.at)
    .map(({ at }) => at);
  const begun: PlacedTask[] = [];
  const busy: Stretch[][] = day.people.map(() => []);
  const freeAt = day.benches.map(() => day.now);
  const heldBy = day.benches.map(() => -1);
  let taskCount = 0;
  const jobs = day.jobs.map((job, number): PreparedJob => {
    let ready = Math.max(day.now, job.booked);
    const running = job.tasks.filter((task) => task.began !== null);
    const bench = day.benches.findIndex(({ id }) => id === job.bench);
    for (const task of running) {
      const from = task.began ?? day.now;
      const handsUntil = from + task.hands;
      const until = Math.max(day.now, handsUntil + task.alone);
      begun.push({
        job: job.id,
        task: task.id,
        bench: task.bench ? job.bench : null,
        person: task.person,
        from,
        handsUntil,
        until,
      });
      const who = day.people.findIndex(({ id }) => id === task.person);
      if (who >= 0 && handsUntil > day.now) busy[who].push({ from, to: handsUntil });
      ready = Math.max(ready, until);
      if (task.bench && bench >= 0) {
        freeAt[bench] = until;
        heldBy[bench] = number;
      }
    }
    const waiting = job.tasks
      .filter((task) => task.began === null)
      .map((task): PreparedTask => ({ ...task, number: taskCount++, people: whoMay(day, task, anybody) }));
    const benches = day.benches.flatMap(({ setUps }, at) =>
      bench >= 0 ? (at === bench ? [at] : []) : job.setUp === null || setUps.includes(job.setUp) ? [at] : [],
    );
    const reasons = waiting.map((task) => impossible(day, task, task.people));
    const firstOnBench = waiting.findIndex((task) => task.bench);
    const lastOnBench = waiting.findLastIndex((task) => task.bench);
    let at = reasons.findIndex((reason) => reason !== null);
    let why = reasons[at] ?? null;
    if (firstOnBench >= 0 && benches.length === 0 && (at < 0 || firstOnBench <= at)) {
      at = firstOnBench;
      why = { kind: 'no-bench', setUp: job.setUp };
    } else if (why && bench < 0 && at > firstOnBench && at <= lastOnBench && firstOnBench >= 0) at = firstOnBench;
    const tasks = why ? waiting.slice(0, at) : waiting;
    const onBench = tasks.findLastIndex((task) => task.bench) + 1;
    const mounted = bench >= 0 && lastOnBench >= 0;
    if (mounted) heldBy[bench] = number;
    const { id, setUp, promised, booked } = job;
    return { id, setUp, promised, booked, tasks, stuck: why && { at, why }, ready, benches, onBench, mounted };
  });
  for (const each of busy) each.sort((p, q) => p.from - q.from);
  return { day, jobs, begun, busy, freeAt, heldBy, anybody, taskCount };
}
