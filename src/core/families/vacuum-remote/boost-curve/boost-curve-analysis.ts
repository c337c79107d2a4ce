import { fitLine, lineAt } from '../../../fitting/line';
import type { LineFit } from '../../../fitting/line';
import { differenceComponents, random, systematic } from '../../../instruments/uncertainty';
import type { CharacteristicId } from '../../../quantities/characteristics';
import type { Pull } from '../../../traces/pull';
import { sampleInterval } from '../../../traces/trace';
import {
  asRead,
  fewestOnLine,
  findLeverPull,
  followLever,
  lagNotes,
  pullEvidence,
  type PullFound,
  type Straight,
} from '../../../procedure/pull-evidence';
import type { Trace } from '../../../traces/trace';
import type { AnalysisProblem } from '../../../vocabulary/analysis-problem';
import { absent, beyond, measured } from '../../../procedure/analysis-result';
import { evidence, noEvidence, type Evidence, type Judged } from '../../../procedure/evidence';
import { answer, type Answered, type Question } from '../../../procedure/question';
import { residualOutput } from '../../../toolboxes/analysis/release-analysis';
import type { Characteristic, StepAnalysis, TraceEvent } from '../../../procedure/step-analysis';
import { fitBoostLines } from './boost-lines';
import type { BoostLines } from './boost-lines';
import { controlPort, controlZeroDisagreement } from './control-port';
import type { ControlPort } from './control-port';
import { correct, shiftByLag, gaugeParts, partOf, pressureBeforePull, speedAt } from './corrected-pull';
import type { BoostSetup, Context, CorrectedPull } from './corrected-pull';
import { runOutInput } from '../unit/control-valve';
import {
  supplyDuringPull,
  supplySag,
  tooLittleVacuum,
  type SupplyDuringPull,
} from '../../../toolboxes/servo/supply-during-pull';

/** Everything that a layout's boost curve tells, in the order it is reported. */
export function boostCurveCharacteristics({ ids }: Pick<BoostSetup, 'ids'>): readonly CharacteristicId[] {
  return [
    'cut-in-pressure',
    'valve-opening-pressure',
    ids.slope,
    'run-out-input',
    ids.runOutOutput,
    ids.atReference,
    'hysteresis',
    'control-remainder',
    'supply-sag',
    ids.residual,
  ];
}

/** What is left of a line once its ends are trimmed; a slope below this share of what it must be is none. */
const trimmedShare = 0.8;
const standsShare = 0.08;
/** Shortest rest after release that carries a residual, s; time a level must be held to count, s. */
const restAfterSeconds = 1;

/**
 * Boost curve of a remote vacuum unit from one pull and its way back (Pa gauge, Pa vacuum, N).
 * Needs `input_pressure` and the layout's output; uses `supply_vacuum`, `control_vacuum`. Ramp, plateau, cut-in,
 * run-out, control-port zero and way back are found, not marked. What the trace cannot carry is `absent`.
 */
export function analyseBoostCurve(trace: Trace, context: Context, setup: BoostSetup): Answered {
  const question: Question<Context, PullFound, ShownBoost> = {
    characteristics: boostCurveCharacteristics(setup),
    happened: (read) =>
      findLeverPull(read, { lever: 'input_pressure', outputs: [setup.output], instruments: context.instruments }),
    shows: (found) => boostEvidence(found, context, setup),
    comesTo: (shown) => curveOf(shown, context, setup),
  };
  return answer(question, trace, context);
}

/** One pull of a unit that was supplied, with the lines that its curve has or why it has none. */
interface ShownBoost {
  readonly corrected: CorrectedPull;
  readonly lines: BoostLines | AnalysisProblem;
  readonly supply: SupplyDuringPull | null;
}

/** Whether a unit was pulled evenly while it had vacuum, and its lines can be read. */
function boostEvidence(found: PullFound, context: Context, setup: BoostSetup): Judged<ShownBoost> {
  const judged = pullEvidence(found);
  if (judged.kind === 'none') return judged;
  const shown = judged.found;
  const { trace: rows } = shown;
  const supply = supplyDuringPull(rows, shown.pull, context.unit.referenceInput);
  const unsupplied = tooLittleVacuum(supply, context.unit.ratedVacuum);
  if (unsupplied) return noEvidence(unsupplied);
  const linesOf = (pull: CorrectedPull) => {
    const { apply } = pull.pull;
    return fitBoostLines(
      pull.input.subarray(apply.from, apply.to),
      pull.output.subarray(apply.from, apply.to),
      setup.unassisted,
    );
  };
  const asWritten = linesOf(correct(rows, asRead(shown, setup.output), context, setup));
  const straight = straightOf(asWritten, shown.pull, setup);
  const corrected = correct(rows, followLever(shown, setup.output, straight, context.instruments), context, setup);
  const lines = linesOf(corrected);
  const unread = 'code' in lines ? null : unreadable(lines, setup);
  return unread
    ? noEvidence(unread, { vacuum: supply?.rest, restVacuum: supply?.rest })
    : evidence({ corrected, lines, supply });
}

