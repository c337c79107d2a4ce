import { when } from './when';

describe('a moment in words', () => {
  it('has its year where that is another', () => {
    expect(when('2026-11-03T14:05:00', 'moment', '2026-11-26T08:00:00')).toBe('3 Nov, 14:05');
    expect(when('2025-12-31T23:59:00', 'moment', '2026-01-01T00:10:00')).toBe('31 Dec 2025, 23:59');
    expect(when('2027-01-04T10:00:00', 'weekday-moment', '2026-12-30T08:00:00')).toBe('Mon 4 Jan 2027, 10:00');
    expect(when('2026-09-02', 'day', '2026-11-26')).toBe('2 Sep');
  });
});
