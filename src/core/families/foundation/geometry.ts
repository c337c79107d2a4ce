import type { MasterCylinder, VehicleBrakes } from '../../calculators/brake-force';
import { ruleOf, type StopRule } from '../../calculators/stop-rule';
import { circleArea } from '../../quantities/circle-area';
import { brakesFromSpec } from '../../toolboxes/foundation/brakes-from-spec';
import { ownRuleOf, type FoundationSpec } from './sheet';

/** Where a stop-lamp switch may close: of what works it, SI. */
export interface StopLamp {
  readonly by: 'master_pressure' | 'pedal_travel';
  readonly least: number;
  readonly most: number;
}

/** What sits behind the unit, SI. */
export interface FoundationUnit {
  readonly spec: FoundationSpec;
  readonly vehicle: VehicleBrakes;
  readonly master: MasterCylinder;
  readonly rule: StopRule;
  /** Assisted over unassisted, and the pedal force (N) that both are of. */
  readonly ratioLeast: number;
  readonly ratioMost: number;
  readonly ratioForce: number;
  /** Share of the split pressure, and of nothing for the slope. */
  readonly splitTolerance: number;
  readonly slopeTolerance: number;
  /** m3, and m at the pedal; null where the sheet does not say. */
  readonly displaced: number | null;
  readonly travelMost: number | null;
  readonly stopLamp: StopLamp;
}

const kpa = 1e3;
const mm = 1e-3;

/** SI form of a validated sheet. */
export function prepareFoundation(spec: FoundationSpec): FoundationUnit {
  const found = ruleOf(spec.category, ownRuleOf(spec));
  if (found.kind !== 'rule') throw new Error('a valid sheet has a whole rule');
  const split =
    spec.splitPressureKpa === undefined || spec.rearSlope === undefined
      ? null
      : { split: spec.splitPressureKpa * kpa, slope: spec.rearSlope };
  return {
    spec,
    vehicle: brakesFromSpec(spec, split),
    master: {
      pedalRatio: spec.pedalRatio,
      linkageEfficiency: spec.linkageEfficiency,
      masterArea: circleArea(spec.masterBoreMm),
      masterEfficiency: spec.masterEfficiency,
      masterSpring: spec.masterSpringForceN,
    },
    rule: found.rule,
    ratioLeast: spec.vehicleRatioMin,
    ratioMost: spec.vehicleRatioMax,
    ratioForce: spec.vehicleRatioForceN,
    splitTolerance: spec.splitTolerancePercent / 100,
    slopeTolerance: spec.rearSlopeTolerance,
    displaced: spec.displacedVolumeCm3 === undefined ? null : spec.displacedVolumeCm3 * 1e-6,
    travelMost: spec.pedalTravelMaxMm === undefined ? null : spec.pedalTravelMaxMm * mm,
    stopLamp: stopLampOf(spec),
  };
}

function stopLampOf(spec: FoundationSpec): StopLamp {
  return spec.stopLampKind === 'plunger'
    ? {
        by: 'pedal_travel',
        least: (spec.stopLampTravelMinMm ?? 0) * mm,
        most: (spec.stopLampTravelMaxMm ?? 0) * mm,
      }
    : { by: 'master_pressure', least: spec.stopLampMinKpa * kpa, most: spec.stopLampMaxKpa * kpa };
}

/** Pressure with assist over pressure without that a sound vehicle of a sheet has: the middle of what it may have. */
export function soundRatio({ ratioLeast, ratioMost }: Pick<FoundationUnit, 'ratioLeast' | 'ratioMost'>): number {
  return Math.sqrt(ratioLeast * ratioMost);
}

/** Middle of where a sound stop-lamp switch closes, SI of what works it. */
export const soundSwitch = ({ stopLamp: { least, most } }: Pick<FoundationUnit, 'stopLamp'>) => (least + most) / 2;
