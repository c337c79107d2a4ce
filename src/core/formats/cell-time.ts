/** Seconds of a clock, a date or both as loggers write them; undefined where a cell is none of these. */
export function cellTime(cell: string): number | undefined {
  const text = cell.trim();
  if (text.length === 0 || text.length > 40) return undefined;
  return clock(text) ?? dated(text);
}

/** Whether a cell that is a time says of which day. */
export const isDated = (cell: string): boolean => clock(cell.trim()) === undefined;

const clockPattern = /^(?:(\d{1,3}):)?(\d{1,2}):(\d{1,2})(?:[.,](\d{1,9}))?(?:\s*([ap])\.?m\.?)?$/i;

/** "14:03:22.5", "03:22,5", "2:03:22 PM": seconds since midnight, or since the clock began. */
function clock(text: string): number | undefined {
  const [matched, hours, minutes, seconds, decimals, half] = clockPattern.exec(text) ?? [];
  if (matched === undefined || Number(minutes) > 59 || Number(seconds) > 59) return undefined;
  const shift = half === undefined ? 0 : (half.toLowerCase() === 'p' ? 12 : 0) - (hours === '12' ? 12 : 0);
  const whole = (Number(hours ?? 0) + shift) * 3600 + Number(minutes) * 60 + Number(seconds);
  return whole + (decimals === undefined ? 0 : Number(`0.${decimals}`));
}

const yearFirst = /^(\d{4})[-/.](\d{1,2})[-/.](\d{1,2})(?:[T ]+(.+?))?(?:Z|[+-]\d{2}:?\d{2})?$/;
const yearLast = /^(\d{1,2})[-/.](\d{1,2})[-/.](\d{4})(?:[T ,]+(.+))?$/;

/** "2026-11-24T10:00:00.5Z", "24.11.2026 10:00:00", "11/24/2026 2:03 PM": seconds since 1970, as if it were UTC. */
function dated(text: string): number | undefined {
  const [first, year, month, day, rest] = yearFirst.exec(text) ?? [];
  if (first !== undefined) return seconds(Number(year), Number(month), Number(day), rest);
  const [last, one, other, end, after] = yearLast.exec(text) ?? [];
  if (last === undefined) return undefined;
  // Only differences matter: which of the two is the month shows where one cannot be.
  const monthFirst = Number(other) > 12;
  return seconds(Number(end), Number(monthFirst ? one : other), Number(monthFirst ? other : one), after);
}

function seconds(year: number, month: number, day: number, rest: string | undefined): number | undefined {
  if (month < 1 || month > 12 || day < 1 || day > 31) return undefined;
  const ofDay = rest === undefined ? 0 : (clock(rest) ?? clock(`${rest}:00`));
  return ofDay === undefined ? undefined : Date.UTC(year, month - 1, day) / 1000 + ofDay;
}
