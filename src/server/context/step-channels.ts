import type { StepContext } from '@/core/procedure/step-context';
import type { StepDefinition } from '@/core/procedure/step-definition';

/** Channels that a step is read on, by instruments or by dials; none of a look. */
export function channelsOf(step: StepDefinition<unknown>, context: StepContext<unknown>): readonly string[] {
  switch (step.kind) {
    case 'look':
      return [];
    case 'measured':
      return [...step.feeds.log.needs, ...step.feeds.log.uses];
    case 'typed':
      return step.feeds.dials.fields(context, {}).flatMap((field) => field.channel ?? []);
  }
}
