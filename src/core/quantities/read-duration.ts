import { findUnit } from './measurement-unit';

/** Longest text that anybody would write for one time. */
const longest = 40;
const minutesAndSeconds = /^(\d{1,3}):([0-5]?\d)(?::([0-5]?\d))?(?:[.,](\d{1,3}))?$/;
const primes = /^(\d{1,4})\s?['′’]\s?(?:([0-5]?\d(?:[.,]\d{1,3})?)\s?(?:"|″|”|''|′′)?)?$/;
const part = /^(\d{1,6}(?:[.,]\d{1,3})?)\s?([a-zµμ]{1,12})\.?(?:\s|,\s|$)?/i;

const decimal = (text: string): number => Number(text.replace(',', '.'));

/**
 * Seconds of a time as people write it in more than one part: "1:30" (minutes and seconds, or hours and minutes where `inHours`),
 * "1:02:30", "2'30\"", "2 min 30 s", "1 h 5 min". Null where it is none of these.
 */
export function readDuration(written: string, inHours: boolean): number | null {
  const text = written.trim();
  if (text.length > longest) return null;
  const [clock, one, two, three, rest] = minutesAndSeconds.exec(text) ?? [];
  if (clock !== undefined) {
    const fraction = rest === undefined ? 0 : Number(`0.${rest}`);
    if (three !== undefined) return Number(one) * 3600 + Number(two) * 60 + Number(three) + fraction;
    return (Number(one) * 60 + Number(two)) * (inHours ? 60 : 1) + fraction;
  }
  const [primed, minutes, seconds] = primes.exec(text) ?? [];
  if (primed !== undefined) return Number(minutes) * 60 + (seconds === undefined ? 0 : decimal(seconds));
  return inParts(text);
}

/** "2 min 30 s": each part smaller than the one before it. */
function inParts(text: string): number | null {
  let [rest, total, before, parts] = [text, 0, Infinity, 0];
  while (rest !== '') {
    const [found, figure, spelled] = part.exec(rest) ?? [];
    const unit = found === undefined ? undefined : findUnit(spelled);
    if (found === undefined || unit?.dimension !== 'time' || unit.factor >= before) return null;
    total += decimal(figure) * unit.factor;
    before = unit.factor;
    rest = rest.slice(found.length).trimStart();
    parts++;
  }
  return parts > 1 ? total : null;
}
