/* A pedal-operated booster on a bench: straight lines, a balance of forces at run-out, and losses by the second. */

import { goodGauge, writeLog, type Dice, type Gauging } from '../logger';
import { pullLog } from '../pull-logs';
import { ambient, foot, gauge, vacuumGauge } from '../step-case';
import { someVacuumGauge, vacuumHoldLog } from '../vacuum-hold';
import { offBy, pushedLog } from './pushed-log';
import { log, wholeUnit } from './whole-unit';

const { exp, max, min } = Math;

interface Booster {
  /** Pa/N, N and Pa. */
  readonly slope: number;
  readonly cutIn: number;
  readonly jump: number;
  readonly play: number;
  /** Output of the master cylinder for each newton, and the force of its spring. */
  readonly plain: number;
  readonly spring: number;
  /** Force of the diaphragm for each pascal, and what its own spring takes off it. */
  readonly area: number;
  readonly back: number;
  /** Lost over 15 s with nothing touched, and while it is applied, Pa. */
  readonly lostAtRest: number;
  readonly lostApplied: number;
  /** Lost over 15 s through the check valve, Pa. */
  readonly backwards: number;
  /** Time constant of drawing down, s, and what falls on the way while air is drawn, Pa. */
  readonly draws: number;
  readonly sag: number;
  /** Share of the vacuum that a stroke leaves. */
  readonly keeps: number;
  /** Release: time constant, s, and what stays, Pa. */
  readonly lets: number;
  readonly stays: number;
  /** Output that comes at once at a quick stroke, as a share. */
  readonly promptly: number;
  readonly gap: number;
  /** Share of its output that the master cylinder loses in a minute. */
  readonly creeps: number;
}

const source = 58e3;
const seconds = 15;

const assistAt = ({ area, back }: Booster, vacuum: number) => max(0, area * vacuum - back);

/** Rod force from which the diaphragm can give no more. */
function runOutOf(booster: Booster, vacuum: number): number {
  const { slope, plain, cutIn, jump, spring } = booster;
  // jump + slope (F − cutIn) = plain (F − spring + assist)
  return (plain * (assistAt(booster, vacuum) - spring) - jump + slope * cutIn) / (slope - plain);
}

function outputAt(booster: Booster, force: number, vacuum: number): number {
  const { slope, plain, cutIn, jump, spring } = booster;
  if (force < cutIn) return 0;
  const most = plain * (force - spring + assistAt(booster, vacuum));
  return max(0, min(jump + slope * (force - cutIn), most));
}

function held(booster: Booster, applied: boolean, luck: Dice) {
  const loss = applied ? booster.lostApplied : booster.lostAtRest;
  return log(
    vacuumHoldLog(
      {
        story: 'in-order',
        shape: loss > 8e3 ? 'dies-down' : 'even',
        loss,
        seconds,
        supply: source,
        ambient,
        gauging: { ...someVacuumGauge(luck), division: luck.oneOf([1, 10]) },
        logging: { rate: luck.oneOf([10, 50, 100]), jitter: luck.between(0, 0.2) },
        lever: {
          channel: 'rod_force',
          level: applied ? 3_000 : 0,
          top: 3_000,
          gauging: { ...goodGauge, white: 3, division: 1 },
        },
      },
      luck,
    ),
  );
}

function drawn(booster: Booster, luck: Dice) {
  const opens = luck.between(1, 2);
  const at = (t: number) => (t < opens ? 0 : source * (1 - exp(-(t - opens) / booster.draws)));
  return log(
    writeLog(
      { supply_vacuum: { at, gauging: vacuumGauge(luck) } },
      { seconds: opens + 20, rate: luck.oneOf([20, 50, 100]), jitter: 0.2 },
      luck,
    ),
  );
}

function checked(booster: Booster, luck: Dice) {
  const opens = 17;
  const still = booster.lostAtRest / seconds;
  const vacuum = (t: number) =>
    source * exp((-still * t) / source) * (t < opens ? 1 : exp((-booster.backwards * (t - opens)) / seconds / source));
  const side = (t: number) => (t < opens ? vacuum(t) : vacuum(opens) * max(0, 1 - (t - opens) / 0.3));
  return log(
    writeLog(
      {
        supply_vacuum: { at: vacuum, gauging: vacuumGauge(luck) },
        source_vacuum: { at: side, gauging: vacuumGauge(luck) },
      },
      { seconds: 34, rate: luck.oneOf([10, 50]), jitter: 0.2 },
      luck,
    ),
  );
}

