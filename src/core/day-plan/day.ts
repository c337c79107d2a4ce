/** A stretch of time, minutes since 1970. */
export interface Stretch {
  readonly from: number;
  readonly to: number;
}

export interface DayPerson {
  readonly id: string;
  readonly roles: readonly string[];
  /** When this person works; hands-on minutes lie whole inside one of them. */
  readonly hours: readonly Stretch[];
}

export interface DayBench {
  readonly id: string;
  /** Set-ups that can be mounted here. */
  readonly setUps: readonly string[];
  /** The one that is mounted; null while none is. */
  readonly mounted: string | null;
}

/** `hands` minutes of one person, then `alone` minutes of nobody. */
export interface DayTask {
  readonly id: string;
  readonly hands: number;
  readonly alone: number;
  /** Whether the unit stands on a bench meanwhile. */
  readonly bench: boolean;
  /** The role that it takes; null where anybody will do. */
  readonly role: string | null;
  /** When it began, minutes since 1970; null while it has not. */
  readonly began: number | null;
  /** Who does it, where that is settled. */
  readonly person: string | null;
}

export interface DayJob {
  readonly id: string;
  /** Minutes since 1970. */
  readonly booked: number;
  readonly promised: number | null;
  /** What a bench must be set up with; null where any bench will do as it is. */
  readonly setUp: string | null;
  /** The bench on which the unit is mounted already; null while it is on none. */
  readonly bench: string | null;
  /** What is still to be done, in order; what is in progress is first and says when it began. */
  readonly tasks: readonly DayTask[];
}

/** All that a day's plan is made from. */
export interface Day {
  /** Minutes since 1970. */
  readonly now: number;
  readonly people: readonly DayPerson[];
  readonly benches: readonly DayBench[];
  /** Hands-on minutes of anybody to change what a bench is set up with. */
  readonly setUpMinutes: number;
  readonly jobs: readonly DayJob[];
}
