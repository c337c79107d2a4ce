import { CustomChart, LineChart, ScatterChart } from 'echarts/charts';
import {
  DataZoomComponent,
  GridComponent,
  LegendComponent,
  MarkAreaComponent,
  MarkLineComponent,
} from 'echarts/components';
import { init, use as takeParts } from 'echarts/core';
import { CanvasRenderer, SVGRenderer } from 'echarts/renderers';

takeParts([
  CustomChart,
  LineChart,
  ScatterChart,
  GridComponent,
  LegendComponent,
  MarkAreaComponent,
  MarkLineComponent,
  DataZoomComponent,
  CanvasRenderer,
  SVGRenderer,
]);

/** Makes a chart out of the parts of the library that pictures here are drawn with; what they newly need is added above. */
export const chartIn = init;
