import { boreWindow, type BoreWindow } from '@/core/calculators/bore-window';
import { discTorque, type MasterCylinder, type VehicleBrakes } from '@/core/calculators/brake-force';
import { failedAssistStop, type FailedAssistStop } from '@/core/calculators/failed-assist-stop';
import { ruleOf, type RuleFound } from '@/core/calculators/stop-rule';
import { circleArea } from '@/core/quantities/circle-area';
import { wrongFigure, type AskedFigure } from '../parts/asked-figures';
import { typedNumber } from '../shell/typed-number';

const ratio = (title: string, help: string, high = 1): AskedFigure => ({ title, unit: '', help, low: 0.01, high });
const millimetres = (title: string, help: string, low: number, high: number): AskedFigure => ({
  title,
  unit: 'mm',
  help,
  low,
  high,
});
const pistonArea = (title: string): AskedFigure => ({
  title,
  unit: 'mm²',
  help: 'Pistons of one side of one caliper',
  low: 50,
  high: 50_000,
});
const maybe = (asked: AskedFigure): AskedFigure => ({ ...asked, optional: true });

/** What is asked of vehicle and pedal, in the order that it is known. */
export const vehicleFields = {
  mass: { title: 'Vehicle mass', unit: 'kg', help: 'With what it carries', low: 200, high: 60_000 },
  tyreRadius: millimetres('Tyre radius', 'Rolling, under load', 100, 1000),
  frontFriction: ratio('Friction, front', 'Lining against disc', 1.5),
  frontPistons: pistonArea('Piston area, front'),
  frontRadius: millimetres('Effective radius, front', 'Middle of the lining', 20, 1000),
} as const satisfies Record<string, AskedFigure>;

/** The rear axle, by how it brakes. */
export const rearFields = {
  disc: {
    rearFriction: ratio('Friction, rear', 'Lining against disc', 1.5),
    rearPistons: pistonArea('Piston area, rear'),
    rearRadius: millimetres('Effective radius, rear', 'Middle of the lining', 20, 1000),
  },
  drum: {
    drum: { title: 'Drum, rear', unit: 'N·m/kPa', help: 'Torque of one wheel to each kPa', low: 0.001, high: 10 },
  },
} as const satisfies Record<string, Record<string, AskedFigure>>;

/** Where the rear falls behind the front: both or neither. */
export const proportioningFields = {
  split: maybe({ title: 'Split pressure', unit: 'kPa', help: 'Empty: nothing proportions', low: 1, high: 20_000 }),
  slope: maybe(ratio('Rear slope', 'Beyond the split; both or neither')),
} as const satisfies Record<string, AskedFigure>;

export const pedalFields = {
  bore: millimetres('Master cylinder bore', 'The one that is fitted or wanted', 8, 60),
  pedalRatio: ratio('Pedal ratio', 'Travel of the foot over that of the rod', 12),
  linkage: ratio('Linkage efficiency', 'What the pedal’s pivots pass on'),
  efficiency: ratio('Master cylinder efficiency', 'What its seals pass on'),
  spring: { title: 'Master cylinder spring', unit: 'N', help: 'At its piston', low: 0, high: 1000 },
  displaced: maybe({ title: 'Fluid displaced', unit: 'cm³', help: 'All brakes fully applied', low: 1, high: 500 }),
  travel: maybe(millimetres('Pedal travel at most', 'Empty: the pedal moves no fluid', 10, 400)),
} as const satisfies Record<string, AskedFigure>;

/** A rule of the workshop's own. */
export const ruleFields = {
  speed: { title: 'From', unit: 'km/h', help: 'Speed that the stop begins at', low: 5, high: 200 },
  deceleration: { title: 'Deceleration at least', unit: 'm/s²', help: 'Assist gone', low: 0.1, high: 10 },
  distanceA: { title: 'A', unit: 'm/(km/h)', help: 'Distance ≤ A·v + B·v²', low: 0, high: 2 },
  distanceB: { title: 'B', unit: 'm/(km/h)²', help: 'v in km/h', low: 0.0001, high: 1 },
  force: { title: 'Pedal force at most', unit: 'N', help: 'By the rule', low: 10, high: 2000 },
} as const satisfies Record<string, AskedFigure>;

const allFields = {
  ...vehicleFields,
  ...rearFields.disc,
  ...rearFields.drum,
  ...proportioningFields,
  ...pedalFields,
  ...ruleFields,
};
export type BoreField = keyof typeof allFields;

