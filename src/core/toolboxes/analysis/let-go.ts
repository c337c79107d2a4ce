const { exp, log } = Math;

/** A release with a time constant up to this has settled when its residual is read, s. */
export const settles = 0.1;
/** An output that takes longer is not waited for, s. */
const longest = 5;
const step = 5e-4;

/** A lever that is let go, and the output that follows it, SI. */
export interface LettingGo {
  /** What the lever stood at, and the time constant with which it goes, s. */
  readonly held: number;
  readonly leverLag: number;
  /** Output that the unit's balance gives at a lever's level. */
  readonly balance: (level: number) => number;
  /** Time constant of the output's way back, s. */
  readonly lag: (level: number) => number;
  /** Output below which it has let go. */
  readonly gone: number;
}

/** From the lever falling through a tenth of what it stood at to the output being gone, s; null where nobody would wait that long. */
export function letGoSeconds({ held, leverLag, balance, lag, gone }: LettingGo): number | null {
  let output = balance(held);
  for (let time = 0; time < longest; time += step) {
    const level = held * exp(-time / leverLag);
    output = balance(level) + (output - balance(level)) * exp(-step / lag(level));
    if (output <= gone) return time - leverLag * log(10);
  }
  return null;
}
