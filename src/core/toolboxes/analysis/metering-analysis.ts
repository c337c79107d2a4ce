import { fitLine, lineAt } from '../../fitting/line';
import { binByX, fitSegments } from '../../fitting/segments';
import {
  differenceComponents,
  differenceResolution,
  random,
  readingComponents,
  systematic,
} from '../../instruments/uncertainty';
import { findPull, isPull, type Pull } from '../../traces/pull';
import { movingMean } from '../../traces/smoothing';
import { columnOf, meanOf, sampleInterval, type Trace } from '../../traces/trace';
import type { AnalysisProblem } from '../../vocabulary/analysis-problem';
import { absent, measured, nothingMeasured } from '../../procedure/analysis-result';
import type { Characteristic, StepAnalysis, TraceEvent } from '../../procedure/step-analysis';
import type { StepContext } from '../../procedure/step-context';

/** A lever's channel against both brake circuits. */
export interface MeteringSetup {
  readonly lever: 'pedal_angle' | 'pedal_force';
  readonly ids: {
    readonly cutIn: 'cut-in-travel' | 'cut-in-force';
    readonly slope: 'modulation-slope' | 'metering-slope';
    readonly maximum: 'regulated-maximum' | null;
    readonly hysteresis: 'angle-hysteresis' | null;
  };
}

const searchBins = 160;
const trim = 0.1;
/** A line that rises by less than this share of the modulating slope is the regulated maximum. */
const flatShare = 0.3;
/** Gauge line and spool follow a moving pedal this much apart, s. */
const lagStandard = 0.04;

/**
 * Modulation curve of two circuits from one slow press and its way back: cut-in where the modulating line meets zero, its
 * slope, the regulated maximum while held, hysteresis at half of it, and the largest difference of the circuits while
 * pressing. Channels: the lever's, `front_pressure`, `rear_pressure`.
 */
