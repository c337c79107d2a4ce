/** Where on a vehicle or in a system a characteristic is measured that is measured in more than one place. */
export const places = {
  '2': 'circuit 2',
  front: 'front',
  rear: 'rear',
  fl: 'front left',
  fr: 'front right',
  rl: 'rear left',
  rr: 'rear right',
} as const;

export type Place = keyof typeof places;

/** A word, or a word at a place: `precharge`, `precharge@2`. */
export type Placed<Id extends string> = Id | `${Id}@${Place}`;

/** A word without its place, and the place; null where none is said. */
export function partPlace(id: string): { readonly word: string; readonly place: Place | null } {
  const [word, place] = id.split('@');
  return { word, place: place !== undefined && place in places ? (place as Place) : null };
}
