import { firstFree, giveBack, take, type Calendar } from './calendar';
import type { PlacedSetUp, PlacedTask, UnplacedTask, Wait, WhyNot } from './plan';
import type { PreparedDay, PreparedTask } from './prepared-day';

/** What is searched over: in which order tasks take what is free, and who or which bench is preferred. */
export interface Order {
  /** Numbers of jobs, each as often as it has tasks: what stands first takes first. */
  readonly turns: readonly number[];
  /** Bench of each job, by number; -1 for the one on which it can begin first. */
  readonly benches: readonly number[];
  /** Person of each task, by number; -1 for who can begin first. */
  readonly people: readonly number[];
}

/** All tasks in their places by one order. */
export interface Placing {
  readonly tasks: readonly PlacedTask[];
  readonly setUps: readonly PlacedSetUp[];
  readonly unplaced: readonly UnplacedTask[];
  /** When each job is done, minutes since 1970; infinite where a task of it has no place. */
  readonly finish: readonly number[];
  /** By job; empty unless they were asked for. */
  readonly waits: readonly (readonly Wait[])[];
}

interface BenchNow {
  freeAt: number;
  mounted: string | null;
  /** The job whose it is until its last task there; -1 where it is free. */
  holder: number;
  /** Whose it was last. */
  last: number;
}

interface Start {
  readonly person: number;
  readonly from: number;
}

interface BenchChoice {
  readonly at: number;
  /** From when the unit can stand there. */
  readonly from: number;
  readonly setUp: (Start & { readonly until: number }) | null;
}

/** Places tasks one after another, each as early as what was placed before it allows. */
class Placer {
  private readonly calendars: Calendar[];
  private readonly benches: BenchNow[];
  private readonly next: Int32Array;
  private readonly ready: Float64Array;
  private readonly benchOf: Int32Array;
  private readonly failed: (WhyNot | null)[];
  readonly tasks: PlacedTask[] = [];
  readonly setUps: PlacedSetUp[] = [];
  readonly waits: Wait[][];

  constructor(
    private readonly prepared: PreparedDay,
    private readonly order: Order,
    private readonly explains: boolean,
  ) {
    const { day, jobs, busy, freeAt, heldBy } = prepared;
    this.calendars = day.people.map(({ hours }, at) => ({ hours, busy: busy[at].slice() }));
    this.benches = day.benches.map(({ mounted }, at) => {
      const held = heldBy[at] >= 0 && jobs[heldBy[at]].mounted && jobs[heldBy[at]].onBench > 0;
      // A unit whose next task there can have no place keeps its bench for good.
      const kept = heldBy[at] >= 0 && jobs[heldBy[at]].mounted && jobs[heldBy[at]].stuck !== null;
      const last = heldBy[at];
      return {
        freeAt: freeAt[at],
        mounted: (last >= 0 ? jobs[last].setUp : null) ?? mounted,
        holder: held || kept ? last : -1,
        last,
      };
    });
    this.next = new Int32Array(jobs.length);
    this.ready = Float64Array.from(jobs, ({ ready }) => ready);
    this.benchOf = Int32Array.from(jobs, ({ mounted, benches }) => (mounted ? benches[0] : -1));
    this.failed = jobs.map(() => null);
    this.waits = jobs.map(() => []);
  }

  placeAll(): void {
    for (const job of this.order.turns) this.placeNext(job);
  }

  /** What has no place, and why. */
  unplaced(): UnplacedTask[] {
    return this.prepared.jobs.flatMap(({ id, stuck }, at) => {
      const why = this.failed[at] ?? stuck?.why ?? null;
      if (!why) return [];
      const open = this.prepared.day.jobs[at].tasks.filter((task) => task.began === null).slice(this.next[at]);
      return open.map(
        (task, i) => ({ job: id, task: task.id, why: i === 0 ? why : { kind: 'after', task: open[0].id } }) as const,
      );
    });
  }

  finish(): number[] {
    return this.prepared.jobs.map(({ stuck }, at) => (this.failed[at] || stuck ? Infinity : this.ready[at]));
  }

  private placeNext(job: number): void {
    const { tasks } = this.prepared.jobs[job];
    if (this.failed[job] || this.next[job] >= tasks.length) return;
    const task = tasks[this.next[job]];
    const mounts = task.bench && this.benchOf[job] < 0;
    const bench = mounts ? this.benchFor(job) : null;
    // Somebody else's turn was used to free a bench, or none can be had.
    if (this.failed[job]) return;
    const ready = Math.max(this.ready[job], bench?.from ?? this.benchReady(job, task));
    // Whoever sets the bench up is not free meanwhile.
    const setUp = bench?.setUp ?? null;
    if (setUp && setUp.person >= 0) take(this.calendars[setUp.person], setUp.from, setUp.until);
    const start = this.startOf(task, ready);
    if (start.from === Infinity) {
      if (setUp && setUp.person >= 0) giveBack(this.calendars[setUp.person], setUp.from);
      this.failed[job] = { kind: 'no-hours', minutes: task.hands, role: task.role };
      return;
    }
    if (bench) this.mount(job, bench);
    if (this.explains) this.noteWaits(job, task, bench, start);
    this.put(job, task, start);
  }

  /** A unit that is mounted already may have to wait until what has begun on its bench is done. */
  private benchReady(job: number, task: PreparedTask): number {
    return task.bench ? this.benches[this.benchOf[job]].freeAt : 0;
  }

