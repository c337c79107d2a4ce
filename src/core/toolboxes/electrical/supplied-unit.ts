/** A unit that is fed from a battery, as far as its feed is judged: V and A. */
export interface SuppliedUnit {
  readonly ratedVoltage: number;
  /** Largest that it draws. */
  readonly ratedCurrent: number;
  readonly supplyDropMax: number;
  readonly groundDropMax: number;
}

/** A unit that falls asleep: s from the key off, and A. */
export interface SleepingUnit {
  readonly sleepAfter: number;
  readonly quiescentMax: number;
}
