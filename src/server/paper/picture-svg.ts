import type { EChartsCoreOption } from 'echarts/core';
import { chartIn } from '@/charts/library';

/** A picture of the screens as SVG, for paper; its typeface is set where it is printed. */
export function pictureSvg(
  option: EChartsCoreOption,
  size: { readonly width: number; readonly height: number },
): string {
  const chart = chartIn(null, null, { renderer: 'svg', ssr: true, ...size });
  chart.setOption({ ...option, animation: false });
  const svg = chart.renderToSVGString();
  chart.dispose();
  return svg;
}

/** An SVG picture with every text in one typeface. */
export function inFace(svg: string, face: string): string {
  return svg
    .replace(/font-family:[^;"]*/g, `font-family:${face}`)
    .replace(/font-family="[^"]*"/g, `font-family="${face}"`);
}
