import { findChannel } from '../quantities/channels';
import type { Instrument } from '../instruments/instrument';
import { labelledSeed, randomSource, type RandomSource } from '../physics/random';

const { min, round, sin, sqrt } = Math;

/** Errors of one simulated gauge, SI. */
export interface GaugeErrors {
  readonly zero: number;
  /** Fraction of the reading. */
  readonly gain: number;
  /** Amplitude of the bow between zero and full scale. */
  readonly bow: number;
  /** White noise, standard deviation. */
  readonly noise: number;
  /** First-order lag of a hydraulic gauge's line, s. */
  readonly lag: number;
}

/** Longest lag of a hydraulic gauge line, s; drawn evenly from none to this. */
const longestLineLag = 0.01;

/** The bow is A·sin²(π·p/range): none at both ends, root mean square over the range 0.612·A. */
const bowRootMeanSquare = sqrt(3 / 8);

/**
 * Draws the errors of a gauge from its class: zero, gain and linearity a third of the variance each, as the
 * uncertainty budget assumes. A gauge whose class is of reading has a gain error only.
 */
export function drawGaugeErrors(instrument: Instrument, seed: number, noise: number): GaugeErrors {
  const source = randomSource(labelledSeed(seed, `gauge ${instrument.channel}`));
  const lag = findChannel(instrument.channel)?.reference === 'gauge' ? source.uniform() * longestLineLag : 0;
  if (instrument.classOf === 'reading') {
    return { zero: 0, gain: (source.normal() * instrument.classFraction) / sqrt(3), bow: 0, noise, lag };
  }
  const third = (instrument.classFraction * instrument.range) / 3;
  return {
    zero: source.normal() * third,
    gain: (source.normal() * third) / instrument.range,
    bow: (source.normal() * third) / bowRootMeanSquare,
    noise,
    lag,
  };
}

/** Reading of a gauge for a true value: errors, noise, quantisation to its resolution, clipped at its range. */
export function readGauge(truth: number, instrument: Instrument, errors: GaugeErrors, source: RandomSource): number {
  const wave = errors.bow === 0 ? 0 : sin((Math.PI * truth) / instrument.range);
  const raw = truth * (1 + errors.gain) + errors.zero + errors.bow * wave * wave + errors.noise * source.normal();
  const clipped = min(raw, instrument.range);
  return instrument.resolution > 0 ? round(clipped / instrument.resolution) * instrument.resolution : clipped;
}
