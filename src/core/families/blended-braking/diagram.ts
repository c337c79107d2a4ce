import type { PartsDiagram } from '../../contract/part';

/** A shuttle from above, front to the left: four brakes, pedal with master cylinder, store, controller, motor on the rear axle. */
export const blendedDiagram: PartsDiagram = {
  sketch: [
    { path: 'M30 48 Q14 100 30 152 H292 V48 Z', fill: 'body' },
    { path: 'M52 20 H96 V42 H52 Z M52 158 H96 V180 H52 Z', fill: 'rubber' },
    { path: 'M226 20 H270 V42 H226 Z M226 158 H270 V180 H226 Z', fill: 'rubber' },
    { path: 'M74 42 V158 M248 42 V158', fill: 'none' },
    { path: 'M226 78 H272 V122 H226 Z', fill: 'body' },
    { path: 'M104 112 H122 M122 100 H160 V124 H122 Z', fill: 'body' },
    { path: 'M104 98 V140', fill: 'none' },
    { path: 'M176 98 H206 V126 H176 Z', fill: 'body' },
    { path: 'M160 112 H176', fill: 'none' },
    { path: 'M120 58 H178 V84 H120 Z', fill: 'body' },
    { path: 'M74 62 H120 M178 70 H248', fill: 'none' },
  ],
  at: {
    controller: [149, 70],
    linings: [74, 60],
    'master-sensors': [141, 112],
    'pedal-sensor': [104, 142],
    'stop-switches': [104, 96],
    store: [191, 112],
    'wheel-speed': [248, 142],
  },
};
