import type { EChartsOption, SeriesOption } from 'echarts';
import type { CycleMap, CyclePoint } from '@/core/procedure/expected';
import type { MeasuredCycle } from '@/core/procedure/step-analysis';
import { figureFace, textFace } from './faces';
import type { Tokens } from './tokens';

import { polygonSeries } from './polygon';

/** Run against rest of the pump, with the region of each fault computed for the sheet. */
export interface RunRestMap {
  readonly maps: readonly CycleMap[];
  readonly measured: readonly MeasuredCycle[];
}

/** Sound units of one make differ by about this, as shares: twice the spread that readings are held against. */
const soundReach = { run: 0.1, rest: 0.24 };
const faultReach = 0.12;
const cornersOfEllipse = 36;

const at = (point: CyclePoint): [number, number] => [point.run, point.rest];

/** An ellipse around a point on two logarithmic axes. */
function ellipse([run, rest]: [number, number], reach: { run: number; rest: number }): [number, number][] {
  return Array.from({ length: cornersOfEllipse }, (_, i) => {
    const angle = (2 * Math.PI * i) / cornersOfEllipse;
    return [run * Math.exp(reach.run * Math.cos(angle)), rest * Math.exp(reach.rest * Math.sin(angle))];
  });
}

/** The next round figure (1, 2, 5 of a decade) above or below a value. */
export const decade = (value: number, up: boolean) => {
  const power = 10 ** Math.floor(Math.log10(value));
  const steps = up ? [1, 2, 5, 10] : [5, 2, 1];
  const found = steps.find((step) => (up ? step * power >= value : step * power <= value));
  return (found ?? 1) * power;
};

/** ECharts option: both axes logarithmic, because faults multiply times; regions as strokes from slight to severe. */
export function runRestOption({ maps, measured }: RunRestMap, tokens: Tokens): EChartsOption {
  const [map] = maps;
  const everything = maps.flatMap((each) => [each.sound, ...each.faults.flatMap((fault) => fault.points)]);
  const runs = [...everything.map((point) => point.run), ...measured.map((cycle) => cycle.run)];
  const rests = [...everything.map((point) => point.rest), ...measured.map((cycle) => cycle.rest)];
  const axis = (name: string, values: readonly number[], gap: number) => ({
    type: 'log' as const,
    name,
    nameLocation: 'middle' as const,
    nameGap: gap,
    nameTextStyle: { color: tokens.ink, fontSize: 15 },
    min: decade(Math.min(...values) * 0.9, false),
    max: decade(Math.max(...values) * 1.1, true),
    axisLabel: { color: tokens.softInk, fontFamily: figureFace, fontSize: 15 },
    splitLine: { lineStyle: { color: tokens.line } },
    minorTick: { show: true },
  });
  const region = (id: string, points: readonly [number, number][], filled: boolean): SeriesOption =>
    filled
      ? polygonSeries(id, points, { fill: tokens.band, stroke: tokens.bandEdge, lineWidth: 1.5 }, 2)
      : polygonSeries(id, points, { fill: tokens.softInk, opacity: 0.13 }, 1);
  return {
    animation: false,
    textStyle: { fontFamily: textFace, color: tokens.ink },
    grid: { left: 74, right: 24, top: 20, bottom: 58 },
    xAxis: axis('Run, s', runs, 34),
    yAxis: axis('Rest, s', rests, 52),
    series: [
      ...maps.map((each, i) => region(`sound ${i}`, ellipse(at(each.sound), soundReach), true)),
      ...(map?.faults ?? []).flatMap((fault): SeriesOption[] => [
        ...fault.points.map((point, i) =>
          region(`${fault.id} ${i}`, ellipse(at(point), { run: faultReach, rest: faultReach }), false),
        ),
        {
          id: fault.id,
          type: 'line',
          silent: true,
          data: fault.points.map(at),
          showSymbol: false,
          smooth: 0.3,
          lineStyle: { color: tokens.softInk, width: 1.6, type: [6, 4] },
          endLabel: {
            show: true,
            formatter: fault.title,
            color: tokens.ink,
            fontSize: 14,
            align: 'center',
            // Away from the line's end, whichever way it runs.
            offset: labelOffset(fault.points),
            textBorderColor: tokens.panel,
            textBorderWidth: 3,
          },
          z: 2,
        },
      ]),
      {
        id: 'sound-names',
        type: 'scatter',
        silent: true,
        data: maps.map((each) => ({
          value: at(each.sound),
          label: {
            show: true,
            formatter: maps.length > 1 ? `sound, ${each.title.toLowerCase()}` : 'sound',
            position: 'inside' as const,
            color: tokens.ink,
            fontSize: 14,
            textBorderColor: tokens.band,
            textBorderWidth: 3,
          },
        })),
        symbolSize: 1,
        z: 3,
      },
      {
        id: 'measured',
        type: 'scatter',
        silent: true,
        data: measured.map((cycle) => ({
          value: [cycle.run, cycle.rest],
          label: {
            show: true,
            formatter: `${cycle.circuit === '' ? '' : 'circuit 2: '}${cycle.run.toFixed(1)} s on, ${cycle.restOpen ? 'more than ' : ''}${cycle.rest.toFixed(0)} s off`,
            position: 'right' as const,
            distance: 12,
            color: tokens.ink,
            fontFamily: figureFace,
            fontSize: 15,
            fontWeight: 700,
            textBorderColor: tokens.panel,
            textBorderWidth: 4,
          },
        })),
        symbolSize: 16,
        itemStyle: { color: tokens.panel, borderColor: tokens.measured, borderWidth: 4, opacity: 1 },
        z: 6,
      },
    ],
  };
}

/** Where a fault's name stands: beyond the severe end of its line. */
function labelOffset(points: readonly CyclePoint[]): [number, number] {
  const [first, last] = [points[0], points[points.length - 1]];
  const across = Math.log(last.run / first.run);
  const up = Math.log(last.rest / first.rest);
  return Math.abs(across) > Math.abs(up) ? [Math.sign(across) * 8, -16] : [0, up > 0 ? -20 : 20];
}

/** The same in words. */
export function runRestText({ maps, measured }: RunRestMap): string {
  const sound = maps.map((map) => `${map.sound.run.toFixed(1)} s on and ${map.sound.rest.toFixed(0)} s off`).join(', ');
  const found = measured
    .map(
      (cycle) => `${cycle.run.toFixed(1)} s on and ${cycle.restOpen ? 'more than ' : ''}${cycle.rest.toFixed(0)} s off`,
    )
    .join(', ');
  return `Pump run time against rest time. ${found ? `Measured ${found}. ` : ''}A sound one would be at ${sound}.`;
}
