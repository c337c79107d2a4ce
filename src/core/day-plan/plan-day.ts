import { xoroshiro128plus } from 'pure-rand/generator/xoroshiro128plus';
import { uniformInt } from 'pure-rand/distribution/uniformInt';
import type { Day } from './day';
import { placeTasks, type Order, type Placing } from './place-tasks';
import type { DayPlan, PlannedJob } from './plan';
import { prepareDay, type PreparedDay, type PreparedJob } from './prepared-day';

/** What a plan costs: tasks without a place weigh most, then minutes late, then when jobs are done. */
export interface Cost {
  readonly unplaced: number;
  readonly late: number;
  readonly finish: number;
}

export function isBetter(p: Cost, q: Cost): boolean {
  if (p.unplaced !== q.unplaced) return p.unplaced < q.unplaced;
  if (p.late !== q.late) return p.late < q.late;
  return p.finish < q.finish;
}

function lateOf({ promised }: Pick<PreparedJob, 'promised'>, finish: number): number {
  return promised === null || finish === Infinity ? 0 : Math.max(0, finish - promised);
}

function costOf({ day, jobs }: PreparedDay, { finish, unplaced }: Placing): Cost {
  let late = 0;
  let sum = 0;
  finish.forEach((at, job) => {
    if (at === Infinity) return;
    late += lateOf(jobs[job], at);
    sum += at - day.now;
  });
  return { unplaced: unplaced.length, late, finish: sum };
}

/** Jobs one after another with all their tasks, in this order. */
function inTurn({ jobs }: PreparedDay, order: readonly number[]): number[] {
  return order.flatMap((job) => jobs[job].tasks.map(() => job));
}

/** The tasks of jobs in turn: first tasks, second tasks, and so on; each time in this order. */
function roundRobin({ jobs }: PreparedDay, order: readonly number[]): number[] {
  const most = Math.max(0, ...jobs.map(({ tasks }) => tasks.length));
  return Array.from({ length: most }, (_, round) => order.filter((job) => jobs[job].tasks.length > round)).flat();
}

const freely = ({ jobs, taskCount }: PreparedDay, turns: number[]): Order => ({
  turns,
  benches: jobs.map(() => -1),
  people: Array.from({ length: taskCount }, () => -1),
});

const minutesOf = ({ tasks }: PreparedJob): number => tasks.reduce((sum, { hands, alone }) => sum + hands + alone, 0);

function sortedBy({ jobs }: PreparedDay, key: (job: PreparedJob) => number): number[] {
  return jobs
    .map((_, at) => at)
    .sort((p, q) => key(jobs[p]) - key(jobs[q]) || jobs[p].booked - jobs[q].booked || p - q);
}

/** First come, first served: by booking, each task as early as it can be. */
function firstCome(prepared: PreparedDay): Order {
  return freely(
    prepared,
    inTurn(
      prepared,
      sortedBy(prepared, ({ booked }) => booked),
    ),
  );
}

/** Orders that are often good, first come first served among them. */
function openings(prepared: PreparedDay): Order[] {
  const due = ({ promised }: PreparedJob) => promised ?? Infinity;
  const keys: readonly ((job: PreparedJob) => number)[] = [
    ({ booked }) => booked,
    due,
    (job) => due(job) - minutesOf(job),
    minutesOf,
    ({ tasks }) => tasks.reduce((sum, { hands }) => sum + hands, 0),
  ];
  const orders = keys.map((key) => sortedBy(prepared, key));
  return [
    ...orders.map((order) => freely(prepared, inTurn(prepared, order))),
    ...orders.map((order) => freely(prepared, roundRobin(prepared, order))),
  ];
}

/** So many tasks are placed in a search: half a second. */
const mostPlaced = 160_000;
/** A small day has no more orders than are found by so many. */
const mostTries = 4_000;
/** How long a worse plan may be gone on from: what came so many tries before must not have been better. */
const memory = 60;

/** Numbers from `seed`, the same each time. */
function dice(seed: number): (below: number) => number {
  const generator = xoroshiro128plus(seed);
  return (below) => uniformInt(generator, 0, below - 1);
}

