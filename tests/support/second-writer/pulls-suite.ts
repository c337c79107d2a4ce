import type { AnyKind } from '@/core/contract/kind';
/* Pulls that no rig made, judged: the suite of the unit tests and, with more logs, of the studies. */

import { findFamily } from '@/core/families';
import { contextAt } from '@/core/formats/site-file';
import { checkKind } from '@/core/formats/unit-sheet';
import { expandedUncertainty } from '@/core/instruments/uncertainty';
import { evaluateStep } from '@/core/judging/evaluate-unit';
import type { PlanId, StepContext } from '@/core/procedure/step-context';
import type { MeasuredStep } from '@/core/procedure/step-definition';
import type { CharacteristicId } from '@/core/quantities/characteristics';
import { dice, goodGauge, type Dice } from './logger';
import { asksOften, writtenAs, type Rows } from './other-rows';
import { pullLog, somePullGauge, type Lines, type PullSetting, type PullStory } from './pull-logs';
import { coverage, count, emptyTally, expectHonestStudy, type Tally } from './tally';

/** Stories whose log shows a whole, well-made pull. */
const whole: readonly PullStory[] = ['in-order', 'jerky', 'long-line', 'filtered'];
const stories: readonly PullStory[] = [
  ...whole,
  'in-steps',
  'no-rest',
  'no-way-back',
  'ends-early',
  'few-samples',
  'quick',
  'output-clipped',
  'lever-clipped',
  'output-frozen',
  'gap',
  'no-supply',
  'weak-supply',
];

/** Figures of a curve that its limits name; null where the curve has none. */
interface Curve {
  readonly name: string;
  readonly family: string;
  readonly layout: number;
  readonly step: string;
  readonly plan?: PlanId;
  readonly lever: string;
  readonly outputs: readonly string[];
  readonly cutIn: CharacteristicId;
  readonly slope: CharacteristicId;
  readonly runOut: CharacteristicId | null;
  readonly hysteresis: CharacteristicId | null;
  /** Lines of a unit whose figures are as many times the expected ones as told. */
  readonly lines: (expected: (id: CharacteristicId) => number, spec: Record<string, number>, off: Off) => Lines;
  readonly vacuum: boolean;
  /** Its output stands before the lever does, so that a log says nothing of its lag. */
  readonly standsAtTop?: true;
  /** Channels of the supply by the lever with its play taken up, at a share of what it should be. */
  readonly supply: (lines: Lines, share: number, vacuum: number) => PullSetting['others'];
}

interface Off {
  readonly cutIn: number;
  readonly slope: number;
  readonly runOut: number;
  readonly hysteresis: number;
}

const vacuumGauge = { ...goodGauge, white: 60, division: 10, lag: 0.05 };
const none = () => ({});

const remote = {
  family: 'vacuum-remote',
  step: 'boost-curve',
  lever: 'input_pressure',
  cutIn: 'cut-in-pressure',
  runOut: 'run-out-input',
  hysteresis: 'hysteresis',
  vacuum: true,
  supply: (lines: Lines, share: number, vacuum: number) => ({
    supply_vacuum: { at: () => share * vacuum, gauging: vacuumGauge },
    control_vacuum: {
      at: (played: number) => {
        const opens = 0.7 * lines.cutIn;
        return share * vacuum * Math.min(1, Math.max(0, 1 - (played - opens) / (lines.runOut - opens)));
      },
      gauging: vacuumGauge,
    },
  }),
} as const;

const servo = {
  cutIn: 'cut-in-force',
  slope: 'force-slope',
  runOut: 'run-out-force',
  hysteresis: 'force-hysteresis',
  layout: 0,
  outputs: ['output_pressure'],
  lines: (expected: (id: CharacteristicId) => number, spec: Record<string, number>, off: Off): Lines => ({
    below: 0,
    cutIn: expected('cut-in-force') * off.cutIn,
    jump: expected('jump-in-output'),
    slope: expected('force-slope') * off.slope,
    runOut: expected('run-out-force') * off.runOut,
    beyond: expected('force-slope') / spec.servoRatio,
    play: expected('force-hysteresis') * off.hysteresis,
    playOnlyWhileModulating: false,
  }),
} as const;

