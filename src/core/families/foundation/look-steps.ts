import { inOrderOptions, type LookOption, type LookStep } from '../../procedure/look-step';
import { bleedPlan } from './bleed-plan';
import type { FoundationUnit } from './geometry';
import { foundationSketch } from './sketch';

type Look = Pick<LookStep, 'id' | 'title' | 'why' | 'minutes' | 'cautions'> & LookStep['feeds']['look'];

function look({
  id,
  title,
  why,
  minutes,
  cautions,
  ...feed
}: Omit<Look, 'sketch' | 'options'> & { readonly options?: readonly LookOption[] }): LookStep {
  return {
    id,
    kind: 'look',
    title,
    why,
    minutes,
    cautions,
    optional: false,
    characteristics: [],
    feeds: { look: { sketch: foundationSketch, options: inOrderOptions, ...feed } },
  };
}

export const complaint = look({
  id: 'complaint',
  title: 'Complaint and first look',
  why: 'What the driver felt, and what can be seen and felt without a tool, before anything is measured.',
  minutes: 5,
  cautions: ['vehicle-still'],
  points: [
    { id: 'pedal-feel', title: 'Pedal', hint: 'Firm, not rock hard; does not sink under a held foot', at: [104, 126] },
    { id: 'first-stroke', title: 'First stroke', hint: 'As high as the second; not spongy', at: [86, 100] },
    {
      id: 'pulls-to-a-side',
      title: 'Runs straight',
      hint: 'Braked gently on closed ground it pulls to no side',
      at: [40, 100],
    },
    { id: 'linings', title: 'Linings', hint: 'Through the wheel: thick enough, not glazed, not oily', at: [77, 24] },
    {
      id: 'lamp-at-start',
      title: 'Red lamp',
      hint: 'Lights with the key, out with the lever down and the engine on',
      at: [134, 64],
    },
    { id: 'stop-lamps', title: 'Stop lamps', hint: 'Dark with the pedal up, lit with a light foot', at: [284, 100] },
  ],
});

export const fluidLook = look({
  id: 'fluid-look',
  title: 'Fluid',
  why: 'The wrong fluid ruins every seal that it wets, and a low level is looked into before it is filled.',
  minutes: 3,
  cautions: ['brake-fluid', 'fluid-not-mixed'],
  points: [
    {
      id: 'kind',
      title: 'Kind of fluid',
      hint: 'What the sheet says; a drop on water tells glycol from mineral oil and silicone',
      at: [137, 64],
    },
    { id: 'level', title: 'Level', hint: 'Between the marks, reservoir and cap whole', at: [154, 100] },
    {
      id: 'look',
      title: 'Look',
      hint: 'Clear, no grit, no bloom; boiling point or age within the maker’s',
      at: [116, 100],
    },
  ],
});

const wheelOptions: readonly LookOption[] = [
  { id: 'free', title: 'Clamps and lets go', effect: 'pass' },
  { id: 'note', title: 'Drags after release', effect: 'note' },
  { id: 'unfit', title: 'Pressure, and nothing moves', effect: 'fail' },
];

export const seizedCheck = look({
  id: 'seized-check',
  title: 'Wheel by wheel',
  why: 'A wheel with pressure that neither clamps nor lets go is seized; the pressures alone do not show it.',
  minutes: 10,
  cautions: ['rigid-stands', 'vehicle-still'],
  options: wheelOptions,
  points: [
    {
      id: 'front-left',
      title: 'Front left',
      hint: 'Turn it by hand, have the pedal pressed, have it let go',
      at: [77, 170],
    },
    { id: 'front-right', title: 'Front right', hint: 'The same', at: [77, 30] },
    { id: 'rear-left', title: 'Rear left', hint: 'The same; hand lever down', at: [245, 170] },
    { id: 'rear-right', title: 'Rear right', hint: 'The same; hand lever down', at: [245, 30] },
  ],
});