const forceGauge = (luck: Dice): Gauging => gauge(luck, 1_500);

/** What is left of the output when a pull that takes so many seconds reaches its middle. */
const leftAfter = ({ creeps }: Booster, taken: number) => 1 - (creeps * taken) / 60;

function pulled(booster: Booster, luck: Dice) {
  const { cutIn, play } = booster;
  const left = leftAfter(booster, 20);
  const [slope, jump, plain] = [booster.slope * left, booster.jump, booster.plain * left];
  return log(
    pullLog(
      {
        story: luck.oneOf(['in-order', 'in-order', 'jerky']),
        lever: { channel: 'rod_force', top: luck.between(850, 1_000), gauging: forceGauge(luck) },
        outputs: [
          {
            channel: 'output_pressure',
            gauging: gauge(luck, 1e7, 1e3),
            lines: {
              below: 0,
              cutIn,
              jump,
              slope,
              // Most air is drawn as it sets out.
              runOut: runOutOf(booster, source - 0.4 * booster.sag),
              beyond: plain,
              play,
              playOnlyWhileModulating: false,
            },
          },
        ],
        others: {
          supply_vacuum: {
            at: (played) =>
              source - booster.sag * min(1, max(0, (played - cutIn) / 60)) * max(0.4, 1 - max(0, played - cutIn) / 600),
            gauging: vacuumGauge(luck),
          },
        },
        line: luck.between(0.01, 0.05),
        rate: luck.oneOf([50, 100]),
      },
      luck,
    ),
  );
}

function pushed(booster: Booster, luck: Dice) {
  const fed = { supply_vacuum: { at: () => 0, gauging: vacuumGauge(luck) } };
  const plain = booster.plain * leftAfter(booster, 12);
  return pushedLog({ plain, springs: 180, lever: forceGauge(luck), fed }, luck);
}

/** Strokes with the source shut off: each leaves a share of the vacuum, and what leaks meanwhile is gone. */
function strokes(booster: Booster, luck: Dice) {
  const spacing = luck.between(3, 3.4);
  const shut = 5;
  const times = Array.from({ length: 6 }, (_, n) => shut + 2 + n * spacing);
  const force = foot(times, 1.6, () => 900);
  const lost = (booster.lostAtRest + booster.lostApplied) / 2 / seconds;
  const left = (t: number) => {
    const done = times.filter((at) => t > at + 0.3).length;
    return max(0, source * booster.keeps ** done - lost * max(0, t - shut));
  };
  const output = (t: number) => {
    const at = times.findLast((each) => t >= each) ?? times[0];
    const assist = booster.promptly * left(at) * min(1, (t - at) / 0.3);
    return outputAt(booster, force(t), assist);
  };
  return log(
    writeLog(
      {
        rod_force: { at: force, gauging: forceGauge(luck) },
        output_pressure: { at: output, gauging: gauge(luck, 1e7, 1e3) },
        supply_vacuum: { at: left, gauging: vacuumGauge(luck) },
      },
      { seconds: times[5] + 4, rate: luck.oneOf([20, 50, 100]), jitter: 0.2 },
      luck,
    ),
  );
}

function released(booster: Booster, luck: Dice) {
  const letGo = 7;
  const rod = (t: number) => 800 * min(1, max(0, (t - 2) / 1.5)) * min(1, max(0, (letGo - t) / 0.3 + 1));
  const top = outputAt(booster, 800, source);
  const output = (t: number) =>
    t < letGo
      ? outputAt(booster, rod(t), source)
      : booster.stays + (top - booster.stays) * exp(-(t - letGo) / booster.lets);
  return log(
    writeLog(
      {
        rod_force: { at: rod, gauging: forceGauge(luck) },
        output_pressure: { at: output, gauging: { ...gauge(luck, 1e7, 1e3), white: 2e3, lag: 0.02 } },
        supply_vacuum: { at: () => source, gauging: vacuumGauge(luck) },
      },
      { seconds: letGo + 8, rate: luck.oneOf([20, 50, 100]), jitter: 0.2 },
      luck,
    ),
  );
}

