import { entryFromOnce } from '../../dials/from-readings';
import { onGauge } from '../../dials/asked';
import { goneOnce } from '../../procedure/interlock';
import {
  differenceComponents,
  differenceResolution,
  random,
  readingComponents,
  systematic,
} from '../../instruments/uncertainty';
import { columnOf, indexAtTime, meanOf, type Trace } from '../../traces/trace';
import { measured } from '../../procedure/analysis-result';
import { evidence, noEvidence, type Judged, type NoEvidence } from '../../procedure/evidence';
import { answer, joinAnswers, type Answered, type Question } from '../../procedure/question';
import { around, atMost, limitFrom } from '../../procedure/limit';
import { withoutRun } from '../../toolboxes/store/analysis/precharge-analysis';
import { pumpRuns, type PumpRun } from '../../traces/pump-runs';
import type { StepContext } from '../../procedure/step-context';
import type { MeasuredStep } from '../../procedure/step-definition';
import { loadedFrom, type MotorPumpUnit } from './geometry';

const { max } = Math;

/** Of a run that ends before it is loaded the last is read, s. */
const lastSeconds = 1;
/** The surge of the start is over after this, s. */
const afterStart = 1;
/** What a motor draws with nothing to pump against is some share of what it draws at cut-out, by its make. */
const idleShare = { middle: 0.45, standard: 0.2 } as const;
/** A run shorter than this, or that never comes near cut-out, says nothing of a loaded motor, s. */
const shortestRun = 3;

type Context = StepContext<MotorPumpUnit>;

/** A motor's run and the part of it in which it is loaded; indices of samples. */
interface RunFound {
  readonly trace: Trace;
  readonly run: PumpRun;
  readonly from: number;
  readonly to: number;
  readonly seconds: number;
}

function findLoadedRun(trace: Trace, { unit }: Context): RunFound | NoEvidence {
  const pump = columnOf(trace, 'pump_on');
  if (!pump) return noEvidence({ code: 'no-pump-signal' });
  const [run] = pumpRuns(pump);
  if (!run) return noEvidence(withoutRun(trace, pump));
  const store = columnOf(trace, 'accumulator_pressure');
  let from = indexAtTime(trace, trace.time[run.start] + afterStart);
  const to = (run.stop ?? pump.length) - 1;
  if (store) {
    let loaded = from;
    while (loaded < to && !(store[loaded] >= loadedFrom * unit.store.cutOut)) loaded++;
    // A log that ends before, or a pump that never gets there: the last that there was.
    from = to - loaded > 10 ? loaded : max(from, indexAtTime(trace, trace.time[to] - lastSeconds));
  }
  return { trace, run, from, to, seconds: trace.time[to] - trace.time[run.start] };
}

function runEvidence(found: RunFound, channel: string): Judged<RunFound> {
  const { trace, from, to, seconds } = found;
  if (to - from < 5 || seconds < shortestRun) return noEvidence({ code: 'run-too-short' });
  return columnOf(trace, channel) ? evidence(found) : noEvidence({ code: 'channel-missing', channel });
}

const dropQuestion: Question<Context, RunFound, RunFound> = {
  characteristics: ['supply-drop'],
  happened: findLoadedRun,
  shows: (found) => {
    const judged = runEvidence(found, 'supply_voltage');
    if (judged.kind === 'none') return judged;
    const { count } = meanOf(found.trace.columns.supply_voltage, 0, found.run.start);
    return count < 3 ? noEvidence({ code: 'no-rest-before' }) : judged;
  },
  comesTo: ({ trace, run, from, to }, context) => {
    const voltage = trace.columns.supply_voltage;
    const rest = meanOf(voltage, 0, run.start);
    const loaded = meanOf(voltage, from, to);
    const instrument = context.instruments.get('supply_voltage');
    const drop = measured('supply-drop', rest.mean - loaded.mean, [
      random('noise', Math.hypot(rest.deviation / Math.sqrt(rest.count), loaded.deviation / Math.sqrt(loaded.count))),
      ...(instrument
        ? [differenceResolution(instrument), ...differenceComponents(instrument, loaded.mean, rest.mean, context.date)]
        : []),
    ]);
    return { characteristics: [drop], events: [], notes: [] };
  },
};

