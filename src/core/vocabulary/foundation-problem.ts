/** What a trace of what sits behind the unit could not tell, or what was noticed in it. Facts are Pa, m/s2. */
export type FoundationProblem =
  | { readonly code: 'nothing-assisted' }
  | { readonly code: 'lamp-lit-for-another' }
  | { readonly code: 'behind-from-the-start'; readonly slope: number }
  | { readonly code: 'neither-line'; readonly off: number }
  | { readonly code: 'engine-not-stopped' }
  | { readonly code: 'engine-not-recorded' }
  | { readonly code: 'no-split'; readonly reached: number }
  | { readonly code: 'lamp-not-recorded' }
  | { readonly code: 'one-axle-alone'; readonly lamp: boolean }
  | { readonly code: 'calculation-only'; readonly source: string }
  | { readonly code: 'road-limits'; readonly deceleration: number }
  | { readonly code: 'never-stops' }
  | { readonly code: 'worked-by-the-other' };

const foundationCodes: Readonly<Record<FoundationProblem['code'], true>> = {
  'nothing-assisted': true,
  'lamp-lit-for-another': true,
  'behind-from-the-start': true,
  'neither-line': true,
  'engine-not-stopped': true,
  'engine-not-recorded': true,
  'no-split': true,
  'lamp-not-recorded': true,
  'one-axle-alone': true,
  'calculation-only': true,
  'road-limits': true,
  'never-stops': true,
  'worked-by-the-other': true,
};

/** Whether a problem is of what sits behind the unit. */
export function isFoundationProblem(problem: { readonly code: string }): problem is FoundationProblem {
  return Object.hasOwn(foundationCodes, problem.code);
}
