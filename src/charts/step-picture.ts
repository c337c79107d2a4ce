import type { EChartsOption } from 'echarts';
import { turningPoint, vacuumAlongPull } from '@/core/pictures/vacuum-along-pull';
import { toleranceBand, type ToleranceBand } from '@/core/pictures/tolerance-band';
import { planOf, supplyOf, type AnyKind } from '@/core/contract/kind';
import type { StepContext } from '@/core/procedure/step-context';
import type { CurvePicture, Picture } from '@/core/procedure/picture';
import type { MeasuredStep } from '@/core/procedure/step-definition';
import type { ExpectedTrace, ReadingBands } from '@/core/procedure/expected';
import type { StepEvaluation } from '@/core/judging/evaluate-unit';
import { boostSoFar } from '@/core/pictures/boost-so-far';
import { pathOf, smoothed } from '@/core/pictures/drawn-line';
import { pairCorrected } from '@/core/procedure/pair-corrected';
import { figure, liveFigure, referenceOf, shownUnit, type DisplayUnits } from '@/core/wording/display';
import { shownAs } from '@/core/quantities/shown-as';
import { channelTitle } from '@/core/quantities/channels';
import { overTimeOption, type Funnel, type OverTime } from '@/charts/over-time';
import { runRestOption, runRestText } from '@/charts/run-rest-map';
import { curveAxes, curvePointText } from '@/charts/curve-axes';
import { staircaseOption, staircaseText } from '@/charts/staircase';
import { timelineEvents, timelineOption, timelineText } from '@/charts/timeline';
import type { SentLane } from '@/core/pictures/timeline-window';
import { rideTheLineOption, type RideTheLine } from '@/charts/ride-the-line';
import type { Tokens } from './tokens';
import { workedOutOnce } from './worked-out-once';
import type { GrowingTrace } from '@/core/traces/trace';
import type { WatchedNow } from '@/core/toolboxes/vacuum/watch-hold';

export interface PictureData {
  readonly kind: AnyKind;
  readonly step: MeasuredStep<unknown>;
  readonly context: StepContext<unknown>;
  readonly samples: GrowingTrace;
  /** Lanes of a time-line, as they are drawn; only where the step has one and its whole log is at hand. */
  readonly lanes?: readonly SentLane[];
  readonly readings: Readonly<Record<string, number>>;
  readonly bands: ReadingBands;
  readonly result: StepEvaluation | null;
  readonly running: boolean;
  /** s the guide takes by itself. */
  readonly seconds: number;
  readonly watched: WatchedNow | null;
  readonly units: DisplayUnits;
  readonly tokens: Tokens;
}

/** A picture ready for the chart library, and what it says in words. */
export interface DrawnPicture {
  readonly option: EChartsOption;
  readonly text: string;
}

/** A supply below this is no vacuum yet, Pa. */
const vacuumOn = 5_000;

type Curve = CurvePicture<unknown>;

/** The band of a sound unit at the vacuum that was there when the pull passed, and this moment's further on; at any other supply as it is set. */
function bandSeen({ kind, context, samples, readings, running }: PictureData, curve: Curve): ToleranceBand {
  const set = supplyOf(kind, context);
  const asSet = workedOutOnce(context, curve, () => toleranceBand(curve, context.unit, () => set, context));
  const { supply } = planOf(kind, context.plan);
  if (supply?.kind !== 'vacuum' || samples.time.length === 0) return asSet;
  const { [curve.input]: input = [], [supply.channel]: seen = [] } = samples.columns;
  const now = readings[supply.channel] ?? 0;
  const ahead = running && now > vacuumOn ? now : set;
  const along = vacuumAlongPull(input, seen, { inputEnd: asSet.curve.inputEnd, ahead });
  return toleranceBand(curve, context.unit, along, context);
}

