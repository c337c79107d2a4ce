import type { LookOption } from '../procedure/look-step';
import { lookFinds, lookFindsAnyway } from './chances';

/** How often a place where nothing is wrong gets a note, and a finding that fails. */
type FoundAnyway = Readonly<Record<'note' | 'fail', number>>;

/**
 * Chance that a look puts an option to a point: one that looks as a fault does (`shown`), or one where nothing is wrong (`shown`
 * undefined).
 */
export function lookChance(
  options: readonly LookOption[],
  seen: string,
  shown: string | undefined,
  anyway: FoundAnyway = lookFindsAnyway,
): number {
  if (shown === seen) return lookFinds;
  if (shown !== undefined) return (1 - lookFinds) / Math.max(1, options.length - 1);
  const effect = options.find((each) => each.id === seen)?.effect ?? 'pass';
  const alike = options.filter((each) => each.effect === effect).length;
  return (effect === 'pass' ? 1 - anyway.note - anyway.fail : anyway[effect]) / Math.max(1, alike);
}
