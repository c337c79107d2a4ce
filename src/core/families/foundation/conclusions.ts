import { failed, fellShort, found, good } from '../../contract/inquiry-says';
import type { Conclusion } from '../../contract/plan';

/** Steps that clear what sits behind the unit when all of them are good. */
const all = [
  'fluid-look',
  'base-pair',
  'proportioning',
  'combination-valve',
  'seized-check',
  'hose-look',
  'stop-lamp-adjust',
  'parking-brake',
] as const;

const looked = (
  step: string,
  point: string,
  {
    id,
    title,
    advice,
    fault,
  }: { readonly id: string; readonly title: string; readonly advice: string; readonly fault?: string },
): Conclusion => ({
  id,
  title,
  advice,
  faults: fault === undefined ? [] : [fault],
  step,
  holds: (steps) => found(steps, step, point, 'unfit'),
});

/** Where the inquiry ends, what is dangerous first; each with what is done next. */
export const foundationConclusions: readonly Conclusion[] = [
  looked('fluid-look', 'kind', {
    id: 'fluid',
    title: 'The fluid is not what the sheet says',
    advice:
      'Stop here: nothing is topped up or bled. Everything that was wetted is renewed or flushed the maker’s way.',
    fault: 'fluid-wrong',
  }),
  {
    id: 'shuttle',
    title: 'The combination valve stands to one side',
    advice: 'Find the side that lost its pressure first, mend it, centre the shuttle the maker’s way, and bleed.',
    faults: ['combination-valve-shuttled'],
    step: 'combination-valve',
    holds: (steps) => failed(steps, 'combination-valve'),
  },
  ...['front-left', 'front-right', 'rear-left', 'rear-right'].map((wheel) =>
    looked('seized-check', wheel, {
      id: `seized-${wheel}`,
      title: `The ${wheel.replace('-', ' ')} brake is seized`,
      advice: 'Free or renew it, and look at the others of the same age.',
      fault: 'wheel-cylinder-seized',
    }),
  ),
  looked('hose-look', 'front-hoses', {
    id: 'hoses-front',
    title: 'A front hose is swollen',
    advice: 'Renew the hoses of that axle together, then bleed.',
    fault: 'hose-swollen',
  }),
  looked('hose-look', 'rear-hoses', {
    id: 'hoses-rear',
    title: 'A rear hose is swollen',
    advice: 'Renew the hoses of that axle together, then bleed.',
    fault: 'hose-swollen',
  }),
  {
    id: 'master-cylinder',
    title: 'The master cylinder lets past',
    advice: 'The foot alone makes too little pressure: renew it or its cups, and bleed.',
    faults: ['master-cylinder-bypass'],
    step: 'base-pair',
    holds: (steps) => fellShort(steps, 'base-pair', 'unassisted-pressure'),
  },
  {
    id: 'assist',
    title: 'It is before this: the booster does not assist',
    advice: 'The foot makes what it should and the assist adds too little: back to the booster and what feeds it.',
    faults: [],
    step: 'base-pair',
    holds: (steps) =>
      fellShort(steps, 'base-pair', 'vehicle-ratio') && !fellShort(steps, 'base-pair', 'unassisted-pressure'),
  },
  {
    id: 'valve',
    title: 'The proportioning has shifted',
    advice: 'Set a load-sensing valve by the maker’s table, renew any other; then press again.',
    faults: ['proportioning-shifted'],
    step: 'proportioning',
    holds: (steps) => failed(steps, 'proportioning'),
  },
  {
    id: 'stop-lamps',
    title: 'The stop-lamp switch is set wrong',
    advice: 'Set it so that it closes inside of its window, or renew one that cannot be set.',
    faults: ['stop-switch-misadjusted', 'stop-switch-slack'],
    step: 'stop-lamp-adjust',
    holds: (steps) => failed(steps, 'stop-lamp-adjust'),
  },
  looked('red-lamp', 'all-plugs-off', {
    id: 'lamp-wire',
    title: 'The lamp’s wire touches the body',
    advice: 'Follow it from the lamp, where it rubs; pull the next plug towards the lamp until it goes out.',
    fault: 'lamp-wire-grounded',
  }),
  looked('red-lamp', 'float-lifted', {
    id: 'float',
    title: 'The level float has sunk',
    advice: 'Renew float or reservoir; make sure first that the level is right.',
    fault: 'level-float-failed',
  }),
  looked('red-lamp', 'lever-down', {
    id: 'lever-switch',
    title: 'The switch of the hand lever is set wrong',
    advice: 'Set it so that it opens with the lever fully down; see that the cable lets the lever come down.',
  }),
  looked('red-lamp', 'pressure-on', {
    id: 'circuit',
    title: 'A circuit is short of pressure',
    advice: 'The differential switch says so: push both axles and compare, then look for what leaks.',
  }),
  looked('red-lamp', 'key-on', {
    id: 'bulb',
    title: 'The lamp has no check',
    advice: 'Bulb, fuse or wire is open: mend that first, a dark lamp says nothing.',
  }),
  looked('parking-brake', 'frees', {
    id: 'cable',
    title: 'A parking cable is seized',
    advice: 'Renew it; a cable that was freed seizes again. Then use the brake: cables seize by standing.',
    fault: 'parking-cable-seized',
  }),
  looked('complaint', 'linings', {
    id: 'linings',
    title: 'The linings are glazed',
    advice: 'Renew or dress them the maker’s way, both sides of the axle.',
    fault: 'linings-glazed',
  }),
  looked('bleed', 'firm', {
    id: 'air',
    title: 'There is air in the hydraulics',
    advice: 'Bleed again in the order of the sheet; air that comes back is let in somewhere.',
    fault: 'air-in-hydraulics',
  }),
  {
    id: 'nothing-behind',
    clears: true,
    title: 'Nothing behind the unit is at fault',
    advice: 'Fluid, pressures, valves, wheels, hoses, lamps and cables are good.',
    faults: [],
    holds: (steps) => all.every((id) => good(steps, id)),
  },
];