function rideTheLine(data: PictureData, curve: Curve): DrawnPicture {
  const { context, samples, units, result } = data;
  const axes = curveAxes(curve, units);
  const inputChannel = curve.input;
  const [outputChannel, second] = curve.outputs;
  const band = bandSeen(data, curve);
  const input = samples.columns[inputChannel] ?? [];
  const corrected = pairCorrected(context.corrections.pair);
  const output = (samples.columns[outputChannel] ?? []).map(corrected);
  const turn = turningPoint(input);
  const highest = Math.max(...band.high);
  const steps = { x: band.curve.inputEnd / 700, y: highest / 700 };
  // The line is what the gauges say without their noise; the samples themselves lie faintly under it.
  const smoothX = smoothed(input);
  const smoothY = smoothed(output);
  const path = (from: number, to: number) => pathOf(smoothX.subarray(from, to), smoothY.subarray(from, to), steps);
  const titles: Readonly<Record<string, string>> = {
    'cut-in': 'Cut-in',
    'run-out': 'Run-out',
    regulated: 'Regulated maximum',
  };
  const marks: RideTheLine['marks'] = (result?.analyses.at(-1)?.events ?? []).flatMap((event) =>
    titles[event.id] && event.x !== undefined && event.y !== undefined
      ? [
          {
            title: titles[event.id],
            detail: curvePointText(axes, event.x, event.y),
            at: [event.x, event.y] as const,
          },
        ]
      : [],
  );
  const live = data.running && input.length > 50 ? liveMarks(data, band.curve.inputEnd) : [];
  const turned =
    input.length - turn > 100 && input[turn] - (data.readings[inputChannel] ?? 0) > band.curve.inputEnd * 0.02;
  const nowInput = data.readings[inputChannel];
  const nowOutput = data.readings[outputChannel];
  // Where the outputs belong together they come back as they went, and dashes over dashes are a line.
  const outOnly = (column: Float64Array) => {
    const to = curve.sum !== undefined && turned ? turn + 1 : column.length;
    return pathOf(smoothX.subarray(0, to), column.subarray(0, to), steps);
  };
  const secondPath = (channel: string) => {
    const column = smoothed(samples.columns[channel] ?? []);
    return column.length === smoothX.length ? outOnly(column) : [];
  };
  const sumPath = () => {
    const columns = curve.outputs.map((channel) => samples.columns[channel] ?? []);
    if (columns.some((column) => column.length !== input.length)) return [];
    const sum = Float64Array.from(input, (_, i) => columns.reduce((all, column) => all + column[i], 0));
    return outOnly(smoothed(sum));
  };
  const now =
    data.running && nowInput !== undefined && nowOutput !== undefined
      ? ([nowInput, corrected(nowOutput)] as const)
      : null;
  return {
    option: rideTheLineOption(
      {
        band,
        pull: path(0, turned ? turn + 1 : input.length),
        wayBack: turned ? path(turn, input.length) : [],
        ...(second === undefined ? {} : { second: { title: channelTitle(second), path: secondPath(second) } }),
        ...(curve.sum === undefined ? {} : { sum: { title: curve.sum, path: sumPath() } }),
        samples: pathOf(input, output, steps),
        now,
        marks: marks.length > 0 ? marks : live,
      },
      { ...axes, tokens: data.tokens, size: 'bench' },
    ),
    text: [
      marks.length > 0
        ? `${data.step.title}. ${marks.map((mark) => `${mark.title} at ${mark.detail}`).join('. ')}`
        : `${axes.output.title} against ${axes.input.title.toLowerCase()} over the band where a sound unit lies`,
      ...(second === undefined ? [] : [`Dashed: ${channelTitle(second).toLowerCase()}`]),
      ...(curve.sum === undefined ? [] : [`Dotted: ${curve.sum.toLowerCase()}`]),
    ]
      .map((sentence) => `${sentence}.`)
      .join(' '),
  };
}

/** Cut-in and run-out as they happen, drawn without figures. */
function liveMarks(data: PictureData, end: number): RideTheLine['marks'] {
  const { cutIn, runOut } = boostSoFar(data.samples.columns, end);
  return [
    ...(cutIn ? [{ title: 'Cut-in', detail: '', at: cutIn }] : []),
    ...(runOut ? [{ title: 'Run-out', detail: '', at: runOut }] : []),
  ];
}

/** The prediction of a hold as a funnel on the first channel's axis. */
function funnelOf({ watched, samples }: PictureData, first: string): Funnel | null {
  if (!watched || watched.channel !== first) return null;
  const { call, from, start, seconds, limit } = watched;
  if (call.kind === 'too-early' || call.kind === 'wait') return null;
  const end = samples.time.at(-1) ?? from;
  const level = samples.columns[first].at(-1) ?? start;
  return {
    now: [end, level],
    end: from + seconds,
    low: start - call.loss - call.expanded,
    high: start - call.loss + call.expanded,
    limit: start - limit,
  };
}

