import { earlyCall, earliestCall } from '@/core/toolboxes/vacuum/early-call';
import { differenceComponents, differenceResolution } from '@/core/instruments/uncertainty';
import type { Instrument } from '@/core/instruments/instrument';
import { fitDecay } from '@/core/fitting/decay';
import { nozzleFlow } from '@/core/physics/nozzle';
import { labelledSeed, randomSource, type RandomSource } from '@/core/physics/random';
import type { CheckVerdict } from '@/core/vocabulary/verdict';
import { decide } from '@/core/judging/decide';

/** One kind of hold, SI. */
export interface HoldKind {
  readonly id: string;
  readonly seconds: number;
  readonly limit: number;
  readonly sampleRate: number;
  readonly noise: number;
  readonly instrument: Instrument;
  /** A vacuum: the air's pressure, and how it leaks in. */
  readonly ambient: number | null;
  readonly start: number;
  /** Amplitude (one sigma) and time constants of the air's warming or the fluid's settling. */
  readonly transient: { readonly amplitude: number; readonly seconds: readonly [number, number] };
}

const calibrated = { calibratedOn: null, dueOn: null } as const;
const vacuumGauge: Instrument = {
  channel: 'supply_vacuum',
  name: 'vacuum transducer',
  range: 100e3,
  resolution: 10,
  classFraction: 0.005,
  classOf: 'full-scale',
  ...calibrated,
};
const pressureGauge: Instrument = {
  channel: 'output_pressure',
  name: 'hydraulic transducer',
  range: 16e6,
  resolution: 1000,
  classFraction: 0.005,
  classOf: 'reading',
  ...calibrated,
};

export const holdKinds: readonly HoldKind[] = [
  {
    id: 'vacuum hold, 15 s',
    seconds: 15,
    limit: 3300,
    sampleRate: 200,
    noise: 50,
    instrument: vacuumGauge,
    ambient: 85_400,
    start: 60e3,
    transient: { amplitude: 60, seconds: [1, 4] },
  },
  {
    id: 'vacuum soak, 300 s',
    seconds: 300,
    limit: 8000,
    sampleRate: 10,
    noise: 50,
    instrument: vacuumGauge,
    ambient: 85_400,
    start: 50e3,
    transient: { amplitude: 300, seconds: [10, 40] },
  },
  {
    id: 'pressure hold, 30 s',
    seconds: 30,
    limit: 0.02 * 0.5 * 5e6,
    sampleRate: 100,
    noise: 8000,
    instrument: pressureGauge,
    ambient: null,
    start: 5e6,
    transient: { amplitude: 8000, seconds: [1, 5] },
  },
];

/** A loss drawn so that sound units, bad ones and those near the limit all come. */
function drawnLoss(draw: RandomSource, limit: number): number {
  const u = draw.uniform();
  if (u < 0.5) return limit * 0.5 * draw.uniform();
  if (u < 0.75) return limit * (0.5 + draw.uniform());
  return limit * Math.exp(draw.uniform() * 2.2) * 1.3;
}

interface SimulatedHold {
  readonly time: Float64Array;
  readonly value: Float64Array;
  /** What was really lost over the full time. */
  readonly loss: number;
}

/** One simulated hold: an orifice, a constant or an exponential leak, a transient, noise, dials. */
function simulated(kind: HoldKind, draw: RandomSource, nominal: number): SimulatedHold {
  const count = Math.round(kind.seconds * kind.sampleRate) + 1;
  const time = new Float64Array(count);
  const value = new Float64Array(count);
  const shape = draw.uniform();
  const [fast, slow] = kind.transient.seconds;
  const tau = fast * (slow / fast) ** draw.uniform();
  const warming = kind.transient.amplitude * draw.normal();
  const gain = 1 + (kind.instrument.classFraction / Math.sqrt(3)) * draw.normal();
  let level = kind.start;
  const choked = kind.ambient === null ? 1 : nozzleFlow(1, kind.ambient, 0, 293.15);
  for (let i = 0; i < count; i++) {
    const t = i / kind.sampleRate;
    time[i] = t;
    const read = level + warming * Math.exp(-t / tau);
    const noisy = gain * read + kind.noise * draw.normal();
    value[i] = Math.round(noisy / kind.instrument.resolution) * kind.instrument.resolution;
    const rate = nominal / kind.seconds;
    if (kind.ambient !== null && shape < 0.6)
      level -= (rate * nozzleFlow(1, kind.ambient, kind.ambient - level, 293.15)) / choked / kind.sampleRate;
    else if (shape < 0.75) level -= rate / kind.sampleRate;
    // A seal that lets go more and more.
    else if (shape < 0.87) level -= (rate * 2 * t) / kind.seconds / kind.sampleRate;
    else level -= (rate * 1.4 * Math.exp(-t / kind.seconds)) / kind.sampleRate;
    level = Math.max(0, level);
  }
  return { time, value, loss: kind.start - level };
}

