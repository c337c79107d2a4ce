import type { CurvePoint, ExpectedCurve, KeyPoint } from '../../../procedure/expected';
import type { WorkshopLimits } from '../../../procedure/workshop-limits';
import { chamberDifference, pullInput, runOutInput, type Branch } from '../unit/control-valve';
import type { InLineUnit } from './geometry';

const { max, min } = Math;

/*
 * Quasi-static model of a remote vacuum unit, pressures gauge, V = supply vacuum (all Pa):
 *   D     = clamp(k·(p_in − p_1), 0, V)                         chamber difference, apply
 *   D     = clamp(k·(p_in + H − p_1), 0, V)                     way back
 *   p_out = max(p_in, a·p_in + eta·D·A_p/A_h − f)               force balance of the slave piston
 */

/** Pressure that the power side would make (Pa gauge) at an input and a chamber difference, bypass open below. */
export function outputAtDifference(unit: InLineUnit, input: number, difference: number): number {
  const boosted = unit.a * input + (unit.efficiency * difference * unit.powerArea) / unit.slaveArea - unit.f;
  return max(input, boosted);
}

/** Expected output (Pa gauge). */
export function outputAt(unit: InLineUnit, input: number, vacuum: number, branch: Branch = 'apply'): number {
  return outputAtDifference(unit, input, chamberDifference(unit, input, vacuum, branch));
}

/** Where the assisted line meets output = input, p_c = (b·p_1 + f)/(a + b − 1), Pa gauge. */
export function cutInPressure(unit: InLineUnit): number {
  return (unit.b * unit.valveOpening + unit.f) / (unit.a + unit.b - 1);
}

/** Input difference between apply and way back at half the run-out output: H·b/(a + b), Pa. */
export function expectedHysteresis(unit: InLineUnit): number {
  return (unit.hysteresis * unit.b) / (unit.a + unit.b);
}

/** Boost ratio at the reference input for a vacuum; a stated ratio is scaled by geometry(V)/geometry(rated). */
export function expectedRatio(unit: InLineUnit, vacuum: number): number {
  const ratio = (at: number) => outputAt(unit, unit.referenceInput, at) / unit.referenceInput;
  if (unit.statedRatio === null) return ratio(vacuum);
  return (unit.statedRatio * ratio(vacuum)) / ratio(unit.ratedVacuum);
}

/** Relative half-width of the band: the sheet's tolerance of the ratio, else the workshop's. */
export function boostRatioTolerance(unit: InLineUnit, limits: WorkshopLimits): number {
  const percent = unit.spec.boostRatioTolerancePercent;
  return percent === undefined ? limits.boostRatioTolerance : percent / 100;
}

/** The expected curve at a supply vacuum with its key points and tolerance band. */
export function expectedCurve(unit: InLineUnit, vacuum: number, limits: WorkshopLimits): ExpectedCurve {
  const cutIn = cutInPressure(unit);
  const runOut = runOutInput(unit, vacuum);
  const end = pullInput(unit, vacuum) * 1.08;
  const point = (input: number, branch: Branch): CurvePoint => ({
    input,
    output: outputAt(unit, input, vacuum, branch),
  });
  const corners = (branch: Branch, shift: number) => {
    const meets = (unit.b * (unit.valveOpening - shift) + unit.f) / (unit.a + unit.b - 1);
    return [0, max(0, min(meets, end)), max(0, runOut - shift), end]
      .sort((p, q) => p - q)
      .map((input) => point(input, branch));
  };
  const key = (id: KeyPoint['id'], input: number): KeyPoint => ({ id, ...point(input, 'apply') });
  return {
    apply: corners('apply', 0),
    wayBack: corners('way-back', unit.hysteresis),
    keyPoints: [
      key('valve-opening', unit.valveOpening),
      key('cut-in', cutIn),
      key('reference', unit.referenceInput),
      key('run-out', runOut),
    ],
    tolerance: boostRatioTolerance(unit, limits),
    inputEnd: end,
  };
}
