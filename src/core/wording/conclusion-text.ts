import type { Conclusion } from '../contract/plan';

/** Where an inquiry ends, with what is to be done, and what of it was felt and not measured. */
export function conclusionAdvice(
  { advice }: Pick<Conclusion, 'advice'>,
  felt: readonly string[],
  steps: readonly { readonly id: string; readonly title: string }[],
): string {
  const titles = steps.filter(({ id }) => felt.includes(id)).map(({ title }) => title.toLowerCase());
  return titles.length === 0 ? advice : `${advice} By foot and ear, not measured: ${titles.join(', ')}.`;
}