const curves: readonly Curve[] = [
  {
    ...remote,
    name: 'vacuum-remote boost-curve',
    layout: 0,
    outputs: ['output_pressure'],
    slope: 'boost-ratio',
    lines: (expected, spec, off) => {
      const cutIn = expected('cut-in-pressure') * off.cutIn;
      const reference = spec.referenceInputKpa * 1e3;
      const slope = (expected('boost-ratio') * off.slope * reference - cutIn) / (reference - cutIn);
      return {
        below: 1,
        cutIn,
        jump: cutIn,
        slope,
        runOut: expected('run-out-input') * off.runOut,
        beyond: 0.8,
        play: (expected('hysteresis') * off.hysteresis * slope) / slope,
        playOnlyWhileModulating: true,
      };
    },
  },
  {
    ...remote,
    name: 'vacuum-remote servo boost-curve',
    layout: 1,
    outputs: ['rod_force'],
    slope: 'servo-force',
    lines: (expected, spec, off) => {
      const cutIn = expected('cut-in-pressure') * off.cutIn;
      return {
        below: 0,
        cutIn,
        jump: 0,
        slope: (expected('servo-force') * off.slope) / (spec.referenceInputKpa * 1e3 - cutIn),
        runOut: expected('run-out-input') * off.runOut,
        beyond: 0,
        play: expected('hysteresis') * off.hysteresis,
        playOnlyWhileModulating: true,
      };
    },
  },
  {
    ...servo,
    name: 'vacuum-inline assist-curve',
    family: 'vacuum-inline',
    step: 'assist-curve',
    lever: 'rod_force',
    vacuum: true,
    supply: (_lines, share, vacuum) => ({ supply_vacuum: { at: () => share * vacuum, gauging: vacuumGauge } }),
  },
  {
    ...servo,
    name: 'motor-pump-boost assist-curve',
    family: 'motor-pump-boost',
    step: 'assist-curve',
    lever: 'rod_force',
    vacuum: false,
    supply: (_lines, share, pressure) => ({
      accumulator_pressure: { at: () => share * pressure, gauging: { ...goodGauge, white: 5e3, division: 2e3 } },
    }),
  },
  {
    ...servo,
    name: 'hydraulic-boost assist-curve',
    family: 'hydraulic-boost',
    step: 'assist-curve',
    lever: 'pedal_force',
    vacuum: false,
    supply: none,
  },
  {
    standsAtTop: true,
    name: 'pedal-valve modulation-curve',
    family: 'pedal-valve',
    layout: 0,
    step: 'modulation-curve',
    lever: 'pedal_angle',
    outputs: ['front_pressure', 'rear_pressure'],
    cutIn: 'cut-in-travel',
    slope: 'modulation-slope',
    runOut: null,
    hysteresis: 'angle-hysteresis',
    lines: (expected, _spec, off) => ({
      below: 0,
      cutIn: expected('cut-in-travel') * off.cutIn,
      jump: 0,
      slope: expected('modulation-slope') * off.slope,
      runOut:
        expected('cut-in-travel') * off.cutIn +
        expected('regulated-maximum') / (expected('modulation-slope') * off.slope),
      beyond: 0,
      play: expected('angle-hysteresis') * off.hysteresis,
      playOnlyWhileModulating: true,
    }),
    vacuum: false,
    supply: none,
  },
  {
    name: 'stored-pressure metering-curve',
    family: 'stored-pressure',
    layout: 0,
    step: 'metering-curve',
    lever: 'pedal_force',
    outputs: ['front_pressure', 'rear_pressure'],
    cutIn: 'cut-in-force',
    slope: 'metering-slope',
    runOut: null,
    hysteresis: null,
    lines: (expected, _spec, off) => ({
      below: 0,
      cutIn: expected('cut-in-force') * off.cutIn,
      jump: 0,
      slope: expected('metering-slope') * off.slope,
      runOut: Infinity,
      beyond: 0,
      play: 8,
      playOnlyWhileModulating: true,
    }),
    vacuum: false,
    supply: none,
  },
];

interface Bench {
  readonly kind: AnyKind;
  readonly step: MeasuredStep<unknown>;
  readonly context: StepContext<unknown>;
  readonly spec: Record<string, number>;
  readonly supply: number;
  readonly expected: (id: CharacteristicId) => number;
  /** Half the width of a limit over what is expected; how far beyond it a one-sided one lies. */
  readonly tolerance: (id: CharacteristicId) => number;
}

