import { binByX, fitSegments } from '../../../fitting/segments';
import { expandedUncertainty, random, readingComponents } from '../../../instruments/uncertainty';
import type { Span } from '../../../traces/pull';
import { columnOf, meanOf } from '../../../traces/trace';
import type { AnalysisProblem } from '../../../vocabulary/analysis-problem';
import { absent, measured } from '../../../procedure/analysis-result';
import { heldSeconds, lowestHeld } from '../../../traces/lowest-held';
import type { Characteristic, TraceEvent } from '../../../procedure/step-analysis';
import type { BoostLines } from './boost-lines';
import { gaugeParts } from './corrected-pull';
import type { CorrectedPull } from './corrected-pull';

const { abs, hypot, sqrt } = Math;

/** The pull is averaged over so many shares of its input before it is broken into lines. */
const bins = 240;
/** The share that holds a break lies on neither line: standard uncertainty of the break for that, as a part of a share. */
const ofShare = 1 / 8;

export interface ControlPort {
  readonly characteristics: readonly Characteristic[];
  readonly events: readonly TraceEvent[];
  /** Input (Pa) at which the control port touched zero, with its standard uncertainty. */
  readonly zero: { readonly input: number; readonly standard: number } | null;
  /** Input at which the falling control vacuum would reach zero, Pa. */
  readonly extrapolatedZero: number | null;
}

/** What the control port tells: where it leaves the supply, where it reaches zero, what remains at full input. */
export function controlPort(pull: CorrectedPull, runOutReached: boolean): ControlPort {
  const raw = columnOf(pull.trace, 'control_vacuum');
  if (!raw) {
    const problem = { code: 'control-port-missing' } as const;
    return {
      characteristics: [absent('valve-opening-pressure', problem), absent('control-remainder', problem)],
      events: [],
      zero: null,
      extrapolatedZero: null,
    };
  }
  const { apply, plateau } = pull.pull;
  const binned = binByX(pull.input.subarray(apply.from, apply.to), raw.subarray(apply.from, apply.to), bins);
  const three = fitSegments(binned, 3);
  const rest = meanOf(raw, pull.pull.restBefore.from, pull.pull.restBefore.to).mean;
  const reachesZero =
    three.termination === 'converged' && three.slopes[2] > 0.25 * three.slopes[1] && three.slopes[1] < 0;
  const fit = reachesZero ? three : fitSegments(binned, 2);
  const opens = fit.termination === 'converged' && fit.slopes[1] < 0 && fit.slopes[1] < fit.slopes[0];
  // Short of run-out the port is meant to read something.
  const remainder = runOutReached
    ? controlRemainder(pull, raw, plateau)
    : absent('control-remainder', { code: 'run-out-not-reached', by: 0, peak: pull.pull.peak - (pull.pull.zero ?? 0) });
  if (!opens) {
    return {
      characteristics: [absent('valve-opening-pressure', { code: 'valve-opening-not-found' }), remainder],
      events: [],
      zero: null,
      extrapolatedZero: null,
    };
  }
  const joints = fit.breaks.length;
  const standard = (k: number) => sqrt(fit.covariance[2 + joints + k][2 + joints + k]);
  const opening = fit.breaks[0];
  const characteristics = [
    measured('valve-opening-pressure', opening, [
      random('fit', hypot(standard(0), ofShare * shareOf(pull))),
      random('noise', pull.zero),
      ...gaugeParts('input_pressure', opening, pull.context),
    ]),
    remainder,
  ];
  return {
    characteristics,
    events: [{ id: 'valve-opening', time: null, x: opening }],
    zero: reachesZero ? { input: fit.breaks[1], standard: standard(1) } : null,
    extrapolatedZero: opening - rest / fit.slopes[1],
  };
}

/** Width of one share of the input, Pa. */
function shareOf({ pull }: CorrectedPull): number {
  return (pull.peak - (pull.zero ?? 0)) / bins;
}

function controlRemainder(pull: CorrectedPull, raw: Float64Array, plateau: Span): Characteristic {
  const lowest = lowestHeld(pull.trace, raw, plateau);
  if (lowest === null) return absent('control-remainder', { code: 'hold-too-short', seconds: 0, needed: heldSeconds });
  const instrument = pull.context.instruments.get('control_vacuum');
  return measured('control-remainder', lowest.mean, [
    random('noise', lowest.standard),
    ...(instrument ? readingComponents(instrument, lowest.mean, pull.context.date) : []),
  ]);
}

/** The control port's zero must agree with the meeting point of the lines; a disagreement is reported. */
export function controlZeroDisagreement(
  lines: BoostLines,
  port: ControlPort,
  characteristics: readonly Characteristic[],
): AnalysisProblem[] {
  const found = characteristics.find((each) => each.id === 'run-out-input');
  if (!lines.runOut || !port.zero || found?.kind !== 'measured') return [];
  const allowed = hypot(expandedUncertainty(found.estimate), 2 * port.zero.standard) + 0.02 * lines.runOut.input;
  if (abs(port.zero.input - lines.runOut.input) <= allowed) return [];
  return [{ code: 'run-out-disagrees', controlZero: port.zero.input, runOut: lines.runOut.input }];
}
