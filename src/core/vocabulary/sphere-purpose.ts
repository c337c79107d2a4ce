/** What a gas sphere is for: precharges for different purposes differ several-fold, and a wrong one is dangerous. */
export const spherePurposes = ['brake', 'main', 'suspension'] as const;

export type SpherePurpose = (typeof spherePurposes)[number];

/** How forms offer them. */
export const sphereChoices: readonly { readonly value: SpherePurpose; readonly title: string }[] = [
  { value: 'brake', title: 'Brake circuit' },
  { value: 'main', title: 'Main accumulator' },
  { value: 'suspension', title: 'Suspension' },
];
