import type { Dice } from './logger';

/** A pedal over a drive as a tool logs it, and the moments at which somebody stamped on it; s, m. */
export interface PedalLog {
  readonly time: Float64Array;
  readonly value: Float64Array;
  readonly stamps: readonly number[];
}

interface Press {
  readonly from: number;
  readonly travel: number;
  readonly rate: number;
  readonly held: number;
  readonly stamp: boolean;
}

const smooth = (share: number) => (share <= 0 ? 0 : share >= 1 ? 1 : share * share * (3 - 2 * share));

/** A foot moves a pedal gently at first and at last: its quickest is one and a half times its mean. */
const quickest = 1.5;

function drawPresses(luck: Dice, count: number, threshold: number): readonly Press[] {
  let at = luck.between(1, 3);
  return Array.from({ length: count }, (): Press => {
    const stamp = luck.chance(0.4);
    const rate = threshold * (stamp ? luck.between(1.3, 3.5) : luck.between(0.1, 0.75));
    const press = { from: at, travel: luck.between(0.03, 0.09), rate, held: luck.between(0.6, 3), stamp };
    at += (quickest * press.travel) / rate + press.held + luck.between(1, 4);
    return press;
  });
}

/** Presses quick and slow, read with noise and divisions, now and then not read at all for a moment. */
export function pedalLog(luck: Dice, threshold: number): PedalLog {
  const rate = luck.oneOf([50, 60, 100, 200, 500, 1000]);
  const presses = drawPresses(luck, 8, threshold);
  const last = presses[presses.length - 1];
  const count = Math.round((last.from + last.held + 3) * rate);
  const [division, noise] = [luck.oneOf([0.05e-3, 0.1e-3, 0.25e-3]), luck.between(0, 0.1e-3)];
  const at = (t: number) =>
    presses.reduce((sum, { from, travel, rate: fast, held }) => {
      const takes = (quickest * travel) / fast;
      return sum + travel * (smooth((t - from) / takes) - smooth((t - from - takes - held) / 0.5));
    }, 0);
  // A connector that loses contact reads nothing at all: one sample, or a few tens of milliseconds.
  const lost = Array.from({ length: 6 }, () => {
    const from = luck.between(0, count / rate);
    return [from, from + luck.oneOf([1 / rate, 0.03, 0.06])] as const;
  });
  // At rest a sensor reads something; what has lost its contact reads less.
  const rest = luck.between(1.5e-3, 6e-3);
  const time = Float64Array.from({ length: count }, (_, i) => i / rate);
  const value = time.map((t) => {
    if (lost.some(([from, to]) => t >= from && t < to)) return 0;
    return Math.round((rest + at(t) + noise * luck.normal()) / division) * division;
  });
  return { time, value, stamps: presses.filter(({ stamp }) => stamp).map(({ from }) => from) };
}
