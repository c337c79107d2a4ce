import { piecesOf, type Pieces } from '../../../fitting/point-lines';
import { plausibleRange } from '../../../dials/plausible-range';
import { propagateReadings } from '../../../dials/propagate-readings';
import {
  differenceComponents,
  differenceResolution,
  readingComponents,
  systematic,
  type UncertaintyComponent,
} from '../../../instruments/uncertainty';
import { absent, beyond, measured, nothingMeasured } from '../../../procedure/analysis-result';
import type { Characteristic, StepAnalysis } from '../../../procedure/step-analysis';
import type { StepContext } from '../../../procedure/step-context';
import type { TypedEntry, TypedField, TypedValues } from '../../../procedure/typed-entry';
import type { CharacteristicId } from '../../../quantities/characteristics';
import type { AnalysisProblem } from '../../../vocabulary/analysis-problem';
import { vacuumNow } from '../steps/step-parts';
import { runOutInput } from '../unit/control-valve';
import type { RemoteUnit } from '../unit/remote-unit';
import { pairCorrected } from '../../../procedure/pair-corrected';
import { boostCurveCharacteristics } from './boost-curve-analysis';
import type { BoostSetup } from './corrected-pull';
import { pointFigures, type MarkedPoint } from './point-figures';

/** What a layout's curve is read from by hand, and where a sound unit's stands. */
export interface BoostEntrySetup<Unit extends RemoteUnit> {
  readonly names: Pick<BoostSetup, 'output' | 'ids'>;
  readonly setup: (unit: Unit) => BoostSetup;
  readonly outputBand: (context: StepContext<Unit>, input: number, vacuum: number) => readonly [number, number];
  /** Input at which a sound unit begins to help, Pa gauge. */
  readonly cutIn: (unit: Unit) => number;
}

/** Where the points are asked for: shares of the way from cut-in to run-out, and times run-out. */
const onTheWay = [0.2, 0.5, 0.8] as const;
const beyondRunOut = [1.15, 1.3] as const;
/** A point may be held this far from where it is asked for. */
const nearMark = 0.04;
const ordinals = ['First', 'Second', 'Third', 'Fourth', 'Fifth'] as const;

/** Inputs (Pa gauge) at which the outputs are read, on the way up. */
function marksOf<Unit extends RemoteUnit>(context: StepContext<Unit>, entry: BoostEntrySetup<Unit>): number[] {
  const runOut = runOutInput(context.unit, vacuumNow(context));
  const cutIn = entry.cutIn(context.unit);
  return [...onTheWay.map((share) => cutIn + share * (runOut - cutIn)), ...beyondRunOut.map((times) => times * runOut)];
}

/** Entry of the boost curve: both gauges at five points on the way up and one on the way back, and the vacuum. */
export function boostCurveEntry<Unit extends RemoteUnit>(entry: BoostEntrySetup<Unit>): TypedEntry<Unit> {
  return {
    fields: (context, values) => fieldsOf(context, values, entry),
    analyse: (values, context) => analyse(values, context, entry),
  };
}

function fieldsOf<Unit extends RemoteUnit>(
  context: StepContext<Unit>,
  values: TypedValues,
  entry: BoostEntrySetup<Unit>,
): TypedField[] {
  const { output } = entry.names;
  const set = vacuumNow(context);
  const vacuum = values['supply-rest'] ?? set;
  const field = (
    id: string,
    title: string,
    more: Pick<TypedField, 'as' | 'channel'> & Partial<TypedField>,
  ): TypedField => ({
    id,
    title,
    hint: '',
    expected: null,
    plausible: plausibleRange(more.as, more.channel, context),
    optional: false,
    ...more,
  });
  const input = (id: string, title: string, mark: number, hint: string): TypedField =>
    field(id, title, {
      as: 'gauge',
      channel: 'input_pressure',
      hint,
      toHold: true,
      expected: { low: mark * (1 - nearMark), high: mark * (1 + nearMark) },
    });
  const outputAt = (id: string, title: string, at: number | undefined): TypedField => {
    const band = at === undefined ? null : entry.outputBand(context, at, vacuum);
    return field(id, title, {
      as: output === 'rod_force' ? 'force' : 'gauge',
      channel: output,
      expected: band ? { low: band[0], high: band[1] } : null,
    });
  };
  const marks = marksOf(context, entry);
  const back = marks[1];
  return [
    field('supply-rest', 'Supply vacuum at rest', {
      as: 'vacuum',
      channel: 'supply_vacuum',
      expected: { low: set * 0.9, high: set * 1.05 },
    }),
    ...marks.flatMap((mark, at) => [
      input(
        `input-${at + 1}`,
        `${ordinals[at]} point: input`,
        mark,
        at === 0 ? 'On the way up; hold until both needles stand' : '',
      ),
      outputAt(`output-${at + 1}`, `${ordinals[at]} point: output`, values[`input-${at + 1}`]),
    ]),
    field('supply-pulled', 'Lowest supply vacuum during the pull', {
      as: 'vacuum',
      channel: 'supply_vacuum',
      expected: { low: vacuum * (1 - context.workshopLimits.supplySag), high: vacuum },
    }),
    field('control-pulled', 'Control vacuum at the last point', {
      as: 'vacuum',
      channel: 'control_vacuum',
      expected: { low: 0, high: context.workshopLimits.controlRemainder * vacuum },
    }),
    input('input-back', 'On the way back: input', back, 'Let back slowly past the last point, and hold'),
    outputAt('output-back', 'On the way back: output', values['input-back']),
    field('output-rest', 'Output at rest after it', {
      as: output === 'rod_force' ? 'force' : 'gauge',
      channel: output,
      optional: true,
    }),
  ];
}