function curveOf(shown: Evidence<ShownBoost>, context: Context, setup: BoostSetup): StepAnalysis {
  const { corrected, lines, supply } = shown;
  const { pull, trace: rows } = corrected;
  const inOrder = boostCurveCharacteristics(setup);
  const port = controlPort(corrected, !('code' in lines) && lines.runOut !== null);
  const notes: AnalysisProblem[] = [];
  const doubts: AnalysisProblem[] = [];
  if (setup.output === 'output_pressure' && !context.corrections.pair) notes.push({ code: 'pair-not-measured' });
  if (pull.zero === null) notes.push({ code: 'no-rest-before' });
  notes.push(...lagNotes(corrected, setup.output), ...pressureBeforePull(corrected));

  const characteristics: Characteristic[] = [];
  const events: TraceEvent[] = [];
  if ('code' in lines) {
    for (const id of [setup.ids.slope, 'run-out-input', setup.ids.runOutOutput, 'hysteresis'] as const)
      characteristics.push(absent(id, lines));
    // Without a word on the supply nobody can tell a dead unit from a shut source.
    characteristics.push(...withoutBoost(supply ? lines : { code: 'supply-missing' }, corrected));
  } else {
    characteristics.push(
      cutInOf(lines, corrected),
      slopeOf(lines, corrected),
      ...runOutOf(lines, corrected, { supply: supply?.rest ?? null, port }),
      ratioOf(lines, corrected),
      hysteresisOf(lines, corrected),
    );
    events.push({ id: 'cut-in', time: null, x: lines.cutIn, y: setup.unassisted.slope * lines.cutIn });
    if (lines.runOut) events.push({ id: 'run-out', time: null, x: lines.runOut.input, y: lines.runOut.output });
    doubts.push(...controlZeroDisagreement(lines, port, characteristics));
  }
  characteristics.push(...port.characteristics, ...supplySag(rows, pull, supply, context));
  events.push(...port.events);
  characteristics.push(residualOf(corrected));
  const order = new Map(inOrder.map((id, at) => [id, at]));
  characteristics.sort((p, q) => (order.get(p.id) ?? 0) - (order.get(q.id) ?? 0));
  return {
    characteristics,
    events,
    notes,
    doubts,
    vacuum: supply?.atReference ?? supply?.rest,
    restVacuum: supply?.rest,
  };
}

/** Where the output runs straight with the input, for the lag of one behind the other: Pa as the input gauge reads it. */
function straightOf(lines: BoostLines | AnalysisProblem, { zero, peak }: Pull, setup: BoostSetup): Straight {
  const from = zero ?? 0;
  if ('code' in lines) return { topFrom: from + 0.5 * (peak - from), bottomTo: undefined };
  const { cutIn, runOut, peakInput } = lines;
  const corner = runOut?.input ?? cutIn;
  return {
    topFrom: from + corner + 0.15 * (peakInput - corner),
    bottomTo: setup.unassisted.slope > 0 ? from + 0.8 * cutIn : undefined,
    // Beyond run-out the valve is wide open: its friction holds nothing.
    wayBackToo: runOut !== null,
  };
}

/** What keeps lines from being read: too few samples on the modulating one, or an output that stands where none can. */
function unreadable({ modulating, beyond: after }: BoostLines, setup: BoostSetup): AnalysisProblem | null {
  if (modulating.count < trimmedShare * fewestOnLine)
    return {
      code: 'too-few-samples',
      channel: setup.output,
      samples: modulating.count,
      needed: Math.ceil(trimmedShare * fewestOnLine),
    };
  return after && Math.abs(after.slope) < standsShare * setup.slopeBeyond
    ? { code: 'does-not-follow', channel: setup.output }
    : null;
}

