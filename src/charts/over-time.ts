import type { CustomSeriesOption, EChartsOption, LineSeriesOption, ScatterSeriesOption } from 'echarts';
import { minMaxIndices } from '@/core/traces/decimate';
import { fromSi, type MeasurementUnit } from '@/core/quantities/measurement-unit';
import { figureFace, textFace } from './faces';
import type { Tokens } from './tokens';
import { polygonSeries } from './polygon';
import { niceCeiling } from './ride-the-line';

/** One channel over time, SI. */
export interface TimeLine {
  readonly channel: string;
  readonly title: string;
  readonly unit: MeasurementUnit;
  readonly reference: string;
  readonly values: ArrayLike<number>;
  readonly band: readonly [number, number] | null;
  /** It is what was asked for, not what was measured. */
  readonly asked?: true;
}

export interface OverTime {
  readonly time: ArrayLike<number>;
  readonly lines: readonly TimeLine[];
  /** Time the step is expected to take, s: the axis does not jump while it runs. */
  readonly seconds: number;
  readonly events: readonly { readonly title: string; readonly time: number; readonly y?: number }[];
  /** Where each channel should lie over the time, and points found on the lines, of the first axis, SI. */
  readonly areas?: readonly { readonly time: number; readonly low: number; readonly high: number }[][];
  readonly dots?: readonly {
    readonly title: string;
    readonly detail: string;
    readonly time: number;
    readonly y: number;
  }[];
  /** The first axis begins at zero: noise about it is no reason to show less than nothing. */
  readonly fromZero?: boolean;
  /** A hold's prediction closing on its limit, of the first line, SI. */
  readonly funnel?: Funnel | null;
  /** Part of the first line's axis that matters, SI: a hold is looked at closely. */
  readonly focus?: readonly [number, number] | null;
}

/** From the level now to where the hold is predicted to end, and the limit there. */
export interface Funnel {
  readonly now: readonly [number, number];
  readonly end: number;
  readonly low: number;
  readonly high: number;
  readonly limit: number;
}

const columnsOfPixels = 700;
/** So many names stand in one row of a legend. */
const legendRow = 4;

/** ECharts option: one strip per unit of measurement, time to the right, lowest and highest of every pixel kept. */
export function overTimeOption(data: OverTime, tokens: Tokens): EChartsOption {
  const end = Math.max(data.seconds, data.time.length > 0 ? data.time[data.time.length - 1] : 0);
  // The axis belongs to the first line; a switch (unit 1) is drawn on an axis of its own.
  const symbols = [...new Set(data.lines.map((line) => line.unit.symbol))];
  const focus = data.focus && data.lines[0] && roundedFocus(data.focus, data.lines[0].unit);
  // Violet is the way back of a curve and nothing else.
  const tones = [tokens.measured, tokens.ink, tokens.softInk];
  const toneOf = (line: TimeLine, at: number) => (line.asked ? tokens.bandEdge : tones[at % tones.length]);
  // What is asked for is dotted, and a tone that comes again is dashed.
  const dashOf = (line: TimeLine, at: number) => (line.asked ? [2, 4] : at < tones.length ? 'solid' : [9, 5]);
  return {
    animation: false,
    textStyle: { fontFamily: textFace, color: tokens.ink },
    legend: {
      show: data.lines.length > 1,
      top: 0,
      left: 56,
      // A line as it is drawn, dashes and all.
      itemWidth: 30,
      itemHeight: 10,
      itemStyle: { opacity: 0 },
      textStyle: { color: tokens.ink, fontSize: 15 },
    },
    grid: {
      left: 66,
      right: symbols.length > 1 ? 66 : 22,
      top: data.lines.length > legendRow ? 82 : data.lines.length > 1 ? 58 : 36,
      bottom: 54,
    },
    xAxis: {
      type: 'value',
      name: 'Time, s',
      nameLocation: 'middle',
      nameGap: 32,
      nameTextStyle: { color: tokens.ink, fontSize: 15 },
      min: 0,
      max: Math.ceil(end),
      axisLabel: { color: tokens.softInk, fontFamily: figureFace, fontSize: 15 },
      splitLine: { lineStyle: { color: tokens.line } },
    },
    yAxis: symbols.map((symbol, at) => {
      const owner = data.lines.find((line) => line.unit.symbol === symbol);
      const state = symbol === '1';
      const highestBand = Math.max(
        ...data.lines
          .filter((line) => line.unit.symbol === symbol && line.band)
          .map((line) => fromSi(line.band?.[1] ?? 0, line.unit)),
        // A band that waits for its line is shown whole.
        ...(at === 0 && owner ? (data.areas ?? []).flat().map((point) => fromSi(point.high, owner.unit)) : []),
        0,
      );
      return {
        type: 'value' as const,
        name: state ? (owner?.title ?? '') : `${symbol} ${owner?.reference ?? ''}`,
        nameTextStyle: { color: tokens.ink, fontSize: 14, align: at === 0 ? ('left' as const) : ('right' as const) },
        min: state || (at === 0 && data.fromZero) ? 0 : at === 0 && focus ? focus[0] : undefined,
        max: state
          ? 4
          : at === 0 && focus
            ? focus[1]
            : highestBand > 0
              ? (extent: { max: number }) => niceCeiling(Math.max(extent.max, highestBand * 1.1))
              : undefined,
        interval: state ? 1 : undefined,
        axisLabel: {
          color: tokens.softInk,
          fontFamily: figureFace,
          fontSize: 15,
          formatter: state ? (value: number) => stateWords(owner?.channel)[value] ?? '' : undefined,
        },
        splitLine: { show: at === 0, lineStyle: { color: tokens.line } },
      };
    }),
    series: [
      ...areaSeries(data, tokens),
      ...dotSeries(data, tokens),
      ...funnelSeries(data, tokens),
      ...data.lines.map((line, at): LineSeriesOption => ({
        id: line.channel,
        name: line.title,
        type: 'line' as const,
        yAxisIndex: symbols.indexOf(line.unit.symbol),
        step: line.unit.symbol === '1' || line.asked ? ('end' as const) : undefined,
        data: minMaxIndices(line.values, columnsOfPixels).map((i) => [data.time[i], fromSi(line.values[i], line.unit)]),
        symbol: 'none',
        silent: true,
        lineStyle: { color: toneOf(line, at), width: line.asked ? 1.6 : 2.5, type: dashOf(line, at) },
        itemStyle: { color: toneOf(line, at) },
        markArea: line.band
          ? {
              silent: true,
              itemStyle: { color: tokens.band, opacity: 0.75 },
              data: [[{ yAxis: fromSi(line.band[0], line.unit) }, { yAxis: fromSi(line.band[1], line.unit) }]],
            }
          : undefined,
        markLine:
          at === 0 && data.events.length > 0
            ? {
                silent: true,
                symbol: 'none',
                lineStyle: { color: tokens.ink, type: 'solid' as const, width: 1 },
                label: { formatter: '{b}', color: tokens.ink, fontSize: 14, position: 'insideEndTop' as const },
                data: data.events.map((event) => ({ name: event.title, xAxis: event.time })),
              }
            : undefined,
        z: 3,
      })),
    ],
  };
}

