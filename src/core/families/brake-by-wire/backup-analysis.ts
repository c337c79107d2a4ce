import { fitLine, type LineFit } from '../../fitting/line';
import { random, readingComponents, systematic, type UncertaintyComponent } from '../../instruments/uncertainty';
import { measured, nothingMeasured } from '../../procedure/analysis-result';
import { evidence, noEvidence, type Evidence, type Judged, type NoEvidence } from '../../procedure/evidence';
import { answer, type Answered, type Question } from '../../procedure/question';
import type { StepAnalysis } from '../../procedure/step-analysis';
import type { StepContext } from '../../procedure/step-context';
import { ownSamples, sampleAt, scatterOf, samplesBetween, type Samples } from '../../traces/own-samples';
import { together } from '../../traces/together';
import { columnOf, type Trace } from '../../traces/trace';
import { bankEnergy, type BackupBank, type ByWireUnit } from './geometry';

type Context = StepContext<ByWireUnit>;

const { floor, hypot, max, sqrt } = Math;

const ids = ['backup-energy', 'assisted-applications'] as const;

/** The load counts as on above this share of its largest current, and what flows before it is less than this share. */
const onShare = 0.5;
const quietShare = 0.05;
/** A load is so many times what the current scatters by. */
const loadScatter = 12;
/** U_0 is the mean of so long just before the load comes on, s; how it drains by itself is read over so long. */
const restSeconds = 0.5;
const drainSeconds = 5;
/** Of what it lost by itself so much is not known to have gone on under the load. */
const drainDoubt = 0.3;
/** Under load the bank must fall by this share of its first voltage, and be watched for so long, s. */
const leastFall = 0.05;
const leastSeconds = 3;
const fewest = 8;

/** A bank that was tried with a load: V, A, s, C (q is the charge that was drawn). */
interface Discharge {
  readonly open: number;
  readonly first: { readonly voltage: number; readonly current: number };
  readonly voltage: Float64Array;
  readonly current: Float64Array;
  readonly charge: Float64Array;
  readonly seconds: number;
  /** V/s at which it still rose before the load. */
  readonly rising: number;
  /** What it loses by itself, as a share a second, and one sigma of that. */
  readonly drain: number;
  readonly drainStandard: number;
  readonly time: Float64Array;
  readonly quiet: boolean;
}

function findDischarge(trace: Trace): Discharge | NoEvidence {
  for (const channel of ['backup_voltage', 'backup_current'])
    if (!columnOf(trace, channel)) return noEvidence({ code: 'channel-missing', channel });
  const rows = together(trace, ['backup_voltage', 'backup_current']);
  const volts = ownSamples(rows, rows.columns.backup_voltage);
  const amperes = ownSamples(rows, rows.columns.backup_current);
  const most = amperes.value.reduce((top, each) => max(top, each), 0);
  const on = amperes.value.findIndex((each) => each > onShare * most);
  if (!(most > loadScatter * scatterOf(amperes)) || on < 1) return noEvidence({ code: 'load-not-seen' });
  // The last moment before the load, and the load's own first: a step lies between them.
  let before = on - 1;
  while (before > 0 && amperes.value[before] > quietShare * most) before--;
  const start = amperes.time[on];
  let off = on;
  while (off < amperes.value.length && amperes.value[off] > 0.2 * most) off++;
  const end = amperes.time[off - 1];
  const rest = samplesBetween(volts, amperes.time[before] - restSeconds, amperes.time[before]);
  if (rest.value.length === 0) return noEvidence({ code: 'no-rest-before' });
  const open = rest.value.reduce((sum, each) => sum + each, 0) / rest.value.length;
  const restLine = fitLine(
    ...columnsOf(
      samplesBetween(volts, amperes.time[before] - drainSeconds, amperes.time[before]),
      quietSince(amperes, before, most),
    ),
  );
  const loaded = samplesBetween(volts, start, end);
  const current = Float64Array.from(loaded.time, (time) => amperes.value[sampleAt(amperes, time)] ?? Number.NaN);
  const charge = new Float64Array(current.length);
  for (let i = 1; i < current.length; i++)
    charge[i] = charge[i - 1] + ((current[i] + current[i - 1]) / 2) * (loaded.time[i] - loaded.time[i - 1]);
  return {
    open,
    first: { voltage: loaded.value[0], current: current[0] },
    voltage: loaded.value,
    current,
    charge,
    seconds: end - start,
    rising: restLine.termination === 'converged' ? restLine.slope : 0,
    ...drainOf(restLine, open),
    time: loaded.time,
    quiet: Math.abs(amperes.value[before]) <= quietShare * most,
  };
}

/** Times and values of samples from a moment on. */
function columnsOf({ time, value }: Samples, from: number): [Float64Array, Float64Array] {
  const first = sampleAt({ time }, from);
  return [time.subarray(first), value.subarray(first)];
}

/** Since when nothing has flowed before sample `before`, s. */
function quietSince({ time, value }: Samples, before: number, most: number): number {
  let at = before;
  while (at > 0 && Math.abs(value[at - 1]) <= quietShare * most) at--;
  return time[at];
}

