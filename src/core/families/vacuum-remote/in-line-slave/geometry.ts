import { circleArea } from '../../../quantities/circle-area';
import { prepareRemote, type RemoteUnit } from '../unit/remote-unit';
import type { InLineSpec } from '../unit/sheet';

/** A remote vacuum unit in the brake line in SI, with the three numbers of its assisted line. */
export interface InLineUnit extends RemoteUnit {
  readonly spec: InLineSpec;
  /** Slave piston area A_h, m2. */
  readonly slaveArea: number;
  /** Push rod area A_r, m2. */
  readonly rodArea: number;
  /** Ratio the sheet states at rated vacuum, or null: then the geometry's. */
  readonly statedRatio: number | null;
  /** a = (A_h − A_r)/A_h: slope beyond run-out. */
  readonly a: number;
  /** b = eta·k·A_p/A_h. */
  readonly b: number;
  /** f = F_s/A_h, Pa. */
  readonly f: number;
}

/** SI form of a validated sheet. */
export function prepareInLine(spec: InLineSpec): InLineUnit {
  const remote = prepareRemote(spec);
  const slaveArea = circleArea(spec.slaveBoreMm);
  const rodArea = circleArea(spec.pushRodDiameterMm);
  return {
    ...remote,
    slaveArea,
    rodArea,
    statedRatio: spec.boostRatio ?? null,
    a: (slaveArea - rodArea) / slaveArea,
    b: (spec.efficiency * spec.controlAreaRatio * remote.powerArea) / slaveArea,
    f: spec.returnSpringForceN / slaveArea,
  };
}