export function analyseMetering(trace: Trace, context: StepContext<unknown>, setup: MeteringSetup): StepAnalysis {
  const { lever, ids } = setup;
  const all = [
    ids.cutIn,
    ids.slope,
    ...(ids.maximum ? [ids.maximum] : []),
    ...(ids.hysteresis ? [ids.hysteresis] : []),
    'circuit-difference',
  ] as const;
  const angle = columnOf(trace, lever);
  const front = columnOf(trace, 'front_pressure');
  const rear = columnOf(trace, 'rear_pressure');
  if (!angle || !front)
    return nothingMeasured(all, { code: 'channel-missing', channel: angle ? 'front_pressure' : lever });
  const pull = findPull(trace, angle);
  if (!isPull(pull))
    return nothingMeasured(all, lever === 'pedal_angle' ? { code: 'no-angle' } : { code: 'no-pull', channel: lever });
  const zero = meanOf(front, pull.restBefore.from, pull.restBefore.to).mean;
  const output = front.map((value) => value - (Number.isFinite(zero) ? zero : 0));
  const { from, to } = pull.apply;
  const notes: AnalysisProblem[] = [];
  const events: TraceEvent[] = [];
  const gauge = (channel: string, value: number) => {
    const instrument = context.instruments.get(channel);
    return instrument
      ? [differenceResolution(instrument), ...differenceComponents(instrument, 0, value, context.date)]
      : [];
  };

  const binned = binByX(angle.subarray(from, to), output.subarray(from, to), searchBins);
  const three = fitSegments(binned, 3);
  if (three.termination !== 'converged' && three.termination !== 'max-iterations')
    return nothingMeasured(all, { code: 'fit-failed', termination: three.termination });
  const [, rise, flat] = three.slopes;
  const saturates = ids.maximum !== null && flat < flatShare * rise;
  const low = three.breaks[0];
  const high = saturates ? three.breaks[1] : pull.peak;
  const margin = trim * (high - low);
  const line = fitLine(angle, output, { from, to, keep: (i) => angle[i] > low + margin && angle[i] < high - margin });
  if (line.termination !== 'converged' || line.slope <= 0)
    return nothingMeasured(all, { code: 'fit-failed', termination: line.termination });
  const cutIn = -line.intercept / line.slope;
  const speed = speedOf(trace, pull);
  const characteristics: Characteristic[] = [
    measured(ids.cutIn, cutIn, [
      random('fit', Math.sqrt(lineAt(line, cutIn).variance) / line.slope),
      systematic('timing', lagStandard * speed),
      ...(context.instruments.get(lever)
        ? readingComponents(context.instruments.get(lever)!, cutIn, context.date)
        : []),
    ]),
    measured(ids.slope, line.slope, [
      random('fit', Math.sqrt(line.slopeVariance)),
      systematic(
        'gauge-gain',
        line.slope *
          Math.hypot(
            rss(gauge(lever, high - low)) / (high - low),
            rss(gauge('front_pressure', line.slope * (high - low))) / (line.slope * (high - low)),
          ),
      ),
    ]),
  ];
  events.push({ id: 'cut-in', time: null, x: cutIn, y: 0 });
  const held = meanOf(output, pull.plateau.from, pull.plateau.to);
  if (ids.maximum !== null) {
    characteristics.push(
      saturates
        ? measured(ids.maximum, held.mean, [
            random('noise', held.deviation / Math.sqrt(held.count)),
            ...gauge('front_pressure', held.mean),
          ])
        : absent(ids.maximum, { code: 'relief-not-reached', peak: held.mean }),
    );
    if (saturates) events.push({ id: 'regulated', time: null, x: high, y: held.mean });
  }
  if (ids.hysteresis !== null) characteristics.push(hysteresisOf());
  characteristics.push(differenceOf());
  return { characteristics, events, notes };

  function hysteresisOf(): Characteristic {
    const id = ids.hysteresis ?? 'angle-hysteresis';
    const { wayBack } = pull as Pull;
    const half = (saturates ? held.mean : line.slope * (high - cutIn)) / 2;
    if (!angle || wayBack.to - wayBack.from < 20) return absent(id, { code: 'no-way-back' });
    const back = fitLine(angle, output, { ...wayBack, keep: (i) => output[i] > 0.5 * half && output[i] < 1.5 * half });
    if (back.termination !== 'converged' || back.slope <= 0)
      return absent(id, { code: 'fit-failed', termination: back.termination });
    const applied = (half - line.intercept) / line.slope;
    const released = (half - back.intercept) / back.slope;
    const instrument = context.instruments.get(lever);
    return measured(id, applied - released, [
      random(
        'fit',
        Math.hypot(
          Math.sqrt(lineAt(line, applied).variance) / line.slope,
          Math.sqrt(lineAt(back, released).variance) / back.slope,
        ),
      ),
      // The lags of both ways add: the pressure comes late while pressing and goes late while letting back.
      systematic('timing', 2 * lagStandard * speed),
      ...(instrument ? differenceComponents(instrument, released, applied, context.date) : []),
    ]);
  }

  function differenceOf(): Characteristic {
    if (!rear || !angle) return absent('circuit-difference', { code: 'channel-missing', channel: 'rear_pressure' });
    const half = Math.max(1, Math.round(0.15 / sampleInterval(trace)));
    const rearZero = meanOf(
      rear,
      pull && isPull(pull) ? pull.restBefore.from : 0,
      isPull(pull) ? pull.restBefore.to : 1,
    ).mean;
    const apart = movingMean(
      output.map((value, i) => value - (rear[i] - (Number.isFinite(rearZero) ? rearZero : 0))),
      half,
    );
    let worst = from;
    for (let i = from; i < Math.min(to, apart.length); i++) if (Math.abs(apart[i]) > Math.abs(apart[worst])) worst = i;
    const level = output[worst];
    notes.push({ code: 'circuits-differ-at', channel: lever, at: angle[worst], difference: Math.abs(apart[worst]) });
    return measured('circuit-difference', Math.abs(apart[worst]), [
      random('noise', 8e3 / Math.sqrt(2 * half + 1)),
      ...gauge('front_pressure', level),
      ...gauge('rear_pressure', level),
    ]);
  }
}

const rss = (parts: readonly { readonly standard: number }[]) => Math.hypot(...parts.map((part) => part.standard));

/** Mean speed of the lever while pressing, in its unit per second. */
function speedOf(trace: Trace, pull: Pull): number {
  const seconds = trace.time[pull.apply.to - 1] - trace.time[pull.apply.from];
  return seconds > 0 ? Math.abs(pull.peak - (pull.zero ?? 0)) / seconds : 0;
}
