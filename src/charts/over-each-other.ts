import type { EChartsOption, LineSeriesOption, ScatterSeriesOption } from 'echarts';
import type { ComparedLine } from '@/core/pictures/compared-line';
import { channelTitle } from '@/core/quantities/channels';
import { characteristicTitle, isCharacteristicId } from '@/core/quantities/characteristics';
import { fromSi, type MeasurementUnit } from '@/core/quantities/measurement-unit';
import { shownAs } from '@/core/quantities/shown-as';
import { figure, referenceOf, shownUnit, type DisplayUnits } from '@/core/wording/display';
import { figureFace, textFace } from './faces';
import { decade } from './run-rest-map';
import { polygonSeries } from './polygon';
import type { Tokens } from './tokens';

/** One time of a step among several that are drawn on the same axes. */
export interface LineOver {
  readonly title: string;
  readonly line: ComparedLine;
  /** What was measured last, what was measured before it, or what nobody has measured. */
  readonly look: 'measured' | 'before' | 'expected';
}

/** Shape of a point, so that it is told apart without its colour. */
const symbols = { measured: 'circle', before: 'triangle', expected: 'diamond' } as const;

/** The first line from its lowest to its highest x, for an area between two of them. */
function forth({ path }: ComparedLine): readonly (readonly [number, number])[] {
  let highest = 0;
  path.forEach(([x], at) => {
    if (x > path[highest][0]) highest = at;
  });
  return path.slice(0, highest + 1);
}

/** Where an axis begins: a gauge’s noise about nothing is no reason to show less than nothing. Undefined where the chart finds it by itself. */
function fromNothing(lines: readonly LineOver[], axis: 0 | 1): number | undefined {
  let [low, high] = [Infinity, -Infinity];
  for (const { line } of lines)
    for (const point of line.path) {
      low = Math.min(low, point[axis]);
      high = Math.max(high, point[axis]);
    }
  return low < 0 && low > -0.03 * high ? 0 : undefined;
}

interface Axis {
  readonly unit: MeasurementUnit;
  readonly name: string;
}

/** What a compared line is drawn along: a channel, a figure of a pump, the time, or the strokes. */
function axisOf(of: string, units: DisplayUnits): Axis {
  if (of === 'stroke') return { unit: shownUnit('count', units), name: 'Stroke' };
  const as = shownAs(of);
  const title = of === 'time' ? 'Time' : isCharacteristicId(of) ? characteristicTitle(of) : channelTitle(of);
  return {
    unit: shownUnit(as, units),
    name: `${title}, ${shownUnit(as, units).symbol} ${referenceOf(as)}`.trim(),
  };
}

/** Logarithmic axes about points: what a pump's faults do to its times multiplies them. */
function aboutPoints(lines: readonly LineOver[], axis: 0 | 1): Scale {
  const values = lines.flatMap(({ line }) => [...line.path, ...line.sound].map((point) => point[axis]));
  return {
    type: 'log',
    min: decade(Math.min(...values) * 0.9, false),
    max: decade(Math.max(...values) * 1.1, true),
  };
}

interface Scale {
  readonly type: 'value' | 'log';
  readonly min: number | undefined;
  readonly max?: number;
  readonly interval?: number;
  readonly formatter?: (value: number) => string;
}

/** Strokes are counted in whole numbers, with room on either side; a line begins where it begins. */
function scaleOf(lines: readonly LineOver[], axis: 0 | 1): Scale {
  const { drawn } = lines[0].line;
  if (drawn === 'points') return aboutPoints(lines, axis);
  if (drawn === 'line') return { type: 'value', min: fromNothing(lines, axis) };
  const strokes = Math.max(...lines.map(({ line }) => line.path.length));
  if (axis === 1) return { type: 'value', min: 0 };
  return {
    type: 'value',
    min: 0,
    max: strokes + 1,
    interval: 1,
    formatter: (value: number) => (value >= 1 && value <= strokes ? String(value) : ''),
  };
}

