import type { CharacteristicId } from '../quantities/characteristics';
import type { TypedValues } from '../procedure/typed-entry';
import { byWatch } from './asked';
import type { AskedReading, Reckoned } from './from-readings';

/** What is over sooner than this, no thumb on a watch can time, s. */
const quickest = 0.5;

/** A short time as a person reads it: by a watch, or as too quick for one. */
export function timedAsked(id: string, title: string, hint = ''): readonly AskedReading[] {
  return [
    byWatch(id, title, { hint, optional: true }),
    {
      id: `${id}-quick`,
      title: 'Or too quick for a watch',
      as: 'state',
      by: 'eye',
      optional: true,
      choices: ['over before a watch could be stopped'],
    },
  ];
}

/** Such a time as a figure: what was too quick to be timed lies below what a thumb can do. */
export function timedFigure(
  read: TypedValues,
  id: string,
  characteristic: CharacteristicId,
): Pick<Reckoned, 'bounds'> & { readonly of: (moved: TypedValues) => number } {
  const quick = read[id] === undefined && read[`${id}-quick`] !== undefined;
  return {
    of: (moved) => (quick ? quickest : moved[id]),
    bounds: quick
      ? { [characteristic]: { side: 'below', problem: { code: 'too-quick-for-a-watch', seconds: quickest } } }
      : {},
  };
}