/** Room above and below a hold, as shares of what may be lost. */
const focusBelow = 1.6;
const focusAbove = 0.4;

/** A hold's axis runs from its start to beyond its limit; other steps show everything. */
function focusOf({ step, context, watched, result }: PictureData): [number, number] | null {
  const watch = step.feeds.live?.watch?.(context);
  if (!watch) return null;
  const start = watched?.start ?? result?.analyses.at(-1)?.events.find((event) => event.id === 'hold')?.y;
  if (start === undefined) return null;
  const limit = watch.limit(start);
  return [start - focusBelow * limit, start + focusAbove * limit];
}

function overTime(data: PictureData, channels: readonly string[]): DrawnPicture {
  const { data: drawn, text } = overTimeData(data, channels);
  return { option: overTimeOption(drawn, data.tokens), text };
}

/** Lowest and highest of all lines, SI, with nothing. */
function reachOf(lines: readonly { readonly values: ArrayLike<number> }[]): readonly [number, number] {
  let [low, high] = [0, 0];
  for (const { values } of lines)
    for (let i = 0; i < values.length; i++) {
      if (values[i] < low) low = values[i];
      if (values[i] > high) high = values[i];
    }
  return [low, high];
}

function overTimeData(data: PictureData, channels: readonly string[]): { data: OverTime; text: string } {
  const { samples, units, bands, result } = data;
  const lines = channels
    .filter((channel) => samples.columns[channel] !== undefined || samples.time.length === 0)
    .map((channel) => {
      const as = shownAs(channel);
      return {
        channel,
        title: channelTitle(channel),
        unit: shownUnit(as, units),
        reference: referenceOf(as),
        values: samples.columns[channel] ?? [],
        band: bands[channel] ?? null,
        ...(channel.startsWith('target_') ? { asked: true as const } : {}),
      };
    });
  const [low, high] = reachOf(lines.filter((line) => line.reference === 'gauge'));
  const titles: Readonly<Record<string, string>> = { 'switch-closes': 'closes', 'switch-opens': 'opens' };
  const events = (result?.analyses.at(-1)?.events ?? []).flatMap((event) =>
    event.time !== null && titles[event.id] ? [{ title: titles[event.id], time: event.time }] : [],
  );
  const last = lines.map((line) => {
    const value = data.readings[line.channel];
    return value === undefined ? '' : `${line.title} ${liveFigure(value, line.unit)} ${line.unit.symbol}`;
  });
  return {
    data: {
      time: samples.time,
      lines,
      seconds: data.seconds,
      events,
      funnel: funnelOf(data, channels[0]),
      focus: focusOf(data),
      // A gauge’s noise about nothing is no pressure below it; what really is below is drawn.
      fromZero: lines[0]?.reference === 'gauge' && low > -0.02 * high && focusOf(data) === null,
    },
    text: [`${channels.map(channelTitle).join(' and ')} over time`, last.filter(Boolean).join(', ')]
      .filter(Boolean)
      .join('. '),
  };
}

/** Once strokes are found, step by step over what was predicted; null while it runs. */
function staircase(data: PictureData, picture: Extract<Picture<unknown>, { kind: 'steps' }>): DrawnPicture | null {
  const { context, result, units } = data;
  const analysis = result?.analyses.at(-1) ?? null;
  if (data.running && analysis === null) return null;
  const drawn = { predicted: picture.predict(context, analysis), measured: analysis?.strokes ?? [] };
  const unit = shownUnit('gauge', units);
  return { option: staircaseOption(drawn, { unit, tokens: data.tokens }), text: staircaseText(drawn, unit) };
}

const kneeTitles: Readonly<Record<string, string>> = { knee: 'Precharge as it stood' };

/** When the first line leaves zero, s: where the band of a charge begins. */
function leavesZero({ samples, running }: PictureData, channel: string): number {
  const column = samples.columns[channel] ?? [];
  let highest = 0;
  for (const value of column) highest = Math.max(highest, value);
  const at = column.findIndex((value) => value > Math.max(0.03 * highest, 60e3));
  return at > 0 ? samples.time[at] : running ? restBeforeCharge : 0;
}