function benchOf(curve: Curve, share = 1): Bench {
  const kind = findFamily(curve.family)!.kinds[curve.layout];
  const checked = checkKind(kind, 'foreign', kind.sheet.example.spec, 'foreign');
  if (!checked.ok) throw new Error('the example sheet is not valid');
  const site = { altitudeM: 1420, airTemperatureC: 11, benchVolumeCm3: 600 };
  const context = contextAt(checked.value, site, '2026-11-23', curve.plan ?? kind.plans[0].id);
  const step = kind.steps.find((each) => each.id === curve.step) as MeasuredStep<unknown>;
  const supply = curve.vacuum ? 58_000 : 15e6;
  const there = share * supply;
  const given = curve.vacuum || curve.family === 'motor-pump-boost' ? { vacuum: there, restVacuum: there } : {};
  const limits = step.limits({ characteristics: [], events: [], notes: [], ...given }, context);
  const of = (id: CharacteristicId) => limits.find((each) => each.characteristic === id);
  return {
    kind,
    step,
    context,
    spec: checked.value.spec as Record<string, number>,
    supply,
    expected: (id) => of(id)?.expected ?? 0,
    tolerance: (id) => {
      const limit = of(id);
      return limit?.high && limit.expected ? limit.high / limit.expected - 1 : 0;
    },
  };
}

/** A bench whose instruments' records say how late each of them reads, within a fifth. */
function withRecordedLags(context: StepContext<unknown>, setting: PullSetting, luck: Dice): StepContext<unknown> {
  const instruments = new Map(context.instruments);
  const record = (channel: string, lag: number) =>
    instruments.set(channel, { ...instruments.get(channel)!, lagSeconds: lag * luck.between(0.8, 1.2) });
  record(setting.lever.channel, setting.lever.gauging.lag);
  for (const { channel, gauging } of setting.outputs) record(channel, gauging.lag + setting.line);
  return { ...context, instruments };
}

/** A unit a little off its figures, or far off one of them. */
function someUnit(curve: Curve, bench: Bench, sound: boolean, luck: Dice): { off: Off; fault: string } {
  const little = (id: CharacteristicId | null) => (id ? 1 + luck.between(-0.25, 0.25) * bench.tolerance(id) : 1);
  const off = {
    cutIn: little(curve.cutIn),
    slope: little(curve.slope),
    runOut: little(curve.runOut),
    hysteresis: luck.between(0.8, 1.1),
  };
  if (sound) return { off, fault: 'sound' };
  const far = (id: CharacteristicId) => luck.between(1.8, 2.6) * bench.tolerance(id);
  const faults: [string, Partial<Off>][] = [
    ['late cut-in', { cutIn: 1 + far(curve.cutIn) }],
    ['flat', { slope: 1 - far(curve.slope) }],
    ['steep', { slope: 1 + far(curve.slope) }],
    ...(curve.runOut ? ([['early run-out', { runOut: 1 - far(curve.runOut) }]] as [string, Partial<Off>][]) : []),
    ...(curve.hysteresis ? ([['wide', { hysteresis: luck.between(3, 5) }]] as [string, Partial<Off>][]) : []),
  ];
  const [fault, wrong] = luck.oneOf(faults);
  return { off: { ...off, ...wrong }, fault };
}

