/** What may be the matter with a unit. */
export type Hypothesis =
  | { readonly kind: 'no-fault' }
  | { readonly kind: 'not-in-this-list' }
  | { readonly kind: 'fault'; readonly fault: string }
  | { readonly kind: 'pair'; readonly faults: readonly [string, string] };

/** As one word, in files and as a key: the fault's id, or two joined by a plus. */
export function hypothesisId(hypothesis: Hypothesis): string {
  switch (hypothesis.kind) {
    case 'fault':
      return hypothesis.fault;
    case 'pair':
      return hypothesis.faults.join('+');
    default:
      return hypothesis.kind;
  }
}

/** The faults that it speaks of. */
export function faultsOf(hypothesis: Hypothesis): readonly string[] {
  switch (hypothesis.kind) {
    case 'fault':
      return [hypothesis.fault];
    case 'pair':
      return hypothesis.faults;
    default:
      return [];
  }
}
