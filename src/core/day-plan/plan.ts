/** A task in its place; times in minutes since 1970. `person` is null where no hands are needed, or nobody said whose they are. */
export interface PlacedTask {
  readonly job: string;
  readonly task: string;
  readonly bench: string | null;
  readonly person: string | null;
  readonly from: number;
  readonly handsUntil: number;
  readonly until: number;
}

/** A bench that is set up otherwise, before the first task that wants it. */
export interface PlacedSetUp {
  readonly bench: string;
  readonly setUp: string;
  readonly person: string | null;
  readonly from: number;
  readonly until: number;
}

/** Why a task has no place. */
export type WhyNot =
  /** No bench can be set up for its job. */
  | { readonly kind: 'no-bench'; readonly setUp: string | null }
  /** Every bench for its job is kept by one that cannot go on. */
  | { readonly kind: 'benches-kept'; readonly by: readonly string[] }
  | { readonly kind: 'no-role'; readonly role: string }
  /** It is settled who does it, and it takes a role that this person has not. */
  | { readonly kind: 'not-theirs'; readonly person: string; readonly role: string }
  /** Nobody who may do it has a stretch of hours that is long enough, at all or any more. */
  | { readonly kind: 'no-hours'; readonly minutes: number; readonly role: string | null }
  | { readonly kind: 'after'; readonly task: string };

export interface UnplacedTask {
  readonly job: string;
  readonly task: string;
  readonly why: WhyNot;
}

/** What a job waits for before one of its tasks, and until when (minutes since 1970). */
export type Wait =
  | { readonly kind: 'bench'; readonly bench: string; readonly heldBy: string | null; readonly until: number }
  | { readonly kind: 'set-up'; readonly bench: string; readonly setUp: string; readonly until: number }
  | { readonly kind: 'hands'; readonly task: string; readonly role: string | null; readonly until: number }
  | { readonly kind: 'hours'; readonly task: string; readonly role: string | null; readonly until: number };

export interface PlannedJob {
  readonly id: string;
  /** Minutes since 1970; null where one of its tasks has no place. */
  readonly finish: number | null;
  /** Minutes past what was promised; nothing where it is in time, was not promised or has no finish. */
  readonly late: number;
  readonly waits: readonly Wait[];
  /** The latest start of what is next that is still in time, all else as planned; null where that says nothing. */
  readonly startBefore: number | null;
  readonly promised: number | null;
}

export interface DayPlan {
  /** In the order of their beginnings. */
  readonly tasks: readonly PlacedTask[];
  readonly setUps: readonly PlacedSetUp[];
  /** In the order of the day. */
  readonly jobs: readonly PlannedJob[];
  readonly unplaced: readonly UnplacedTask[];
  /** Sum of all jobs. */
  readonly late: number;
}
