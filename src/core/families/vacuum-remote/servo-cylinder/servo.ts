import type { Branch } from '../unit/control-valve';
import { chamberDifference, pullInput, runOutInput } from '../unit/control-valve';
import { cubicMetres, prepareRemote, type RemoteUnit } from '../unit/remote-unit';
import type { CurvePoint, ExpectedCurve, KeyPoint } from '../../../procedure/expected';
import type { ServoCylinderSpec } from './sheet';

const { max } = Math;

/*
 * Quasi-static model of the servo layout, V = supply vacuum, p_in gauge (Pa), forces N:
 *   D = clamp(k·(p_in − p_1), 0, V)        chamber difference, apply; with H on the way back as in the line
 *   F = max(0, eta·D·A_p − F_s)            pull at the lever: there is no slave piston, so nothing passes without vacuum
 */

/** A servo cylinder in SI. */
export interface ServoUnit extends RemoteUnit {
  readonly spec: ServoCylinderSpec;
  /** eta·k·A_p: force gained per input pressure while modulating, N/Pa. */
  readonly forceGain: number;
  /** Force the sheet states at rated vacuum and reference input, N, or null: then the diameter's. */
  readonly statedForce: number | null;
  /** m3; 0 where there is none. */
  readonly reservoir: number;
  /** Of the cylinder alone, m3, or null; `shellVolume` and `appliedVolume` count the reservoir in. */
  readonly cylinder: { readonly shell: number | null; readonly applied: number | null };
}

/** SI form of a validated sheet. */
export function prepareServo(spec: ServoCylinderSpec): ServoUnit {
  const remote = prepareRemote(spec);
  const reservoir = (spec.reservoirVolumeCm3 ?? 0) * 1e-6;
  const cylinder = { shell: cubicMetres(spec.shellVolumeCm3), applied: cubicMetres(spec.appliedVolumeCm3) };
  const withReservoir = (volume: number | null) => (volume === null ? null : volume + reservoir);
  return {
    ...remote,
    forceGain: spec.efficiency * spec.controlAreaRatio * remote.powerArea,
    statedForce: spec.servoForceN ?? null,
    reservoir,
    cylinder,
    shellVolume: withReservoir(cylinder.shell),
    appliedVolume: withReservoir(cylinder.applied),
  };
}

/** Pull (N) at a chamber difference (Pa). */
export function forceAtDifference(unit: ServoUnit, difference: number): number {
  return max(0, unit.efficiency * difference * unit.powerArea - unit.springForce);
}

/** Pull (N) that the diameter gives at an input (Pa gauge) and a supply vacuum (Pa). */
export function forceAt(unit: ServoUnit, input: number, vacuum: number, branch: Branch = 'apply'): number {
  return forceAtDifference(unit, chamberDifference(unit, input, vacuum, branch));
}

/** Where the pull begins: p_1 + F_s/(eta·k·A_p), Pa gauge. */
export function pullBegins(unit: ServoUnit): number {
  return unit.valveOpening + unit.springForce / unit.forceGain;
}

/** Pull at full activation, N. */
export function fullForce(unit: ServoUnit, vacuum: number): number {
  return forceAtDifference(unit, vacuum);
}

/** Pull at the reference input for a vacuum, N; a stated force is scaled by geometry(V)/geometry(rated). */
export function expectedForce(unit: ServoUnit, vacuum: number): number {
  const force = (at: number) => forceAt(unit, unit.referenceInput, at);
  const rated = force(unit.ratedVacuum);
  return unit.statedForce === null || rated === 0 ? force(vacuum) : (unit.statedForce * force(vacuum)) / rated;
}

/** The expected curve at a supply vacuum with its key points; `tolerance` is the band's relative half-width. */
export function expectedPull(unit: ServoUnit, vacuum: number, tolerance: number): ExpectedCurve {
  const runOut = runOutInput(unit, vacuum);
  const end = pullInput(unit, vacuum) * 1.08;
  const begins = pullBegins(unit);
  const point = (input: number, branch: Branch): CurvePoint => ({
    input,
    output: forceAt(unit, input, vacuum, branch),
  });
  const corners = (branch: Branch, shift: number) =>
    [0, max(0, begins - shift), max(0, runOut - shift), end].map((input) => point(input, branch));
  const key = (id: KeyPoint['id'], input: number): KeyPoint => ({ id, ...point(input, 'apply') });
  return {
    apply: corners('apply', 0),
    wayBack: corners('way-back', unit.hysteresis),
    keyPoints: [
      key('valve-opening', unit.valveOpening),
      key('cut-in', begins),
      key('reference', unit.referenceInput),
      key('run-out', runOut),
    ],
    tolerance,
    inputEnd: end,
  };
}

/** A band is never narrower than this share of the full pull. */
const leastReach = 0.02;

/** Where the pull of a sound unit lies, N: `high` allows for the way back where asked. */
export function forceBand(
  unit: ServoUnit,
  at: { readonly input: number; readonly vacuum: number },
  how: { readonly tolerance: number; readonly upper: Branch },
): readonly [number, number] {
  const force = forceAt(unit, at.input, at.vacuum);
  const reach = max(how.tolerance * force, leastReach * fullForce(unit, at.vacuum));
  return [force - reach, forceAt(unit, at.input, at.vacuum, how.upper) + reach];
}
