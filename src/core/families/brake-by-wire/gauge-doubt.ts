import { systematic, type UncertaintyComponent } from '../../instruments/uncertainty';
import type { StepContext } from '../../procedure/step-context';

/** A line of which nothing is recorded reads a pressure so much later, one sigma, s; and what of a recorded lag is not known. */
const unknownLine = 0.005;
const recordShare = 0.4;

/** How late the gauge of a channel reads, s, as its record says, and what is not known of it. */
export function gaugeLag(
  context: StepContext<unknown>,
  channel: string,
): { readonly lag: number; readonly components: readonly UncertaintyComponent[] } {
  const instrument = context.instruments.get(channel);
  const recorded = instrument?.lagSeconds;
  if (recorded !== undefined)
    return { lag: recorded, components: recorded > 0 ? [systematic('timing', recordShare * recorded)] : [] };
  // A gauge that the workshop named is taken as read where it is; one that nobody named may hang on a line.
  return { lag: 0, components: !instrument || instrument.ofStandIn ? [systematic('timing', unknownLine)] : [] };
}