/** The form as it is typed. */
export type BoreTexts = Readonly<Record<BoreField | 'rear' | 'category' | 'source', string>>;

export const emptyBore: BoreTexts = {
  ...(Object.fromEntries(Object.keys(allFields).map((field) => [field, ''])) as Record<BoreField, string>),
  linkage: '0.9',
  efficiency: '0.95',
  spring: '60',
  rear: 'disc',
  category: '',
  source: '',
};

export type BoreOutcome =
  | { readonly kind: 'stop'; readonly stop: FailedAssistStop; readonly window: BoreWindow; readonly bore: number }
  /** Titles of what is missing or wrong, in the form's order. */
  | { readonly kind: 'not-yet'; readonly missing: readonly string[] };

const numberIn = (texts: BoreTexts, field: BoreField) => typedNumber(texts[field]);

function ruleIn(texts: BoreTexts): RuleFound | null {
  if (texts.category === '') return null;
  return ruleOf(texts.category === 'light' ? 'light' : 'own', {
    speedKmh: numberIn(texts, 'speed'),
    decelerationMPerS2: numberIn(texts, 'deceleration'),
    distanceA: numberIn(texts, 'distanceA'),
    distanceB: numberIn(texts, 'distanceB'),
    pedalForceN: numberIn(texts, 'force'),
    source: texts.source.trim(),
  });
}

function vehicleIn(texts: BoreTexts): VehicleBrakes {
  const value = (field: BoreField) => numberIn(texts, field)!;
  const split = numberIn(texts, 'split');
  return {
    mass: value('mass'),
    tyreRadius: value('tyreRadius') * 1e-3,
    frontTorque: discTorque(value('frontFriction'), value('frontPistons') * 1e-6, value('frontRadius') * 1e-3),
    rearTorque:
      texts.rear === 'drum'
        ? value('drum') * 1e-3
        : discTorque(value('rearFriction'), value('rearPistons') * 1e-6, value('rearRadius') * 1e-3),
    proportioning: split === undefined ? null : { split: split * 1e3, slope: numberIn(texts, 'slope') ?? 1 },
  };
}

/** What keeps the form from coming to anything. A split goes with its slope, and fluid with its travel. */
function missingIn(texts: BoreTexts): readonly string[] {
  const own = texts.category === 'own';
  const asked: Readonly<Record<string, AskedFigure>> = {
    ...(own ? ruleFields : {}),
    ...vehicleFields,
    ...rearFields[texts.rear === 'drum' ? 'drum' : 'disc'],
    ...proportioningFields,
    ...pedalFields,
  };
  const isEmpty = (field: keyof BoreTexts) => texts[field].trim() === '';
  const halves = [
    ['split', 'slope'],
    ['displaced', 'travel'],
  ] as const;
  const alone = halves.flatMap(([one, other]) =>
    isEmpty(one) === isEmpty(other) ? [] : [isEmpty(one) ? asked[one].title : asked[other].title],
  );
  return [
    ...(texts.category === '' ? ['the rule'] : []),
    ...Object.entries(asked).flatMap(([field, figure]) =>
      wrongFigure(figure, texts[field as BoreField]) === null ? [] : [figure.title],
    ),
    ...(own && isEmpty('source') ? ['Where it stands'] : []),
    ...alone,
  ];
}

/** What the form comes to. */
export function boreOf(texts: BoreTexts): BoreOutcome {
  const rule = ruleIn(texts);
  const missing = missingIn(texts);
  if (missing.length > 0 || rule?.kind !== 'rule') return { kind: 'not-yet', missing };
  const value = (field: BoreField) => numberIn(texts, field)!;
  const master: MasterCylinder = {
    pedalRatio: value('pedalRatio'),
    linkageEfficiency: value('linkage'),
    masterArea: circleArea(value('bore')),
    masterEfficiency: value('efficiency'),
    masterSpring: value('spring'),
  };
  const vehicle = vehicleIn(texts);
  const displaced = numberIn(texts, 'displaced');
  return {
    kind: 'stop',
    bore: value('bore') * 1e-3,
    stop: failedAssistStop(vehicle, master, rule.rule),
    window: boreWindow(
      vehicle,
      master,
      rule.rule,
      displaced === undefined ? null : { volume: displaced * 1e-6, pedalTravelMost: value('travel') * 1e-3 },
    ),
  };
}