export const inlineBooster = wholeUnit<Booster>({
  family: 'vacuum-inline',
  plan: 'bench',
  sound: (luck) => {
    const little = offBy(luck);
    const plain = (0.95 / ((Math.PI / 4) * 0.0254 ** 2)) * little(0.02);
    return {
      plain,
      slope: 5 * plain * little(0.04),
      cutIn: 110 * little(0.1),
      jump: 0.67e6 * little(0.15),
      play: 30 * little(0.2),
      spring: 60 * little(0.1),
      area: 0.95 * (Math.PI / 4) * (0.236 ** 2 - 0.046 ** 2) * little(0.015),
      back: 40,
      lostAtRest: luck.between(0, 600),
      lostApplied: luck.between(0, 700),
      backwards: luck.between(0, 150),
      draws: 0.6 * little(0.1),
      sag: luck.between(0, 800),
      keeps: 0.66 * little(0.03),
      lets: 0.05 * little(0.3),
      stays: luck.between(0, 8e3),
      promptly: 1,
      gap: 0.6e-3 * little(0.2),
      creeps: 0,
    };
  },
  faults: {
    'check-valve-leak': (sound, severe) => ({ ...sound, backwards: 3e3 + 14e3 * severe, keeps: sound.keeps * 0.98 }),
    'check-valve-blocked': (sound, severe) => ({
      ...sound,
      draws: sound.draws * (4 + 10 * severe),
      sag: 8e3 + 12e3 * severe,
    }),
    'diaphragm-leak': (sound, severe) => ({
      ...sound,
      lostApplied: 8e3 + 32e3 * severe,
      keeps: sound.keeps * (0.98 - 0.08 * severe),
    }),
    'vacuum-valve-leak': (sound, severe) => ({
      ...sound,
      lostApplied: 8e3 + 38e3 * severe,
      keeps: sound.keeps * (0.98 - 0.1 * severe),
    }),
    'atmosphere-valve-leak': (sound, severe) => ({ ...sound, lostAtRest: 6e3 + 22e3 * severe }),
    'valve-filter-restricted': (sound, severe) => ({ ...sound, promptly: 0.5 - 0.35 * severe, keeps: 0.8 }),
    'reaction-disc-missing': (sound, severe) => ({
      ...sound,
      slope: sound.slope * (1.8 + 0.8 * severe),
      jump: sound.jump * 0.05,
    }),
    'rod-gap-too-small': (sound, severe) => ({
      ...sound,
      gap: 0.1e-3 - 0.7e-3 * severe,
      stays: 60e3 + 120e3 * severe,
      lets: 2 + 2 * severe,
    }),
    'rod-gap-too-large': (sound, severe) => ({ ...sound, gap: 1.3e-3 + 1.5e-3 * severe }),
    'return-spring-broken': (sound, severe) => ({
      ...sound,
      play: sound.play * (1.4 + 1.2 * severe),
      back: 40 - 80 * severe,
      stays: 50e3 + 90e3 * severe,
      lets: 1.5 + 1.5 * severe,
    }),
    'master-cylinder-bypass': (sound, severe) => ({ ...sound, creeps: 0.25 + 0.55 * severe }),
  },
  looks: {
    'atmosphere-valve-leak': { 'air-inlet': 'unfit' },
    'valve-filter-restricted': { 'air-inlet': 'unfit' },
  },
  write: (step, booster, luck) => {
    switch (step) {
      case 'vacuum-draw':
        return drawn(booster, luck);
      case 'vacuum-hold-rest':
        return held(booster, false, luck);
      case 'vacuum-hold-applied':
        return held(booster, true, luck);
      case 'check-valve':
        return checked(booster, luck);
      case 'assist-curve':
        return pulled(booster, luck);
      case 'unassisted-curve':
        return pushed(booster, luck);
      case 'reserve':
        return strokes(booster, luck);
      case 'release':
        return released(booster, luck);
      case 'rod-gap':
        return { kind: 'typed', values: { 'rod-gap': booster.gap } };
      default:
        return null;
    }
  },
});
