import type { StepCurve, ExpectedCurve, Here } from '../procedure/expected';
import type { AnyKind } from '../contract/kind';

/** Where a sound unit would lie: inputs (SI) with the low and high output (SI) at each. */
export interface ToleranceBand {
  readonly input: readonly number[];
  readonly low: readonly number[];
  readonly high: readonly number[];
  readonly curve: ExpectedCurve;
}

const bandPoints = 72;

/** The band of a step that has a curve of its own. */
export function stepBand(curve: StepCurve): ToleranceBand {
  const input = Array.from({ length: bandPoints + 1 }, (_, i) => (curve.inputEnd * i) / bandPoints);
  const band = input.map(curve.band);
  const points = input.map((at, i) => ({ input: at, output: (band[i][0] + band[i][1]) / 2 }));
  return {
    input,
    low: band.map(([low]) => low),
    high: band.map(([, high]) => high),
    curve: { apply: points, wayBack: [], keyPoints: [], tolerance: 0, inputEnd: curve.inputEnd },
  };
}

/**
 * The band of a unit, with the supply vacuum (Pa) that was there at each input: `vacuumAt` gives it where the pull
 * has passed already, and the vacuum of this moment further on.
 */
export function toleranceBand(
  kind: AnyKind,
  unit: unknown,
  vacuumAt: (input: number) => number,
  here: Here,
): ToleranceBand {
  const curve = kind.expectedCurve(unit, vacuumAt(0), here);
  const corners = curve.keyPoints.map((point) => point.input);
  const input = Array.from({ length: bandPoints + 1 }, (_, i) => (curve.inputEnd * i) / bandPoints)
    .concat(corners)
    .filter((value) => value <= curve.inputEnd)
    .sort((p, q) => p - q);
  const band = input.map((at) => kind.expectedBand(unit, at, vacuumAt(at), here));
  return { input, low: band.map(([low]) => low), high: band.map(([, high]) => high), curve };
}
