import type { FeltCode } from './felt';
import type { CharacteristicId } from '../quantities/characteristics';
import type { DecoupledProblem } from './decoupled-problem';
import type { DriveProblem } from './drive-problem';
import type { ElectricalProblem } from './electrical-problem';
import type { FoundationProblem } from './foundation-problem';
import type { FluidKind } from './fluid';
import type { SpherePurpose } from './sphere-purpose';
import type { CircuitFaultId } from './circuit-fault';

/** What a trace could not tell, or what was noticed in it. Facts are SI. */
export type AnalysisProblem =
  | { readonly code: 'no-pull'; readonly channel: string }
  | { readonly code: 'not-read' }
  | { readonly code: 'too-quick-for-a-watch'; readonly seconds: number }
  /** Nobody reads it off dials: a log or the bench does. */
  | { readonly code: 'no-person-reads' }
  /** What was seen to move first does not fit the rows, which count. */
  | {
      readonly code: 'first-movement-contradicts';
      readonly channel: string;
      readonly at: number;
      readonly low: number;
      readonly high: number;
    }
  /** A gauge read so much more at the engine than at the unit, Pa; 0 where it did not. */
  | { readonly code: 'hose-takes'; readonly idle: number; readonly held: number }
  /** Felt or heard, and nothing measured. */
  | { readonly code: 'felt-only'; readonly felt: FeltCode }
  | { readonly code: 'half-helped'; readonly strokes: number }
  | { readonly code: 'foot-not-known' }
  /** All rows lie where the curve has bent already. */
  | { readonly code: 'rows-too-far-on'; readonly channel: string; readonly below: number }
  | { readonly code: 'rows-still-to-read'; readonly read: number; readonly needed: number }
  | { readonly code: 'no-way-back' }
  | { readonly code: 'no-rest-before' }
  | { readonly code: 'no-rest-after'; readonly seconds: number }
  | { readonly code: 'no-boost' }
  | { readonly code: 'run-out-not-reached'; readonly by: number; readonly peak: number }
  | { readonly code: 'reference-not-reached'; readonly reference: number; readonly peak: number }
  | { readonly code: 'knee-not-reached'; readonly by: number; readonly peak: number }
  | { readonly code: 'control-port-missing' }
  | { readonly code: 'supply-missing' }
  | { readonly code: 'valve-opening-not-found' }
  | { readonly code: 'too-few-levels'; readonly found: number; readonly needed: number }
  | { readonly code: 'fit-failed'; readonly termination: string }
  | { readonly code: 'switch-never-closed'; readonly peak: number }
  | { readonly code: 'switch-never-opened' }
  | { readonly code: 'switch-always-closed' }
  | { readonly code: 'switch-opens-when-pressed' }
  | { readonly code: 'no-hold'; readonly channel: string; readonly seconds: number }
  | { readonly code: 'hold-too-short'; readonly seconds: number; readonly needed: number }
  | { readonly code: 'source-never-opened'; readonly vacuum: number }
  | { readonly code: 'begins-without-vacuum'; readonly vacuum: number; readonly later: number }
  | { readonly code: 'too-little-vacuum'; readonly vacuum: number; readonly needed: number }
  | { readonly code: 'source-not-seen-shut' }
  | { readonly code: 'begins-in-hold' }
  | { readonly code: 'source-reopened'; readonly after: number }
  | { readonly code: 'vacuum-collapsed'; readonly after: number }
  | { readonly code: 'lever-moved'; readonly after: number }
  | { readonly code: 'not-at-rest' }
  | { readonly code: 'not-seen-applied'; readonly channel: string }
  | { readonly code: 'not-applied'; readonly channel: string; readonly peak: number; readonly needed: number }
  | { readonly code: 'side-not-seen-open' }
  | { readonly code: 'side-not-opened'; readonly vacuum: number }
  | { readonly code: 'gains'; readonly channel: string; readonly gain: number }
  | { readonly code: 'gauge-frozen'; readonly channel: string; readonly seconds: number }
  | { readonly code: 'gauge-clipped'; readonly channel: string; readonly at: number }
  | { readonly code: 'too-few-samples'; readonly channel: string; readonly samples: number; readonly needed: number }
  | { readonly code: 'sign-turned'; readonly channel: string }
  | { readonly code: 'read-as-absolute'; readonly channel: string }
  | { readonly code: 'reference-assumed'; readonly channel: string; readonly as: string }
  /** `eachPasses` where the limit is kept by each of them, so that the difference stands in nobody's way. */
  | {
      readonly code: 'repeats-differ';
      readonly characteristic: CharacteristicId;
      readonly by: number;
      readonly eachPasses?: true;
    }
  /** Some repeats found a figure, others ended in what is no figure (all gone, no boost). */
  | { readonly code: 'repeats-end-differently'; readonly characteristic: CharacteristicId }
  | { readonly code: 'no-modulating-line'; readonly ratio: number }
  | { readonly code: 'gap-in-hold'; readonly channel: string; readonly seconds: number }
  | { readonly code: 'gap-in-pull'; readonly channel: string; readonly seconds: number }
  | { readonly code: 'pulled-too-quickly'; readonly seconds: number; readonly needed: number }
  | { readonly code: 'reserve-from-too-little'; readonly vacuum: number; readonly should: number }
  | { readonly code: 'source-still-on' }
  | { readonly code: 'strokes-uneven'; readonly channel: string; readonly share: number }
  | { readonly code: 'pump-ran-between'; readonly channel: string }
  | { readonly code: 'not-from-empty'; readonly left: number }
  | { readonly code: 'shell-taken-as-air'; readonly within: number }
  | { readonly code: 'steering-not-seen' }
  | { readonly code: 'bump-not-seen' }
  /** A reading at a marked point lies off the line of its neighbours by so much (SI of its channel). */
  | { readonly code: 'point-off-line'; readonly point: number; readonly off: number; readonly channel: string }
  /** Nothing in the trace shows that the gauge follows its pressure. */
  | { readonly code: 'gauge-never-moved'; readonly channel: string }
  /** It stood at one figure, and was taken as read. */
  | { readonly code: 'taken-as-quiet'; readonly channel: string }
  /** What a bleed says of its gas, where that is not what its sheet says, s. */
  | { readonly code: 'gas-heat-from-trace'; readonly seconds: number; readonly sheet: number }
  | { readonly code: 'soaked-too-briefly'; readonly seconds: number; readonly needed: number }
  | { readonly code: 'never-idled' }
  | { readonly code: 'relief-creeps'; readonly by: number }
  | { readonly code: 'relief-chatters'; readonly by: number }
  | { readonly code: 'still-changing'; readonly channel: string; readonly by: number }
  | { readonly code: 'barometer-questioned'; readonly by: number }
  | { readonly code: 'store-not-full'; readonly pressure: number; readonly full: number }
  | { readonly code: 'stepped-in-rest'; readonly channel: string; readonly by: number }
  | { readonly code: 'line-in-rise'; readonly channel: string; readonly seconds: number }
  | { readonly code: 'dials-assumed'; readonly channels: readonly string[] }
  | { readonly code: 'gauges-assumed'; readonly channels: readonly string[] }
  /** So many rows were written to each sample: the sample again, or a line to the next. */
  | {
      readonly code: 'written-over';
      readonly between: 'again' | 'line';
      readonly channels: readonly string[];
      readonly times: number;
    }
  /** Samples were carried by up to so long, s, into a row with the others of their moment. */
  | { readonly code: 'written-in-turn'; readonly carried: number }
  | { readonly code: 'lag-taken-off'; readonly channel: string; readonly lag: number }
  | { readonly code: 'lag-not-known'; readonly channel: string; readonly allowed: number }
  /** Beyond a place of the lever the output no longer moves although it must. */
  | { readonly code: 'does-not-follow'; readonly channel: string }
  | { readonly code: 'supply-not-off'; readonly channel: string; readonly left: number }
  | {
      readonly code: 'too-little-pressure';
      readonly channel: string;
      readonly pressure: number;
      readonly needed: number;
    }
  | { readonly code: 'held-elsewhere'; readonly at: number; readonly low: number; readonly high: number }
  /** A transient that is no leak was told apart from the leak and left out of it. */
  | { readonly code: 'settling-left-out'; readonly amount: number }
  | { readonly code: 'not-settled'; readonly rate: number }
  | { readonly code: 'no-draw' }
  | { readonly code: 'no-volume' }
  | { readonly code: 'no-release' }
  | { readonly code: 'residual-never-reached'; readonly level: number }
  | { readonly code: 'run-out-disagrees'; readonly controlZero: number; readonly runOut: number }
  | { readonly code: 'pair-not-corrected'; readonly worst: number; readonly at: number }
  | { readonly code: 'pair-corrected'; readonly gain: number; readonly offset: number }
  | { readonly code: 'pair-not-measured' }
  | { readonly code: 'vacuum-pair-not-measured' }
  | { readonly code: 'no-strokes'; readonly channel: string }
  | { readonly code: 'reserve-not-used-up'; readonly strokes: number }
  | { readonly code: 'too-few-strokes'; readonly strokes: number; readonly needed: number }
  | { readonly code: 'last-strokes-differ'; readonly strokes: number }
  | { readonly code: 'vacuum-gone'; readonly vacuum: number }
  | { readonly code: 'called-early'; readonly at: number; readonly of: number }
  | { readonly code: 'nothing-builds'; readonly vacuum: number }
  | { readonly code: 'sensor-differs'; readonly difference: number }
  | { readonly code: 'no-pump-signal' }
  | { readonly code: 'pump-never-started' }
  | { readonly code: 'pump-never-stopped'; readonly vacuum: number }
  | { readonly code: 'rest-outlasts'; readonly seconds: number }
  | { readonly code: 'uneven-loss'; readonly off: number }
  /** Much was lost, and nothing was read near the time that the limit speaks of, s. */
  | { readonly code: 'read-far-from-limit'; readonly seconds: number; readonly stated: number }
  | { readonly code: 'not-between'; readonly after: number; readonly seconds: number }
  | { readonly code: 'all-gone'; readonly seconds: number }
  | { readonly code: 'engine-not-started' }
  | { readonly code: 'foot-not-still'; readonly share: number }
  | { readonly code: 'unassisted-too-small'; readonly pressure: number }
  | { readonly code: 'source-kind-missing' }
  | {
      readonly code: 'short-of-assist';
      readonly vacuum: number;
      readonly rated: number;
      readonly runOut: number;
      readonly ratedRunOut: number;
      readonly as: 'gauge' | 'force';
    }
  | { readonly code: 'channel-missing'; readonly channel: string }
  /** Of electric units: V, A, ohm, m. */
  | ElectricalProblem
  /** So many rows were read as their mean: the step looks for nothing so quick. */
  | { readonly code: 'rows-averaged'; readonly rows: number }
  | { readonly code: 'logged-too-slowly'; readonly channel: string; readonly every: number; readonly needed: number }
  | DecoupledProblem
  | DriveProblem
  | FoundationProblem
  | { readonly code: 'nothing-charged' }
  | { readonly code: 'run-too-short' }
  | { readonly code: 'not-bled-out'; readonly left: number }
  | { readonly code: 'no-knee' }
  | { readonly code: 'knee-too-coarse' }
  | { readonly code: 'precharges-disagree'; readonly charging: number; readonly bleeding: number }
  | { readonly code: 'pump-never-stopped-charging'; readonly seconds: number }
  | { readonly code: 'cycles-not-settled'; readonly rests: number }
  | {
      readonly code: 'cycles-speak-for';
      readonly fault: CircuitFaultId;
      readonly next: CircuitFaultId;
      readonly apart: number;
    }
  /** A log that is hardly this step's or this unit's; titles and figures SI. */
  | { readonly code: 'log-reads-as'; readonly title: string }
  | { readonly code: 'log-proportional'; readonly lever: string; readonly output: string }
  | { readonly code: 'log-out-of-range'; readonly channel: string; readonly reaches: number; readonly sound: number }
  /** Pressure (Pa gauge, mean) at which a leak was read: it is in proportion to that. */
  | { readonly code: 'leak-read-at'; readonly channel: string; readonly pressure: number }
  | { readonly code: 'store-not-used-up'; readonly strokes: number }
  | { readonly code: 'lamp-never-lit'; readonly down: number }
  | { readonly code: 'soak-too-short'; readonly seconds: number; readonly needed: number }
  | { readonly code: 'nothing-lost'; readonly seconds: number }
  | { readonly code: 'empty-before-half'; readonly precharge: number }
  | { readonly code: 'charged-too-long'; readonly of: 'motor' | 'dead-head'; readonly seconds: number }
  | { readonly code: 'not-dead'; readonly left: number }
  | { readonly code: 'gauge-not-seen-alive'; readonly channel: string }
  | { readonly code: 'reads-below-zero'; readonly channel: string; readonly reading: number }
  | { readonly code: 'strokes-to-dead'; readonly strokes: number }
  | { readonly code: 'no-angle' }
  | { readonly code: 'sphere-of-other-purpose'; readonly found: SpherePurpose; readonly wanted: SpherePurpose }
  | { readonly code: 'fluid-mixed'; readonly found: FluidKind; readonly wanted: FluidKind }
  | {
      readonly code: 'circuits-differ-at';
      readonly channel: string;
      readonly at: number;
      readonly difference: number;
    }
  | { readonly code: 'no-step' }
  | { readonly code: 'relief-not-reached'; readonly peak: number }
  | { readonly code: 'self-applied'; readonly pressure: number }
  | { readonly code: 'pressure-before-pull'; readonly pressure: number };

/** What a run can end in without a figure that is a finding about the unit, and no want of the record. */
const findings: readonly AnalysisProblem['code'][] = [
  'all-gone',
  'vacuum-collapsed',
  'vacuum-gone',
  'no-boost',
  'no-modulating-line',
  'does-not-follow',
  'nothing-builds',
  'pump-never-started',
  'no-release',
  'switch-always-closed',
];

/** Whether it says what the unit did, where others say what the record lacks. */
export const isFinding = ({ code }: AnalysisProblem): boolean => findings.includes(code);
