import type { WorkshopLimits } from '../../../procedure/workshop-limits';
import { kneeForce, masterPressure, servoForce, type Branch } from '../../../toolboxes/servo/servo-law';
import type { CurvePoint, ExpectedCurve, KeyPoint } from '../../../procedure/expected';
import type { VacuumInlineUnit } from './geometry';

const { max } = Math;

/*
 * Quasi-static model of a pedal-operated vacuum unit; F_r rod force, D chamber difference:
 *   F_a = eta·A·D − F_s     assist, not clipped; the rest is the servo law
 * Largest D is the supply vacuum V.
 */

export { masterPressure, pressureSlope } from '../../../toolboxes/servo/servo-law';

/** F_a, N, at a chamber difference (Pa). */
export function assistForce(unit: VacuumInlineUnit, difference: number): number {
  return unit.efficiency * unit.area * difference - unit.springForce;
}

/** Output force (N) at a rod force (N) and a supply vacuum (Pa). */
export function outputForce(
  unit: VacuumInlineUnit,
  rodForce: number,
  vacuum: number,
  branch: Branch = 'apply',
): number {
  return servoForce(unit, rodForce, assistForce(unit, vacuum), branch);
}

/** Expected output pressure (Pa gauge) at a rod force (N) and a supply vacuum (Pa). */
export function outputAt(unit: VacuumInlineUnit, rodForce: number, vacuum: number, branch: Branch = 'apply'): number {
  return masterPressure(unit, outputForce(unit, rodForce, vacuum, branch));
}

/** Knee at a supply vacuum (Pa), N at the rod; null where assist never reaches cut-in. */
export function runOutForce(unit: VacuumInlineUnit, vacuum: number): number | null {
  return kneeForce(unit, assistForce(unit, vacuum));
}

/** Rod force that the assist curve is pushed to: clear beyond run-out, N. */
export function pushForce(unit: VacuumInlineUnit, vacuum: number): number {
  const knee = runOutForce(unit, vacuum) ?? unit.cutInForce * 2;
  return max(knee * 1.35, knee + 250);
}

export interface InlineTolerances {
  readonly cutIn: number;
  readonly jumpIn: number;
  readonly slope: number;
  readonly runOut: number;
}

const fraction = (percent: number | undefined, otherwise: number) =>
  percent === undefined ? otherwise : percent / 100;

/** Relative tolerances: the sheet's, else the workshop's. */
export function tolerancesOf({ spec }: VacuumInlineUnit, limits: WorkshopLimits): InlineTolerances {
  return {
    cutIn: fraction(spec.cutInTolerancePercent, limits.cutInForceTolerance),
    jumpIn: fraction(spec.jumpInTolerancePercent, limits.jumpInTolerance),
    slope: fraction(spec.slopeTolerancePercent, limits.slopeTolerance),
    runOut: fraction(spec.runOutTolerancePercent, limits.runOutTolerance),
  };
}

/** Lowest and highest output (Pa gauge) of a sound unit: the curve of the loosest cut-in and slope on either side. */
export function outputBand(
  unit: VacuumInlineUnit,
  rodForce: number,
  vacuum: number,
  limits: WorkshopLimits,
): readonly [number, number] {
  const { cutIn, slope } = tolerancesOf(unit, limits);
  const at = (sign: 1 | -1) => {
    const shifted = max(0, rodForce + sign * cutIn * unit.cutInForce);
    return outputAt(unit, shifted, vacuum) * (1 + sign * slope * 0.5);
  };
  return [at(-1), at(1)];
}

/** The expected curve at a supply vacuum with its key points. */
export function expectedCurve(unit: VacuumInlineUnit, vacuum: number, limits: WorkshopLimits): ExpectedCurve {
  const end = pushForce(unit, vacuum) * 1.06;
  const knee = runOutForce(unit, vacuum);
  const point = (input: number, branch: Branch): CurvePoint => ({
    input,
    output: outputAt(unit, input, vacuum, branch),
  });
  const corners = (branch: Branch, shift: number) => {
    const cutIn = unit.cutInForce - shift;
    return [0, cutIn - 1e-6, cutIn, ...(knee === null ? [] : [knee - shift]), end]
      .filter((input) => input >= 0)
      .map((input) => point(input, branch));
  };
  const key = (id: KeyPoint['id'], input: number): KeyPoint => ({ id, ...point(input, 'apply') });
  return {
    apply: corners('apply', 0),
    wayBack: corners('way-back', unit.hysteresis),
    keyPoints: [key('jump-in', unit.cutInForce), ...(knee === null ? [] : [key('run-out', knee)])],
    tolerance: tolerancesOf(unit, limits).slope,
    inputEnd: end,
    without: {
      title: 'without vacuum',
      points: Array.from({ length: 41 }, (_, at) => ({
        input: (end * at) / 40,
        output: outputAt(unit, (end * at) / 40, 0),
      })),
    },
  };
}
