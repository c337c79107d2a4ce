import * as z from 'zod';
import { type SheetField, optionalPositive, sheetFields } from '../../../contract/sheet-field';
import { refuseImpossibleRemote, remoteFields, remoteShape } from '../unit/sheet';

/** Sheet of a remote vacuum unit whose servo cylinder pulls a cam lever, with a reservoir of its own. */
export const servoCylinderSchema = z
  .strictObject({
    layout: z.literal('servo-cylinder'),
    ...remoteShape,
    reservoirVolumeCm3: optionalPositive(100_000),
    servoForceN: optionalPositive(50_000),
    servoForceTolerancePercent: optionalPositive(100),
    residualForceMaxN: optionalPositive(5000),
  })
  .superRefine((spec, context) => {
    const refuse = (field: string, message: string) => context.addIssue({ code: 'custom', path: [field], message });
    refuseImpossibleRemote(spec, refuse);
    const area = (Math.PI / 4) * (spec.powerPistonDiameterMm * 1e-3) ** 2 * spec.powerPistons;
    const full = spec.efficiency * area * spec.ratedVacuumKpa * 1e3;
    if (full <= spec.returnSpringForceN)
      refuse('returnSpringForceN', 'at rated vacuum the piston could not even move against this spring');
  });

export type ServoCylinderSpec = z.infer<typeof servoCylinderSchema>;

const field = sheetFields<ServoCylinderSpec>();
const required = true;

/** Form fields in the order a technician measures them. */
export const servoCylinderFields: readonly SheetField[] = [
  ...remoteFields.first,
  ...remoteFields.valve,
  field('referenceInputKpa', 'Reference input', 'kPa', 'behaviour', {
    help: 'Input at which the servo force is quoted',
    required,
  }),
  field('servoForceN', 'Servo force', 'N', 'behaviour', { help: 'Left empty, it follows from the diameter' }),
  ...remoteFields.behaviour,
  field('reservoirVolumeCm3', 'Reservoir volume', 'cm3', 'size', { help: 'Evacuated with the cylinder' }),
  field('servoForceTolerancePercent', 'Servo force tolerance', '%', 'tolerance'),
  ...remoteFields.tolerances,
  field('residualForceMaxN', 'Residual force at most', 'N', 'limit'),
];
