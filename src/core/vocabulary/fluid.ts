/** Fluids that are never mixed: one destroys the other's seals. */
export const fluidKinds = ['glycol', 'silicone', 'mineral'] as const;

export type FluidKind = (typeof fluidKinds)[number];

/** How a sheet's form offers them. */
export const fluidChoices: readonly { readonly value: FluidKind; readonly title: string }[] = [
  { value: 'glycol', title: 'Glycol (DOT 3, 4, 5.1)' },
  { value: 'silicone', title: 'Silicone (DOT 5)' },
  { value: 'mineral', title: 'Mineral oil' },
];
