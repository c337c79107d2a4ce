import type { ExpectedCurve, Here } from '../procedure/expected';
import type { CurvePicture } from '../procedure/picture';

/** Where a sound unit would lie: inputs (SI) with the low and high output (SI) at each. */
export interface ToleranceBand {
  readonly input: readonly number[];
  readonly low: readonly number[];
  readonly high: readonly number[];
  readonly curve: ExpectedCurve;
}

const bandPoints = 72;

/**
 * The band of a unit, with the supply (SI) that was there at each input: `supplyAt` gives it where the pull has passed
 * already, and the supply of this moment further on.
 */
export function toleranceBand<Unit>(
  picture: CurvePicture<Unit>,
  unit: Unit,
  supplyAt: (input: number) => number,
  here: Here,
): ToleranceBand {
  const curve = picture.expected(unit, supplyAt(0), here);
  const corners = curve.keyPoints.map((point) => point.input);
  const input = Array.from({ length: bandPoints + 1 }, (_, i) => (curve.inputEnd * i) / bandPoints)
    .concat(corners)
    .filter((value) => value <= curve.inputEnd)
    .sort((p, q) => p - q);
  const band = input.map((at) => picture.band(unit, at, supplyAt(at), here));
  return { input, low: band.map(([low]) => low), high: band.map(([, high]) => high), curve };
}
