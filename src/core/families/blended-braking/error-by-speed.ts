import { plainCurve, type CurvePicture } from '../../procedure/picture';
import type { CurvePoint } from '../../procedure/expected';
import type { Trace } from '../../traces/trace';
import { windowMeans } from './drive-clock';
import type { BlendedUnit } from './geometry';
import { closedLog, isUnread, type Context } from './read-log';

const { abs, floor, max } = Math;

/** Speeds are looked at in pieces of this, m/s, up to this. */
const pieceOf = 1 / 3.6;
const drawnUpTo = 80 / 3.6;
/** The error is a mean over this, s. */
const window = 0.2;

/** Largest torque error (a lasting one, without its sign) at each speed of a drive, as a share of the largest request. */
function errorBySpeed(trace: Trace, context: Context): readonly CurvePoint[] | null {
  const read = closedLog(trace, context);
  if (isUnread(read) || !read.speed) return null;
  const { closure, drive, speed } = read;
  const means = windowMeans(closure.error, drive.clock, window);
  const largest: number[] = [];
  for (let i = 0; i < means.value.length; i++) {
    if (means.known[i] === 0 || speed.known[i] === 0) continue;
    const piece = max(0, floor(speed.value[i] / pieceOf));
    largest[piece] = max(largest[piece] ?? 0, abs(means.value[i]));
  }
  const points = largest.flatMap((torque, piece): CurvePoint[] => [
    { input: (piece + 0.5) * pieceOf, output: torque / drive.largest },
  ]);
  return points.length > 1 ? points : null;
}

const overBand = plainCurve<BlendedUnit>({
  input: 'vehicle_speed',
  outputs: ['torque_error'],
  inputEnd: () => drawnUpTo,
  band: (unit, speed) => [
    0,
    // What may be missing in the handover is less than elsewhere.
    speed < unit.handoverHigh ? unit.handoverDipMost : unit.closureWorstMost,
  ],
  workedOut: errorBySpeed,
});

/** The face of a drive: at which speed how much torque was wrong, over what may be; none is what is expected. */
export const errorCurve: CurvePicture<BlendedUnit> = {
  ...overBand,
  expected: (unit, supply, here) => {
    const curve = overBand.expected(unit, supply, here);
    return { ...curve, apply: curve.apply.map(({ input }) => ({ input, output: 0 })) };
  },
};