/** Cut-in: where the modulating line meets what the unit gives without assist. */
function cutInOf(lines: BoostLines, pull: CorrectedPull): Characteristic {
  const { slope } = lines.modulating;
  const { unassisted, output: channel } = pull.setup;
  const at = lines.cutIn;
  const excess = slope - unassisted.slope;
  const onLine = lineAt(lines.modulating, at);
  const input = gaugeParts('input_pressure', at, pull.context);
  const output = gaugeParts(channel, unassisted.slope * at, pull.context);
  return measured('cut-in-pressure', at, [
    random('fit', Math.sqrt(onLine.variance) / excess),
    random('noise', Math.hypot(slope * pull.zero, pull.outputZeroStandard) / excess),
    systematic('pair-gain', (unassisted.slope * at * pull.pairGain) / excess),
    shiftByLag(pull, (slope / excess) * speedAt(pull, pull.pull.apply, at)),
    systematic('gauge-gain', partOf(input, 'gauge-gain')),
    systematic(
      'gauge-linearity',
      Math.hypot(slope * partOf(input, 'gauge-linearity'), partOf(output, 'gauge-linearity')) / excess,
    ),
  ]);
}

function slopeOf(lines: BoostLines, pull: CorrectedPull): Characteristic {
  const { slope, slopeVariance } = lines.modulating;
  const from = lines.cutIn;
  const to = lines.runOut?.input ?? lines.peakInput;
  const at = (input: number) => lineAt(lines.modulating, input).value;
  const relative = (channel: string, low: number, high: number) => {
    const instrument = pull.context.instruments.get(channel);
    if (!instrument) return 0;
    return partOf(differenceComponents(instrument, low, high, pull.context.date), 'gauge-linearity') / (high - low);
  };
  return measured(pull.setup.ids.slope, slope, [
    random('fit', Math.sqrt(slopeVariance)),
    systematic('pair-gain', slope * pull.slopeGain),
    systematic(
      'gauge-linearity',
      slope * Math.hypot(relative('input_pressure', from, to), relative(pull.setup.output, at(from), at(to))),
    ),
  ]);
}

interface RunOutHints {
  readonly supply: number | null;
  readonly port: ControlPort;
}

function runOutOf(lines: BoostLines, pull: CorrectedPull, hints: RunOutHints): Characteristic[] {
  const { modulating, beyond: after, runOut } = lines;
  if (!runOut || !after) {
    const expected =
      hints.port.extrapolatedZero ??
      (hints.supply === null ? Number.NaN : runOutInput(pull.context.unit, hints.supply));
    const problem = {
      code: 'run-out-not-reached',
      by: Math.max(0, expected - lines.peakInput),
      peak: lines.peakInput,
    } as const;
    const bound = { value: lines.peakInput, components: gaugeParts('input_pressure', lines.peakInput, pull.context) };
    return [beyond('run-out-input', 'above', bound, problem), absent(pull.setup.ids.runOutOutput, problem)];
  }
  const apart = modulating.slope - after.slope;
  const before = lineAt(modulating, runOut.input).variance;
  const beyondVariance = lineAt(after, runOut.input).variance;
  const input = gaugeParts('input_pressure', runOut.input, pull.context);
  const output = gaugeParts(pull.setup.output, runOut.output, pull.context);
  return [
    measured('run-out-input', runOut.input, [
      random('fit', Math.sqrt(before + beyondVariance) / apart),
      random('noise', pull.zero),
      shiftByLag(pull, speedAt(pull, pull.pull.apply, runOut.input)),
      ...input,
    ]),
    measured(pull.setup.ids.runOutOutput, runOut.output, [
      random('fit', Math.sqrt(after.slope ** 2 * before + modulating.slope ** 2 * beyondVariance) / apart),
      random('noise', pull.outputZeroStandard),
      systematic('pair-gain', runOut.output * pull.pairGain),
      ...output,
    ]),
  ];
}

/** Line of the apply branch that an input lies on; null below cut-in. */
function lineFor(lines: BoostLines, input: number): LineFit | null {
  if (input <= lines.cutIn) return null;
  return lines.runOut && lines.beyond && input > lines.runOut.input ? lines.beyond : lines.modulating;
}

/** A point of the apply branch with what the line there says about its doubt. */
interface OnBranch {
  readonly value: number;
  readonly slope: number;
  readonly intercept: number;
  readonly variance: number;
}

function ratioOf(lines: BoostLines, pull: CorrectedPull): Characteristic {
  const reference = pull.context.unit.referenceInput;
  const { ids, unassisted } = pull.setup;
  if (reference > lines.peakInput)
    return absent(ids.atReference, { code: 'reference-not-reached', reference, peak: lines.peakInput });
  const line = lineFor(lines, reference);
  const { value, variance } = line ? lineAt(line, reference) : { value: unassisted.slope * reference, variance: 0 };
  return atReference(pull, {
    value,
    variance,
    slope: line?.slope ?? unassisted.slope,
    intercept: line?.intercept ?? 0,
  });
}

