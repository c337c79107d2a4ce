import { z } from 'zod';
import { optionalPositive, positive, sheetFields } from '../common/sheet-field';
import type { SheetField } from '../family';

/** Sheet of a remote vacuum unit, as written in a unit file. Pressures gauge unless the name says vacuum. */
export const vacuumRemoteSchema = z
  .strictObject({
    powerPistonDiameterMm: positive(600),
    powerPistons: z.union([z.literal(1), z.literal(2)]).default(1),
    slaveBoreMm: positive(100),
    pushRodDiameterMm: positive(60),
    cutInPressureKpa: positive(3000),
    controlAreaRatio: z.number().positive().max(1),
    returnSpringForceN: z.number().min(0).max(5000).default(150),
    efficiency: z.number().gt(0).max(1).default(0.95),
    hysteresisKpa: z.number().min(0).max(1000).default(120),
    ratedVacuumKpa: positive(100),
    referenceInputKpa: positive(20000),
    boostRatio: optionalPositive(20),
    shellVolumeCm3: optionalPositive(100_000),
    appliedVolumeCm3: optionalPositive(100_000),
    fluid: z.enum(['glycol', 'silicone', 'mineral']).default('glycol'),
    layout: z.enum(['in-line-slave']).default('in-line-slave'),
    switchCloseMinKpa: optionalPositive(10_000),
    switchCloseMaxKpa: optionalPositive(10_000),
    boostRatioTolerancePercent: optionalPositive(100),
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
    residualMaxKpa: optionalPositive(2000),
  })
  .superRefine((spec, context) => {
    const refuse = (field: string, message: string) => context.addIssue({ code: 'custom', path: [field], message });
    if (spec.hysteresisKpa >= spec.cutInPressureKpa)
      refuse('hysteresisKpa', 'must be below cutInPressureKpa, else assist stays on at rest');
    if (spec.pushRodDiameterMm >= spec.slaveBoreMm) refuse('pushRodDiameterMm', 'must be smaller than slaveBoreMm');
    if (spec.slaveBoreMm >= spec.powerPistonDiameterMm)
      refuse('slaveBoreMm', 'must be smaller than powerPistonDiameterMm');
    const shell = spec.shellVolumeCm3;
    if (shell !== undefined && spec.appliedVolumeCm3 !== undefined && spec.appliedVolumeCm3 >= shell)
      refuse('appliedVolumeCm3', 'must be smaller than shellVolumeCm3: it is only the vacuum side');
    const closeMin = spec.switchCloseMinKpa;
    if (closeMin !== undefined && spec.switchCloseMaxKpa !== undefined && closeMin >= spec.switchCloseMaxKpa)
      refuse('switchCloseMinKpa', 'must be below switchCloseMaxKpa');
    if (!boosts(spec)) refuse('controlAreaRatio', 'with these diameters the unit would not boost at all');
  });

export type VacuumRemoteSpec = z.infer<typeof vacuumRemoteSchema>;

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

const field = sheetFields<VacuumRemoteSpec>();
const required = true;

/** Form fields in the order a technician measures them. */
export const vacuumRemoteFields: readonly SheetField[] = [
  field('powerPistonDiameterMm', 'Power piston diameter', 'mm', 'size', {
    help: 'Effective diameter of the piston or diaphragm',
    required,
  }),
  field('powerPistons', 'Power pistons', '1', 'size', { help: '1, or 2 for a tandem unit: areas add' }),
  field('slaveBoreMm', 'Slave bore', 'mm', 'size', { required }),
  field('pushRodDiameterMm', 'Push rod diameter', 'mm', 'size', {
    help: 'Where it passes its seal into the slave cylinder',
    required,
  }),
  field('controlAreaRatio', 'Control area ratio k', '1', 'size', {
    help: 'Control piston area over control diaphragm area',
    required,
  }),
  field('cutInPressureKpa', 'Control valve opens at', 'kPa', 'behaviour', {
    help: 'Input pressure at which the control port leaves the supply',
    required,
  }),
  field('ratedVacuumKpa', 'Rated vacuum', 'kPa', 'behaviour', {
    help: 'Vacuum that the sheet’s ratio was stated for',
    required,
  }),
  field('referenceInputKpa', 'Reference input', 'kPa', 'behaviour', {
    help: 'Input at which the boost ratio is quoted',
    required,
  }),
  field('boostRatio', 'Boost ratio', '1', 'behaviour', { help: 'Left empty, it follows from the diameters' }),
  field('returnSpringForceN', 'Return spring force', 'N', 'behaviour'),
  field('efficiency', 'Efficiency', '1', 'behaviour', { help: 'Seal friction of the power side' }),
  field('hysteresisKpa', 'Hysteresis at the valve', 'kPa', 'behaviour'),
  field('shellVolumeCm3', 'Shell volume', 'cm3', 'size', { help: 'Needed to state a leak as a flow' }),
  field('appliedVolumeCm3', 'Vacuum side when applied', 'cm3', 'size'),
  field('switchCloseMinKpa', 'Stop-lamp switch closes from', 'kPa', 'limit'),
  field('switchCloseMaxKpa', 'Stop-lamp switch closes by', 'kPa', 'limit'),
  field('boostRatioTolerancePercent', 'Boost ratio tolerance', '%', 'tolerance'),
  field('runOutTolerancePercent', 'Run-out tolerance', '%', 'tolerance'),
  field('cutInTolerancePercent', 'Cut-in tolerance', '%', 'tolerance'),
  field('hysteresisMaxKpa', 'Hysteresis at most', 'kPa', 'limit'),
  field('controlRemainderMaxPercent', 'Control remainder at most', '%', 'limit', { help: 'Of the supply vacuum' }),
  field('supplySagMaxPercent', 'Supply sag at most', '%', 'limit', { help: 'Of the supply vacuum' }),
  field('restDifferenceMaxKpa', 'Control against supply at rest', 'kPa', 'limit'),
  field('pairErrorMaxPercent', 'Pair error at most', '%', 'limit'),
  field('vacuumLossMaxKpa', 'Vacuum loss at most', 'kPa', 'limit'),
  field('vacuumLossSeconds', 'Vacuum loss over', 's', 'limit'),
  field('leakFlowMaxCm3PerMin', 'Leak flow at most', 'cm3/min', 'limit'),
  field('outputDecayMaxPercentPerMin', 'Output decay at most', '%', 'limit', {
    help: 'Of the held pressure, per minute',
  }),
  field('residualMaxKpa', 'Residual output at most', 'kPa', 'limit'),
  field('releaseTimeMaxS', 'Release time at most', 's', 'limit'),
];
