import type { EChartsOption } from 'echarts';
import { fromSi, type MeasurementUnit } from '@/core/quantities/measurement-unit';
import { figureFace, textFace } from './faces';
import { polygonSeries } from './polygon';
import { niceCeiling } from './ride-the-line';
import type { Tokens } from './tokens';

/** A point that was read off two dials, with what each reading leaves unknown (expanded), SI. */
export interface ReadPoint {
  readonly x: number;
  readonly y: number;
  readonly aboutX: number;
  readonly aboutY: number;
}

/** Rows as they were read, over where a sound unit's would lie, SI. */
export interface RowsPicture {
  readonly points: readonly ReadPoint[];
  readonly band: readonly { readonly x: number; readonly low: number; readonly high: number }[];
  readonly x: { readonly title: string; readonly unit: MeasurementUnit };
  readonly y: { readonly title: string; readonly unit: MeasurementUnit };
}

/** ECharts option of readings row by row: each with bars of its doubt, joined in the order in which they were read, over the band. */
export function rowsOption({ points, band, x, y }: RowsPicture, tokens: Tokens): EChartsOption {
  const shown = (one: number, other: number): [number, number] => [fromSi(one, x.unit), fromSi(other, y.unit)];
  const top = (values: readonly number[]) => niceCeiling(Math.max(...values, Number.EPSILON) * 1.02);
  const endX = top([...points, ...band].map((each) => fromSi(each.x, x.unit)));
  const endY = top([...points.map((each) => fromSi(each.y, y.unit)), ...band.map((each) => fromSi(each.high, y.unit))]);
  const axis = ({ title, unit }: RowsPicture['x'], max: number) => ({
    type: 'value' as const,
    name: `${title}, ${unit.symbol}`,
    nameLocation: 'middle' as const,
    nameGap: 30,
    nameTextStyle: { color: tokens.ink, fontSize: 14 },
    min: 0,
    max,
    axisLabel: { color: tokens.softInk, fontFamily: figureFace, fontSize: 13, showMaxLabel: false, hideOverlap: true },
    axisLine: { show: true, lineStyle: { color: tokens.softInk } },
    splitLine: { lineStyle: { color: tokens.line, width: 1 } },
  });
  const low = band.map((each) => shown(each.x, each.low));
  const high = band.map((each) => shown(each.x, each.high));
  const gap: [string, string] = ['-', '-'];
  const bars = points.flatMap((each) => [
    shown(each.x - each.aboutX, each.y),
    shown(each.x + each.aboutX, each.y),
    gap,
    shown(each.x, each.y - each.aboutY),
    shown(each.x, each.y + each.aboutY),
    gap,
  ]);
  const common = { type: 'line' as const, silent: true, animation: false };
  return {
    animation: false,
    textStyle: { fontFamily: textFace, color: tokens.ink },
    grid: { left: 58, right: 18, top: 14, bottom: 48 },
    xAxis: axis(x, endX),
    yAxis: axis(y, endY),
    series: [
      polygonSeries(
        'band',
        [...low, ...[...high].reverse()],
        { fill: tokens.band, stroke: tokens.bandEdge, lineWidth: 1 },
        1,
      ),
      { ...common, id: 'doubt', data: bars, showSymbol: false, lineStyle: { color: tokens.measured, width: 2 }, z: 3 },
      {
        ...common,
        id: 'read',
        data: points.map((each) => shown(each.x, each.y)),
        symbol: 'rect',
        symbolSize: 8,
        itemStyle: { color: tokens.measured },
        lineStyle: { color: tokens.measured, width: 1.5, type: [1, 4] },
        z: 4,
      },
    ],
  };
}
