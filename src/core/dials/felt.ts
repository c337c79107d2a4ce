import type { CharacteristicId } from '../quantities/characteristics';
import type { TypedValues } from '../procedure/typed-entry';
import type { Felt } from '../vocabulary/felt';
import { feltWords } from '../vocabulary/felt-words';
import type { AskedReading, Reckoned } from './from-readings';

/** What may be felt or heard at a step, each with what it speaks of. */
export type FeltChoices = readonly Felt[];

/** A field for what was felt or heard. */
export const feltAsked = (id: string, title: string, by: 'foot' | 'ear', choices: FeltChoices): AskedReading => ({
  id,
  title,
  as: 'state',
  by,
  optional: true,
  choices: choices.map(({ code }) => feltWords[code]),
});

/** What was chosen; undefined where nothing was. */
export const feltIn = (read: TypedValues, id: string, choices: FeltChoices): Felt | undefined =>
  choices.at(read[id] ?? choices.length);

/** A step of which nothing but that is known. */
export const feltOnly = (felt: Felt, ids: readonly CharacteristicId[]): Reckoned => ({
  figures: () => ({}),
  missing: Object.fromEntries(ids.map((id) => [id, { code: 'felt-only', felt: felt.code } as const])),
  also: { felt },
});
