import { optionalPositive, positive, type SheetField, type sheetFields } from '../../contract/sheet-field';
import type { BrakeFields } from './brakes-from-spec';

/** What every sheet says of the brakes of a vehicle. */
export const brakeShape = {
  frictionCoefficientFront: positive(1.5),
  pistonAreaFrontMm2: positive(50_000),
  effectiveRadiusFrontMm: positive(1000),
  frictionCoefficientRear: optionalPositive(1.5),
  pistonAreaRearMm2: optionalPositive(50_000),
  effectiveRadiusRearMm: optionalPositive(1000),
  drumFactorRear: optionalPositive(10),
  tyreRadiusMm: positive(1000),
  massKg: positive(60_000),
};

/** The rear axle has discs, whole, or drums, and not both. */
export function checkRearBrakes(spec: BrakeFields, refuse: (field: string, message: string) => void): void {
  const disc = ['frictionCoefficientRear', 'pistonAreaRearMm2', 'effectiveRadiusRearMm'] as const;
  const said = disc.filter((field) => spec[field] !== undefined);
  if (spec.drumFactorRear !== undefined && said.length > 0)
    refuse('drumFactorRear', 'the rear axle has discs or drums, not both');
  if (spec.drumFactorRear === undefined)
    for (const field of disc)
      if (spec[field] === undefined) refuse(field, 'is needed: the rear discs, or drumFactorRear for drums');
}

/** Form fields of the brakes, in the order a technician needs them. */
export function brakeSheetFields(field: ReturnType<typeof sheetFields<BrakeFields>>): readonly SheetField[] {
  const required = true;
  return [
    field('massKg', 'Vehicle mass', 'kg', 'size', { required }),
    field('tyreRadiusMm', 'Tyre radius', 'mm', 'size', { required }),
    field('frictionCoefficientFront', 'Friction, front', '1', 'size', { required }),
    field('pistonAreaFrontMm2', 'Piston area, front', 'mm2', 'size', {
      help: 'Pistons of one side of one caliper',
      required,
    }),
    field('effectiveRadiusFrontMm', 'Effective radius, front', 'mm', 'size', { required }),
    field('frictionCoefficientRear', 'Friction, rear', '1', 'size'),
    field('pistonAreaRearMm2', 'Piston area, rear', 'mm2', 'size'),
    field('effectiveRadiusRearMm', 'Effective radius, rear', 'mm', 'size'),
    field('drumFactorRear', 'Drum, rear', 'N·m/kPa', 'size', { help: 'Torque of one wheel to each kPa' }),
  ];
}
