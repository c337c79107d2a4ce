import { onGauge } from '../../dials/asked';
import { timedAsked, timedFigure } from '../../dials/timed';
import { entryFromReadings } from '../../dials/from-readings';
import { releaseEntry } from '../../toolboxes/analysis/release-entry';
import { random, readingComponents } from '../../instruments/uncertainty';
import { absent, measured } from '../../procedure/analysis-result';
import { evidence, noEvidence } from '../../procedure/evidence';
import { wait } from '../../procedure/guide-phase';
import { atMost, limitFrom } from '../../procedure/limit';
import { answer, joinAnswers, type Question } from '../../procedure/question';
import { analyseRelease } from '../../toolboxes/analysis/release-analysis';
import { riseQuestion } from '../../toolboxes/analysis/rise-analysis';
import { largestWindow } from '../../traces/time-mean';
import { ownInterval, ownSamples, scatterOf, type Samples } from '../../traces/own-samples';
import { columnOf } from '../../traces/trace';
import { outputAt } from './geometry';
import { keyOn, letGo, lever, provedSafe, pushTop, restAwake, wake, type Context, type Measured } from './step-parts';

/** An output held at less than this share of what the push should give was never applied. */
const builtShare = 0.2;
/** A peak is the largest mean over so long, s, and needs so many samples a second, Hz. */
const peakSeconds = 0.02;
const peakRate = 100;
/** Force of a quick application as a share of what reaches run-out: assist, not muscle, is timed. */
export const stampShare = 0.7;

const stampForce = (context: Context) => pushTop(context) * stampShare;

const peakQuestion: Question<Context, { readonly samples: Samples }, { readonly samples: Samples }> = {
  characteristics: ['peak-current'],
  happened: (trace) => {
    const column = columnOf(trace, 'motor_current');
    return column
      ? { samples: ownSamples(trace, column) }
      : noEvidence({ code: 'channel-missing', channel: 'motor_current' });
  },
  shows: (found) =>
    found.samples.time.length > 3
      ? evidence(found)
      : noEvidence({
          code: 'too-few-samples',
          channel: 'motor_current',
          samples: found.samples.time.length,
          needed: 4,
        }),
  comesTo: ({ samples }, context) => {
    const rate = 1 / ownInterval(samples);
    const peak = largestWindow(samples, peakSeconds);
    const instrument = context.instruments.get('motor_current');
    return {
      characteristics: [
        rate < peakRate * 0.99 || !peak
          ? absent('peak-current', { code: 'sampled-too-slowly', rate, needed: peakRate })
          : measured('peak-current', peak.mean, [
              random('noise', scatterOf(samples) / Math.sqrt(Math.max(1, peakSeconds * rate))),
              ...(instrument ? readingComponents(instrument, peak.mean, context.date) : []),
            ]),
      ],
      events: [],
      notes: [],
    };
  },
};

const rise = riseQuestion<Context>('rise-time', ({ unit }) => ({
  lever,
  channel: 'output_pressure',
  notPulled: { code: 'no-step' },
  needed: builtShare * outputAt(unit, unit.cutInForce * 2, unit.ratedVoltage),
}));

