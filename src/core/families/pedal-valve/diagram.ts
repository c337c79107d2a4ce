import type { PartsDiagram } from '../../contract/part';

/** The valve under its pedal with its stores and its tank line, and where their parts are. */
export const pedalValveDiagram: PartsDiagram = {
  sketch: [
    { path: 'M104 26 L222 46', fill: 'none' },
    { path: 'M146 44 H182 V58 H146 Z', fill: 'body' },
    { path: 'M132 58 H196 V178 H132 Z', fill: 'body' },
    { path: 'M196 90 H282 M196 132 H282', fill: 'none' },
    { path: 'M196 166 H240 V186 H282', fill: 'rubber' },
    { path: 'M76 72 H132 M76 164 H132 M56 92 V144 M76 118 H98', fill: 'none' },
    { path: 'M36 72 a20 20 0 1 0 40 0 a20 20 0 1 0 -40 0', fill: 'body' },
    { path: 'M36 164 a20 20 0 1 0 40 0 a20 20 0 1 0 -40 0', fill: 'body' },
    { path: 'M36 104 H76 V132 H36 Z', fill: 'body' },
    { path: 'M98 106 H122 V130 H98 Z', fill: 'body' },
  ],
  at: {
    'orifice-upper': [184, 90],
    'orifice-lower': [184, 132],
    spools: [152, 112],
    springs: [164, 56],
    stop: [116, 30],
    'charging-valve': [56, 118],
    'accumulator-front': [56, 72],
    'accumulator-rear': [56, 164],
    'tank-line': [240, 176],
    'alarm-switch': [110, 118],
  },
};
