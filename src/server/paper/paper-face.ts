import { paperTokens } from '@/charts/paper-tokens';
import { stepPicture } from '@/charts/step-picture';
import { planOf, supplyOf, type AnyKind } from '@/core/contract/kind';
import type { Report } from '@/core/formats/report';
import type { UnitSheet } from '@/core/formats/unit-sheet';
import type { StepEvaluation } from '@/core/judging/evaluate-unit';
import { toleranceBand } from '@/core/pictures/tolerance-band';
import { turningPoint, vacuumAlongPull } from '@/core/pictures/vacuum-along-pull';
import { pictureOf as firstOf, type CurvePicture } from '@/core/procedure/picture';
import { lanesWithin, sentLanes, wholeOf } from '@/core/pictures/timeline-window';
import type { Corrections } from '@/core/procedure/step-analysis';
import type { StepContext } from '@/core/procedure/step-context';
import type { MeasuredStep } from '@/core/procedure/step-definition';
import { fromSi } from '@/core/quantities/measurement-unit';
import { shownAs } from '@/core/quantities/shown-as';
import { thinned } from '@/core/traces/decimate';
import { growingFrom } from '@/core/traces/trace';
import type { Trace } from '@/core/traces/trace';
import { channelTitle } from '@/core/quantities/channels';
import { referenceOf, shownUnit, withUnit, type DisplayUnits } from '@/core/wording/display';
import type { Job } from '@/data/jobs';
import type { Run } from '@/data/runs';
import { drawnCurve } from '@/core/pictures/drawn-curve';
import { contextOf, measuredStepOf, sheetOf } from '../context/job-context';
import { pictureSvg } from './picture-svg';

export type PaperFace = Pick<Report, 'curve' | 'picture'>;

/** What a paper's picture is drawn by, apart from the run and its trace. */
export interface PaperFaceAsked {
  readonly evaluated: StepEvaluation;
  /** What the steps before this one found out about the bench. */
  readonly corrections: Corrections;
  readonly units: DisplayUnits;
}

interface Faced {
  readonly definition: MeasuredStep<unknown>;
  readonly context: StepContext<unknown>;
  readonly evaluated: StepEvaluation;
  readonly units: DisplayUnits;
}

/** Samples of a trace that a picture on paper is drawn of. */
const paperPoints = 600;

/** The whole of a time-line as it goes on paper; nothing where the step has none. */
function lanesOnPaper(definition: MeasuredStep<unknown>, context: StepContext<unknown>, trace: Trace) {
  const picture = firstOf(definition.pictures, 'timeline');
  const lanes = picture?.lanes(trace, context) ?? [];
  const whole = wholeOf(lanes);
  return whole ? sentLanes(lanesWithin(lanes, whole, paperPoints)) : [];
}

function pictureOf(
  { kind }: UnitSheet,
  { definition, context, evaluated, units }: Faced,
  trace: Trace,
): Report['picture'] {
  const { option, text } = stepPicture({
    kind,
    step: definition,
    context,
    samples: growingFrom(thinned(trace, paperPoints)),
    lanes: lanesOnPaper(definition, context, trace),
    readings: {},
    bands: {},
    result: evaluated,
    running: false,
    seconds: 0,
    watched: null,
    units,
    tokens: paperTokens,
  });
  const [picture] = definition.pictures;
  // The screen's legend is beside its picture; on paper the sentence takes its place.
  const [, second] = picture.kind === 'curve' ? picture.outputs : [];
  const caption =
    picture.kind === 'curve'
      ? [
          overSentence(kind, context, evaluated.analyses.at(-1)?.vacuum ?? supplyOf(kind, context), units),
          'Blue: pull. Violet: way back.',
          ...(second === undefined ? [] : [`Dashed: ${channelTitle(second).toLowerCase()}.`]),
        ].join(' ')
      : text;
  return { title: definition.title, text: caption, svg: pictureSvg(option, { width: 760, height: 360 }) };
}

