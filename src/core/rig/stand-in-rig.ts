import type { BenchControls } from '../physics/bench-controls';
import { findChannel } from '../quantities/channels';
import type { Instrument } from '../instruments/instrument';
import type { Trace } from '../traces/trace';
import { recordingOf, type Recording } from './recording';
import type { Plant } from '../physics/plant';
import { labelledSeed, randomSource, type RandomSource } from '../physics/random';
import { drawGaugeErrors, readGauge, type GaugeErrors } from './stand-in-gauge';

/** Ordinary noise of the bench, root mean square, SI. */
export interface BenchNoise {
  readonly hydraulic: number;
  readonly vacuum: number;
  readonly force: number;
  readonly travel: number;
  /** ° */
  readonly angle: number;
  /** A */
  readonly current: number;
  /** V */
  readonly voltage: number;
  /** m3/s */
  readonly flow: number;
}

export const ordinaryNoise: BenchNoise = {
  hydraulic: 8_000,
  vacuum: 50,
  force: 3,
  travel: 0.05e-3,
  angle: 0.03,
  current: 0.3,
  voltage: 0.02,
  flow: 0.01e-3 / 60,
};

export interface StandInRigOptions {
  readonly plant: Plant;
  /** Channel that the lever drives; null where nothing is pulled. */
  readonly leverChannel: string | null;
  readonly instruments: ReadonlyMap<string, Instrument>;
  /** Draws the gauges' errors: the same bench keeps the same errors from step to step. */
  readonly benchSeed: number;
  /** Draws the noise of this run. */
  readonly runSeed: number;
  /** Hz */
  readonly sampleRate: number;
  readonly noise: BenchNoise;
  /** Extra gain error of the output gauge against the input gauge, fraction. */
  readonly pairError: number;
  /** Gauges without an error of their own: they show what is there, but for the noise. */
  readonly trueGauges?: true;
}

export interface RigSnapshot {
  readonly plant: readonly number[];
  /** Values at the ends of the gauge lines. */
  readonly lines: readonly number[];
  readonly noise: readonly number[];
  readonly samples: number;
}

/** A bench that is not there: a family's plant read by imperfect gauges at a fixed rate. */
export interface StandInRig {
  readonly channels: readonly string[];
  /** Channel that the lever drives; null where nothing is pulled. */
  readonly leverChannel: string | null;
  readonly sampleRate: number;
  /** Advances by `samples` samples, the lever moving evenly to `leverTo`, and returns what the gauges read, SI. */
  advance(samples: number, controls: BenchControls, leverTo?: number): Trace;
  /** The same, added to a recording of its channels. */
  record(into: Recording, samples: number, controls: BenchControls, leverTo?: number): void;
  /** True values now, SI, in the order of `channels`. */
  truth(): Float64Array;
  snapshot(): RigSnapshot;
  restore(snapshot: RigSnapshot): void;
}

interface Gauge {
  readonly instrument: Instrument | undefined;
  readonly errors: GaugeErrors | undefined;
}

function noiseFor(channel: string, noise: BenchNoise): number {
  switch (findChannel(channel)?.dimension) {
    case 'force':
      return noise.force;
    case 'length':
      return noise.travel;
    case 'angle':
      return noise.angle;
    case 'current':
      return noise.current;
    case 'voltage':
      return noise.voltage;
    case 'volume-flow':
      return noise.flow;
    default:
      return findChannel(channel)?.reference === 'vacuum' ? noise.vacuum : noise.hydraulic;
  }
}

/** A digital meter is no noisier than some of its own divisions. */
const meterDivisions = 5;

function quietly({ channel, resolution }: Instrument, noise: number): number {
  const dimension = findChannel(channel)?.dimension;
  const digital = resolution > 0 && (dimension === 'voltage' || dimension === 'current');
  return digital ? Math.min(noise, meterDivisions * resolution) : noise;
}

const noErrors = { zero: 0, gain: 0, bow: 0, lag: 0 } as const;

function gaugesOf(options: StandInRigOptions, channels: readonly string[]): Gauge[] {
  return channels.map((channel) => {
    const instrument = options.instruments.get(channel);
    if (!instrument) return { instrument, errors: undefined };
    const noise = quietly(instrument, noiseFor(channel, options.noise));
    if (options.trueGauges) return { instrument: { ...instrument, resolution: 0 }, errors: { ...noErrors, noise } };
    const errors = drawGaugeErrors(instrument, options.benchSeed, noise);
    const extra = channel === 'output_pressure' ? options.pairError : 0;
    return { instrument, errors: { ...errors, gain: errors.gain + extra } };
  });
}

/** Builds the stand-in bench. A channel without an instrument is read as it is (a switch's continuity lamp). */
export function standInRig(options: StandInRigOptions): StandInRig {
  const { plant } = options;
  const { channels } = plant;
  const gauges = gaugesOf(options, channels);
  const source: RandomSource = randomSource(labelledSeed(options.runSeed, 'noise'));
  const interval = 1 / options.sampleRate;
  const substeps = Math.max(1, Math.ceil(interval / plant.largestStep - 1e-9));
  const truth = new Float64Array(channels.length);
  plant.read(truth);
  const lines = truth.slice();
  const following = gauges.map(({ errors }) => (errors && errors.lag > 0 ? 1 - Math.exp(-interval / errors.lag) : 1));
  let samples = 0;

  function record(into: Recording, count: number, controls: BenchControls, leverTo = controls.lever): void {
    const moving = { ...controls };
    const dt = interval / substeps;
    const slope = (leverTo - controls.lever) / count;
    const from = into.begin(count);
    const [time, columns] = [into.time(), into.columns()];
    for (let i = 0; i < count; i++) {
      moving.lever = controls.lever + slope * (i + 1);
      for (let k = 0; k < substeps; k++) plant.advance(dt, moving);
      plant.read(truth);
      samples++;
      time[from + i] = samples * interval;
      for (let c = 0; c < columns.length; c++) {
        const { instrument, errors } = gauges[c];
        lines[c] += (truth[c] - lines[c]) * following[c];
        columns[c][from + i] = instrument && errors ? readGauge(lines[c], instrument, errors, source) : truth[c];
      }
    }
  }

  return {
    channels,
    leverChannel: options.leverChannel,
    sampleRate: options.sampleRate,
    record,
    advance(count, controls, leverTo) {
      const into = recordingOf(channels, count);
      record(into, count, controls, leverTo);
      return into.trace();
    },
    truth() {
      plant.read(truth);
      return truth.slice();
    },
    snapshot: () => ({ plant: plant.snapshot(), lines: [...lines], noise: source.snapshot(), samples }),
    restore(snapshot) {
      plant.restore(snapshot.plant);
      lines.set(snapshot.lines);
      source.restore(snapshot.noise);
      samples = snapshot.samples;
    },
  };
}
