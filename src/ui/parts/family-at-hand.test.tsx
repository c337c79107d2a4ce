import { render, screen } from '@testing-library/react';
import { channels } from '@/core/quantities/channels';
import { everyCharacteristic } from '@/core/quantities/characteristics';
import { families, findFamily } from '@/core/families/registry';
import { FamilyAtHand, gates } from './family-at-hand';

const words = () => [channels.map(({ id }) => id), everyCharacteristic().map(([id]) => id)];

describe('a family at hand', () => {
  it('comes when a page is about it, with every word known before', async () => {
    expect(families).toEqual([]);
    const before = words();
    for (const id of Object.keys(gates)) {
      const { unmount } = render(
        <FamilyAtHand of={id}>
          <p>about {id}</p>
        </FamilyAtHand>,
      );
      expect(await screen.findByText(`about ${id}`)).toBeInTheDocument();
      expect(findFamily(id)?.id).toBe(id);
      unmount();
    }
    expect(words()).toEqual(before);
  });

  it('is not waited for where nobody knows it, and all come together where a page may be about any', async () => {
    render(<FamilyAtHand of="nobody-knows">shown</FamilyAtHand>);
    expect(screen.getByText('shown')).toBeInTheDocument();
    const whole = await import('@/core/families');
    expect(whole.families.map(({ id }) => id)).toEqual(Object.keys(gates));
  });
});
