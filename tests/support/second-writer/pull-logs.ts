import type { Trace } from '@/core/traces/trace';
import { goodGauge, writeLog, type Dice, type Gauging } from './logger';

const { abs, ceil, max, min, round } = Math;

/** How one pull of a lever and its way back went, besides what the unit made of it. */
export type PullStory =
  | 'in-order'
  | 'jerky'
  | 'in-steps'
  | 'no-rest'
  | 'no-way-back'
  | 'ends-early'
  | 'few-samples'
  | 'quick'
  | 'long-line'
  | 'filtered'
  | 'output-clipped'
  | 'lever-clipped'
  | 'output-frozen'
  | 'gap'
  | 'no-supply'
  | 'weak-supply'
  | 'another-unit';

/** Straight lines that a unit follows, SI: below cut-in, from the jump to run-out, beyond it; the way back lies `play` to the left. */
export interface Lines {
  readonly below: number;
  readonly cutIn: number;
  /** Output right after the jump at cut-in; on the line below where there is none. */
  readonly jump: number;
  readonly slope: number;
  /** Infinity where the curve has no run-out. */
  readonly runOut: number;
  readonly beyond: number;
  readonly play: number;
  /** The line beyond run-out follows the lever without play. */
  readonly playOnlyWhileModulating: boolean;
}

export interface PullSetting {
  readonly story: PullStory;
  readonly lever: { readonly channel: string; readonly top: number; readonly gauging: Gauging };
  /** What follows the lever, each with its own lines. */
  readonly outputs: readonly { readonly channel: string; readonly lines: Lines; readonly gauging: Gauging }[];
  /** Other channels by time since the start (s) and the lever with its play taken up. */
  readonly others: Readonly<Record<string, { readonly at: (played: number) => number; readonly gauging: Gauging }>>;
  /** Lag of the unit itself and the line to its output gauge, s. */
  readonly line: number;
  readonly rate: number;
}

/** Output at a lever with its play taken up. */
export function onLines(lines: Lines, lever: number, played: number): number {
  const { below, cutIn, jump, slope, runOut, beyond, playOnlyWhileModulating } = lines;
  const passes = below * max(0, lever);
  if (played <= cutIn) return passes;
  const top = jump + slope * (runOut - cutIn);
  const modulating = jump + slope * (min(played, runOut) - cutIn);
  if (played <= runOut || !Number.isFinite(runOut)) return max(passes, modulating);
  return max(passes, top + beyond * ((playOnlyWhileModulating ? lever : played) - runOut));
}

const step = 1e-3;

/** Writes the log of one pull. */
export function pullLog(setting: PullSetting, luck: Dice): Trace {
  const { story, lever } = setting;
  const rest = story === 'no-rest' ? 0 : luck.between(1, 4);
  const up = story === 'quick' ? luck.between(0.25, 0.6) : luck.between(10, 35);
  const held = luck.between(1.5, 4);
  const down = story === 'quick' ? luck.between(0.25, 0.6) : luck.between(8, 30);
  const after = luck.between(1.5, 4);
  const end = story === 'no-way-back' ? rest + up + held : rest + up + held + down + after;
  const top = story === 'ends-early' ? lever.top * luck.between(0.35, 0.6) : lever.top;
  const stops = [luck.between(0.1, 0.3), luck.between(0.4, 0.6), luck.between(0.7, 0.9)];
  const levels = ceil(luck.between(12, 20));
  const bow = luck.between(-0.3, 0.3);
  const shape = (share: number): number => {
    if (story === 'in-steps')
      return min(1, ceil(share * levels - 0.7) / levels + (0.3 * max(0, ((share * levels) % 1) - 0.7)) / levels);
    const bowed = share + bow * share * (1 - share);
    if (story !== 'jerky') return bowed;
    // The hand stops and slips back a little, three times.
    return stops.reduce((at, stop) => at - 0.03 * max(0, 1 - abs(share - stop) / 0.03), bowed);
  };
  const leverAt = (t: number): number => {
    if (t < rest) return 0;
    if (t < rest + up) return max(0, top * shape((t - rest) / up));
    if (t < rest + up + held) return top;
    return max(0, top * (1 - (t - rest - up - held) / down));
  };
  const grid = ceil(end / step) + 2;
  const levers = new Float64Array(grid);
  const outputs = setting.outputs.map(() => new Float64Array(grid));
  const played = new Float64Array(grid);
  const plays = setting.outputs.map(() => 0);
  const lagged = setting.outputs.map(() => 0);
  for (let i = 0; i < grid; i++) {
    levers[i] = leverAt(i * step);
    setting.outputs.forEach(({ lines }, k) => {
      // Play: the branch back lies to the left, so that letting back a little changes nothing.
      plays[k] = max(levers[i], min(levers[i] + lines.play, plays[k]));
      const target = onLines(lines, levers[i], plays[k]);
      lagged[k] += (target - lagged[k]) * min(1, step / max(step, setting.line));
      outputs[k][i] = setting.line > 0 ? lagged[k] : target;
    });
    played[i] = plays[0] ?? levers[i];
  }
  const read = (column: Float64Array) => (t: number) => column[min(grid - 1, max(0, round(t / step)))];
  const clip =
    (story === 'output-clipped' ? luck.between(0.5, 0.9) : Infinity) *
    (outputs[0] ?? [0]).reduce((a, b) => max(a, b), 0);
  const log = writeLog(
    {
      [lever.channel]: {
        at: read(levers),
        gauging: { ...lever.gauging, ...(story === 'lever-clipped' ? { stop: top * luck.between(0.5, 0.9) } : {}) },
      },
      ...Object.fromEntries(
        setting.outputs.map(({ channel, gauging }, k) => [
          channel,
          { at: read(outputs[k]), gauging: { ...gauging, stop: k === 0 ? clip : Infinity } },
        ]),
      ),
      ...Object.fromEntries(
        Object.entries(setting.others).map(([channel, { at, gauging }]) => [
          channel,
          { at: (t: number) => at(read(played)(t)), gauging },
        ]),
      ),
    },
    {
      seconds: end,
      rate: story === 'few-samples' ? luck.between(8, 18) / up : setting.rate,
      jitter: luck.between(0, 0.3),
      ...(story === 'gap' ? { lost: [rest + 0.25 * up, rest + 0.75 * up] as const } : {}),
    },
    luck,
  );
  if (story !== 'output-frozen' || setting.outputs.length === 0) return log;
  const at = log.time.findIndex((t) => t >= rest + up * luck.between(0.3, 0.7));
  const { channel } = setting.outputs[0];
  const frozen = log.columns[channel].map((value, i) => (i > at ? log.columns[channel][at] : value));
  return { time: log.time, columns: { ...log.columns, [channel]: frozen } };
}

/** A pressure or force gauge as one finds it: noise and division for its size, a lag, a gain within its class. */
export function somePullGauge(luck: Dice, top: number, lag: number): Gauging {
  const fine = luck.chance(0.5);
  return {
    ...goodGauge,
    white: top * luck.between(1e-4, fine ? 5e-4 : 2e-3),
    slow: top * luck.between(0, 3e-4),
    division: top * (fine ? 1e-4 : 5e-4),
    lag,
    zero: top * luck.between(-2e-3, 2e-3),
    gain: luck.between(-0.003, 0.003),
  };
}
