import type { Day, DayJob, DayPerson, Stretch } from '@/core/day-plan/day';

/** Numbers from a seed, by a generator that the planner does not use. */
export function rolls(seed: number): (below: number) => number {
  let state = seed >>> 0;
  return (below) => {
    state = (Math.imul(state, 1664525) + 1013904223) >>> 0;
    return Math.floor((state / 2 ** 32) * below);
  };
}

/** A Monday at eight, minutes since 1970. */
export const eight = Date.parse('2026-11-23T08:00:00Z') / 60_000;

const twoHalves = (day: number): Stretch[] => [
  { from: eight + day * 1440, to: eight + day * 1440 + 240 },
  { from: eight + day * 1440 + 285, to: eight + day * 1440 + 540 },
];

interface Size {
  readonly jobs: number;
  readonly people: number;
  readonly benches: number;
  readonly mostTasks: number;
}

/** A day of a workshop as it might be: hours with a break over two weeks, some jobs in progress, some not promised. */
export function randomDay(seed: number, { jobs, people, benches, mostTasks }: Size): Day {
  const roll = rolls(seed);
  const setUps = ['vacuum', 'pressure', 'wire'];
  const days = Array.from({ length: 14 }, (_, day) => twoHalves(day)).flat();
  const staff = Array.from({ length: people }, (_, at): DayPerson => ({
    id: `p${at}`,
    roles: at === 0 ? ['lead'] : [],
    hours: days,
  }));
  const benchesNow = Array.from({ length: benches }, (_, at) => ({
    id: `b${at}`,
    setUps: roll(3) === 0 ? setUps : [setUps[at % 3], setUps[(at + 1) % 3]],
    mounted: roll(2) === 0 ? setUps[at % 3] : null,
  }));
  let freeBench = roll(2) === 0 ? 0 : benches;
  const book = Array.from({ length: jobs }, (_, at): DayJob => {
    const count = 1 + roll(mostTasks);
    const begins = freeBench < benches;
    const bench = begins ? benchesNow[freeBench++] : null;
    const setUp = bench ? (bench.mounted ?? bench.setUps[0]) : benchesNow[roll(benches)].setUps[roll(2)];
    const tasks = Array.from({ length: count }, (__, i) => ({
      id: `t${i}`,
      hands: roll(6) === 0 && i > 0 ? 0 : 5 + 5 * roll(9),
      alone: roll(3) === 0 ? 15 * roll(8) : 0,
      bench: (begins && i === 0) || roll(3) > 0,
      role: i === count - 1 && roll(3) === 0 ? 'lead' : null,
      began: begins && i === 0 ? eight - 5 : null,
      person: begins && i === 0 ? staff[at % people].id : null,
    }));
    return {
      id: `j${at}`,
      booked: eight - 2000 + roll(1900),
      promised: roll(4) === 0 ? null : eight + 30 + roll(60 * jobs),
      setUp,
      bench: bench?.id ?? null,
      tasks,
    };
  });
  return { now: eight, people: staff, benches: benchesNow, setUpMinutes: 15, jobs: book };
}

/** The same day, of which nothing has begun. */
export const nothingBegun = (day: Day): Day => ({
  ...day,
  jobs: day.jobs.map((job) => ({
    ...job,
    bench: null,
    tasks: job.tasks.map((task) => ({ ...task, began: null, person: null })),
  })),
});
