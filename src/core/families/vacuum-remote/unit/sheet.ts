import * as z from 'zod';
import { fluidChoices, fluidKinds } from '../../../vocabulary/fluid';
import { type SheetField, optionalPositive, positive, sheetFields } from '../../../contract/sheet-field';

/** What both layouts of a remote vacuum unit say, as written in a unit file. Pressures gauge unless the name says vacuum. */
export const remoteShape = {
  powerPistonDiameterMm: positive(600),
  powerPistons: z.union([z.literal(1), z.literal(2)]).default(1),
  cutInPressureKpa: positive(3000),
  controlAreaRatio: z.number().positive().max(1),
  returnSpringForceN: z.number().min(0).max(5000).default(150),
  efficiency: z.number().gt(0).max(1).default(0.95),
  hysteresisKpa: z.number().min(0).max(1000).default(120),
  ratedVacuumKpa: positive(100),
  referenceInputKpa: positive(20000),
  shellVolumeCm3: optionalPositive(100_000),
  appliedVolumeCm3: optionalPositive(100_000),
  fluid: z.enum(fluidKinds).default('glycol'),
  switchCloseMinKpa: optionalPositive(10_000),
  switchCloseMaxKpa: optionalPositive(10_000),
  runOutTolerancePercent: optionalPositive(100),
  cutInTolerancePercent: optionalPositive(100),
  leakFlowMaxCm3PerMin: optionalPositive(1e6),
  supplySagMaxPercent: optionalPositive(100),
  hysteresisMaxKpa: optionalPositive(5000),
  controlRemainderMaxPercent: optionalPositive(100),
  restDifferenceMaxKpa: optionalPositive(100),
  pairErrorMaxPercent: optionalPositive(100),
  releaseTimeMaxS: optionalPositive(120),
  vacuumLossMaxKpa: optionalPositive(100),
  vacuumLossSeconds: optionalPositive(86_400),
  outputDecayMaxPercentPerMin: optionalPositive(100),
};

/** What both layouts say, checked. */
export type RemoteSpec = z.infer<z.ZodObject<typeof remoteShape>>;

export type Refuse = (field: string, message: string) => void;

/** What cannot be true of a remote unit of either layout. */
export function refuseImpossibleRemote(spec: RemoteSpec, refuse: Refuse): void {
  if (spec.hysteresisKpa >= spec.cutInPressureKpa)
    refuse('hysteresisKpa', 'must be below cutInPressureKpa, else assist stays on at rest');
  const shell = spec.shellVolumeCm3;
  if (shell !== undefined && spec.appliedVolumeCm3 !== undefined && spec.appliedVolumeCm3 >= shell)
    refuse('appliedVolumeCm3', 'must be smaller than shellVolumeCm3: it is only the vacuum side');
  const closeMin = spec.switchCloseMinKpa;
  if (closeMin !== undefined && spec.switchCloseMaxKpa !== undefined && closeMin >= spec.switchCloseMaxKpa)
    refuse('switchCloseMinKpa', 'must be below switchCloseMaxKpa');
}

/** Sheet of a remote vacuum unit whose slave piston stands in the brake line. */
export const inLineSchema = z
  .strictObject({
    layout: z.literal('in-line-slave').optional().default('in-line-slave'),
    ...remoteShape,
    slaveBoreMm: positive(100),
    pushRodDiameterMm: positive(60),
    boostRatio: optionalPositive(20),
    boostRatioTolerancePercent: optionalPositive(100),
    residualMaxKpa: optionalPositive(2000),
  })
  .superRefine((spec, context) => {
    const refuse = (field: string, message: string) => context.addIssue({ code: 'custom', path: [field], message });
    refuseImpossibleRemote(spec, refuse);
    if (spec.pushRodDiameterMm >= spec.slaveBoreMm) refuse('pushRodDiameterMm', 'must be smaller than slaveBoreMm');
    if (spec.slaveBoreMm >= spec.powerPistonDiameterMm)
      refuse('slaveBoreMm', 'must be smaller than powerPistonDiameterMm');
    if (!boosts(spec)) refuse('controlAreaRatio', 'with these diameters the unit would not boost at all');
  });

export type InLineSpec = z.infer<typeof inLineSchema>;

/** Whether the assisted line rises faster than output = input: a + b > 1. */
function boosts(spec: {
  powerPistonDiameterMm: number;
  powerPistons: number;
  slaveBoreMm: number;
  pushRodDiameterMm: number;
  controlAreaRatio: number;
  efficiency: number;
}): boolean {
  const slave = spec.slaveBoreMm ** 2;
  const a = (slave - spec.pushRodDiameterMm ** 2) / slave;
  const b = (spec.efficiency * spec.controlAreaRatio * spec.powerPistons * spec.powerPistonDiameterMm ** 2) / slave;
  return a + b > 1;
}

