import type { PlanId } from '@/core/procedure/step-context';
import type { Trace } from '@/core/traces/trace';
import type { Dice } from '../logger';

/** What a step of a whole unit's plan was given: a log, figures that were typed, or what was seen at the points of a look. */
export type Given =
  | { readonly kind: 'log'; readonly log: Trace }
  | { readonly kind: 'typed'; readonly values: Readonly<Record<string, number>> }
  | { readonly kind: 'looked'; readonly findings: Readonly<Record<string, string>> };

/** What is the matter with a whole unit: a fault of its list. */
export interface OwnFault {
  readonly fault: string;
  /** From slight (0) to severe (1), in its writer's own measure. */
  readonly severe: number;
}

interface Common {
  readonly family: string;
  readonly plan: PlanId;
  /** Points of looks at which a fault shows, and as what. */
  readonly looks: Readonly<Record<string, Readonly<Record<string, string>>>>;
}

/**
 * A unit that no rig has: its own few figures, what each fault does to them by its own physics, and the logs that follow. It knows the
 * example sheet's figures, as a drawing would say them, and nothing of the family's model.
 */
interface Physics<Figures> extends Common {
  /** A sound unit, off from its drawing as units are. */
  readonly sound: (luck: Dice) => Figures;
  /** What a fault does; faults that are not named here are not written. */
  readonly faults: Readonly<Record<string, (sound: Figures, severe: number) => Figures>>;
  readonly write: (step: string, figures: Figures, luck: Dice) => Given | null;
}

/** The same with its figures to itself: one that was drawn writes its steps. */
export interface WholeUnit extends Common {
  readonly faults: readonly string[];
  readonly draw: (fault: OwnFault | null, luck: Dice) => (step: string) => Given | null;
}

export function wholeUnit<Figures>({ sound, faults, write, ...common }: Physics<Figures>): WholeUnit {
  return {
    ...common,
    faults: Object.keys(faults),
    draw: (fault, luck) => {
      const drawn = sound(luck);
      const figures = fault ? faults[fault.fault](drawn, fault.severe) : drawn;
      return (step) => write(step, figures, luck);
    },
  };
}

export const log = (trace: Trace): Given => ({ kind: 'log', log: trace });
