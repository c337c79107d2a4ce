import { chartIn } from '@/charts/library';
import type { Report } from '@/core/formats/report';

type Curve = NonNullable<Report['curve']>;

/** Print colours: the band, the measured line and the way back are the same as on the screens. */
const colours = {
  band: '#BFD8D6',
  edge: '#5B9A97',
  measured: '#1B2FA8',
  wayBack: '#8A5BB5',
  ink: '#12201F',
  line: '#C3CDCE',
};

/** The boost curve over its band as an SVG picture, for paper. */
export function curveSvg(
  curve: Curve,
  size: { readonly width: number; readonly height: number },
  font: string,
): string {
  const chart = chartIn(null, null, { renderer: 'svg', ssr: true, ...size });
  const axis = (name: string) => ({
    type: 'value' as const,
    name,
    nameLocation: 'middle' as const,
    nameGap: 26,
    min: 0,
    nameTextStyle: { color: colours.ink, fontSize: 10 },
    axisLabel: { color: colours.ink, fontSize: 9 },
    splitLine: { lineStyle: { color: colours.line, width: 0.5 } },
  });
  const line = (data: readonly [number, number][], color: string, width: number) => ({
    type: 'line' as const,
    data: [...data],
    showSymbol: false,
    lineStyle: { color, width },
    z: 3,
  });
  const outline = [...curve.low, ...[...curve.high].reverse()];
  chart.setOption({
    animation: false,
    textStyle: { fontFamily: font },
    grid: { left: 52, right: 16, top: 12, bottom: 42 },
    xAxis: { ...axis(curve.input), max: curve.low.at(-1)?.[0] },
    yAxis: axis(curve.output),
    series: [
      {
        type: 'custom',
        data: [0],
        silent: true,
        renderItem: (_params: unknown, api: { coord(point: number[]): number[] }) => ({
          type: 'polygon',
          shape: { points: outline.map((point) => api.coord([point[0], point[1]])) },
          style: { fill: colours.band, stroke: colours.edge, lineWidth: 0.8 },
        }),
      },
      line(curve.apply, colours.measured, 1.6),
      line(curve.wayBack, colours.wayBack, 1.6),
      {
        type: 'scatter',
        data: curve.marks.map((mark, at) => ({
          value: mark.at,
          label: {
            show: true,
            formatter: mark.title,
            position: at % 2 === 0 ? 'right' : 'left',
            offset: at % 2 === 0 ? [4, 10] : [-4, -10],
            color: colours.ink,
            fontSize: 10,
          },
        })),
        symbolSize: 7,
        itemStyle: { color: '#FFFFFF', borderColor: colours.measured, borderWidth: 1.5 },
        z: 4,
      },
    ],
  });
  const svg = chart.renderToSVGString();
  chart.dispose();
  return svg;
}
