import type { Truth } from '../../contract/model';
import { letGoSeconds, settles } from '../../toolboxes/analysis/let-go';
import { kneeForce, masterPressure, pressureSlope } from '../../toolboxes/servo/servo-law';
import { sagResistance } from '../../toolboxes/electrical/battery';
import { batteryAbove } from '../../toolboxes/electrical/supply-check-step';
import { awakeCurrent, rodLag } from './bench-stand';
import type { MotorBoostCondition } from './faults';
import { assistForce, outputAt, pushForce, type MotorBoostUnit } from './geometry';
import { residualLimit, stampShare } from './response-steps';
import type { Context } from './step-parts';

/** Whether a current flows when the foot asks for it. */
const works = ({ feedOpen, ignitionOpen }: MotorBoostCondition) => !feedOpen && !ignitionOpen;

/** What a perfect measurement would say of a motor booster. */
export function motorBoostTruth(unit: MotorBoostUnit, condition: MotorBoostCondition, context: Context): Truth {
  return {
    'unassisted-slope': pressureSlope(unit, 1),
    ...trackTruth(unit, condition),
    ...(condition.feedOpen ? {} : { 'quiescent-current': condition.asleep }),
    ...(works(condition) ? { ...supplyTruth(unit, condition), ...curveTruth(unit, condition, context) } : {}),
  };
}

function trackTruth({ sensor }: MotorBoostUnit, condition: MotorBoostCondition): Truth {
  if (!works(condition)) return {};
  const perTravel = (sensor.supply * (sensor.end - sensor.start)) / sensor.stroke;
  const shifted = condition.magnetShift * perTravel;
  return {
    'sum-error': condition.trackOffset,
    'track-gain@a': 1,
    'track-gain@b': 1,
    'track-offset@a': condition.trackOffset + shifted,
    'track-offset@b': -shifted,
    dropouts: condition.dropout > 0 ? 2 : 0,
  };
}

/** Held at its most the motor draws the rated current for its share of the force, and a little for the controller. */
function heldCurrent(unit: MotorBoostUnit, { motor }: MotorBoostCondition): number {
  return awakeCurrent + unit.ratedCurrent * motor;
}

function supplyTruth(unit: MotorBoostUnit, condition: MotorBoostCondition): Truth {
  const current = heldCurrent(unit, condition);
  const { feedResistance, groundResistance } = condition;
  const voltage = unit.ratedVoltage * batteryAbove - current * (feedResistance + groundResistance + sagResistance);
  // With less than its rated voltage the motor draws less too, by as much as it pushes less.
  if (voltage < unit.ratedVoltage) return {};
  const drop = (resistance: number, limit: number) => {
    const seen = current * resistance;
    return seen > limit ? seen : seen * Math.max(1, unit.ratedCurrent / current);
  };
  return {
    'supply-drop': drop(feedResistance, unit.supplyDropMax),
    'ground-drop': drop(groundResistance, unit.groundDropMax),
  };
}

function curveTruth(unit: MotorBoostUnit, condition: MotorBoostCondition, context: Context): Truth {
  const { motor, backlash, lag, releaseLag, residual } = condition;
  const voltage =
    unit.ratedVoltage * batteryAbove -
    heldCurrent(unit, condition) * (condition.feedResistance + condition.groundResistance + sagResistance);
  const slow = releaseLag > settles || lag > settles;
  const worn = { ...unit, motorForce: unit.motorForce * motor };
  const knee = voltage < unit.ratedVoltage ? null : kneeForce(worn, assistForce(worn, unit.ratedVoltage));
  const held = pushForce(unit, unit.ratedVoltage) * stampShare;
  const seconds = slow
    ? null
    : letGoSeconds({
        held,
        leverLag: rodLag,
        balance: (rod) => Math.max(outputAt(worn, rod, voltage, 'way-back'), residual),
        lag: () => releaseLag,
        gone: residualLimit(context).value,
      });
  return {
    // A motor that follows late comes late along the push.
    ...(lag > settles
      ? {}
      : {
          'cut-in-force': unit.cutInForce,
          'jump-in-output': masterPressure(unit, unit.jumpInForce),
          'force-slope': pressureSlope(unit, unit.servoRatio),
          ...(knee === null
            ? {}
            : { 'run-out-force': knee, 'run-out-output': outputAt(worn, knee, unit.ratedVoltage) }),
        }),
    ...(slow ? {} : { 'force-hysteresis': unit.hysteresis + backlash }),
    // What comes back slowly is still falling when it is read.
    ...(slow ? {} : { 'residual-output': residual }),
    ...(seconds === null ? {} : { 'release-time': seconds }),
  };
}
