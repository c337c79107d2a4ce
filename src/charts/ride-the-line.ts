import type { EChartsOption } from 'echarts';
import type { ToleranceBand } from '@/core/pictures/tolerance-band';
import { fromSi, type MeasurementUnit } from '@/core/quantities/measurement-unit';
import { figureFace, textFace } from './faces';
import { polygonSeries } from './polygon';
import type { Tokens } from './tokens';

export type Path = readonly (readonly [number, number])[];

/** What "ride the line" draws, SI. */
export interface RideTheLine {
  readonly band: ToleranceBand;
  readonly pull: Path;
  readonly wayBack: Path;
  /** The other circuit's pull and way back, drawn as it comes beside the first. */
  readonly second?: { readonly title: string; readonly path: Path };
  /** Both together. */
  readonly sum?: { readonly title: string; readonly path: Path };
  /** Every sample, unsmoothed, drawn faintly under the lines. */
  readonly samples?: Path;
  /** Where the unit is now. */
  readonly now: readonly [number, number] | null;
  readonly marks: readonly {
    readonly title: string;
    readonly detail: string;
    readonly at: readonly [number, number];
  }[];
}

/** One axis of the curve. */
export interface CurveAxis {
  readonly title: string;
  readonly unit: MeasurementUnit;
  readonly reference: string;
}

interface Look {
  readonly input: CurveAxis;
  readonly output: CurveAxis;
  readonly tokens: Tokens;
  /** Larger type for reading from afar; small for a panel. */
  readonly size: 'bench' | 'panel';
}

/** A round step of an axis, so that its figures are short. */
export function niceCeiling(value: number): number {
  const power = 10 ** Math.floor(Math.log10(value));
  return (Math.ceil((value / power) * 2) / 2) * power;
}

/** ECharts option of output against input over the expected band. */
export function rideTheLineOption(data: RideTheLine, { input, output, tokens, size }: Look): EChartsOption {
  const shown = ([x, y]: readonly [number, number]): [number, number] => [
    fromSi(x, input.unit),
    fromSi(y, output.unit),
  ];
  const { band } = data;
  const end = fromSi(band.curve.inputEnd, input.unit);
  const ofSum = data.sum?.path.reduce((most, [, y]) => Math.max(most, y), 0) ?? 0;
  const top = niceCeiling(fromSi(Math.max(...band.high, ofSum), output.unit) * 1.02);
  const fontSize = size === 'bench' ? 15 : 13;
  const axis = ({ title, unit, reference }: CurveAxis, max: number) => ({
    type: 'value' as const,
    name: `${title}, ${unit.symbol} ${reference}`.trim(),
    nameLocation: 'middle' as const,
    nameGap: size === 'bench' ? 34 : 28,
    nameTextStyle: { color: tokens.ink, fontSize },
    min: 0,
    max,
    axisLabel: { color: tokens.softInk, fontFamily: figureFace, fontSize, showMaxLabel: false },
    axisLine: { show: true, lineStyle: { color: tokens.softInk } },
    splitLine: { lineStyle: { color: tokens.line, width: 1 } },
  });
  const low = band.input.map((x, i) => shown([x, band.low[i]]));
  const high = band.input.map((x, i) => shown([x, band.high[i]]));
  const line = (id: string, points: Path, color: string, width: number) => ({
    id,
    type: 'line' as const,
    data: points.map(shown),
    showSymbol: false,
    silent: true,
    lineStyle: { color, width, join: 'round' as const },
    z: 3,
  });
  const without = unfedLine();
  /** What comes without assist: what the unit says, else output = input, which means something only where both are pressures. */
  function unfedLine(): { readonly title: string; readonly points: [number, number][] } {
    const said = band.curve.without;
    if (said) return { title: said.title, points: said.points.map((point) => shown([point.input, point.output])) };
    const most = Math.min(end, top);
    const alike = input.unit.dimension === output.unit.dimension;
    return {
      title: 'no boost',
      points: alike
        ? [
            [0, 0],
            [most, most],
          ]
        : [],
    };
  }
  return {
    animation: false,
    textStyle: { fontFamily: textFace, color: tokens.ink },
    grid: { left: size === 'bench' ? 66 : 56, right: 22, top: 16, bottom: size === 'bench' ? 56 : 46 },
    xAxis: axis(input, end),
    yAxis: axis(output, top),
    series: [
      polygonSeries(
        'band',
        [...low, ...[...high].reverse()],
        { fill: tokens.band, stroke: tokens.bandEdge, lineWidth: 1 },
        1,
      ),
      {
        id: 'no-boost',
        type: 'line',
        data: without.points,
        showSymbol: false,
        silent: true,
        lineStyle: { color: tokens.softInk, width: 1.4, type: [2, 6] },
        endLabel: {
          show: true,
          formatter: without.title,
          color: tokens.softInk,
          fontSize: fontSize - 1,
          // Inside the frame, above the line's end.
          offset: [-7.6 * without.title.length - 6, -12],
        },
        z: 2,
      },
      {
        ...line('samples', data.samples ?? [], tokens.measured, 1),
        lineStyle: { color: tokens.measured, width: 1, opacity: 0.28, join: 'round' as const },
        z: 2,
      },
      {
        ...line('second', data.second?.path ?? [], tokens.ink, size === 'bench' ? 2 : 1.4),
        lineStyle: { color: tokens.ink, width: size === 'bench' ? 2 : 1.4, type: [5, 4] as number[] },
        z: 4,
      },
      {
        ...line('sum', data.sum?.path ?? [], tokens.ink, size === 'bench' ? 2 : 1.4),
        lineStyle: { color: tokens.ink, width: size === 'bench' ? 2 : 1.4, type: [2, 4] as number[] },
        z: 4,
      },
      line('way-back', data.wayBack, tokens.wayBack, size === 'bench' ? 3 : 2),
      line('pull', data.pull, tokens.measured, size === 'bench' ? 3.5 : 2),
      {
        id: 'marks',
        type: 'scatter',
        silent: true,
        data: data.marks.map((mark, i) => ({
          value: shown(mark.at),
          label: {
            show: true,
            position: i % 2 === 0 ? ('right' as const) : ('left' as const),
            offset: i % 2 === 0 ? [8, shown(mark.at)[1] < 0.08 * top ? -22 : size === 'bench' ? 16 : 4] : [-6, -14],
            formatter: mark.detail === '' ? mark.title : `{b|${mark.title}}\n{d|${mark.detail}}`,
            rich: {
              b: { fontWeight: 700, fontSize: fontSize + 2, color: tokens.ink, lineHeight: 20 },
              d: { fontFamily: figureFace, fontWeight: 400, fontSize, color: tokens.softInk },
            },
            textBorderColor: tokens.panel,
            textBorderWidth: 3,
            fontWeight: 700,
            fontSize: fontSize + 1,
            color: tokens.ink,
          },
        })),
        symbolSize: size === 'bench' ? 13 : 9,
        itemStyle: { color: tokens.panel, borderColor: tokens.measured, borderWidth: 3, opacity: 1 },
        z: 5,
      },
      {
        id: 'now',
        type: 'scatter',
        silent: true,
        data: data.now ? [shown(data.now)] : [],
        symbolSize: 20,
        itemStyle: {
          color: data.wayBack.length > 1 ? tokens.wayBack : tokens.measured,
          borderColor: tokens.panel,
          borderWidth: 4,
          opacity: 1,
        },
        z: 6,
      },
    ],
  };
}