/** A bank drains itself through what keeps it safe: that part of its fall is not the load's. Only what is clearly seen is taken out. */
function drainOf(line: LineFit, open: number): Pick<Discharge, 'drain' | 'drainStandard'> {
  if (line.termination !== 'converged' || !(open > 0)) return { drain: 0, drainStandard: 0 };
  const standard = sqrt(line.slopeVariance) / open;
  const drain = -line.slope / open;
  return drain > 4 * standard ? { drain, drainStandard: standard } : { drain: 0, drainStandard: standard };
}

function dischargeEvidence(found: Discharge): Judged<Discharge> {
  const { voltage, open, seconds, quiet, rising } = found;
  if (voltage.length < fewest)
    return noEvidence({ code: 'too-few-samples', channel: 'backup_voltage', samples: voltage.length, needed: fewest });
  // A charger that is still on carries part of the load.
  if (rising > 0.01 * open) return noEvidence({ code: 'charger-still-on' });
  if (seconds < leastSeconds) return noEvidence({ code: 'hold-too-short', seconds, needed: leastSeconds });
  const fell = found.first.voltage - voltage[voltage.length - 1];
  if (fell < leastFall * open) return noEvidence({ code: 'bank-hardly-fell', by: fell, needed: leastFall * open });
  return evidence(found, [], quiet ? [] : [{ code: 'no-rest-before' }]);
}

/** Of a bank: what it holds from `open` V down to what is of use, and what stops that is; with U. */
export function energyOf(
  bank: BackupBank,
  found: {
    readonly open: number;
    readonly capacitance: number;
    readonly resistance: number;
    readonly parts: readonly UncertaintyComponent[];
  },
): StepAnalysis {
  const { open, capacitance, resistance } = found;
  const energy = bankEnergy(capacitance, open, bank.least);
  const parts = found.parts.map((part) => ({ ...part, standard: part.standard * max(energy, 1) }));
  const stops = floor(energy / bank.energyPerStop);
  const standard = hypot(...parts.map((part) => part.standard));
  // Whether another stop is in it may hang on the uncertainty.
  const near =
    floor((energy + 2 * standard) / bank.energyPerStop) !== floor((energy - 2 * standard) / bank.energyPerStop);
  return {
    characteristics: [
      measured('backup-energy', energy, parts),
      measured('assisted-applications', stops, near ? [systematic('counting', 0.5)] : []),
    ],
    events: [],
    notes: [
      { code: 'bank-found', capacitance, resistance },
      ...(open < bank.least ? [{ code: 'bank-below-least', voltage: open, least: bank.least } as const] : []),
      ...(open >= bank.least && open < 0.9 * bank.full
        ? [{ code: 'bank-not-full', voltage: open, full: bank.full } as const]
        : []),
    ],
  };
}

function bankOf(shown: Evidence<Discharge>, context: Context): StepAnalysis {
  const { bank } = context.unit;
  if (!bank) return nothingMeasured(ids, { code: 'no-bank-on-sheet' });
  const { open, first, voltage, current, charge, time, drain, drainStandard, seconds } = shown;
  const resistance = (open - first.voltage) / first.current;
  if (resistance < 0) return nothingMeasured(ids, { code: 'charger-still-on' });
  const inner = voltage.map((value, i) => value + current[i] * resistance);
  // What it lost by itself since the load came on is put back.
  let lost = 0;
  const kept = inner.map((value, i) => {
    if (i > 0) lost += (drain * (value + inner[i - 1]) * (time[i] - time[i - 1])) / 2;
    return value + lost;
  });
  const line = fitLine(kept, charge);
  if (line.termination !== 'converged' || !(line.slope < 0))
    return nothingMeasured(ids, { code: 'fit-failed', termination: line.termination });
  const share = (channel: string, value: number) => {
    const meter = context.instruments.get(channel);
    return meter ? hypot(...readingComponents(meter, value, context.date).map((part) => part.standard)) / value : 0;
  };
  const capacitance = -line.slope;
  const fell = max(first.voltage - voltage[voltage.length - 1], Number.MIN_VALUE);
  // What a bank loses at rest may die down: it relaxes after a charge too.
  const putBack = lost / fell;
  const perVolt = open > bank.least ? (2 * open ** 2) / (open ** 2 - bank.least ** 2) : 2;
  const found = energyOf(bank, {
    open,
    capacitance,
    resistance,
    parts: [
      systematic('model', drainDoubt * putBack),
      random('fit', hypot(sqrt(line.slopeVariance) / capacitance, (drainStandard * seconds * open) / fell)),
      systematic(
        'gauge-gain',
        hypot(share('backup_current', first.current), (perVolt - 1) * share('backup_voltage', open)),
      ),
    ],
  });
  return putBack > 0 ? { ...found, notes: [...found.notes, { code: 'bank-drains', share: putBack }] } : found;
}

/**
 * A bank of capacitors discharged through a load: C = −dq/d(U + I·R_i) by a straight line over the charge drawn, R_i by the step at
 * load-on; E = ½·C·(U_0² − U_min²) J with U_0 held just before; floor(E/E_stop) stops. Channels `backup_voltage` V, `backup_current` A
 * (discharge positive).
 */
export function analyseBackup(trace: Trace, context: Context): Answered {
  const question: Question<Context, Discharge, Discharge> = {
    characteristics: ids,
    happened: findDischarge,
    shows: dischargeEvidence,
    comesTo: bankOf,
  };
  return answer(question, trace, context);
}