/** The output at the reference input, as a ratio where both are pressures, else as the force it is. */
function atReference(pull: CorrectedPull, { value, slope, intercept, variance }: OnBranch): Characteristic {
  const { output: channel, ids } = pull.setup;
  const reference = pull.context.unit.referenceInput;
  const input = gaugeParts('input_pressure', reference, pull.context);
  const output = gaugeParts(channel, value, pull.context);
  const linearity = Math.hypot(slope * partOf(input, 'gauge-linearity'), partOf(output, 'gauge-linearity'));
  const zeros = Math.hypot(slope * pull.zero, pull.outputZeroStandard);
  if (ids.atReference === 'servo-force')
    return measured(ids.atReference, value, [
      random('fit', Math.sqrt(variance)),
      random('noise', zeros),
      shiftByLag(pull, slope * speedAt(pull, pull.pull.apply, reference)),
      systematic('gauge-gain', Math.hypot(slope * partOf(input, 'gauge-gain'), partOf(output, 'gauge-gain'))),
      systematic('gauge-linearity', linearity),
    ]);
  return measured(ids.atReference, value / reference, [
    random('fit', Math.sqrt(variance) / reference),
    random('noise', zeros / reference),
    systematic('pair-gain', (value / reference) * pull.pairGain),
    // A gain common to both gauges moves the place on the curve, not the ratio itself.
    systematic('gauge-gain', (Math.abs(intercept) / reference ** 2) * partOf(input, 'gauge-gain')),
    systematic('gauge-linearity', linearity / reference),
  ]);
}

/** A unit that never boosts still has an output at the reference input, and its cut-in lies beyond the pull. */
function withoutBoost(problem: AnalysisProblem, pull: CorrectedPull): Characteristic[] {
  const { ids } = pull.setup;
  if (problem.code !== 'no-boost' && problem.code !== 'no-modulating-line')
    return [absent('cut-in-pressure', problem), absent(ids.atReference, problem)];
  const { apply, peak, zero } = pull.pull;
  const reference = pull.context.unit.referenceInput;
  const peakInput = peak - (zero ?? 0);
  const near = fitLine(pull.input, pull.output, {
    ...apply,
    keep: (i) => Math.abs(pull.input[i] - reference) < 0.1 * reference,
  });
  const bound = { value: peakInput, components: gaugeParts('input_pressure', peakInput, pull.context) };
  const cutIn =
    problem.code === 'no-boost'
      ? beyond('cut-in-pressure', 'above', bound, problem)
      : absent('cut-in-pressure', problem);
  if (near.termination !== 'converged') return [cutIn, absent(ids.atReference, problem)];
  const { slope, intercept } = near;
  return [cutIn, atReference(pull, { ...lineAt(near, reference), slope, intercept })];
}

/** Input difference, apply minus way back, at half the run-out output. */
function hysteresisOf(lines: BoostLines, pull: CorrectedPull): Characteristic {
  const { runOut, modulating } = lines;
  if (!runOut) return absent('hysteresis', { code: 'run-out-not-reached', by: 0, peak: lines.peakInput });
  const { wayBack } = pull.pull;
  if (wayBack.to - wayBack.from < 20 || wayBack.to >= pull.input.length)
    return absent('hysteresis', { code: 'no-way-back' });
  const half = runOut.output / 2;
  const back = fitLine(pull.input, pull.output, {
    ...wayBack,
    keep: (i) => pull.output[i] > 0.6 * half && pull.output[i] < 1.4 * half,
  });
  if (back.termination !== 'converged' || back.slope <= 0)
    return absent('hysteresis', { code: 'fit-failed', termination: back.termination });
  const applyInput = (half - modulating.intercept) / modulating.slope;
  const backInput = (half - back.intercept) / back.slope;
  const instrument = pull.context.instruments.get('input_pressure');
  return measured('hysteresis', applyInput - backInput, [
    random(
      'fit',
      Math.hypot(
        Math.sqrt(lineAt(modulating, applyInput).variance) / modulating.slope,
        Math.sqrt(lineAt(back, backInput).variance) / back.slope,
      ),
    ),
    ...(instrument ? differenceComponents(instrument, backInput, applyInput, pull.context.date) : []),
    shiftByLag(pull, speedAt(pull, pull.pull.apply, applyInput) + speedAt(pull, wayBack, backInput)),
  ]);
}

function residualOf(pull: CorrectedPull): Characteristic {
  const { restAfter } = pull.pull;
  const { ids, output } = pull.setup;
  const seconds = (restAfter.to - restAfter.from) * sampleInterval(pull.trace);
  if (seconds < restAfterSeconds) return absent(ids.residual, { code: 'no-rest-after', seconds: restAfterSeconds });
  return residualOutput(pull.trace, pull.context, { zero: pull.outputZero, channel: output, id: ids.residual });
}
