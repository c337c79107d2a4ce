import { findChannel } from './channels';
import { partPlace, places, type Place, type Placed } from './places';
import type { CharacteristicRow, DialReading } from './characteristic-row';

/** Words that families and toolboxes bring: each declares its ids here (by module augmentation) and gives their rows in its `rows`. */
export interface CharacteristicWords {}

/** A characteristic; one that is measured in several places is said with its place (`rise-time@rear`). */
export type CharacteristicId = Placed<keyof CharacteristicWords & string>;

const rows = new Map<string, CharacteristicRow>();

/** Adds words to the table; the registry does. Throws where one is there already (a programmer's error). */
export function joinCharacteristics(more: Readonly<Record<string, CharacteristicRow>>): void {
  for (const [id, row] of Object.entries(more)) {
    if (rows.has(id)) throw new Error(`there is a characteristic "${id}" already`);
    rows.set(id, row);
  }
}

/** The same dial at another place: the channel of that place where there is one. */
function dialAt(dial: DialReading, place: Place): DialReading {
  const there = (channel: string) =>
    [`${channel}_${place}`, channel.replace('front', place), channel.replace(/_(?:a|fl)$/, `_${place}`)].find((each) =>
      findChannel(each),
    ) ?? channel;
  switch (dial.kind) {
    case 'watch':
    case 'count':
    case 'calculated':
      return dial;
    case 'quotient':
    case 'share':
    case 'worked-out':
    case 'between':
      return { ...dial, channels: [there(dial.channels[0]), there(dial.channels[1])] };
    default:
      return { ...dial, channel: there(dial.channel) };
  }
}

/** The row of a characteristic, for its place where it has one; throws where nobody has brought one (a programmer's error). */
export function characteristicRow(id: CharacteristicId): CharacteristicRow {
  const { word, place } = partPlace(id);
  const row = rows.get(word);
  if (!row) throw new Error(`there is no characteristic "${id}"`);
  if (place === null) return row;
  return {
    ...row,
    title: `${row.title}, ${places[place].title}`,
    dial: dialAt(row.dial, place),
    openName: `${row.openName ?? word}${places[place].ending}`,
  };
}

/** Every characteristic with its row. */
export function everyCharacteristic(): readonly (readonly [CharacteristicId, CharacteristicRow])[] {
  return [...rows] as [CharacteristicId, CharacteristicRow][];
}

export function characteristicTitle(id: CharacteristicId): string {
  return characteristicRow(id).title;
}

/** The name a characteristic has in open files. */
export function openName(id: CharacteristicId): string {
  return characteristicRow(id).openName ?? id;
}

/** The characteristic of a step that has this name in open files; undefined when the step has none. */
export function findByOpenName(ids: readonly CharacteristicId[], name: string): CharacteristicId | undefined {
  return ids.find((id) => openName(id) === name);
}

/** Names that readings were kept under before places had one of their own. */
const formerNames: Readonly<Record<string, CharacteristicId>> = {
  'rise-time-2': 'rise-time@rear',
  'front-residual': 'port-residual',
  'rear-residual': 'port-residual@rear',
};

/** The characteristic that a kept reading is of, under whatever name; undefined where it is none. */
export function characteristicKeptAs(name: string): CharacteristicId | undefined {
  const present = formerNames[name] ?? name.replace(/-2$/, '@2');
  return [name, present].find(isCharacteristicId);
}

/** Whether `id` names a characteristic that the product knows. */
export function isCharacteristicId(id: string): id is CharacteristicId {
  return rows.has(partPlace(id).word);
}
