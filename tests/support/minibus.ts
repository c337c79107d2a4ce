import { discTorque, type MasterCylinder, type VehicleBrakes } from '@/core/calculators/brake-force';

/** Brakes and pedal of a minibus of 1,600 kg, SI. */
export const minibus: VehicleBrakes = {
  mass: 1600,
  tyreRadius: 0.3,
  frontTorque: discTorque(0.38, 2290e-6, 0.115),
  rearTorque: discTorque(0.38, 900e-6, 0.11),
  proportioning: { split: 2500e3, slope: 0.4 },
};
export const minibusPedal: MasterCylinder = {
  pedalRatio: 4,
  linkageEfficiency: 0.9,
  masterArea: (Math.PI * 23.8e-3 ** 2) / 4,
  masterEfficiency: 0.95,
  masterSpring: 60,
};

/** The same as it is typed, by the labels of its fields. */
export const minibusTyped: readonly (readonly [RegExp, string])[] = [
  [/^Vehicle mass/, '1600'],
  [/^Tyre radius/, '300'],
  [/^Friction, front/, '0.38'],
  [/^Piston area, front/, '2290'],
  [/^Effective radius, front/, '115'],
  [/^Friction, rear/, '0.38'],
  [/^Piston area, rear/, '900'],
  [/^Effective radius, rear/, '110'],
  [/^Split pressure/, '2500'],
  [/^Rear slope/, '0.4'],
  [/^Master cylinder bore/, '23.8'],
  [/^Pedal ratio/, '4'],
];
