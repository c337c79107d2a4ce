import type { AnyKind } from '../contract/kind';

/**
 * Plans whose ranking was held against units of other physics, which share nothing with the models that its tables are made of, and
 * named what was the matter as often as it said (docs/diagnosis.md). The study of these units fails where one of them no longer does.
 */
export const borneOutPlans: readonly string[] = ['vacuum-inline: bench', 'vacuum-supply: vehicle'];

export const planKey = (kind: Pick<AnyKind, 'family'>, plan: string) => `${kind.family}: ${plan}`;

/** Whether how likely a ranking says something is may be taken at its word on a plan. */
export const isBorneOut = (kind: Pick<AnyKind, 'family'>, plan: string): boolean =>
  borneOutPlans.includes(planKey(kind, plan));
