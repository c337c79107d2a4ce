import { channels } from '../quantities/channels';
import { everyCharacteristic } from '../quantities/characteristics';
import { familyComing, familyIds } from './at-hand';
import { families, findFamily } from './registry';

const ids = (of: readonly { readonly id: string }[]) => of.map(({ id }) => id);

describe('families one at a time', () => {
  it('has every word before any family is here, and each family once it was asked for', async () => {
    expect(families).toEqual([]);
    const words = [ids(channels), everyCharacteristic().map(([id]) => id)];
    for (const id of familyIds) {
      const coming = familyComing(id);
      expect(coming).not.toBeNull();
      expect(familyComing(id)).toBe(coming);
      await coming;
      expect(findFamily(id)?.id).toBe(id);
      expect(familyComing(id)).toBeNull();
    }
    expect([ids(channels), everyCharacteristic().map(([id]) => id)]).toEqual(words);
  });

  it('lists the families of the registry, and waits for none that nobody knows', async () => {
    expect(familyComing('nobody-knows')).toBeNull();
    await jest.isolateModulesAsync(async () => {
      const whole = await import('.');
      expect(ids(whole.families)).toEqual(familyIds);
    });
  });
});