/** What 0 and 1 are called on a channel. */
function stateWords(channel: string | undefined): readonly string[] {
  return channel === 'stop_switch' ? ['open', 'closed'] : ['off', 'on'];
}

/** Bands over the time: where a sound one lies here and now. */
function areaSeries({ areas = [], lines }: OverTime, tokens: Tokens): CustomSeriesOption[] {
  const [line] = lines;
  if (!line) return [];
  return areas.map((area, at) => {
    const edge = (side: 'low' | 'high') =>
      area.map((point): [number, number] => [point.time, fromSi(point[side], line.unit)]);
    const outline = [...edge('low'), ...edge('high').reverse()];
    return polygonSeries(`area ${at}`, outline, { fill: tokens.band, stroke: tokens.bandEdge, lineWidth: 1 }, 1);
  });
}

/** What was found on the lines, named beside it. */
function dotSeries({ dots = [], lines }: OverTime, tokens: Tokens): ScatterSeriesOption[] {
  const [line] = lines;
  if (!line || dots.length === 0) return [];
  return [
    {
      id: 'dots',
      type: 'scatter',
      silent: true,
      data: dots.map((dot, at) => ({
        value: [dot.time, fromSi(dot.y, line.unit)],
        label: {
          show: true,
          position: 'right' as const,
          distance: 14,
          offset: [0, at % 2 === 0 ? 14 : -16],
          formatter: `{b|${dot.title}}\n{d|${dot.detail}}`,
          rich: {
            b: { fontWeight: 700, fontSize: 17, color: tokens.ink, lineHeight: 20 },
            d: { fontFamily: figureFace, fontSize: 15, color: tokens.softInk },
          },
          textBorderColor: tokens.panel,
          textBorderWidth: 3,
        },
      })),
      symbolSize: 15,
      itemStyle: { color: tokens.panel, borderColor: tokens.measured, borderWidth: 4, opacity: 1 },
      z: 6,
    },
  ];
}

/** The focus in the shown unit, on round figures. */
function roundedFocus([low, high]: readonly [number, number], unit: MeasurementUnit): [number, number] {
  const [from, to] = [fromSi(low, unit), fromSi(high, unit)];
  const step = 10 ** Math.floor(Math.log10(Math.max(to - from, Number.MIN_VALUE)));
  return [Math.floor(from / step) * step, Math.ceil(to / step) * step];
}

/** The funnel as a dashed outline that closes as the hold goes on, and the limit as a line to its end. */
function funnelSeries({ funnel, lines }: OverTime, tokens: Tokens): (CustomSeriesOption | LineSeriesOption)[] {
  const [line] = lines;
  if (!funnel || !line) return [];
  const shown = (time: number, value: number): [number, number] => [time, fromSi(value, line.unit)];
  const outline = [shown(...funnel.now), shown(funnel.end, funnel.high), shown(funnel.end, funnel.low)];
  return [
    polygonSeries(
      'funnel',
      outline,
      { fill: tokens.measured, opacity: 0.16, stroke: tokens.measured, lineWidth: 1.5, lineDash: [6, 4] },
      2,
    ),
    {
      id: 'funnel-limit',
      type: 'line',
      silent: true,
      showSymbol: false,
      data: [shown(funnel.now[0], funnel.limit), shown(funnel.end, funnel.limit)],
      lineStyle: { color: tokens.ink, width: 2 },
      endLabel: { show: true, formatter: 'limit', color: tokens.ink, fontSize: 14, offset: [-44, -12] },
      z: 4,
    },
  ];
}
