import { dice, goodGauge, writeLog } from '../../../../tests/support/second-writer/logger';
import { findVacuumHold } from './hold-events';

const whole = { notBefore: 0, leverLeaves: null, range: null };

/** What is found in a vacuum (Pa) by time, logged at 20 Hz for 30 s. */
function found(vacuum: (t: number) => number, seed = 3) {
  const log = writeLog(
    { supply_vacuum: { at: vacuum, gauging: { ...goodGauge, white: 25 } } },
    { seconds: 30, rate: 20 },
    dice(seed),
  );
  const events = findVacuumHold(log, log.columns.supply_vacuum, whole);
  if (!events) throw new Error('nothing found');
  return events;
}

/** Drawn at 1 s, shut at 6 s, losing `rate` Pa/s from there. */
const held = (rate: number) => (t: number) => (t < 1 ? 0 : 58e3 - rate * Math.max(0, t - 6));

describe('events of a vacuum hold', () => {
  it('begins where the vacuum leaves its level for good, and ends with the log', () => {
    const events = found(held(120));
    expect(events.from).toBeGreaterThan(5.5);
    expect(events.from).toBeLessThan(8);
    expect(events.endedBy).toEqual({ kind: 'log-ends' });
    expect(events.departs).toBe(true);
  });

  it('ends where the source is opened again, even when only part of what was lost comes back', () => {
    const lossy = held(400);
    const events = found((t) => (t < 18 ? lossy(t) : lossy(18) + 0.5 * (58e3 - lossy(18)) * Math.min(1, (t - 18) / 1)));
    expect(events.endedBy.kind).toBe('recovers');
    expect(events.to).toBeGreaterThan(16);
    expect(events.to).toBeLessThan(19);
  });

  it('a dip that comes back within two seconds is no departure', () => {
    const events = found((t) => held(0)(t) - (t > 8 && t < 9 ? 900 : 0));
    expect(events.departs).toBe(false);
    const later = found((t) => held(0)(t) - (t > 8 && t < 9 ? 900 : 0) - (t > 15 ? 100 * (t - 15) : 0));
    expect(later.departs).toBe(true);
    expect(later.from).toBeGreaterThan(14);
  });

  it('all of it gone at once after a hold is a collapse, not a leak', () => {
    const events = found((t) => (t < 20 ? held(60)(t) : 200));
    expect(events.endedBy.kind).toBe('collapses');
    expect(events.to).toBeLessThan(20.5);
  });
});