const required = true;

/** How a form offers the two layouts. */
export const layoutChoices = [
  { value: 'in-line-slave', title: 'Slave piston in the line' },
  { value: 'servo-cylinder', title: 'Servo cylinder and lever' },
] as const;

const remote = sheetFields<RemoteSpec & { layout: string }>();

/** Form fields of both layouts, in the order a technician measures them. */
export const remoteFields = {
  first: [
    remote('layout', 'Layout', '1', 'size', {
      help: 'What the power piston works on',
      choices: layoutChoices,
    }),
    remote('powerPistonDiameterMm', 'Power piston diameter', 'mm', 'size', {
      help: 'Effective diameter of the piston or diaphragm',
      required,
    }),
    remote('powerPistons', 'Power pistons', '1', 'size', { help: '1, or 2 for a tandem unit: areas add' }),
  ],
  valve: [
    remote('controlAreaRatio', 'Control area ratio k', '1', 'size', {
      help: 'Control piston area over control diaphragm area',
      required,
    }),
    remote('cutInPressureKpa', 'Control valve opens at', 'kPa', 'behaviour', {
      help: 'Input pressure at which the control port leaves the supply',
      required,
    }),
    remote('ratedVacuumKpa', 'Rated vacuum', 'kPa', 'behaviour', {
      help: 'Vacuum that the sheet’s figures were stated for',
      required,
    }),
  ],
  behaviour: [
    remote('returnSpringForceN', 'Return spring force', 'N', 'behaviour'),
    remote('efficiency', 'Efficiency', '1', 'behaviour', { help: 'Seal friction of the power side' }),
    remote('hysteresisKpa', 'Hysteresis at the valve', 'kPa', 'behaviour'),
    remote('fluid', 'Fluid', '1', 'behaviour', { help: 'Glycol where nothing is said', choices: fluidChoices }),
    remote('shellVolumeCm3', 'Shell volume', 'cm3', 'size', { help: 'Needed to state a leak as a flow' }),
    remote('appliedVolumeCm3', 'Vacuum side when applied', 'cm3', 'size'),
    remote('switchCloseMinKpa', 'Stop-lamp switch closes from', 'kPa', 'limit'),
    remote('switchCloseMaxKpa', 'Stop-lamp switch closes by', 'kPa', 'limit'),
  ],
  tolerances: [
    remote('runOutTolerancePercent', 'Run-out tolerance', '%', 'tolerance'),
    remote('cutInTolerancePercent', 'Cut-in tolerance', '%', 'tolerance'),
    remote('hysteresisMaxKpa', 'Hysteresis at most', 'kPa', 'limit'),
    remote('controlRemainderMaxPercent', 'Control remainder at most', '%', 'limit', { help: 'Of the supply vacuum' }),
    remote('supplySagMaxPercent', 'Supply sag at most', '%', 'limit', { help: 'Of the supply vacuum' }),
    remote('restDifferenceMaxKpa', 'Control against supply at rest', 'kPa', 'limit'),
    remote('pairErrorMaxPercent', 'Pair error at most', '%', 'limit'),
    remote('vacuumLossMaxKpa', 'Vacuum loss at most', 'kPa', 'limit'),
    remote('vacuumLossSeconds', 'Vacuum loss over', 's', 'limit'),
    remote('leakFlowMaxCm3PerMin', 'Leak flow at most', 'cm3/min', 'limit'),
    remote('outputDecayMaxPercentPerMin', 'Pressure decay at most', '%', 'limit', {
      help: 'Of the held pressure, per minute',
    }),
    remote('releaseTimeMaxS', 'Release time at most', 's', 'limit'),
  ],
} satisfies Record<string, readonly SheetField[]>;

const field = sheetFields<InLineSpec>();

/** Form fields in the order a technician measures them. */
export const inLineFields: readonly SheetField[] = [
  ...remoteFields.first,
  field('slaveBoreMm', 'Slave bore', 'mm', 'size', { required }),
  field('pushRodDiameterMm', 'Push rod diameter', 'mm', 'size', {
    help: 'Where it passes its seal into the slave cylinder',
    required,
  }),
  ...remoteFields.valve,
  field('referenceInputKpa', 'Reference input', 'kPa', 'behaviour', {
    help: 'Input at which the boost ratio is quoted',
    required,
  }),
  field('boostRatio', 'Boost ratio', '1', 'behaviour', { help: 'Left empty, it follows from the diameters' }),
  ...remoteFields.behaviour,
  field('boostRatioTolerancePercent', 'Boost ratio tolerance', '%', 'tolerance'),
  ...remoteFields.tolerances,
  field('residualMaxKpa', 'Residual output at most', 'kPa', 'limit'),
];