/** A charge's guide rests this long before it lets the pump run, s. */
const restBeforeCharge = 2;

/** Charge or discharge over where a sound store's lies, with the knee found on it. */
function knee(data: PictureData, channels: readonly string[], expected: readonly ExpectedTrace[]): DrawnPicture {
  // Where the whole charge should lie says more than where it should end.
  const picture = overTimeData({ ...data, bands: {} }, channels);
  const { result, units } = data;
  const unit = shownUnit('gauge', units);
  const from = leavesZero(data, channels[0]);
  const dots = (result?.analyses.at(-1)?.events ?? []).flatMap((event) =>
    kneeTitles[event.id] && event.time !== null && event.y !== undefined
      ? [
          {
            title: kneeTitles[event.id],
            detail: `${figure(event.y, unit)} ${unit.symbol} gauge`,
            time: event.time,
            y: event.y,
          },
        ]
      : [],
  );
  const areas = expected
    .slice(0, 1)
    .map(({ points }) => points.map(({ time, low, high }) => ({ time: time + from, low, high })));
  const longest = Math.max(0, ...areas.map((area) => area[area.length - 1]?.time ?? 0));
  return {
    option: overTimeOption(
      { ...picture.data, seconds: longest > 0 ? longest * 1.08 : data.running ? 60 : 0, areas, dots, fromZero: true },
      data.tokens,
    ),
    text: [picture.text, ...dots.map((dot) => `${dot.title}: ${dot.detail}`)].join('. '),
  };
}

/** Once cycles are found, run against rest with every fault's region; null while it cycles. */
function runRest(data: PictureData, picture: Extract<Picture<unknown>, { kind: 'map' }>): DrawnPicture | null {
  const cycles = data.result?.analyses.at(-1)?.cycles ?? [];
  const maps = data.running ? [] : workedOutOnce(data.context, picture, () => picture.maps(data.context));
  if ((cycles.length === 0 && data.samples.time.length > 0) || maps.length === 0) return null;
  const drawn = { maps, measured: cycles };
  return { option: runRestOption(drawn, data.tokens), text: runRestText(drawn) };
}

/** Where the charge of a sound store lies; simulated, so worked out once. */
function expectedTraces<Unit>(
  expected: (context: StepContext<Unit>) => readonly ExpectedTrace[],
  context: StepContext<Unit>,
): readonly ExpectedTrace[] {
  return workedOutOnce(context, expected, () => expected(context));
}

/** Height that a time-line on paper is laid out for, px. */
const paperHeight = 360;

/** A time-line that stands still: on paper, and wherever nobody looks into it. */
function timeline({ lanes, result, units, tokens }: PictureData): DrawnPicture | null {
  const times = (lanes ?? []).flatMap((lane) => lane.lines.flatMap(({ points }) => points.map(([time]) => time)));
  if (!lanes || times.length === 0) return null;
  const whole = { from: times.reduce((a, b) => Math.min(a, b)), to: times.reduce((a, b) => Math.max(a, b)) };
  const events = timelineEvents(result?.analyses.at(-1)?.events ?? []);
  const drawn = { lanes, start: whole.from, window: whole, whole, events };
  return {
    option: timelineOption(drawn, { tokens, units, height: paperHeight, still: true }),
    text: timelineText(drawn, units),
  };
}

function draw(data: PictureData, picture: Picture<unknown>): DrawnPicture | null {
  switch (picture.kind) {
    case 'curve':
      return rideTheLine(data, picture);
    case 'steps':
      return staircase(data, picture);
    case 'map':
      return runRest(data, picture);
    case 'timeline':
      return timeline(data);
    case 'over-time':
      if (picture.expected) return knee(data, picture.channels, expectedTraces(picture.expected, data.context));
      return overTime(picture.openEnded ? { ...data, seconds: 0 } : data, picture.channels);
  }
}

/** The picture of a step: the first of its pictures that what is there can draw. */
export function stepPicture(data: PictureData): DrawnPicture {
  for (const picture of data.step.pictures) {
    const drawn = draw(data, picture);
    if (drawn) return drawn;
  }
  return overTime(data, data.step.feeds.log.needs);
}
