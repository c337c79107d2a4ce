import type { EChartsOption, LineSeriesOption } from 'echarts';
import type { ComparedLine } from '@/core/pictures/compared-line';
import { channelTitle } from '@/core/quantities/channels';
import { fromSi } from '@/core/quantities/measurement-unit';
import { shownAs } from '@/core/quantities/shown-as';
import { referenceOf, shownUnit, type DisplayUnits } from '@/core/wording/display';
import { figureFace, textFace } from './faces';
import { polygonSeries } from './polygon';
import type { Tokens } from './tokens';

/** One time of a step among several that are drawn on the same axes. */
export interface LineOver {
  readonly title: string;
  readonly line: ComparedLine;
  /** What was measured last, what was measured before it, or what nobody has measured. */
  readonly look: 'measured' | 'before' | 'expected';
}

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

/** Lines of one step on the same axes and the same scale, with what lies between the two that were measured shaded. */
export function overEachOtherOption(lines: readonly LineOver[], units: DisplayUnits, tokens: Tokens): EChartsOption {
  const [first] = lines;
  if (!first) return {};
  const axis = (channel: string) => {
    const as = shownAs(channel);
    return {
      unit: shownUnit(as, units),
      name: `${channel === 'time' ? 'Time' : channelTitle(channel)}, ${shownUnit(as, units).symbol} ${referenceOf(as)}`.trim(),
    };
  };
  const [x, y] = [axis(first.line.x), axis(first.line.y)];
  const shown = ([px, py]: readonly [number, number]): [number, number] => [fromSi(px, x.unit), fromSi(py, y.unit)];
  const colour = { measured: tokens.measured, before: tokens.ink, expected: tokens.ink } as const;
  const dash = { measured: 'solid' as const, before: [2, 4], expected: [8, 5] } as const;
  const measured = lines.find((each) => each.look === 'measured');
  const before = lines.find((each) => each.look === 'before');
  const common = {
    type: 'value' as const,
    nameLocation: 'middle' as const,
    nameTextStyle: { color: tokens.ink, fontSize: 14 },
    axisLabel: { color: tokens.softInk, fontFamily: figureFace, fontSize: 14 },
    splitLine: { lineStyle: { color: tokens.line } },
  };
  return {
    animation: false,
    textStyle: { fontFamily: textFace, color: tokens.ink },
    legend: {
      top: 0,
      left: 52,
      itemWidth: 30,
      itemHeight: 10,
      itemStyle: { opacity: 0 },
      textStyle: { color: tokens.ink, fontSize: 14 },
    },
    grid: { left: 64, right: 20, top: 34, bottom: 50 },
    xAxis: { ...common, name: x.name, nameGap: 30, min: fromNothing(lines, 0) },
    yAxis: { ...common, name: y.name, nameGap: 44, min: fromNothing(lines, 1) },
    series: [
      ...(measured && before
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
        showSymbol: false,
        silent: true,
        lineStyle: { color: colour[look], width: look === 'measured' ? 3 : 2, type: dash[look] as 'solid' | number[] },
        itemStyle: { color: colour[look] },
        z: look === 'measured' ? 3 : 4,
      })),
    ],
  };
}
