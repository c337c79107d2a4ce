import { type LookStep, inOrderOptions } from '../../procedure/look-step';
import { sourceSketch } from './sketch';

export const lookOver: LookStep = {
  id: 'look-over',
  kind: 'look',
  title: 'Look over',
  why: 'Hoses, belt and plugs first: most of what looks like a pump is a hose.',
  minutes: 3,
  cautions: ['running-engine'],
  optional: false,
  characteristics: [],
  feeds: {
    look: {
      sketch: sourceSketch,
      points: [
        {
          id: 'hoses',
          title: 'Hoses and clips',
          hint: 'Vacuum hose, not fuel hose; tight, not oil-soft, no hiss',
          at: [150, 60],
        },
        {
          id: 'pump',
          title: 'Pump and its drive',
          hint: 'Belt or coupling whole, no oil thrown, mounted fast',
          at: [84, 110],
        },
        {
          id: 'wiring',
          title: 'Wiring and fuse',
          hint: 'Electric pump: plug, fuse, ground; skip what is not there',
          at: [50, 150],
        },
        { id: 'reservoir', title: 'Reservoir', hint: 'Not dented, not rusted through, drain shut', at: [236, 120] },
      ],
      options: inOrderOptions,
    },
  },
};