  private put(job: number, task: PreparedTask, { person, from }: Start): void {
    const handsUntil = from + task.hands;
    const until = handsUntil + task.alone;
    if (person >= 0) take(this.calendars[person], from, handsUntil);
    const bench = task.bench ? this.prepared.day.benches[this.benchOf[job]].id : null;
    const who = person >= 0 ? this.prepared.day.people[person].id : null;
    this.tasks.push({ job: this.prepared.jobs[job].id, task: task.id, bench, person: who, from, handsUntil, until });
    this.ready[job] = until;
    this.next[job]++;
    if (this.next[job] === this.prepared.jobs[job].onBench && this.benchOf[job] >= 0) {
      const own = this.benches[this.benchOf[job]];
      if (own.holder === job) {
        own.freeAt = until;
        // What can have no place after this stays mounted.
        own.holder = this.keepsBench(job) ? job : -1;
      }
    }
  }

  /** Whether a bench task of a job that is stuck is still to come. */
  private keepsBench(job: number): boolean {
    const { stuck, tasks } = this.prepared.jobs[job];
    const open = this.prepared.day.jobs[job].tasks.filter((task) => task.began === null);
    return stuck !== null && open.slice(tasks.length).some((task) => task.bench);
  }

  private startOf({ people, hands, number }: PreparedTask, ready: number): Start {
    if (hands === 0) return { person: -1, from: ready };
    const wanted = this.order.people[number];
    if (wanted >= 0) {
      const from = firstFree(this.calendars[wanted], ready, hands);
      if (from < Infinity) return { person: wanted, from };
    }
    return this.firstOf(people, ready, hands);
  }

  private firstOf(people: readonly number[], ready: number, minutes: number): Start {
    let best: Start = { person: -1, from: Infinity };
    for (const person of people) {
      const from = firstFree(this.calendars[person], ready, minutes);
      if (from < best.from) best = { person, from };
      if (from === ready) break;
    }
    return best;
  }

  private choice(job: number, at: number): BenchChoice {
    const { setUp } = this.prepared.jobs[job];
    const { freeAt, mounted } = this.benches[at];
    if (setUp === null || mounted === setUp) return { at, from: freeAt, setUp: null };
    const { setUpMinutes } = this.prepared.day;
    if (setUpMinutes === 0) return { at, from: freeAt, setUp: { person: -1, from: freeAt, until: freeAt } };
    const start = this.firstOf(this.prepared.anybody, freeAt, setUpMinutes);
    const until = start.from + setUpMinutes;
    return { at, from: until, setUp: { ...start, until } };
  }

  /** The bench on which a job can begin first; one that a job keeps is freed by letting that go on first. */
  private benchFor(job: number): BenchChoice | null {
    const { benches } = this.prepared.jobs[job];
    const preferred = this.order.benches[job];
    const wanted = preferred >= 0 ? [preferred] : benches;
    for (;;) {
      let best: BenchChoice | null = null;
      for (const at of wanted) {
        if (this.benches[at].holder >= 0) continue;
        const choice = this.choice(job, at);
        const later = Math.max(choice.from, this.ready[job]);
        if (choice.from < Infinity && (!best || later < Math.max(best.from, this.ready[job]))) best = choice;
      }
      if (best) return best;
      const keeps = wanted.map((at) => this.benches[at].holder).filter((each) => each >= 0);
      const goesOn = keeps.find((each) => !this.failed[each] && this.next[each] < this.prepared.jobs[each].onBench);
      if (goesOn === undefined) {
        const minutes = this.prepared.day.setUpMinutes;
        this.failed[job] =
          keeps.length > 0
            ? { kind: 'benches-kept', by: keeps.map((each) => this.prepared.jobs[each].id) }
            : { kind: 'no-hours', minutes, role: null };
        return null;
      }
      this.placeNext(goesOn);
    }
  }

  private mount(job: number, { at, setUp }: BenchChoice): void {
    const bench = this.benches[at];
    this.benchOf[job] = at;
    bench.holder = job;
    const wanted = this.prepared.jobs[job].setUp;
    if (!setUp || wanted === null) return;
    const { from, until, person } = setUp;
    const who = person >= 0 ? this.prepared.day.people[person].id : null;
    this.setUps.push({ bench: this.prepared.day.benches[at].id, setUp: wanted, person: who, from, until });
    bench.mounted = wanted;
  }

  private noteWaits(job: number, task: PreparedTask, bench: BenchChoice | null, start: Start): void {
    const ready = this.ready[job];
    const waits = this.waits[job];
    const from = Math.max(ready, bench?.from ?? this.benchReady(job, task));
    if (bench && bench.from > ready) {
      const own = this.benches[bench.at];
      const id = this.prepared.day.benches[bench.at].id;
      const heldUntil = bench.setUp ? bench.setUp.from : bench.from;
      if (heldUntil > ready && own.last >= 0)
        waits.push({ kind: 'bench', bench: id, heldBy: this.prepared.jobs[own.last].id, until: heldUntil });
      const { setUp } = this.prepared.jobs[job];
      if (bench.setUp && setUp !== null) waits.push({ kind: 'set-up', bench: id, setUp, until: bench.from });
    }
    if (bench) this.benches[bench.at].last = job;
    if (start.from <= from) return;
    const inHours = Math.min(
      ...task.people.map((at) => firstFree({ hours: this.calendars[at].hours, busy: [] }, from, task.hands)),
    );
    const kind = inHours >= start.from ? 'hours' : 'hands';
    waits.push({ kind, task: task.id, role: task.role, until: start.from });
  }
}

/** Places all tasks of a day by an order; with what each job waits for where `explains` is set. */
export function placeTasks(prepared: PreparedDay, order: Order, explains = false): Placing {
  const placer = new Placer(prepared, order, explains);
  placer.placeAll();
  const { tasks, setUps, waits } = placer;
  return { tasks, setUps, waits, unplaced: placer.unplaced(), finish: placer.finish() };
}
