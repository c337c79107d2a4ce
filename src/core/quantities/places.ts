/**
 * Where on a vehicle or in a system a characteristic is measured that is measured in more than one place: how that is called, and how a name in
 * open files ends (a second circuit's with -2, like its channels).
 */
export const places = {
  '2': { title: 'circuit 2', ending: '-2' },
  a: { title: 'track A', ending: '' },
  b: { title: 'track B', ending: '-2' },
  front: { title: 'front', ending: '-1' },
  rear: { title: 'rear', ending: '-2' },
  fl: { title: 'front left', ending: '-fl' },
  fr: { title: 'front right', ending: '-fr' },
  rl: { title: 'rear left', ending: '-rl' },
  rr: { title: 'rear right', ending: '-rr' },
  master: { title: 'master cylinder', ending: '-master' },
  store: { title: 'store', ending: '-store' },
} as const;

export type Place = keyof typeof places;

/** A word, or a word at a place: `precharge`, `precharge@2`. */
export type Placed<Id extends string> = Id | `${Id}@${Place}`;

/** A word without its place, and the place; null where none is said. */
export function partPlace(id: string): { readonly word: string; readonly place: Place | null } {
  const at = id.lastIndexOf('@');
  const place = id.slice(at + 1);
  return at > 0 && isPlace(place) ? { word: id.slice(0, at), place } : { word: id, place: null };
}

function isPlace(text: string): text is Place {
  return Object.hasOwn(places, text);
}

/** How a place is called; a word that is none as it is. */
export function placeTitle(text: string): string {
  return isPlace(text) ? places[text].title : text;
}
