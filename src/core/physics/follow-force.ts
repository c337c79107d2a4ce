/** A rod that follows the hand with a lag, and what its valve feels of it, friction taken up as a play of `hysteresis`. */
export interface FollowedForce {
  readonly advance: (dt: number, hand: number) => void;
  /** N */
  readonly force: () => number;
  readonly felt: () => number;
  readonly snapshot: () => number[];
  readonly restore: (numbers: readonly number[]) => void;
}

/** A rod with a first-order lag (s) and friction as play (in the unit of the lever's channel). */
export function followForce(lag: number, hysteresis: number): FollowedForce {
  let force = 0;
  let felt = 0;
  return {
    advance(dt, hand) {
      force += ((hand - force) * dt) / lag;
      if (force > felt) felt = force;
      // On the way back the valve keeps feeling what it felt until the play is used up.
      if (force < felt - hysteresis) felt = force + hysteresis;
    },
    force: () => force,
    felt: () => felt,
    snapshot: () => [force, felt],
    restore(numbers) {
      [force, felt] = numbers;
    },
  };
}
