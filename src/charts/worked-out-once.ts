/*
 * What a picture draws of the sheet alone is the same for every sample that comes. It is worked out once for a context and kept as long
 * as that is.
 */
const kept = new WeakMap<object, Map<unknown, unknown>>();

/** What `make` gives for `of` in this context, worked out the first time it is asked for. */
export function workedOutOnce<Value>(context: object, of: unknown, make: () => Value): Value {
  const known = kept.get(context) ?? new Map<unknown, unknown>();
  kept.set(context, known);
  if (!known.has(of)) known.set(of, make());
  return known.get(of) as Value;
}
