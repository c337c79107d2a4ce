import { floorCard } from '../../../tests/support/floor-card';
import type { FloorCard } from '@/server/views/floor-view';
import { needsNow } from './needs-now';

const view = (over: Partial<FloorCard> = {}, job: Partial<FloorCard['job']> = {}): FloorCard =>
  floorCard(over, { id: 'a', ...job });

describe('what needs a person now', () => {
  it('nothing, while a unit waits for its next step', () => {
    expect(needsNow([view({})])).toEqual([]);
  });

  it('an interrupted run comes before one that waits to be kept, and that before one that runs', () => {
    const open = (id: string, kind: 'recording' | 'complete' | 'interrupted') =>
      view({ openRun: { kind, id: 'r', step: 'boost-curve', title: 'Boost curve', hold: null } }, { id });
    const titles = needsNow([open('1', 'recording'), open('2', 'complete'), open('3', 'interrupted')]).map(
      (need) => need.title,
    );
    expect(titles).toEqual(['Boost curve was interrupted', 'Boost curve waits to be kept', 'Boost curve is running']);
  });

  it('a unit with everything done is to be signed', () => {
    expect(needsNow([view({ blocked: false })])[0]).toMatchObject({
      title: 'Ready to be signed',
      href: '/jobs/a/release',
    });
  });

  it('a failed or undecided step is named, but not while the unit waits for parts or stands ready', () => {
    const failed = { failed: 'Boost curve' };
    expect(needsNow([view(failed)])[0].title).toBe('Boost curve failed');
    expect(needsNow([view({ undecided: 'Boost curve' })])[0].title).toBe('Boost curve is undecided');
    expect(needsNow([view(failed, { place: 'waiting-parts' }), view(failed, { place: 'ready' })])).toEqual([]);
  });

  it('leaves nobody out', () => {
    expect(needsNow(Array.from({ length: 9 }, (_, i) => view({ blocked: false }, { id: String(i) })))).toHaveLength(9);
  });

  it('an overdue calibration is named once, whatever number of units is read with it', () => {
    const overdue = ['Dial 4'];
    expect(needsNow([view({ overdue }, { id: '1' }), view({ overdue }, { id: '2' })])).toEqual([
      expect.objectContaining({ title: 'A calibration is overdue', href: '/instruments' }),
    ]);
  });
});