const currentQuestion: Question<Context, RunFound, RunFound> = {
  characteristics: ['run-current'],
  happened: findLoadedRun,
  shows: (found) => runEvidence(found, 'motor_current'),
  comesTo: ({ trace, from, to }, context) => {
    const { cutOut } = context.unit.store;
    const loaded = meanOf(trace.columns.motor_current, from, to);
    const store = columnOf(trace, 'accumulator_pressure');
    const pressure = store ? meanOf(store, from, to).mean : cutOut;
    // Current grows with pressure from what an idling motor draws; the sheet's figure is that at cut-out.
    const short = 1 - pressure / cutOut;
    const share = 1 - (1 - idleShare.middle) * short;
    const value = loaded.mean / share;
    const instrument = context.instruments.get('motor_current');
    const current = measured('run-current', value, [
      random('noise', loaded.deviation / Math.sqrt(loaded.count) / share),
      systematic('model', (value * Math.abs(short) * idleShare.standard) / share),
      ...(instrument ? readingComponents(instrument, value, context.date) : []),
    ]);
    return { characteristics: [current], events: [], notes: [] };
  },
};

/**
 * Supply drop (V) from rest to the loaded motor, and its current (A) referred to cut-out. Channels `supply_voltage`,
 * `motor_current`, `pump_on`, `accumulator_pressure`.
 */
function analyseSupply(trace: Trace, context: Context): Answered {
  return joinAnswers([answer(dropQuestion, trace, context), answer(currentQuestion, trace, context)]);
}

export const supplyCheck: MeasuredStep<MotorPumpUnit> = {
  id: 'supply-check',
  kind: 'measured',
  title: 'Supply under load',
  why: 'A motor that gets too little voltage is slow through no fault of its own; a flooded or worn one draws too much.',
  minutes: 3,
  cautions: ['wakes-by-itself', 'motor-duty'],
  optional: false,
  characteristics: ['supply-drop', 'run-current'],
  interlock: goneOnce('pressure'),
  brings: ['pressure'],
  feeds: {
    log: {
      needs: ['supply_voltage', 'motor_current', 'pump_on'],
      uses: ['accumulator_pressure'],
      leastRows: 12,
    },
    live: {
      startsFrom: 'empty',
      guide: ({ unit }) => [
        {
          instruction: { code: 'rest', seconds: 2 },
          controls: {},
          lever: { to: 0, seconds: 0 },
          end: { kind: 'seconds', seconds: 2 },
        },
        {
          instruction: { code: 'power-on-watch' },
          controls: { power: 1 },
          lever: { to: 0, seconds: 0 },
          end: { kind: 'switched', channel: 'pump_on', to: 0, times: 1, atMost: 200 },
          ...(unit.store.motorRunMax === null
            ? {}
            : { duty: { of: 'motor' as const, channel: 'pump_on', seconds: unit.store.motorRunMax } }),
        },
        {
          instruction: { code: 'rest', seconds: 2 },
          controls: {},
          lever: { to: 0, seconds: 0 },
          end: { kind: 'seconds', seconds: 2 },
        },
      ],
      bands: ({ unit }) => ({
        supply_voltage: [unit.ratedVoltage * 0.95, unit.ratedVoltage * 1.1],
        motor_current: [unit.ratedCurrent * 0.35, unit.ratedCurrent * 1.3],
      }),
    },
    dials: entryFromOnce<MotorPumpUnit>(
      ['supply-drop', 'run-current'],
      () => [
        onGauge('volts-at-rest', 'supply_voltage', 'Volts at the unit, at rest'),
        onGauge('volts-loaded', 'supply_voltage', 'Lowest volts while the motor runs'),
        onGauge('clamp', 'motor_current', 'Clamp meter just before it stops', {
          hint: 'Against the full store it draws what the sheet speaks of',
        }),
      ],
      (read) => ({ 'supply-drop': read['volts-at-rest'] - read['volts-loaded'], 'run-current': read.clamp }),
      { 'supply-drop': ['volts-at-rest', '−', 'volts-loaded'] },
    ),
  },
  analyse: analyseSupply,
  limits: (_analysis, { unit, workshopLimits }) => [
    atMost(
      'supply-drop',
      limitFrom(
        { field: 'supplyDropMaxV', value: unit.spec.supplyDropMaxV },
        { key: 'supplyDrop', value: workshopLimits.supplyDrop * unit.ratedVoltage },
      ),
      { expected: 0 },
    ),
    around('run-current', unit.ratedCurrent, {
      value: workshopLimits.currentTolerance,
      source: { kind: 'workshop', key: 'currentTolerance' },
    }),
  ],
  pictures: [{ kind: 'over-time', channels: ['supply_voltage', 'motor_current'] }],
};
