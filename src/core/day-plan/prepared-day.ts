import type { Day, DayJob, DayTask, Stretch } from './day';
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

/** What has begun, with what it takes of people and benches. */
interface Begun {
  readonly placed: readonly PlacedTask[];
  /** From when the next task of the job can begin. */
  readonly ready: number;
  /** Until when what has begun there keeps the bench; null where nothing has. */
  readonly benchUntil: number | null;
}

/** What should be over by now ends now; nobody has said that it is. */
function begunOf({ now }: Day, job: DayJob): Begun {
  const placed = job.tasks.flatMap((task): PlacedTask[] => {
    if (task.began === null) return [];
    const handsUntil = task.began + task.hands;
    const until = Math.max(now, handsUntil + task.alone);
    const bench = task.bench ? job.bench : null;
    return [{ job: job.id, task: task.id, bench, person: task.person, from: task.began, handsUntil, until }];
  });
  const ready = placed.reduce((latest, { until }) => Math.max(latest, until), Math.max(now, job.booked));
  return { placed, ready, benchUntil: placed.findLast(({ bench }) => bench !== null)?.until ?? null };
}

/**
 * The first task that can have no place whatever the order, and why. A job is not mounted where one of its later bench tasks can have none:
 * it would keep the bench for ever.
 */
function stuckAt(
  day: Day,
  tasks: readonly PreparedTask[],
  { setUp, bench }: DayJob,
  benches: readonly number[],
): PreparedJob['stuck'] {
  const reasons = tasks.map((task) => impossible(day, task, task.people));
  const at = reasons.findIndex((reason) => reason !== null);
  const why = reasons[at] ?? null;
  const first = tasks.findIndex((task) => task.bench);
  const last = tasks.findLastIndex((task) => task.bench);
  if (first >= 0 && benches.length === 0 && (at < 0 || first <= at))
    return { at: first, why: { kind: 'no-bench', setUp } };
  if (why === null) return null;
  return { at: bench === null && first >= 0 && at > first && at <= last ? first : at, why };
}

function benchesFor(day: Day, { setUp, bench }: DayJob): readonly number[] {
  const may = (id: string, setUps: readonly string[]) =>
    bench === null ? setUp === null || setUps.includes(setUp) : id === bench;
  return day.benches.flatMap(({ id, setUps }, at) => (may(id, setUps) ? [at] : []));
}

/** The day with everything that does not hang on the order of its tasks. */
export function prepareDay(day: Day): PreparedDay {
  const anybody = day.people
    .map((person, at) => ({ at, roles: person.roles.length }))
    .sort((p, q) => p.roles - q.roles || p.at - q.at)
    .map(({ at }) => at);
  const begun = day.jobs.map((job) => begunOf(day, job));
  const freeAt = day.benches.map(() => day.now);
  const heldBy = day.benches.map(() => -1);
  let taskCount = 0;
  const jobs = day.jobs.map((job, number): PreparedJob => {
    const { ready, benchUntil } = begun[number];
    const waiting = job.tasks
      .filter((task) => task.began === null)
      .map((task): PreparedTask => ({ ...task, number: taskCount++, people: whoMay(day, task, anybody) }));
    const benches = benchesFor(day, job);
    const stuck = stuckAt(day, waiting, job, benches);
    const tasks = stuck ? waiting.slice(0, stuck.at) : waiting;
    const mounted = job.bench !== null && waiting.some((task) => task.bench);
    if (job.bench !== null && (mounted || benchUntil !== null)) {
      heldBy[benches[0]] = number;
      freeAt[benches[0]] = benchUntil ?? day.now;
    }
    const { id, setUp, promised, booked } = job;
    const onBench = tasks.findLastIndex((task) => task.bench) + 1;
    return { id, setUp, promised, booked, tasks, stuck, ready, benches, onBench, mounted };
  });
  const placed = begun.flatMap((each) => each.placed);
  const busy = day.people.map(({ id }) =>
    placed
      .filter(({ person, handsUntil }) => person === id && handsUntil > day.now)
      .map(({ from, handsUntil }): Stretch => ({ from, to: handsUntil }))
      .sort((p, q) => p.from - q.from),
  );
  return { day, jobs, begun: placed, busy, freeAt, heldBy, anybody, taskCount };
}
