import dayjs from 'dayjs';

const formats = {
  day: 'D MMM',
  weekday: 'ddd D MMM',
  moment: 'D MMM, HH:mm',
  'weekday-moment': 'ddd D MMM, HH:mm',
} as const;

/** A moment in words; of another year than `now` (ISO; today where left out) with its year. */
export function when(iso: string, how: keyof typeof formats, now?: string): string {
  const moment = dayjs(iso);
  const format = formats[how];
  return moment.format(moment.year() === dayjs(now).year() ? format : format.replace('MMM', 'MMM YYYY'));
}
