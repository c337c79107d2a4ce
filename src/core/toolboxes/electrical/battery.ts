/** A battery on charge: what it stands at with nothing drawn, V, and what it loses at once and by and by to each ampere, ohm. */
const resistance = 0.004;
const slowResistance = 0.003;
/** Time constant of the slow part, s. */
const slowTime = 4;

/** What it loses to each ampere that goes on for long, ohm. */
export const sagResistance = resistance + slowResistance;

/** A battery as a bench stands on it: it sags under a load, more the longer that lasts. */
export interface Battery {
  readonly advance: (dt: number, current: number) => void;
  /** V at a current, A. */
  readonly voltage: (current: number) => number;
  readonly snapshot: () => number[];
  readonly restore: (numbers: readonly number[]) => void;
}

/** A battery that gives `open` V with nothing drawn: resistance and one slow overvoltage (Thevenin with one RC pair). */
export function sagging(open: number): Battery {
  let slow = 0;
  return {
    advance: (dt, current) => void (slow += ((current * slowResistance - slow) * dt) / slowTime),
    voltage: (current) => open - current * resistance - slow,
    snapshot: () => [slow],
    restore: ([first]) => void (slow = first),
  };
}