export function foreignPulls(perCase: number, seed: number, rows: Rows = 'a-row-a-sample'): void {
  const tallies = new Map<string, Tally>();
  const covered = coverage();

  describe('pulls that no rig made', () => {
    for (const curve of curves) {
      const bench = benchOf(curve);
      it.each(stories)(`${curve.name}: %s is never judged wrongly without a word`, (story) => {
        const tally = emptyTally();
        const luck = dice(seed + 1000 * stories.indexOf(story) + curve.name.length * 17);
        for (let n = 0; n < perCase; n++) {
          const sound = luck.chance(0.5);
          const { off, fault } = someUnit(curve, bench, sound, luck);
          const share = story === 'no-supply' ? 0 : story === 'weak-supply' ? luck.between(0.45, 0.6) : 1;
          // A unit is what its supply makes of it: less vacuum, an earlier run-out.
          const { expected } = share > 0 && share < 1 ? benchOf(curve, share) : bench;
          const lines = curve.lines(expected, bench.spec, off);
          const top = Number.isFinite(lines.runOut) ? lines.runOut * luck.between(1.25, 1.4) : lines.cutIn * 6;
          if (share < 1 && Object.keys(curve.supply(lines, 1, 1)).length === 0) continue;
          const highest = lines.jump + lines.slope * (Math.min(lines.runOut, top) - lines.cutIn);
          const filtered = story === 'filtered';
          const setting: PullSetting = {
            story,
            lever: {
              channel: curve.lever,
              top,
              gauging: somePullGauge(luck, top, filtered ? luck.between(0.01, 0.1) : luck.between(0, 0.01)),
            },
            outputs: curve.outputs.map((channel) => ({
              channel,
              // Without its supply a unit gives what the foot gives, less its springs.
              lines:
                share === 0
                  ? {
                      ...lines,
                      cutIn: 0.9 * top,
                      jump: 0.9 * top * lines.below,
                      slope: lines.beyond || lines.slope / 5,
                      runOut: Infinity,
                    }
                  : lines,
              gauging: somePullGauge(luck, highest, filtered ? luck.between(0.01, 0.1) : luck.between(0, 0.03)),
            })),
            others: curve.supply(lines, share, bench.supply),
            line: story === 'long-line' ? luck.between(0.1, 0.25) : luck.between(0, 0.02),
            rate: luck.oneOf([10, 20, 50, 100, 200]),
          };
          const trace = writtenAs(rows, pullLog(setting, luck));
          const context =
            curve.standsAtTop && story !== 'long-line' ? withRecordedLags(bench.context, setting, luck) : bench.context;
          const analysis = bench.step.analyse(trace, context);
          const result = evaluateStep(bench.kind, bench.step, [{ analysed: () => analysis }], {
            context,
            policy: 'guarded',
          });
          const isWhole = whole.includes(story);
          const supplied = share > 0;
          count(
            tally,
            result,
            {
              wrong: [
                ...(sound && supplied ? [] : (['pass'] as const)),
                ...(!sound && supplied ? [] : (['fail'] as const)),
              ],
              // Where a pressure is regulated nothing in the log tells a long line: its lag must be known.
              shouldPass: sound && isWhole && setting.rate >= 20 && !(curve.standsAtTop && story === 'long-line'),
            },
            `${curve.name} ${story} ${fault} ${JSON.stringify({ ...off, rate: setting.rate, line: setting.line })}: ${result.checks
              .filter((each) => each.verdict.kind !== 'pass')
              .map((each) => {
                const found = result.characteristics.find((one) => one.id === each.characteristic);
                return `${each.characteristic} ${each.verdict.kind} ${found?.kind === 'measured' ? `${found.estimate.value.toPrecision(4)} ± ${expandedUncertainty(found.estimate).toPrecision(2)}` : found?.kind === 'absent' || found?.kind === 'beyond' ? found.problem.code : ''} [${each.limit.low?.toPrecision(4)}, ${each.limit.high?.toPrecision(4)}]`;
              })
              .join('; ')}`,
          );
          if (isWhole && setting.rate >= 20) {
            const truth: [CharacteristicId | null, number][] = [
              [curve.cutIn, lines.cutIn],
              [curve.runOut, lines.runOut],
              [curve.hysteresis, lines.play],
              ...(curve.slope === 'boost-ratio' || curve.slope === 'servo-force'
                ? []
                : ([[curve.slope, lines.slope]] as [CharacteristicId, number][])),
            ];
            for (const [id, value] of truth) {
              const found = result.characteristics.find((each) => each.id === id);
              if (id && found?.kind === 'measured') covered.see(`${curve.name} ${id}`, found.estimate, value);
            }
          }
        }
        tallies.set(`${curve.name} ${story}`, tally);
        expect(tally.wrongs.filter((each) => !each.startsWith('(sound)'))).toEqual([]);
      });
    }

    if (!asksOften(rows)) return;
    it('sound units that were well measured pass, and U covers what they are', () => {
      expectHonestStudy(tallies, covered, perCase);
    });
  });
}
