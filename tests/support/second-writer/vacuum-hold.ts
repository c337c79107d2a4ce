import type { Trace } from '@/core/traces/trace';
import { goodGauge, writeLog, type Dice, type Gauging, type Logging } from './logger';

const { exp, max, min } = Math;

/** How a hold went: what happened in it besides the leak. */
export type HoldStory =
  | 'in-order'
  | 'begins-in-hold'
  | 'never-opened'
  | 'never-shut'
  | 'reopened'
  | 'vented-after'
  | 'vented-early'
  | 'lever-moved'
  | 'too-little'
  | 'cut-short'
  | 'frozen'
  | 'clipped'
  | 'gap'
  | 'gains';

export type LeakShape = 'even' | 'dies-down' | 'grows' | 'opens-late';

/** A hold of a unit: s, Pa, K. */
export interface HoldSetting {
  readonly story: HoldStory;
  readonly shape: LeakShape;
  /** Loss over the full time, Pa. */
  readonly loss: number;
  readonly seconds: number;
  readonly supply: number;
  readonly ambient: number;
  readonly gauging: Gauging;
  readonly logging: Pick<Logging, 'rate' | 'jitter'>;
  /** Lever channel and where it is held; null where the log has none. */
  readonly lever: {
    readonly channel: string;
    readonly level: number;
    readonly top: number;
    readonly gauging: Gauging;
  } | null;
}

/** Share of the full loss that has gone by a share of the time. */
function progress(shape: LeakShape, share: number): number {
  switch (shape) {
    case 'even':
      return share;
    case 'dies-down':
      return (1 - exp(-2 * share)) / (1 - exp(-2));
    case 'grows':
      return share * share;
    case 'opens-late':
      return max(0, share - 2 / 3) * 3;
  }
}

/** Writes the log of one hold; the source is opened after a second or two, left to settle, and shut. */
export function vacuumHoldLog(setting: HoldSetting, luck: Dice): Trace {
  const { story, shape, loss, seconds, gauging } = setting;
  const supply = story === 'too-little' ? setting.supply * luck.between(0.3, 0.55) : setting.supply;
  const begins = story === 'begins-in-hold' || story === 'cut-short' || story === 'gains';
  const opened = begins ? -60 : luck.between(0.5, 3);
  const speed = luck.between(0.6, 2.5);
  const settles = luck.between(8, 20);
  const shut = begins ? 0 : opened + 3 * speed + settles;
  const lasts = story === 'cut-short' ? seconds * luck.between(0.1, 0.28) : seconds * luck.between(1.05, 1.4) + 1;
  const end = (begins ? 0 : shut) + lasts;
  // Air that was just drawn is cold: what is lost as it warms, and how quickly.
  const cold =
    (setting.ambient - supply) *
    (luck.between(1, 5) / 288) *
    exp(-(begins ? luck.between(5, 30) : settles) / luck.between(4, 9));
  const warms = luck.between(1.5, 5);
  const reopened = shut + seconds * luck.between(0.3, 0.6);
  const vented = story === 'vented-early' ? shut + seconds * luck.between(0.35, 0.7) : end - luck.between(0.5, 2);
  const leverMoves = shut + seconds * luck.between(0.1, 0.25);

  const lost = (t: number) =>
    loss * progress(shape, max(0, t - shut) / seconds) + cold * (1 - exp(-max(0, t - shut) / warms));
  const vacuum = (t: number): number => {
    if (story === 'never-opened') return 0;
    if (t < opened) return 0;
    const drawn = supply * (1 - exp(-(t - opened) / speed));
    if (t < shut || story === 'never-shut') return drawn;
    const held = max(0, supply - lost(t));
    if (story === 'gains') return held + (2 * loss + 4_000) * min(1, (t - shut) / seconds);
    if (story === 'reopened' && t > reopened)
      return supply - (supply - max(0, supply - lost(reopened))) * exp(-(t - reopened) / 0.8);
    if ((story === 'vented-early' || story === 'vented-after') && t > vented) return held * exp(-(t - vented) / 0.3);
    return held;
  };
  const frozenAt = shut + seconds * luck.between(-0.3, 0.2);
  const clip = story === 'clipped' ? supply * luck.between(0.8, 0.95) : gauging.stop;
  const log = writeLog(
    {
      supply_vacuum: { at: vacuum, gauging: { ...gauging, stop: clip } },
      ...(setting.lever
        ? {
            [setting.lever.channel]: {
              at: (t) => leverAt(setting, story, t, { opened, shut, leverMoves }),
              gauging: setting.lever.gauging,
            },
          }
        : {}),
    },
    {
      ...setting.logging,
      seconds: end,
      ...(story === 'gap' ? { lost: [shut + 0.3 * seconds, shut + 0.8 * seconds] } : {}),
    },
    luck,
  );
  if (story !== 'frozen') return log;
  const at = log.time.findIndex((t) => t >= frozenAt);
  const column = log.columns.supply_vacuum.map((value, i) =>
    i > at && at >= 0 ? log.columns.supply_vacuum[at] : value,
  );
  return { time: log.time, columns: { ...log.columns, supply_vacuum: column } };
}

interface Times {
  readonly opened: number;
  readonly shut: number;
  readonly leverMoves: number;
}

function leverAt(setting: HoldSetting, story: HoldStory, t: number, { opened, shut, leverMoves }: Times): number {
  const { level, top } = setting.lever ?? { level: 0, top: 0 };
  if (level === 0) return story === 'lever-moved' && t > leverMoves ? top * min(1, (t - leverMoves) / 0.5) : 0;
  if (story === 'lever-moved' && t > leverMoves) return level * max(0, 1 - (t - leverMoves) / 0.5);
  const arrives = opened < 0 ? -1 : shut - 4;
  return level * min(1, max(0, (t - (arrives - 3)) / 3));
}

/** A gauge as one finds it on a bench: from a good transducer to a needle copied by eye. */
export function someVacuumGauge(luck: Dice): Gauging {
  const kind = luck.oneOf(['fine', 'ordinary', 'coarse'] as const);
  const white = { fine: 10, ordinary: 60, coarse: 30 }[kind];
  return {
    ...goodGauge,
    white: white * luck.between(0.5, 2),
    slow: luck.between(0, 20),
    division: { fine: 1, ordinary: 10, coarse: luck.oneOf([100, 250]) }[kind],
    lag: luck.between(0, 0.3),
    zero: luck.between(-300, 300),
    gain: luck.between(-0.004, 0.004),
    wander: luck.between(0, 3),
  };
}
