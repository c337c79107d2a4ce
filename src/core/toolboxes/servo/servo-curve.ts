import type { CurvePoint, ExpectedCurve, KeyPoint } from '../../procedure/expected';
import type { CurvePicture } from '../../procedure/picture';
import type { WorkshopLimits } from '../../procedure/workshop-limits';
import { servoBand, servoKnee, servoOutput, servoPush, type PressureServo, type ServoSetup } from './pressure-servo';
import type { Branch } from './servo-law';

/** Expected assist curve of a pressure-fed servo over the force of its lever, with its key points. */
export function servoCurve<Unit extends PressureServo>(
  setup: ServoSetup<Unit>,
  unit: Unit,
  pressure: number,
  shop: WorkshopLimits,
): ExpectedCurve {
  const leverage = setup.leverage(unit);
  const end = servoPush(setup, unit, pressure) * 1.06;
  const knee = servoKnee(setup, unit, pressure);
  const cutIn = unit.cutInForce / leverage;
  const point = (input: number, branch: Branch): CurvePoint => ({
    input,
    output: servoOutput(setup, unit, input, pressure, branch),
  });
  const corners = (branch: Branch, shift: number) =>
    [0, cutIn - shift - 1e-6, cutIn - shift, ...(knee === null ? [] : [knee - shift]), end]
      .filter((input) => input >= 0)
      .map((input) => point(input, branch));
  const key = (id: KeyPoint['id'], input: number): KeyPoint => ({ id, ...point(input, 'apply') });
  return {
    apply: corners('apply', 0),
    wayBack: corners('way-back', unit.hysteresis / leverage),
    keyPoints: [key('jump-in', cutIn), ...(knee === null ? [] : [key('run-out', knee)])],
    tolerance: shop.slopeTolerance,
    inputEnd: end,
    without: { title: 'without power', points: unfed(setup, unit, end) },
  };
}

/** Pushed with nothing that feeds it: the foot alone, once the return spring has given way. */
function unfed<Unit extends PressureServo>(setup: ServoSetup<Unit>, unit: Unit, end: number): readonly CurvePoint[] {
  const points = 40;
  return Array.from({ length: points + 1 }, (_, at) => {
    const input = (end * at) / points;
    return { input, output: servoOutput(setup, unit, input, 0) };
  });
}

/** Output over the force of the lever, as a pressure-fed servo is drawn. */
export function servoPicture<Unit extends PressureServo>(setup: ServoSetup<Unit>): CurvePicture<Unit> {
  return {
    kind: 'curve',
    input: setup.lever,
    outputs: ['output_pressure'],
    expected: (unit, pressure, { workshopLimits }) => servoCurve(setup, unit, pressure, workshopLimits),
    band: (unit, lever, pressure, { workshopLimits }) => servoBand(setup, unit, { lever, pressure }, workshopLimits),
  };
}