export const hoseLook = look({
  id: 'hose-look',
  title: 'Hoses and lines',
  why: 'A hose that swells inside lets pressure in late and keeps it: nothing but the wheel that drags shows it outside.',
  minutes: 5,
  cautions: ['rigid-stands', 'fluid-jet'],
  points: [
    {
      id: 'front-hoses',
      title: 'Front hoses',
      hint: 'No bulge under a firm foot, no crack at the ends, not twisted at full lock',
      at: [92, 58],
    },
    { id: 'rear-hoses', title: 'Rear hoses', hint: 'The same, and not rubbed by the axle', at: [226, 100] },
    {
      id: 'lines',
      title: 'Lines',
      hint: 'Dry, no rust through, clipped; threads and seats that belong together',
      at: [160, 100],
    },
  ],
});

const lampOptions: readonly LookOption[] = [
  { id: 'in-order', title: 'No', effect: 'pass' },
  { id: 'note', title: 'Not tried', effect: 'note' },
  { id: 'unfit', title: 'Yes: found', effect: 'fail' },
];

/** What changes a lamp that should be dark says where the fault is. */
export const redLamp = look({
  id: 'red-lamp',
  title: 'What changes the red lamp',
  why: 'A lamp that should be dark: one thing after the other is changed, and the question that is answered with yes says where the fault is.',
  minutes: 5,
  cautions: ['vehicle-still'],
  options: lampOptions,
  points: [
    {
      id: 'lever-down',
      title: 'Lever fully down: out only when pulled off its switch?',
      hint: 'By hand, a little further than the lever goes down by itself: yes is a switch that is set wrong',
      at: [150, 136],
    },
    {
      id: 'float-lifted',
      title: 'Reservoir full: out with the float lifted, or its plug off?',
      hint: 'Yes is a float that sank',
      at: [137, 68],
    },
    {
      id: 'pressure-on',
      title: 'Does it change when the pedal is pressed firmly?',
      hint: 'It lights, or goes out, only then: yes is a circuit short of pressure',
      at: [188, 100],
    },
    {
      id: 'all-plugs-off',
      title: 'Every plug off: still lit?',
      hint: 'Yes is a wire that touches the body',
      at: [190, 62],
    },
    {
      id: 'key-on',
      title: 'Key on, engine off: does it stay dark?',
      hint: 'It should light as its own check: yes is a bulb, a fuse or a wire that is open',
      at: [60, 100],
    },
  ],
});

export const parkingBrake = look({
  id: 'parking-brake',
  title: 'Parking brake',
  why: 'It only holds: thin linings and a cable that is never used show here first, and the equaliser says which side.',
  minutes: 5,
  cautions: ['vehicle-still', 'rigid-stands'],
  points: [
    {
      id: 'clicks',
      title: 'Clicks',
      hint: 'As many as the sheet of the vehicle says until it holds',
      writes: 'How many',
      at: [150, 124],
    },
    {
      id: 'equaliser',
      title: 'Equaliser',
      hint: 'Square to the cables; it leans to the side with more wear',
      writes: 'Which side is worn more, and how far it leans',
      at: [178, 148],
    },
    { id: 'holds', title: 'Holds', hint: 'On the steepest place of the yard, both ways', at: [246, 112] },
    { id: 'frees', title: 'Frees', hint: 'Both wheels turn by hand at once when it is let down', at: [246, 142] },
  ],
});

export const bleed = look({
  id: 'bleed',
  title: 'Bleeding',
  why: 'Old fluid out first, then wheel by wheel in the order of the sheet; a pedal that is firm at the first stroke ends it.',
  minutes: 25,
  cautions: ['brake-fluid', 'fluid-not-mixed', 'rigid-stands'],
  plan: (unit) => bleedPlan(unit as FoundationUnit),
  points: [
    {
      id: 'filled',
      title: 'What was filled',
      hint: 'Only what the sheet names, from a sealed can',
      writes: 'Fluid and how much',
      at: [137, 68],
    },
    {
      id: 'old-out',
      title: 'Old fluid out first',
      hint: 'Out of reservoir and master cylinder, before anything reaches what is new',
      at: [137, 100],
    },
    { id: 'order', title: 'Order', hint: 'As planned above; drums adjusted before', at: [246, 60] },
    { id: 'firm', title: 'Pedal', hint: 'Firm and high at the first stroke, the same at the second', at: [104, 126] },
  ],
});
