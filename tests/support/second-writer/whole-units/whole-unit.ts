import type { PlanId } from '@/core/procedure/step-context';
import type { Trace } from '@/core/traces/trace';
import type { Dice } from '../logger';

/** What a step of a whole unit's plan was given: a log, figures that were typed, or what was seen at the points of a look. */
export type Given =
  | { readonly kind: 'log'; readonly log: Trace }
  | { readonly kind: 'typed'; readonly values: Readonly<Record<string, number>> }
  | { readonly kind: 'looked'; readonly findings: Readonly<Record<string, string>> };

/**
 * A unit that no rig has: its own few figures, what each fault does to them by its own physics, and the logs that follow. It knows the
 * example sheet's figures, as a drawing would say them, and nothing of the family's model.
 */
export interface WholeUnit<Figures extends object = object> {
  readonly family: string;
  readonly plan: PlanId;
  /** A sound unit, off from its drawing as units are. */
  readonly sound: (luck: Dice) => Figures;
  /** What a fault does, from slight (0) to severe (1); faults that are not named here are not written. */
  readonly faults: Readonly<Record<string, (sound: Figures, severe: number, luck: Dice) => Figures>>;
  /** Points of looks at which a fault shows, and as what. */
  readonly looks: Readonly<Record<string, Readonly<Record<string, string>>>>;
  readonly write: (step: string, figures: Figures, luck: Dice) => Given | null;
}

export const log = (trace: Trace): Given => ({ kind: 'log', log: trace });

// A unit's figures are its own: outside they are only handed from one of its functions to another.
// eslint-disable-next-line @typescript-eslint/no-explicit-any -- existential type of the list
export type AnyWholeUnit = WholeUnit<any>;