/** An order that differs a little. */
function varied({ turns, benches, people }: Order, { jobs }: PreparedDay, roll: (below: number) => number): Order {
  const from = roll(turns.length);
  const to = roll(turns.length);
  const job = turns[from];
  switch (roll(8)) {
    // A whole job goes elsewhere.
    case 0:
    case 1: {
      const rest = turns.filter((each) => each !== job);
      const at = roll(rest.length + 1);
      const own = turns.filter((each) => each === job);
      return { turns: [...rest.slice(0, at), ...own, ...rest.slice(at)], benches, people };
    }
    case 2:
    case 3: {
      const next = turns.slice();
      [next[from], next[to]] = [next[to], next[from]];
      return { turns: next, benches, people };
    }
    case 4: {
      const may = jobs[job].benches;
      const next = benches.slice();
      next[job] = may.length > 1 && roll(3) > 0 ? may[roll(may.length)] : -1;
      return { turns, benches: next, people };
    }
    case 5: {
      const task = jobs[job].tasks[roll(jobs[job].tasks.length)];
      const next = people.slice();
      next[task.number] = task.people.length > 1 && roll(3) > 0 ? task.people[roll(task.people.length)] : -1;
      return { turns, benches, people: next };
    }
    default: {
      const next = turns.slice();
      next.splice(to, 0, ...next.splice(from, 1));
      return { turns: next, benches, people };
    }
  }
}

interface Tried {
  readonly order: Order;
  readonly cost: Cost;
}

/** Goes on from `start` by small changes, `tries` times: a change stands that is no worse than what was there a while ago. */
function improved(prepared: PreparedDay, start: Tried, tries: number, roll: (below: number) => number): Tried {
  let best = start;
  let now = start;
  const before: Cost[] = Array.from({ length: memory }, () => start.cost);
  for (let i = 0; i < tries; i++) {
    const order = varied(now.order, prepared, roll);
    const cost = costOf(prepared, placeTasks(prepared, order));
    const slot = i % memory;
    if (!isBetter(before[slot], cost) || !isBetter(now.cost, cost)) now = { order, cost };
    if (isBetter(now.cost, before[slot])) before[slot] = now.cost;
    if (isBetter(cost, best.cost)) best = { order, cost };
  }
  return best;
}

function search(prepared: PreparedDay): Order {
  const tried = openings(prepared).map((order): Tried => ({
    order,
    cost: costOf(prepared, placeTasks(prepared, order)),
  }));
  tried.sort((p, q) => (isBetter(p.cost, q.cost) ? -1 : isBetter(q.cost, p.cost) ? 1 : 0));
  const length = tried[0].order.turns.length;
  if (length < 2) return tried[0].order;
  const tries = Math.min(mostTries, Math.floor(mostPlaced / length));
  // From several openings where there is time for it, the best one longest.
  const starts = tried.slice(0, 3);
  const found = starts.map((start, i) => improved(prepared, start, Math.floor(tries / (i === 0 ? 2 : 4)), dice(i + 1)));
  return found.reduce((p, q) => (isBetter(q.cost, p.cost) ? q : p)).order;
}

function plannedJobs(prepared: PreparedDay, { finish, waits, tasks }: Placing): PlannedJob[] {
  return prepared.jobs.map((job, at): PlannedJob => {
    const done = finish[at];
    const late = lateOf(job, done);
    const next = tasks.find((task) => task.job === job.id);
    const inTime = job.promised !== null && done <= job.promised && next;
    return {
      id: job.id,
      finish: done === Infinity ? null : done,
      late,
      waits: waits[at],
      startBefore: inTime ? next.from + (job.promised - done) : null,
      promised: job.promised,
    };
  });
}

function planBy(prepared: PreparedDay, order: Order): DayPlan {
  const placing = placeTasks(prepared, order, true);
  const jobs = plannedJobs(prepared, placing);
  return {
    tasks: [...prepared.begun, ...placing.tasks].sort((p, q) => p.from - q.from),
    setUps: [...placing.setUps].sort((p, q) => p.from - q.from),
    jobs,
    unplaced: placing.unplaced,
    late: jobs.reduce((sum, { late }) => sum + late, 0),
  };
}

/**
 * A day in which as little as possible is late, and then as much as possible is done early: sum of minutes late past what was promised,
 * then sum of finishing times. Found by trying orders in which jobs take hands and benches: the same day gives the same plan.
 */
export function planDay(day: Day): DayPlan {
  const prepared = prepareDay(day);
  return planBy(prepared, search(prepared));
}

/** The same day first come, first served: what a plan is held against. */
export function firstComeFirstServed(day: Day): DayPlan {
  const prepared = prepareDay(day);
  return planBy(prepared, firstCome(prepared));
}