/** What feeds the unit there, as it is shown. */
function fedText(kind: AnyKind, context: StepContext<unknown>, supply: number, units: DisplayUnits): string {
  const shown = { vacuum: 'vacuum', pressure: 'gauge', voltage: 'voltage' } as const;
  return withUnit(supply, shown[planOf(kind, context.plan).supply?.kind ?? 'pressure'], units);
}

/** What the band of a curve is drawn for. */
function overSentence(kind: AnyKind, context: StepContext<unknown>, supply: number, units: DisplayUnits): string {
  const fed = fedText(kind, context, supply, units);
  switch (planOf(kind, context.plan).supply?.kind) {
    case 'vacuum':
      return `Over the band of a sound unit at the vacuum that was there (${fed} at the reference input).`;
    case 'pressure':
      return `Over the band of a sound unit at the pressure that feeds it (${fed}).`;
    case 'voltage':
      return `Over the band of a sound unit at the voltage that arrives (${fed}).`;
    default:
      return 'Over the band of a sound unit.';
  }
}

function curveOf(
  { kind, unit }: UnitSheet,
  picture: CurvePicture<unknown>,
  { definition, context, evaluated, units }: Faced,
  trace: Trace,
): Report['curve'] {
  const drawn = drawnCurve(trace, picture, { pair: context.corrections.pair, points: 400, context });
  const analysis = evaluated.analyses.at(-1);
  const feeding = planOf(kind, context.plan).supply;
  if (!drawn || !analysis) return null;
  const supply = analysis.vacuum ?? supplyOf(kind, context);
  const { inputEnd } = picture.expected(unit, supply, context);
  const seen = feeding?.kind === 'vacuum' ? trace.columns[feeding.channel] : undefined;
  const input = trace.columns[picture.input] ?? new Float64Array();
  const supplyAt = seen
    ? vacuumAlongPull(input, seen, { inputEnd, ahead: seen[turningPoint(input)] })
    : vacuumAlongPull(input, new Float64Array(), { inputEnd, ahead: supply });
  const band = toleranceBand(picture, unit, supplyAt, context);
  const axes = [picture.input, picture.outputs[0]].map((channel) => {
    const as = shownAs(channel);
    return { title: channelTitle(channel), unit: shownUnit(as, units), reference: referenceOf(as) };
  });
  const shown = ([x, y]: readonly [number, number]): [number, number] => [
    Number(fromSi(x, axes[0].unit).toPrecision(5)),
    Number(fromSi(y, axes[1].unit).toPrecision(5)),
  ];
  const path = (points: readonly (readonly [number, number])[]) => points.map(shown);
  const [input_, output_] = axes.map(({ title, unit: { symbol }, reference }) =>
    `${title}, ${symbol} ${reference}`.trim(),
  );
  const titles: Partial<Record<string, string>> = { 'cut-in': 'Cut-in', 'run-out': 'Run-out' };
  return {
    title: definition.title,
    input: input_,
    output: output_,
    vacuum: fedText(kind, context, supply, units),
    over: overSentence(kind, context, supply, units),
    low: path(band.input.map((x, i) => [x, band.low[i]])),
    high: path(band.input.map((x, i) => [x, band.high[i]])),
    apply: path(drawn.apply),
    wayBack: path(drawn.wayBack),
    marks: analysis.events.flatMap((event) => {
      const title = titles[event.id];
      return title && event.x !== undefined && event.y !== undefined ? [{ title, at: shown([event.x, event.y]) }] : [];
    }),
  };
}

/** The unit's face for its paper: a curve in figures, any other picture, or one of two circuits, as it is drawn now. */
export function drawPaperFace(
  { job, run, corrections, ...asked }: PaperFaceAsked & { readonly job: Job; readonly run: Run },
  trace: Trace,
): PaperFace {
  const sheet = sheetOf(job);
  const definition = measuredStepOf(sheet.kind, asked.evaluated.step);
  const context = { ...contextOf(job, run.context.site, run.startedAt), corrections };
  const faced = { ...asked, definition, context };
  const [picture] = definition.pictures;
  return picture.kind === 'curve' && picture.outputs.length === 1
    ? { curve: curveOf(sheet, picture, faced, trace), picture: null }
    : { curve: null, picture: pictureOf(sheet, faced, trace) };
}
