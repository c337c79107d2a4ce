export const months = ['Jan', 'Feb', 'Mar', 'Apr', 'May', 'Jun', 'Jul', 'Aug', 'Sep', 'Oct', 'Nov', 'Dec'];
const weekdays = ['Sunday', 'Monday', 'Tuesday', 'Wednesday', 'Thursday', 'Friday', 'Saturday'];

const formatters = new Map<string, Intl.DateTimeFormat>();

function formatterOf(zone: string): Intl.DateTimeFormat {
  const known = formatters.get(zone);
  if (known) return known;
  // Figures only: names of days and months differ from one edition of the language data to the next, on a server and on a tablet.
  const made = new Intl.DateTimeFormat('en', {
    timeZone: zone,
    hourCycle: 'h23',
    year: 'numeric',
    month: 'numeric',
    day: 'numeric',
    hour: 'numeric',
    minute: 'numeric',
    second: 'numeric',
  });
  formatters.set(zone, made);
  return made;
}

/** A moment by the clock on the shop's wall. */
export interface WallTime {
  readonly year: number;
  /** From 1. */
  readonly month: number;
  readonly day: number;
  readonly hour: number;
  readonly minute: number;
  readonly second: number;
}

/** An instant, ms since 1970, by the clock of a zone. */
export function wallTimeAt(instant: number, zone: string): WallTime {
  const parts = formatterOf(zone).formatToParts(instant);
  const of = (type: Intl.DateTimeFormatPartTypes) => Number(parts.find((part) => part.type === type)?.value);
  return {
    year: of('year'),
    month: of('month'),
    day: of('day'),
    hour: of('hour'),
    minute: of('minute'),
    second: of('second'),
  };
}

const written = /^(\d{4})-(\d{2})-(\d{2})(?:T(\d{2}):(\d{2})(?::(\d{2})(?:\.\d+)?)?)?$/;

/** A date or a time as it was written without a zone; null where it has one, or is none. */
function wallTimeIn(text: string): WallTime | null {
  const found = written.exec(text);
  if (!found) return null;
  const [year, month, day, hour, minute, second] = found.slice(1).map((figure) => Number(figure ?? 0));
  return { year, month, day, hour, minute, second };
}

const asIfUtc = ({ year, month, day, hour, minute, second }: WallTime) =>
  Date.UTC(year, month - 1, day, hour, minute, second);

/** A moment in the shop's zone: one that is written without a zone is the shop's own already. */
const wallTimeOf = (iso: string, zone: string): WallTime => wallTimeIn(iso) ?? wallTimeAt(Date.parse(iso), zone);

/** Whether a text names a time zone that this machine knows (IANA). */
export function isTimeZone(text: string): boolean {
  try {
    formatterOf(text);
    return true;
  } catch {
    return false;
  }
}

const digits = (figure: number, many = 2) => String(figure).padStart(many, '0');

/** An instant, ms since 1970, as an ISO text. */
function isoOf(instant: number): string {
  const { year, month, day, hour, minute, second } = wallTimeAt(instant, 'UTC');
  const thousandths = ((instant % 1000) + 1000) % 1000;
  const date = `${digits(year, 4)}-${digits(month)}-${digits(day)}`;
  return `${date}T${digits(hour)}:${digits(minute)}:${digits(second)}.${digits(thousandths, 3)}Z`;
}

/** The instant (ISO, UTC) at which the clock on the shop's wall shows a time; one that has a zone of its own is that instant. */
export function instantOf(iso: string, zone: string): string {
  const wall = wallTimeIn(iso);
  if (!wall) return isoOf(Date.parse(iso));
  // What the wall shows at a first guess tells how far the zone is off there; once more for a guess beyond a change of the hour.
  let instant = asIfUtc(wall);
  for (let tries = 0; tries < 2; tries++) instant += asIfUtc(wall) - asIfUtc(wallTimeAt(instant, zone));
  return isoOf(instant);
}

/** The shop's day of a moment, as an ISO date. */
export function shopDay(iso: string, zone: string): string {
  const { year, month, day } = wallTimeOf(iso, zone);
  return `${digits(year, 4)}-${digits(month)}-${digits(day)}`;
}

/** A moment as a field for a date and a time takes it: the clock on the shop's wall. */
export function typedTime(iso: string, zone: string): string {
  const { hour, minute } = wallTimeOf(iso, zone);
  return `${shopDay(iso, zone)}T${digits(hour)}:${digits(minute)}`;
}

/** Name of the shop's day of the week. */
export function shopWeekday(iso: string, zone: string): string {
  const { year, month, day } = wallTimeOf(iso, zone);
  const days = Math.floor(Date.UTC(year, month - 1, day) / 86_400_000);
  // The first day of 1970 was a Thursday.
  return weekdays[(((days + 4) % 7) + 7) % 7];
}

export type TimeForm = 'day' | 'weekday' | 'moment' | 'weekday-moment' | 'date' | 'paper';

/**
 * A moment in words, by the shop's clock: "Mon 4 Jan, 10:00". Of another year than today's with its year; `date` ("4 Jan 2027") and `paper`
 * ("4 Jan 2027, 10:00") always have it. A text that is no time is handed back.
 */
export function shopTime(iso: string, form: TimeForm, shop: { readonly zone: string; readonly today: string }): string {
  if (iso === '' || (Number.isNaN(Date.parse(iso)) && !wallTimeIn(iso))) return iso;
  const { year, month, day, hour, minute } = wallTimeOf(iso, shop.zone);
  const withYear = form === 'date' || form === 'paper' || String(year) !== shop.today.slice(0, 4);
  const weekday = form.startsWith('weekday') ? `${shopWeekday(iso, shop.zone).slice(0, 3)} ` : '';
  const date = `${weekday}${day} ${months[month - 1]}${withYear ? ` ${year}` : ''}`;
  const clock = `${digits(hour)}:${digits(minute)}`;
  return form.endsWith('moment') || form === 'paper' ? `${date}, ${clock}` : date;
}

/** How far a zone is from UTC at a moment: "UTC+1", "UTC+5:45". */
export function zoneOffset(iso: string, zone: string): string {
  const instant = Math.floor(Date.parse(iso) / 1000) * 1000;
  const minutes = Math.round((asIfUtc(wallTimeAt(instant, zone)) - instant) / 60_000);
  const [hours, rest] = [Math.floor(Math.abs(minutes) / 60), Math.abs(minutes) % 60];
  return `UTC${minutes < 0 ? '−' : '+'}${hours}${rest === 0 ? '' : `:${String(rest).padStart(2, '0')}`}`;
}
