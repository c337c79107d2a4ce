import type { EChartsOption } from 'echarts';
import { staircaseTolerance } from '@/core/pictures/staircase-tolerance';
import type { MeasuredStroke } from '@/core/procedure/step-analysis';
import type { PredictedStaircase } from '@/core/procedure/expected';
import { fromSi, type MeasurementUnit } from '@/core/quantities/measurement-unit';
import { figureFace, textFace } from './faces';
import type { Tokens } from './tokens';
import { niceCeiling } from './ride-the-line';

/** Reserve stroke by stroke: what was predicted and what was measured, SI. */
export interface Staircase {
  readonly predicted: PredictedStaircase;
  readonly measured: readonly MeasuredStroke[];
}

interface Look {
  readonly unit: MeasurementUnit;
  readonly tokens: Tokens;
}

/** ECharts option: one step a stroke, its band where a sound unit's output lies, the measured output on it. */
export function staircaseOption({ predicted, measured }: Staircase, { unit, tokens }: Look): EChartsOption {
  const shown = (si: number) => fromSi(si, unit);
  const count = Math.max(predicted.strokes.length, measured.length);
  const highest = Math.max(...predicted.strokes.map((stroke) => stroke.output), ...measured.map((one) => one.output));
  const threshold = shown(predicted.threshold);
  return {
    animation: false,
    textStyle: { fontFamily: textFace, color: tokens.ink },
    grid: { left: 66, right: 22, top: 18, bottom: 56 },
    xAxis: {
      type: 'value',
      name: 'Stroke',
      nameLocation: 'middle',
      nameGap: 34,
      nameTextStyle: { color: tokens.ink, fontSize: 15 },
      min: 0,
      max: count + 1,
      interval: 1,
      axisLabel: {
        color: tokens.softInk,
        fontFamily: figureFace,
        fontSize: 15,
        formatter: (value: number) => (value >= 1 && value <= count ? String(value) : ''),
      },
      splitLine: { show: false },
    },
    yAxis: {
      type: 'value',
      name: predicted.of === 'store' ? `Left after it, ${unit.symbol} gauge` : `Output, ${unit.symbol} gauge`,
      nameLocation: 'middle',
      nameGap: 46,
      nameTextStyle: { color: tokens.ink, fontSize: 15 },
      min: 0,
      max: niceCeiling(shown(highest * (1 + staircaseTolerance)) * 1.02),
      axisLabel: { color: tokens.softInk, fontFamily: figureFace, fontSize: 15 },
      splitLine: { lineStyle: { color: tokens.line } },
    },
    series: [
      {
        id: 'band',
        type: 'custom',
        silent: true,
        data: predicted.strokes.map((stroke, at) => [at + 1, shown(stroke.output)]),
        renderItem: (_params, api) => {
          const [at, output] = [api.value(0) as number, api.value(1) as number];
          const [left, top] = api.coord([at - 0.4, output * (1 + staircaseTolerance)]);
          const [right, bottom] = api.coord([at + 0.4, output * (1 - staircaseTolerance)]);
          return {
            type: 'rect',
            shape: { x: left, y: top, width: right - left, height: bottom - top },
            style: { fill: tokens.band, stroke: tokens.bandEdge, lineWidth: 1 },
          };
        },
        z: 1,
      },
      {
        id: 'predicted',
        type: 'custom',
        silent: true,
        data: predicted.strokes.map((stroke, at) => [at + 1, shown(stroke.output)]),
        renderItem: (_params, api) => {
          const [at, output] = [api.value(0) as number, api.value(1) as number];
          const [x1, y] = api.coord([at - 0.4, output]);
          const [x2] = api.coord([at + 0.4, output]);
          return {
            type: 'line',
            shape: { x1, y1: y, x2, y2: y },
            style: { stroke: tokens.bandEdge, lineWidth: 2, lineDash: [6, 4] },
          };
        },
        z: 2,
      },
      {
        id: 'threshold',
        type: 'line',
        silent: true,
        showSymbol: false,
        data: [
          [0, threshold],
          [count + 1, threshold],
        ],
        lineStyle: { color: tokens.softInk, width: 1.4, type: [2, 6] },
        endLabel: {
          show: true,
          formatter: predicted.of === 'store' ? 'useful above' : 'assisted above',
          color: tokens.softInk,
          fontSize: 14,
          offset: [-112, -12],
        },
        z: 2,
      },
      {
        id: 'measured',
        type: 'line',
        silent: true,
        data: measured.map((stroke, at) => [at + 1, shown(stroke.output)]),
        step: 'middle',
        symbol: 'circle',
        symbolSize: 13,
        lineStyle: { color: tokens.measured, width: 3 },
        itemStyle: { color: tokens.panel, borderColor: tokens.measured, borderWidth: 3, opacity: 1 },
        z: 4,
      },
    ],
  };
}

/** The same in words. */
export function staircaseText({ predicted, measured }: Staircase, unit: MeasurementUnit): string {
  const figures = measured.map((stroke) => fromSi(stroke.output, unit).toFixed(2)).join(', ');
  const sound = predicted.strokes.map((stroke) => fromSi(stroke.output, unit).toFixed(2)).join(', ');
  const found = measured.length > 0 ? `Measured ${figures} ${unit.symbol}. ` : '';
  const what = predicted.of === 'store' ? 'Pressure left after each stroke' : 'Output stroke by stroke';
  return `${what}. ${found}A sound unit would give ${sound} ${unit.symbol}.`;
}
