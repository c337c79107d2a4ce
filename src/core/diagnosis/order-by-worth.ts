import type { NextTest } from './next-test';

/**
 * The steps of a plan in the order of what they tell: those that are done as the plan has them, then those left by their worth, each
 * after what has to be done before it for safety, and last, in the plan's order, those that would tell nothing and that a release wants
 * all the same. The plan's own order where nothing is to be found out any more.
 */
export function orderByWorth(plan: readonly string[], done: ReadonlySet<string>, next: NextTest): readonly string[] {
  if (next.kind !== 'test') return plan;
  const telling = [next.worth, ...next.others].flatMap(({ before, step }) => [...before, step]);
  return [...new Set([...plan.filter((id) => done.has(id)), ...telling, ...plan])].filter((id) => plan.includes(id));
}