function analyse<Unit extends RemoteUnit>(
  values: TypedValues,
  context: StepContext<Unit>,
  entry: BoostEntrySetup<Unit>,
): StepAnalysis {
  const setup = entry.setup(context.unit);
  const inOrder = boostCurveCharacteristics(setup);
  const vacuum = { vacuum: values['supply-rest'], restVacuum: values['supply-rest'] };
  const points = pointsOf(values);
  const back = pointOf(values, 'back');
  if (points.length < fewestPoints) return { ...nothingMeasured(inOrder, { code: 'not-read' }), ...vacuum };
  const pair = setup.output === 'output_pressure' ? context.corrections.pair : null;
  const corrected = pairCorrected(pair);
  const readings = [...points, ...(back ? [back] : [])].flatMap(({ input, output }) => [
    { channel: 'input_pressure', value: input },
    { channel: setup.output, value: output },
  ]);
  const pointsIn = (read: readonly number[]): MarkedPoint[] =>
    Array.from({ length: read.length / 2 }, (_, at) => ({ input: read[2 * at], output: corrected(read[2 * at + 1]) }));
  const read = readings.map((reading) => reading.value);
  const xy = (all: readonly MarkedPoint[]) => all.map(({ input, output }) => ({ x: input, y: output }));
  const lines = piecesOf(
    xy(pointsIn(read).slice(0, points.length)),
    { before: setup.unassisted.slope, beyond: setup.slopeBeyond, jumps: false },
    ({ x, y }) => readTo({ input: x, output: y }, setup, context),
  );
  if (!lines) return { ...nothingMeasured(inOrder, { code: 'no-boost' }), ...vacuum };
  if (lines.worst.times > offLine) {
    // Lines through a reading that cannot be right tell nothing: it is read again first.
    const { at, off } = lines.worst;
    const problem = { code: 'point-off-line', point: at + 1, off, channel: setup.output } as const;
    return { ...nothingMeasured(inOrder, problem), ...vacuum };
  }
  const figuresOf = (moved: readonly number[]) => {
    const all = pointsIn(moved);
    return pointFigures(lines.linesOf(xy(all.slice(0, points.length))), {
      passes: setup.unassisted.slope,
      peak: all[points.length - 1].input,
      back: back ? all[points.length] : null,
      reference: context.unit.referenceInput,
    });
  };
  const figures = figuresOf(read);
  const parts = propagateReadings(readings, figuresOf, context);
  if (!figures || !parts) return { ...nothingMeasured(inOrder, { code: 'no-boost' }), ...vacuum };
  const figure = (id: CharacteristicId, key: keyof typeof figures): Characteristic =>
    Number.isNaN(figures[key])
      ? absent(id, missing(key, lines, points, context))
      : measured(id, figures[key], [...parts[key], ...unlike(key, figures[key], lines)]);
  const characteristics: Characteristic[] = [
    figure('cut-in-pressure', 'cutIn'),
    absent('valve-opening-pressure', { code: 'not-read' }),
    figure(setup.ids.slope, 'slope'),
    lines.ends ? figure('run-out-input', 'runOut') : notReached(points, context),
    figure(setup.ids.runOutOutput, 'runOutOutput'),
    figure(setup.ids.atReference, setup.ids.atReference === 'boost-ratio' ? 'ratio' : 'atReference'),
    figure('hysteresis', 'hysteresis'),
    remainder(values, lines, context),
    sag(values, context),
    residual(values, setup, context),
  ];
  const notes: AnalysisProblem[] = setup.output === 'output_pressure' && !pair ? [{ code: 'pair-not-measured' }] : [];
  return { characteristics, events: [], notes, ...vacuum };
}

