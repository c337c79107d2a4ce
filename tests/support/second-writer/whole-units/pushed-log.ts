/* A master cylinder pushed by foot alone, and how a sound unit is off its drawing. */

import { writeLog, type Dice, type Gauging, type Signal } from '../logger';
import { gauge } from '../step-case';
import { log, type Given } from './whole-unit';

const { max, min } = Math;

/** A factor about one, off by so much at most either way. */
export const offBy =
  (luck: Dice) =>
  (by: number): number =>
    luck.between(1 - by, 1 + by);

export interface Pushed {
  /** Pa for each newton of the rod, and the force that its springs take, N. */
  readonly plain: number;
  readonly springs: number;
  readonly lever: Gauging;
  /** What feeds the unit, and is not there. */
  readonly fed: Readonly<Record<string, Signal>>;
}

/** One even push without help, held, and let back. */
export function pushedLog({ plain, springs, lever, fed }: Pushed, luck: Dice): Given {
  const [rest, up, held, down] = [2, luck.between(8, 20), 2, luck.between(6, 15)];
  const top = luck.between(800, 1_150);
  const end = rest + up + held + down;
  const rod = (t: number) => top * min(1, max(0, (t - rest) / up)) * min(1, max(0, (end - t) / down));
  return log(
    writeLog(
      {
        rod_force: { at: rod, gauging: lever },
        output_pressure: { at: (t) => max(0, plain * (rod(t) - springs)), gauging: gauge(luck, 4e6) },
        ...fed,
      },
      { seconds: end + 2, rate: luck.oneOf([20, 50, 100]), jitter: 0.2 },
      luck,
    ),
  );
}