export const stepResponse: Measured = {
  id: 'step-response',
  kind: 'measured',
  title: 'Quick application',
  why: 'Worn gears and a weak feed do not show in a slow push: stamp, and see how long it takes.',
  minutes: 2,
  cautions: ['fluid-jet', 'wakes-by-itself'],
  optional: false,
  characteristics: ['rise-time', 'peak-current'],
  ...provedSafe,
  feeds: {
    log: {
      needs: [lever, 'output_pressure'],
      uses: ['motor_current', 'supply_voltage'],
      leastRows: 40,
      leastRate: 100,
    },
    live: {
      startsFrom: 'charged',
      guide: (context) => {
        const level = stampForce(context);
        return [
          wake(3),
          {
            instruction: { code: 'stamp', channel: lever, level },
            controls: keyOn,
            lever: { to: level, seconds: 0.05 },
            end: { kind: 'input-above', level: 0.9 * level },
          },
          wait({ code: 'hold-there', seconds: 4 }, keyOn, 4, level),
          letGo,
          restAwake(2),
        ];
      },
      bands: (context) => {
        const output = outputAt(context.unit, stampForce(context), context.unit.ratedVoltage);
        return { output_pressure: [output * 0.85, output * 1.15] };
      },
    },
    dials: entryFromReadings({
      characteristics: () => ['rise-time', 'peak-current'],
      once: () => [
        ...timedAsked('pressed-up', 'From stamping until the output stands'),
        onGauge('peak', 'motor_current', 'Highest on the clamp meter', { optional: true }),
      ],
      reckon: ({ once }) => {
        const time = timedFigure(once, 'pressed-up', 'rise-time');
        return {
          figures: (moved) => ({ 'rise-time': time.of(moved.once), 'peak-current': moved.once.peak }),
          bounds: time.bounds,
        };
      },
    }),
  },
  analyse: (trace, context) => joinAnswers([answer(rise, trace, context), answer(peakQuestion, trace, context)]),
  limits: (_analysis, { unit: { spec } }) => [
    atMost(
      'rise-time',
      { value: spec.riseTimeMaxS, source: { kind: 'sheet', field: 'riseTimeMaxS' } },
      { expected: 0.15 },
    ),
    ...(spec.peakCurrentMaxA === undefined
      ? []
      : [
          atMost('peak-current', {
            value: spec.peakCurrentMaxA,
            source: { kind: 'sheet', field: 'peakCurrentMaxA' },
          }),
        ]),
  ],
  pictures: [{ kind: 'over-time', channels: ['output_pressure', lever] }],
};

/** Residual output allowed after release, Pa. */
export const residualLimit = ({ unit: { spec }, workshopLimits }: Context) =>
  limitFrom(
    { field: 'residualMaxKpa', value: spec.residualMaxKpa === undefined ? undefined : spec.residualMaxKpa * 1e3 },
    { key: 'residual', value: workshopLimits.residual },
  );

export const release: Measured = {
  id: 'release',
  kind: 'measured',
  title: 'Letting go',
  why: 'Let go at once: the pressure must fall to nothing and stay there, or the brakes drag.',
  minutes: 1,
  cautions: ['fluid-jet', 'wakes-by-itself'],
  optional: false,
  characteristics: ['release-time', 'residual-output'],
  ...provedSafe,
  feeds: {
    log: {
      needs: [lever, 'output_pressure'],
      uses: ['supply_voltage'],
      leastRows: 40,
    },
    live: {
      startsFrom: 'charged',
      guide: (context) => {
        const level = stampForce(context);
        return [
          wake(3),
          {
            instruction: { code: 'pull-to-hold', channel: lever, level, seconds: 1 },
            controls: keyOn,
            lever: { to: level, seconds: 3 },
            end: { kind: 'input-held', level, tolerance: 0.08 * level, seconds: 1.2 },
          },
          letGo,
          restAwake(5),
        ];
      },
      bands: (context) => ({ output_pressure: [0, residualLimit(context).value] }),
    },
    dials: releaseEntry({ output: 'output_pressure', residual: 'residual-output' }),
  },
  analyse: (trace, context) => analyseRelease(trace, context, { lever, residualLimit: residualLimit(context).value }),
  limits: (_analysis, context) => [
    atMost(
      'release-time',
      limitFrom(
        { field: 'releaseTimeMaxS', value: context.unit.spec.releaseTimeMaxS },
        { key: 'releaseTime', value: context.workshopLimits.releaseTime },
      ),
      { expected: 0 },
    ),
    atMost('residual-output', residualLimit(context), { expected: 0 }),
  ],
  pictures: [{ kind: 'over-time', channels: [lever, 'output_pressure'] }],
};