/** Fewest points that two lines can be read from, and how many times its doubt a point may lie off its line. */
const fewestPoints = 4;
const offLine = 3;

function pointOf(values: TypedValues, at: string): MarkedPoint | null {
  const [input, output] = [values[`input-${at}`], values[`output-${at}`]];
  return input === undefined || output === undefined ? null : { input, output };
}

/** The points of the way up, by input. */
function pointsOf(values: TypedValues): MarkedPoint[] {
  return ordinals
    .flatMap((_, at) => pointOf(values, String(at + 1)) ?? [])
    .sort((one, other) => one.input - other.input);
}

/** What reading both needles leaves unknown of a point's output, one sigma, without what moves all points alike. */
function readTo({ input, output }: MarkedPoint, setup: BoostSetup, context: StepContext<unknown>): number {
  const own = (channel: string, value: number) => {
    const instrument = context.instruments.get(channel);
    if (!instrument) return 0;
    const parts = readingComponents(instrument, value, context.date);
    return Math.hypot(
      ...parts
        .filter(({ source }) => source === 'resolution' || source === 'gauge-linearity')
        .map((part) => part.standard),
    );
  };
  const steepest = Math.max(1e-9, output / Math.max(1, input)) * 2;
  return Math.hypot(own(setup.output, output), steepest * own('input_pressure', input));
}

/** What the points do not fit their lines by counts for every figure that is read off them, as a share of the output. */
function unlike(key: string, value: number, lines: Pieces): UncertaintyComponent[] {
  const share = key === 'hysteresis' ? 0 : lines.scatterShare;
  return share > 0 ? [systematic('fit', Math.abs(value) * share)] : [];
}

function notReached(points: readonly MarkedPoint[], context: StepContext<RemoteUnit>): Characteristic {
  const peak = points[points.length - 1].input;
  const instrument = context.instruments.get('input_pressure');
  const components = instrument ? readingComponents(instrument, peak, context.date) : [];
  const expected = runOutInput(context.unit, vacuumNow(context));
  const problem = { code: 'run-out-not-reached', by: Math.max(0, expected - peak), peak } as const;
  return beyond('run-out-input', 'above', { value: peak, components }, problem);
}

function missing(
  key: string,
  lines: Pieces,
  points: readonly MarkedPoint[],
  context: StepContext<RemoteUnit>,
): AnalysisProblem {
  const peak = points[points.length - 1].input;
  const reference = context.unit.referenceInput;
  if ((key === 'ratio' || key === 'atReference') && reference > peak)
    return { code: 'reference-not-reached', reference, peak };
  if (key === 'hysteresis') return { code: 'no-way-back' };
  return lines.ends ? { code: 'not-read' } : { code: 'run-out-not-reached', by: 0, peak };
}

function remainder(values: TypedValues, lines: Pieces, context: StepContext<unknown>): Characteristic {
  const value = values['control-pulled'];
  if (value === undefined) return absent('control-remainder', { code: 'control-port-missing' });
  if (!lines.ends) return absent('control-remainder', { code: 'run-out-not-reached', by: 0, peak: 0 });
  const instrument = context.instruments.get('control_vacuum');
  return measured('control-remainder', value, instrument ? readingComponents(instrument, value, context.date) : []);
}

function sag(values: TypedValues, context: StepContext<unknown>): Characteristic {
  const { 'supply-rest': rest, 'supply-pulled': pulled } = values;
  if (rest === undefined || pulled === undefined) return absent('supply-sag', { code: 'supply-missing' });
  return difference('supply-sag', 'supply_vacuum', { from: pulled, to: rest }, context);
}

function residual(values: TypedValues, setup: BoostSetup, context: StepContext<unknown>): Characteristic {
  const left = values['output-rest'];
  return left === undefined
    ? absent(setup.ids.residual, { code: 'not-read' })
    : difference(setup.ids.residual, setup.output, { from: 0, to: left }, context);
}

function difference(
  id: CharacteristicId,
  channel: string,
  { from, to }: { readonly from: number; readonly to: number },
  context: StepContext<unknown>,
): Characteristic {
  const instrument = context.instruments.get(channel);
  return measured(
    id,
    to - from,
    instrument ? [differenceResolution(instrument), ...differenceComponents(instrument, from, to, context.date)] : [],
  );
}
