import { characteristicRow, type CharacteristicId } from '../quantities/characteristics';

/** Channel whose dial a characteristic is read on; null for a watch or a count. */
export function dialChannel(id: CharacteristicId): string | null {
  const how = characteristicRow(id).dial;
  switch (how.kind) {
    case 'reading':
    case 'difference':
    case 'rate':
    case 'flow':
      return how.channel;
    case 'between':
    case 'quotient':
      return how.channels[0];
    case 'watch':
    case 'count':
      return null;
  }
}
