import type { CustomSeriesOption } from 'echarts';

interface PolygonStyle {
  readonly fill: string;
  readonly stroke?: string;
  readonly lineWidth?: number;
  readonly opacity?: number;
  readonly lineDash?: number[];
}

/** A filled shape in the chart's own coordinates, silent, clipped to its grid. */
export function polygonSeries(
  id: string,
  points: readonly (readonly [number, number])[],
  style: PolygonStyle,
  z: number,
): CustomSeriesOption {
  return {
    id,
    type: 'custom',
    silent: true,
    clip: true,
    data: [0],
    renderItem: (_params, api) => ({
      type: 'polygon',
      shape: { points: points.map(([x, y]) => api.coord([x, y])) },
      style,
    }),
    z,
  };
}
