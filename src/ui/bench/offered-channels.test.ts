import { kindNamed } from '@/core/families';
import { channels } from '@/core/quantities/channels';
import type { MeasuredStep } from '@/core/procedure/step-definition';
import { offeredChannels } from './offered-channels';

describe('channels that a column may be', () => {
  const kind = kindNamed('brake-by-wire');
  const step = kind.steps.find(({ id }) => id === 'backup') as MeasuredStep<unknown>;
  const [own, unit, others] = offeredChannels(kind, step);

  it('begin with what the step reads, then what the unit has', () => {
    expect(own.ids.slice(0, 2)).toEqual(['backup_voltage', 'backup_current']);
    expect(unit.ids).toContain('pedal_travel');
    expect(others.ids).toContain('ride_height');
  });

  it('are all there, each once', () => {
    const all = [...own.ids, ...unit.ids, ...others.ids];
    expect([...all].sort()).toEqual([...new Set([...channels.map(({ id }) => id), ...all])].sort());
    expect(new Set(all).size).toBe(all.length);
  });
});
