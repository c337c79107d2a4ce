import { onGauge } from '../../dials/asked';
import { entryFromReadings } from '../../dials/from-readings';
import { timedAsked, timedFigure } from '../../dials/timed';
import type { TypedEntry } from '../../procedure/typed-entry';

/** Entry of a release: the output before the push and once it was let go, and how long it took. */
export function releaseEntry(of: {
  readonly output: 'output_pressure' | 'rod_force';
  readonly residual: 'residual-output' | 'servo-residual';
}): TypedEntry<unknown> {
  return entryFromReadings({
    characteristics: () => ['release-time', of.residual],
    terms: () => ({ [of.residual]: ['after', '−', 'before'] }),
    once: () => [
      onGauge('before', of.output, 'Output before the push'),
      ...timedAsked('let-go', 'From letting go until it stands', 'Stop as the needle comes to rest'),
      onGauge('after', of.output, 'Output once it stands'),
    ],
    reckon: ({ once }) => {
      const time = timedFigure(once, 'let-go', 'release-time');
      return {
        figures: (moved) => ({
          'release-time': time.of(moved.once),
          [of.residual]: moved.once.after - moved.once.before,
        }),
        bounds: time.bounds,
      };
    },
  });
}
