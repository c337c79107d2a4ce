import type { LogNotice } from '../vocabulary/log-notice';
import { counted } from './counted';

/** What was read otherwise than as it stands in a log, about one column of it. */
export const noticeText: Readonly<Record<LogNotice['what'], (header: string, times: number) => string>> = {
  missing: (header, times) => `${counted(times, 'mark')} of “${header}” read as no reading`,
  states: (header) => `words of “${header}” read as states (on and closed are 1)`,
  thousands: (header, times) => `points of “${header}” read as parting thousands (${counted(times, 'figure')})`,
  'clock-rolled': (header, times) =>
    `“${header}” ran on over midnight or a change of the hour${times > 1 ? ` ${times} times` : ''}`,
};