/** Lines of one step on the same axes and the same scale, with what lies between the two that were measured shaded. */
export function overEachOtherOption(lines: readonly LineOver[], units: DisplayUnits, tokens: Tokens): EChartsOption {
  const [first] = lines;
  if (!first) return {};
  const [x, y] = [axisOf(first.line.x, units), axisOf(first.line.y, units)];
  const { drawn } = first.line;
  const shown = ([px, py]: readonly [number, number]): [number, number] => [fromSi(px, x.unit), fromSi(py, y.unit)];
  const colour = { measured: tokens.measured, before: tokens.ink, expected: tokens.ink } as const;
  const dash = { measured: 'solid' as const, before: [2, 4], expected: [8, 5] } as const;
  const dot = (look: LineOver['look']) => ({
    color: tokens.panel,
    borderColor: colour[look],
    borderWidth: look === 'measured' ? 3 : 2,
    borderType: look === 'measured' ? ('solid' as const) : ('dashed' as const),
  });
  const measured = lines.find((each) => each.look === 'measured');
  const before = lines.find((each) => each.look === 'before');
  const axis = (name: string, nameGap: number, { formatter, ...scale }: Scale) => ({
    ...scale,
    name,
    nameGap,
    nameLocation: 'middle' as const,
    nameTextStyle: { color: tokens.ink, fontSize: 14 },
    axisLabel: { color: tokens.softInk, fontFamily: figureFace, fontSize: 14, ...(formatter ? { formatter } : {}) },
    splitLine: { lineStyle: { color: tokens.line } },
  });
  return {
    animation: false,
    textStyle: { fontFamily: textFace, color: tokens.ink },
    legend: {
      top: 0,
      left: 52,
      itemWidth: 30,
      itemHeight: 10,
      ...(drawn === 'line' ? { itemStyle: { opacity: 0 } } : {}),
      textStyle: { color: tokens.ink, fontSize: 14 },
    },
    grid: { left: 64, right: 20, top: 34, bottom: 50 },
    xAxis: axis(x.name, 30, scaleOf(lines, 0)),
    yAxis: axis(y.name, 44, scaleOf(lines, 1)),
    series: [
      ...(measured && before && drawn === 'line'
        ? [
            polygonSeries(
              'between',
              [...forth(before.line).map(shown), ...forth(measured.line).map(shown).toReversed()],
              { fill: tokens.ink, opacity: 0.12 },
              1,
            ),
          ]
        : []),
      ...lines.map(({ title, line, look }): LineSeriesOption => ({
        id: look,
        name: title,
        type: 'line',
        data: line.path.map(shown),
        ...(drawn === 'steps' ? { step: 'middle' } : {}),
        showSymbol: drawn !== 'line',
        symbol: symbols[look],
        symbolSize: drawn === 'points' ? 18 : 11,
        silent: true,
        lineStyle: {
          color: colour[look],
          width: drawn === 'points' ? 0 : look === 'measured' ? 3 : 2,
          type: dash[look] as 'solid' | number[],
        },
        itemStyle: dot(look),
        z: look === 'measured' ? 3 : 4,
      })),
      ...(first.line.sound.length > 0
        ? [
            {
              id: 'sound',
              name: 'Sound',
              type: 'scatter',
              data: first.line.sound.map(shown),
              symbol: 'rect',
              symbolSize: 16,
              silent: true,
              itemStyle: { color: tokens.band, borderColor: tokens.bandEdge, borderWidth: 2 },
              z: 2,
            } satisfies ScatterSeriesOption,
          ]
        : []),
      // What was found on a line stands on it.
      ...lines.map(({ line, look }): ScatterSeriesOption => ({
        id: `${look} found`,
        type: 'scatter',
        data: line.found.map(shown),
        symbol: symbols[look],
        symbolSize: 12,
        silent: true,
        itemStyle: dot(look),
        z: 5,
      })),
    ],
  };
}

const linesAre = { measured: 'a line', before: 'dotted', expected: 'dashed' } as const;
const pointsAre = { measured: 'circles', before: 'triangles', expected: 'diamonds' } as const;

/** The same in words; strokes and cycles with their figures. */
export function overEachOtherText(title: string, lines: readonly LineOver[], units: DisplayUnits): string {
  const told = lines.map((each) => {
    const { drawn, path, x, y } = each.line;
    const name = each.title.toLowerCase();
    if (drawn === 'line') return `${name} (${linesAre[each.look]})`;
    const [ux, uy] = [axisOf(x, units).unit, axisOf(y, units).unit];
    const figures = path.map(([px, py]) =>
      drawn === 'steps' ? figure(py, uy) : `${figure(px, ux)} ${ux.symbol} and ${figure(py, uy)} ${uy.symbol}`,
    );
    return `${name} (${pointsAre[each.look]}) ${figures.join(', ')}${drawn === 'steps' ? ` ${uy.symbol}` : ''}`;
  });
  return `${title}: ${[...told, ...soundText(lines, units)].join('; ')}.`;
}

/** Where sound ones would lie, where the picture marks it. */
function soundText([first]: readonly LineOver[], units: DisplayUnits): string[] {
  if (!first || first.line.sound.length === 0) return [];
  const [ux, uy] = [axisOf(first.line.x, units).unit, axisOf(first.line.y, units).unit];
  const places = first.line.sound.map(([x, y]) => `${figure(x, ux)} ${ux.symbol} and ${figure(y, uy)} ${uy.symbol}`);
  return [`sound (a square) ${places.join(', ')}`];
}
