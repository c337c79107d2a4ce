import type { FloorCard } from '@/server/jobs/floor-view';
import { needsNow } from './needs-now';

type Step = { id: string; title: string; evaluation: { verdict: string } };
const step = (id: string, verdict: string): Step => ({
  id,
  title: id === 'boost-curve' ? 'Boost curve' : 'Leak look',
  evaluation: { verdict },
});

function view(over: {
  id?: string;
  place?: string;
  openRun?: object | null;
  steps?: Step[];
  blocking?: object[];
  overdue?: object[];
}): FloorCard {
  const {
    id = 'a',
    place = 'on-bench',
    openRun = null,
    steps = [step('boost-curve', 'pass'), step('leak-look', 'not-run')],
    blocking = [{}],
    overdue = [],
  } = over;
  return {
    job: { id, serial: 'TK-1', vehicle: 'Grader 2', place, sheet: { name: 'R7' } },
    openRun,
    steps,
    blocking,
    overdue,
  } as unknown as FloorCard;
}

describe('what needs a person now', () => {
  it('nothing, while a unit waits for its next step', () => {
    expect(needsNow([view({})])).toEqual([]);
  });

  it('an interrupted run comes before one that waits to be kept, and that before one that runs', () => {
    const open = (id: string, kind: string) => view({ id, openRun: { kind, id: 'r', step: 'boost-curve' } });
    const titles = needsNow([open('1', 'recording'), open('2', 'complete'), open('3', 'interrupted')]).map(
      (need) => need.title,
    );
    expect(titles).toEqual(['Boost curve was interrupted', 'Boost curve waits to be kept', 'Boost curve is running']);
  });

  it('a unit with everything done is to be signed', () => {
    expect(needsNow([view({ blocking: [] })])[0]).toMatchObject({
      title: 'Ready to be signed',
      href: '/jobs/a/release',
    });
  });

  it('a failed or undecided step is named, but not while the unit waits for parts or stands ready', () => {
    const failed = { steps: [step('boost-curve', 'fail')] };
    expect(needsNow([view(failed)])[0].title).toBe('Boost curve failed');
    expect(needsNow([view({ steps: [step('boost-curve', 'undecided')] })])[0].title).toBe('Boost curve is undecided');
    expect(needsNow([view({ ...failed, place: 'waiting-parts' }), view({ ...failed, place: 'ready' })])).toEqual([]);
  });

  it('leaves nobody out', () => {
    expect(needsNow(Array.from({ length: 9 }, (_, i) => view({ id: String(i), blocking: [] })))).toHaveLength(9);
  });

  it('an overdue calibration is named once, whatever number of units is read with it', () => {
    const overdue = [{ name: 'Dial 4' }];
    expect(needsNow([view({ id: '1', overdue }), view({ id: '2', overdue })])).toEqual([
      expect.objectContaining({ title: 'A calibration is overdue', href: '/instruments' }),
    ]);
  });
});
