import fc from 'fast-check';
import { instantOf, isTimeZone, shopDay, shopTime, shopWeekday, typedTime, zoneOffset } from './shop-time';

const zones = [
  'UTC',
  'Europe/Vienna',
  'Pacific/Auckland',
  'America/Anchorage',
  'Asia/Kathmandu',
  'Australia/Lord_Howe',
];

describe('the shop’s time', () => {
  it('goes into a field and comes back from it as the same minute', () => {
    fc.assert(
      fc.property(fc.constantFrom(...zones), fc.integer({ min: 1_600_000_000, max: 1_900_000_000 }), (zone, at) => {
        const iso = new Date(Math.floor(at / 60) * 60_000).toISOString();
        const back = instantOf(typedTime(iso, zone), zone);
        // One of the two times that a clock shows when it is set back.
        expect([0, 30, 60]).toContain(Math.abs(Date.parse(back) - Date.parse(iso)) / 60_000);
        expect(typedTime(back, zone)).toBe(typedTime(iso, zone));
      }),
    );
    expect(typedTime('2026-11-03T13:05:30Z', 'Europe/Vienna')).toBe('2026-11-03T14:05');
  });

  const vienna = { zone: 'Europe/Vienna', today: '2026-11-26' };

  it.each([
    ['2026-11-03T13:05:00Z', 'moment', '3 Nov, 14:05'],
    ['2026-07-03T22:30:00Z', 'moment', '4 Jul, 00:30'],
    ['2025-12-31T22:59:00Z', 'moment', '31 Dec 2025, 23:59'],
    ['2027-01-04T09:00:00Z', 'weekday-moment', 'Mon 4 Jan 2027, 10:00'],
    ['2026-09-02', 'day', '2 Sep'],
    ['2026-09-02', 'weekday', 'Wed 2 Sep'],
    ['2026-09-02', 'date', '2 Sep 2026'],
    ['2026-11-03T13:05:00Z', 'paper', '3 Nov 2026, 14:05'],
    ['2026-11-03T14:05', 'moment', '3 Nov, 14:05'],
    ['', 'moment', ''],
    ['soon', 'moment', 'soon'],
  ] as const)('%s as a %s is “%s”', (iso, form, text) => {
    expect(shopTime(iso, form, vienna)).toBe(text);
  });

  it('a day begins at the shop’s midnight', () => {
    expect(shopDay('2026-11-30T23:30:00Z', 'Europe/Vienna')).toBe('2026-12-01');
    expect(shopDay('2026-11-30T22:30:00Z', 'Europe/Vienna')).toBe('2026-11-30');
    expect(shopWeekday('2026-11-30T23:30:00Z', 'Europe/Vienna')).toBe('Tuesday');
    expect(shopDay('2026-12-01', 'America/Anchorage')).toBe('2026-12-01');
  });

  it('says how far it is from UTC, in summer and winter', () => {
    expect(zoneOffset('2026-12-01T10:00:00Z', 'Europe/Vienna')).toBe('UTC+1');
    expect(zoneOffset('2026-07-01T10:00:00.123Z', 'Europe/Vienna')).toBe('UTC+2');
    expect(zoneOffset('2026-07-01T10:00:00Z', 'America/Anchorage')).toBe('UTC−8');
    expect(zoneOffset('2026-07-01T10:00:00Z', 'Asia/Kathmandu')).toBe('UTC+5:45');
    expect([isTimeZone('Europe/Vienna'), isTimeZone('Europe/Atlantis')]).toEqual([true, false]);
  });

  it('what the wall shows and the instant belong together, but for the hour that is there twice or not at all', () => {
    fc.assert(
      fc.property(
        fc.integer({ min: Date.UTC(1990, 0), max: Date.UTC(2045, 0) }).map((at) => Math.floor(at / 60_000) * 60_000),
        fc.constantFrom(...zones),
        (at, zone) => {
          const iso = new Date(at).toISOString();
          const [wall] = [shopTime(iso, 'paper', { zone, today: '' })];
          const clock = wall.slice(-5);
          const back = Date.parse(instantOf(`${shopDay(iso, zone)}T${clock}`, zone));
          expect(Math.abs(back - at)).toBeLessThanOrEqual(3_600_000);
          expect(shopTime(new Date(back).toISOString(), 'paper', { zone, today: '' })).toBe(wall);
        },
      ),
    );
  });

  it('the weekday is the calendar’s own', () => {
    fc.assert(
      fc.property(fc.integer({ min: Date.UTC(1950, 0), max: Date.UTC(2090, 0) }), (at) => {
        const names = ['Sunday', 'Monday', 'Tuesday', 'Wednesday', 'Thursday', 'Friday', 'Saturday'];
        const iso = new Date(at).toISOString();
        expect(shopWeekday(iso, 'UTC')).toBe(names[new Date(at).getUTCDay()]);
        expect(instantOf(iso, 'Europe/Vienna')).toBe(iso);
      }),
    );
  });

  it('an instant of its own zone stays it', () => {
    expect(instantOf('2026-11-03T14:05:00+02:00', 'Europe/Vienna')).toBe('2026-11-03T12:05:00.000Z');
    expect(instantOf('2026-07-03T14:05', 'Europe/Vienna')).toBe('2026-07-03T12:05:00.000Z');
    expect(instantOf('2026-11-03T14:05', 'Europe/Vienna')).toBe('2026-11-03T13:05:00.000Z');
  });
});
