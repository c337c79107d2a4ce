import type { AnyKind } from '../contract/kind';
import type { Truth } from '../contract/model';
import type { StepContext } from '../procedure/step-context';

/** Contexts whose truths are kept, of each kind. */
const kept = 8;

const known = new WeakMap<AnyKind, Map<string, Truth>>();

const asText = (context: StepContext<unknown>): string =>
  JSON.stringify({ ...context, instruments: [...context.instruments] });

/**
 * What the model knows of a sound unit in a context. It is asked for anew with every step that is kept, and some models run whole cycles
 * for it: those of the last few contexts are kept, by all that is in them.
 */
export function soundTruth(kind: AnyKind, context: StepContext<unknown>): Truth {
  const truths = known.get(kind) ?? new Map<string, Truth>();
  known.set(kind, truths);
  const key = asText(context);
  const before = truths.get(key);
  if (before) return before;
  const truth = kind.model.truth(context.unit, kind.model.sound(context.unit), context);
  truths.set(key, truth);
  const [oldest] = truths.keys();
  if (truths.size > kept) truths.delete(oldest);
  return truth;
}
