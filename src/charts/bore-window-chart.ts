import type { EChartsOption } from 'echarts';
import type { BoreWindow } from '@/core/calculators/bore-window';
import { figureFace, textFace } from './faces';
import { polygonSeries } from './polygon';
import type { Tokens } from './tokens';

const millimetres = (metres: number) => metres * 1e3;

/** Top of an axis: a round figure above what has to fit under it. */
function topOf(most: number, step: number): number {
  return Math.ceil((most * 1.1) / step) * step;
}

/** ECharts option: pedal force and pedal travel over the bore, what they may be, and the bores with which both hold. */
export function boreWindowOption(
  { points, pedalForceMost, pedalTravelMost, window }: BoreWindow,
  bore: number,
  tokens: Tokens,
): EChartsOption {
  const withTravel = pedalTravelMost !== null;
  const forceTop = topOf(Math.max(pedalForceMost, points[points.length - 1].pedalForce), 100);
  const travelTop = topOf(millimetres(Math.max(pedalTravelMost ?? 0, points[0].pedalTravel ?? 0)), 50);
  const axis = { color: tokens.softInk, fontFamily: figureFace, fontSize: 14 };
  const named = { color: tokens.ink, fontFamily: textFace, fontSize: 14 };
  const limit = (id: string, most: number, top: number, yAxisIndex: number) => ({
    id,
    type: 'line' as const,
    silent: true,
    symbol: 'none',
    yAxisIndex,
    data: [
      [millimetres(points[0].bore), most],
      [millimetres(points[points.length - 1].bore), most],
    ],
    lineStyle: { color: tokens.softInk, width: 1, type: (yAxisIndex === 0 ? 'solid' : [2, 4]) as 'solid' },
    z: top > 0 ? 2 : 1,
  });
  return {
    animation: false,
    textStyle: { fontFamily: textFace, color: tokens.ink },
    legend: {
      top: 0,
      left: 70,
      textStyle: named,
      itemWidth: 36,
      data: withTravel ? ['Pedal force needed', 'Pedal travel'] : ['Pedal force needed'],
    },
    grid: { left: 70, right: withTravel ? 70 : 26, top: 44, bottom: 52 },
    xAxis: {
      type: 'value',
      name: 'Bore, mm',
      nameLocation: 'middle',
      nameGap: 32,
      nameTextStyle: named,
      min: millimetres(points[0].bore),
      max: millimetres(points[points.length - 1].bore),
      axisLabel: axis,
      splitLine: { show: true, lineStyle: { color: tokens.line } },
    },
    yAxis: [
      {
        type: 'value',
        name: 'Pedal force, N',
        nameLocation: 'middle',
        nameGap: 50,
        nameTextStyle: named,
        min: 0,
        max: forceTop,
        axisLabel: axis,
        splitLine: { lineStyle: { color: tokens.line } },
      },
      {
        type: 'value',
        show: withTravel,
        name: 'Pedal travel, mm',
        nameLocation: 'middle',
        nameGap: 50,
        nameTextStyle: named,
        min: 0,
        max: travelTop,
        axisLabel: axis,
        splitLine: { show: false },
      },
    ],
    series: [
      ...(window
        ? [
            polygonSeries(
              'window',
              [
                [millimetres(window.from), 0],
                [millimetres(window.to), 0],
                [millimetres(window.to), forceTop],
                [millimetres(window.from), forceTop],
              ],
              { fill: tokens.band, stroke: tokens.bandEdge, lineWidth: 1 },
              1,
            ),
          ]
        : []),
      limit('force-most', pedalForceMost, forceTop, 0),
      ...(pedalTravelMost === null ? [] : [limit('travel-most', millimetres(pedalTravelMost), travelTop, 1)]),
      {
        id: 'force',
        name: 'Pedal force needed',
        type: 'line',
        silent: true,
        symbol: 'none',
        data: points.map((point) => [millimetres(point.bore), point.pedalForce]),
        lineStyle: { color: tokens.ink, width: 2.5 },
        itemStyle: { color: tokens.ink, opacity: 0 },
        markLine: {
          silent: true,
          symbol: 'none',
          lineStyle: { color: tokens.ink, type: 'solid', width: 1 },
          label: { formatter: '{b}', color: tokens.ink, fontSize: 14, position: 'insideEndTop' },
          data: [{ name: 'this bore', xAxis: millimetres(bore) }],
        },
        z: 3,
      },
      ...(withTravel
        ? [
            {
              id: 'travel',
              name: 'Pedal travel',
              type: 'line' as const,
              silent: true,
              symbol: 'none',
              yAxisIndex: 1,
              data: points.map((point) => [millimetres(point.bore), millimetres(point.pedalTravel ?? 0)]),
              lineStyle: { color: tokens.ink, width: 2.5, type: [6, 4] as unknown as 'dashed' },
              itemStyle: { color: tokens.ink, opacity: 0 },
              z: 3,
            },
          ]
        : []),
    ],
  };
}

/** The same in words. */
export function boreWindowText({ window, endedBy, pedalTravelMost }: BoreWindow, bore: number): string {
  const mm = (metres: number) => millimetres(metres).toFixed(1);
  if (!window) return 'No bore from 15 to 35 mm holds: pedal force and pedal travel leave none between them.';
  const below = endedBy.below === 'travel' ? ', below it the pedal goes too far' : '';
  const above = endedBy.above === 'force' ? ', above it the pedal is too hard' : '';
  const inside = bore >= window.from && bore <= window.to ? 'inside' : 'outside';
  const only = pedalTravelMost === null ? ' Only the pedal force is looked at.' : '';
  return `Bores of ${mm(window.from)} to ${mm(window.to)} mm hold${below}${above}; ${mm(bore)} mm lies ${inside}.${only}`;
}
