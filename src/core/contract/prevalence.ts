/** How common a fault is among units that come in, in words that a workshop can change. */
export type Prevalence = 'common' | 'ordinary' | 'seldom' | 'hardly-ever';

export const prevalences: readonly Prevalence[] = ['common', 'ordinary', 'seldom', 'hardly-ever'];

/** By fault; one that is left out is ordinary. */
export type Prevalences = Readonly<Record<string, Prevalence>>;
