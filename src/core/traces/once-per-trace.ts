import type { Trace } from './trace';

/**
 * A work on a trace that is done once for as long as the trace is there and what else it hangs on is the very same: several steps may read
 * one long log, and each of them alone must give what they give together.
 */
export function oncePerTrace<On extends readonly unknown[], Found>(
  work: (trace: Trace, ...on: On) => Found,
): (trace: Trace, ...on: On) => Found {
  const known = new WeakMap<Trace, { readonly on: On; readonly found: Found }>();
  return (trace, ...on) => {
    const before = known.get(trace);
    if (before && before.on.every((each, at) => Object.is(each, on[at]))) return before.found;
    const found = work(trace, ...on);
    known.set(trace, { on, found });
    return found;
  };
}
