import type { EChartsOption } from 'echarts';
import type { SphereCheck, SphereForecast } from '@/core/toolboxes/store/model/sphere-life';
import { polygonSeries } from './polygon';
import { fromSi, type MeasurementUnit } from '@/core/quantities/measurement-unit';
import { figureFace, textFace } from './faces';
import type { Tokens } from './tokens';

/** A sphere's precharge over the years, SI; days since 1970. */
export interface SphereLifeChart {
  readonly checks: readonly SphereCheck[];
  readonly forecast: SphereForecast;
  /** Lowest and highest precharge that passes, Pa gauge at 20 °C. */
  readonly limits: readonly [number, number];
  readonly today: number;
}

const dayLength = 86_400_000;
const forecastPoints = 40;

/** ECharts option: checks with their uncertainty over the band that passes, the forecast dashed with its own band. */
export function sphereLifeOption(
  { checks, forecast, limits, today }: SphereLifeChart,
  { unit, tokens }: { readonly unit: MeasurementUnit; readonly tokens: Tokens },
): EChartsOption {
  const at = (day: number) => day * dayLength;
  const shown = (si: number) => fromSi(si, unit);
  const first = (checks[0]?.day ?? today) - 60;
  const last = Math.max(today, forecast.nextCheck, checks.at(-1)?.day ?? today) + 120;
  const from = checks.at(-1)?.day ?? today;
  const ahead =
    forecast.kind === 'line'
      ? Array.from({ length: forecastPoints + 1 }, (_, i) => {
          const day = from + ((last - from) * i) / forecastPoints;
          return { day, ...forecast.at(day) };
        })
      : [];
  const lowest = Math.min(limits[0], ...checks.map((check) => check.precharge), ...ahead.map((point) => point.low));
  const highest = Math.max(limits[1], ...checks.map((check) => check.precharge));
  const room = (highest - lowest) * 0.15;
  return {
    animation: false,
    textStyle: { fontFamily: textFace, color: tokens.ink },
    grid: { left: 74, right: 26, top: 34, bottom: 44 },
    xAxis: {
      type: 'time',
      min: at(first),
      max: at(last),
      axisLabel: { color: tokens.softInk, fontFamily: figureFace, fontSize: 14, hideOverlap: true },
      splitLine: { show: true, lineStyle: { color: tokens.line } },
    },
    yAxis: {
      type: 'value',
      name: `Precharge at 20 °C, ${unit.symbol} gauge`,
      nameTextStyle: { color: tokens.ink, fontSize: 14, align: 'left' },
      min: Math.floor(shown(lowest - room) * 10) / 10,
      max: Math.ceil(shown(highest + room) * 10) / 10,
      axisLabel: { color: tokens.softInk, fontFamily: figureFace, fontSize: 14 },
      splitLine: { lineStyle: { color: tokens.line } },
    },
    series: [
      polygonSeries(
        'passes',
        [
          [at(first), shown(limits[0])],
          [at(last), shown(limits[0])],
          [at(last), shown(limits[1])],
          [at(first), shown(limits[1])],
        ],
        { fill: tokens.band, stroke: tokens.bandEdge, lineWidth: 1 },
        1,
      ),
      polygonSeries(
        'forecast-band',
        [
          ...ahead.map((point) => [at(point.day), shown(point.low)] as const),
          ...[...ahead].reverse().map((point) => [at(point.day), shown(point.high)] as const),
        ],
        { fill: tokens.measured, opacity: 0.16 },
        2,
      ),
      {
        id: 'forecast',
        type: 'line',
        silent: true,
        showSymbol: false,
        data: ahead.map((point) => [at(point.day), shown(point.value)]),
        lineStyle: { color: tokens.measured, width: 2, type: [6, 4] },
        markLine: {
          silent: true,
          symbol: 'none',
          lineStyle: { color: tokens.ink, type: 'solid', width: 1 },
          label: { formatter: '{b}', color: tokens.ink, fontSize: 14, position: 'insideEndTop' },
          data: [
            { name: 'today', xAxis: at(today) },
            { name: 'next check', xAxis: at(forecast.nextCheck) },
          ],
        },
        z: 3,
      },
      ...checks.map((check, i) => ({
        id: `doubt ${i}`,
        type: 'line' as const,
        silent: true,
        showSymbol: false,
        data: [
          [at(check.day), shown(check.precharge - 2 * check.standard)],
          [at(check.day), shown(check.precharge + 2 * check.standard)],
        ],
        lineStyle: { color: tokens.measured, width: 2 },
        z: 4,
      })),
      {
        id: 'checks',
        type: 'line',
        silent: true,
        data: checks.map((check) => [at(check.day), shown(check.precharge)]),
        symbol: 'circle',
        symbolSize: 12,
        lineStyle: { color: tokens.measured, width: 2.5 },
        itemStyle: { color: tokens.panel, borderColor: tokens.measured, borderWidth: 3, opacity: 1 },
        z: 5,
      },
    ],
  };
}
