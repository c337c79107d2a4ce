import * as z from 'zod';
import { sourceChoices } from '../../toolboxes/vacuum/source-vacuum';
import { type SheetField, optionalPositive, positive, sheetFields } from '../../contract/sheet-field';

/** Sheet of a vacuum source: an engine's manifold, a driven pump, or an electric pump with its reservoir. */
export const vacuumSupplySchema = z
  .strictObject({
    sourceKind: z.enum(['manifold', 'pump']).optional(),
    drive: z.enum(['engine', 'electric']).default('engine'),
    reservoirVolumeCm3: positive(200_000),
    seaLevelVacuumKpa: positive(101),
    pumpSpeedLPerMin: positive(2000),
    cutInVacuumKpa: optionalPositive(101),
    cutOutVacuumKpa: optionalPositive(101),
    sensorReference: z.enum(['differential', 'absolute']).default('differential'),
    applicationVolumeCm3: positive(20_000).default(600),
    pumpSpeedTolerancePercent: optionalPositive(100),
    switchTolerancePercent: optionalPositive(100),
    ultimateTolerancePercent: optionalPositive(100),
    drawTimeMaxS: optionalPositive(600),
    runTimeMaxS: optionalPositive(600),
    restTimeMinS: optionalPositive(86_400),
    leakFlowMaxCm3PerMin: optionalPositive(1e6),
    reverseLeakMaxKpa: optionalPositive(100),
    vacuumPerApplicationMaxKpa: optionalPositive(100),
  })
  .superRefine((spec, context) => {
    const refuse = (field: string, message: string) => context.addIssue({ code: 'custom', path: [field], message });
    const { cutInVacuumKpa: cutIn, cutOutVacuumKpa: cutOut } = spec;
    if (spec.drive === 'electric' && cutIn === undefined) refuse('cutInVacuumKpa', 'an electric pump has a cut-in');
    if (spec.drive === 'electric' && cutOut === undefined) refuse('cutOutVacuumKpa', 'an electric pump has a cut-out');
    if (cutIn !== undefined && cutOut !== undefined && cutIn >= cutOut)
      refuse('cutInVacuumKpa', 'must be below cutOutVacuumKpa: the pump starts at the lower vacuum');
    if (cutOut !== undefined && cutOut >= spec.seaLevelVacuumKpa)
      refuse('cutOutVacuumKpa', 'must be below seaLevelVacuumKpa, else the pump never stops');
    if (spec.drive === 'electric' && spec.sourceKind === 'manifold')
      refuse('sourceKind', 'an electric pump is a pump, not a manifold');
  });

export type VacuumSupplySpec = z.infer<typeof vacuumSupplySchema>;

const field = sheetFields<VacuumSupplySpec>();
const required = true;

/** Form fields in the order a technician finds them out. */
export const vacuumSupplyFields: readonly SheetField[] = [
  field('sourceKind', 'Source', '', 'behaviour', {
    help: 'They lose their vacuum differently with height',
    choices: sourceChoices,
  }),
  field('drive', 'Driven by', '', 'behaviour', {
    choices: [
      { value: 'engine', title: 'Engine: manifold, cam or belt' },
      { value: 'electric', title: 'Electric motor' },
    ],
  }),
  field('reservoirVolumeCm3', 'Volume pumped', 'cm3', 'size', {
    help: 'Reservoir, hoses and the unit at its end',
    required,
  }),
  field('seaLevelVacuumKpa', 'Vacuum at sea level', 'kPa', 'behaviour', {
    help: 'What it reaches with time',
    required,
  }),
  field('pumpSpeedLPerMin', 'Pump speed', 'L/min', 'behaviour', { help: 'Free air at the inlet', required }),
  field('cutInVacuumKpa', 'Starts at', 'kPa', 'behaviour', { help: 'Electric pump' }),
  field('cutOutVacuumKpa', 'Stops at', 'kPa', 'behaviour', { help: 'Electric pump' }),
  field('sensorReference', 'Its sensor is', '', 'behaviour', {
    help: 'The thresholds of an absolute sensor shift with height',
    choices: [
      { value: 'differential', title: 'Differential' },
      { value: 'absolute', title: 'Absolute' },
    ],
  }),
  field('applicationVolumeCm3', 'Air let in per stroke', 'cm3', 'behaviour', { help: 'At the local atmosphere' }),
  field('pumpSpeedTolerancePercent', 'Speed may be less by', '%', 'tolerance'),
  field('switchTolerancePercent', 'Thresholds may be off by', '%', 'tolerance'),
  field('ultimateTolerancePercent', 'Ultimate pressure may be more by', '%', 'tolerance'),
  field('drawTimeMaxS', 'Draw time at most', 's', 'limit'),
  field('runTimeMaxS', 'Run time at most', 's', 'limit'),
  field('restTimeMinS', 'Rest between runs at least', 's', 'limit'),
  field('leakFlowMaxCm3PerMin', 'Leak flow at most', 'cm3/min', 'limit'),
  field('reverseLeakMaxKpa', 'Back through the check valve at most', 'kPa', 'limit'),
  field('vacuumPerApplicationMaxKpa', 'Drop per stroke at most', 'kPa', 'limit'),
];
