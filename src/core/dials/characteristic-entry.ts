import { shownAs } from '../quantities/shown-as';
import { characteristicKeptAs, characteristicTitle, type CharacteristicId } from '../quantities/characteristics';
import type { MeasuredStep, TypedStep } from '../procedure/step-definition';
import type { NotByHandReason } from '../procedure/not-by-hand';
import type { TypedEntry, TypedField } from '../procedure/typed-entry';
import { plausibleRange } from './plausible-range';
import { analysisFromTyped } from './typed-values';
import { dialChannel } from './dial-readings';

/** Entry of a step whose characteristics are typed as they are. */
function characteristicEntry(step: MeasuredStep<unknown>): TypedEntry<unknown> {
  const nothing = { characteristics: [], events: [], notes: [] };
  return {
    fields: (context) => {
      const limits = step.limits(nothing, context);
      return step.characteristics.map((id): TypedField => {
        const limit = limits.find((each) => each.characteristic === id);
        const as = shownAs(id);
        const channel = dialChannel(step, id);
        return {
          id,
          title: characteristicTitle(id),
          hint: '',
          as,
          channel,
          expected:
            limit && (limit.low !== null || limit.high !== null)
              ? { low: limit.low ?? -Infinity, high: limit.high ?? Infinity }
              : null,
          plausible: plausibleRange(as, channel, context),
          optional: limit === undefined,
        };
      });
    },
    analyse: (values, context) => {
      const typed = new Map<CharacteristicId, number>();
      for (const [name, value] of Object.entries(values)) {
        const id = characteristicKeptAs(name);
        if (id) typed.set(id, value);
      }
      return analysisFromTyped(step, typed, context);
    },
  };
}

type Judged = MeasuredStep<unknown> | TypedStep<unknown>;

/** Why no person reads a step off dials; null of one that a person reads. */
export function notReadByHand(step: Judged): NotByHandReason | null {
  const { dials } = step.feeds;
  return dials && 'kind' in dials ? dials.why : null;
}

/** How a step is read off dials: by its own entry, else its characteristics one by one; of one that nobody reads, what files still bring of it. */
export function entryOf(step: Judged): TypedEntry<unknown> {
  const { dials } = step.feeds;
  if (!dials) return characteristicEntry(step as MeasuredStep<unknown>);
  return 'kind' in dials ? dials.former : dials;
}