function gaugeStandard(kind: HoldKind, loss: number): number {
  const parts = differenceComponents(kind.instrument, 0, loss, '2026-11-24');
  const quiet = kind.noise < kind.instrument.resolution ? [differenceResolution(kind.instrument)] : [];
  return Math.sqrt([...parts, ...quiet].reduce((sum, part) => sum + part.standard ** 2, 0));
}

/** Verdict of the full hold: the fitted loss with its U against the limit. */
function fullVerdict(kind: HoldKind, time: Float64Array, value: Float64Array): CheckVerdict {
  const change = fitDecay(time, value).changeAfter(kind.seconds);
  const estimate = {
    value: -change.value,
    components: [
      { source: 'fit' as const, standard: Math.sqrt(change.variance), random: true },
      { source: 'gauge-gain' as const, standard: gaugeStandard(kind, change.value), random: false },
    ],
  };
  return decide(estimate, { low: null, high: kind.limit, standard: 0 }, 'guarded');
}

export interface EarlyCallTally {
  readonly kind: string;
  readonly holds: number;
  readonly called: number;
  /** Calls that the full hold contradicts: called pass and it failed, or the other way. */
  readonly wrong: number;
  /** Calls that the full hold leaves undecided. */
  readonly unsupported: number;
  /** Median share of the time saved by units whose loss is not within a quarter of the limit. */
  readonly medianSaved: number;
}

/** How often a watched hold is looked at, s, as a share of its time. */
const looks = 30;

/** Watches `holds` simulated holds of one kind and compares every early call with the full hold. */
export function tallyEarlyCalls(kind: HoldKind, holds: number, seed: number): EarlyCallTally {
  let called = 0;
  let wrong = 0;
  let unsupported = 0;
  const saved: number[] = [];
  for (let n = 0; n < holds; n++) {
    const draw = randomSource(labelledSeed(seed + n, kind.id));
    const { time, value, loss } = simulated(kind, draw, drawnLoss(draw, kind.limit));
    let call: { verdict: 'pass' | 'fail'; at: number } | null = null;
    for (let at = earliestCall(kind.seconds); at < kind.seconds && !call; at += kind.seconds / looks) {
      const to = Math.min(time.length, Math.floor(at * kind.sampleRate) + 1);
      const state = earlyCall({
        time: time.subarray(0, to),
        value: value.subarray(0, to),
        seconds: kind.seconds,
        limit: kind.limit,
        gauge: (size) => gaugeStandard(kind, size),
        ambient: kind.ambient,
      });
      if (state.kind === 'pass' || state.kind === 'fail') call = { verdict: state.kind, at: state.at };
    }
    if (Math.abs(loss - kind.limit) > 0.25 * kind.limit) saved.push(call ? 1 - call.at / kind.seconds : 0);
    if (!call) continue;
    called++;
    const full = fullVerdict(kind, time, value).kind;
    if (full === 'undecided') unsupported++;
    else if (full !== call.verdict) wrong++;
  }
  saved.sort((p, q) => p - q);
  return { kind: kind.id, holds, called, wrong, unsupported, medianSaved: saved[saved.length >> 1] ?? 0 };
}

export interface DecisionTally {
  readonly kind: string;
  readonly units: number;
  readonly outside: number;
  /** Units outside the limit that passed. */
  readonly falsePasses: number;
  /** Units inside that failed. */
  readonly falseFails: number;
  readonly undecided: number;
  /** Undecided checks that do not say what would decide them. */
  readonly silent: number;
}

/** Judges `units` simulated units within a fifth of the limit, on either side of it, from full holds without transient. */
export function tallyDecisions(kind: HoldKind, units: number, seed: number): DecisionTally {
  const settled = { ...kind, transient: { ...kind.transient, amplitude: 0 } };
  const tally = { outside: 0, falsePasses: 0, falseFails: 0, undecided: 0, silent: 0 };
  for (let n = 0; n < units; n++) {
    const draw = randomSource(labelledSeed(seed + n, `decision ${kind.id}`));
    const { time, value, loss } = simulated(settled, draw, kind.limit * (0.8 + 0.4 * draw.uniform()));
    const verdict = fullVerdict(kind, time, value);
    const outside = loss > kind.limit;
    if (outside) tally.outside++;
    if (outside && verdict.kind === 'pass') tally.falsePasses++;
    if (!outside && verdict.kind === 'fail') tally.falseFails++;
    if (verdict.kind === 'undecided') {
      tally.undecided++;
      if (verdict.remedies.length === 0) tally.silent++;
    }
  }
  return { kind: kind.id, units, ...tally };
}

/*
 * node --import tsx scripts/studies/early-calls.ts <kind> <holds>
 * prints the tallies of one kind of hold as JSON: a process of its own, as the other studies.
 */
if (process.argv[1]?.endsWith('early-calls.ts')) {
  const kind = holdKinds[Number(process.argv[2])];
  const holds = Number(process.argv[3]);
  process.stdout.write(
    JSON.stringify({ calls: tallyEarlyCalls(kind, holds, 1), decisions: tallyDecisions(kind, holds, 1) }),
  );
}
