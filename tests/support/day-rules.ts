import type { Day } from '@/core/day-plan/day';
import type { DayPlan } from '@/core/day-plan/plan';

/** Which rules of a day a plan breaks, in words; written from the rules, not from the planner. */
export function brokenRules(day: Day, plan: DayPlan): string[] {
  const broken: string[] = [];
  const say = (what: string) => broken.push(what);
  const meets = (p: { from: number; to: number }, q: { from: number; to: number }) => p.from < q.to && q.from < p.to;
  const hands = new Map<string, { from: number; to: number; what: string }[]>();
  const work = (person: string | null, from: number, to: number, what: string) => {
    if (person === null || to <= from) return;
    hands.set(person, [...(hands.get(person) ?? []), { from, to, what }]);
  };
  const begun = new Set(
    day.jobs.flatMap(({ id, tasks }) => tasks.filter((t) => t.began !== null).map((t) => `${id} ${t.id}`)),
  );
  const inHours = (person: string, from: number, to: number) =>
    day.people.find(({ id }) => id === person)?.hours.some((each) => each.from <= from && to <= each.to) ?? false;
  const blocks: { bench: string; job: string; setUp: string | null; from: number; to: number }[] = [];
  for (const job of day.jobs) {
    const placed = job.tasks.map((task) => plan.tasks.find((each) => each.job === job.id && each.task === task.id));
    const missing = plan.unplaced.filter((each) => each.job === job.id);
    if (placed.filter((each) => !each).length !== missing.length)
      say(`${job.id}: a task is neither placed nor said to be unplaced`);
    let ready = Math.max(day.now, job.booked);
    job.tasks.forEach((task, i) => {
      const at = placed[i];
      if (!at) return;
      if (at.handsUntil !== at.from + task.hands) say(`${job.id} ${task.id}: hands`);
      if (task.began !== null) {
        if (at.from !== task.began || at.person !== task.person) say(`${job.id} ${task.id}: has begun otherwise`);
        ready = Math.max(ready, at.until);
        work(at.person, at.from, at.handsUntil, `${job.id} ${task.id}`);
        return;
      }
      if (at.until !== at.handsUntil + task.alone) say(`${job.id} ${task.id}: alone`);
      if (at.from < ready) say(`${job.id} ${task.id}: before what comes first`);
      ready = at.until;
      if (task.hands > 0 && at.person === null) say(`${job.id} ${task.id}: nobody does it`);
      if (at.person !== null) {
        const who = day.people.find(({ id }) => id === at.person);
        if (task.role !== null && !who?.roles.includes(task.role))
          say(`${job.id} ${task.id}: not ${at.person}'s to do`);
        if (task.person !== null && at.person !== task.person) say(`${job.id} ${task.id}: another person`);
        if (!inHours(at.person, at.from, at.handsUntil)) say(`${job.id} ${task.id}: outside the hours`);
        work(at.person, at.from, at.handsUntil, `${job.id} ${task.id}`);
      }
      if (task.bench !== (at.bench !== null)) say(`${job.id} ${task.id}: bench`);
    });
    const onBench = placed.filter((each) => each?.bench);
    const benches = new Set(onBench.map((each) => each?.bench));
    if (benches.size > 1) say(`${job.id}: on ${benches.size} benches`);
    if (onBench.length > 0) {
      const bench = onBench[0]!.bench!;
      const all = job.tasks.every((task, i) => !task.bench || placed[i]);
      const from = job.bench === null ? onBench[0]!.from : -Infinity;
      blocks.push({ bench, job: job.id, setUp: job.setUp, from, to: all ? onBench.at(-1)!.until : Infinity });
      if (job.bench !== null && job.bench !== bench) say(`${job.id}: moved to another bench`);
      if (
        job.bench === null &&
        job.setUp !== null &&
        !day.benches.find(({ id }) => id === bench)?.setUps.includes(job.setUp)
      )
        say(`${job.id}: ${bench} has no ${job.setUp}`);
    }
  }
  for (const { bench, person, from, until } of plan.setUps) {
    work(person, from, until, `set-up of ${bench}`);
    if (person !== null && !inHours(person, from, until)) say(`set-up of ${bench}: outside the hours`);
    if (until - from !== day.setUpMinutes || from < day.now) say(`set-up of ${bench}: minutes`);
    if (blocks.some((each) => each.bench === bench && meets({ from, to: until }, each)))
      say(`set-up of ${bench}: while it is not free`);
  }
  for (const [person, all] of hands)
    all.forEach((one, i) =>
      all.slice(i + 1).forEach((two) => {
        if (meets(one, two) && !(begun.has(one.what) && begun.has(two.what)))
          say(`${person}: ${one.what} and ${two.what} at once`);
      }),
    );
  for (const bench of day.benches) {
    const here = blocks.filter((each) => each.bench === bench.id).sort((p, q) => p.from - q.from || p.to - q.to);
    let mounted = bench.mounted;
    let before = -Infinity;
    for (const block of here) {
      if (block.from < before) say(`${bench.id}: ${block.job} while another is on it`);
      const changes = plan.setUps.filter(
        (each) => each.bench === bench.id && each.until <= block.from && each.from >= before,
      );
      if (changes.length > 0) mounted = changes.at(-1)!.setUp;
      if (block.from > -Infinity && block.setUp !== null && mounted !== block.setUp)
        say(`${bench.id}: not set up for ${block.job}`);
      if (block.from === -Infinity) mounted = block.setUp ?? mounted;
      before = block.to;
    }
  }
  return broken;
}
