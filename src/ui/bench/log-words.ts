import type { MappingQuestion } from '@/core/formats/mapping-questions';
import { ordinaryRate } from '@/core/procedure/logging-rate';
import type { LogFeed } from '@/core/procedure/step-definition';
import { channelTitle } from '@/core/quantities/channels';
import { counted } from '@/core/wording/counted';
import { noticeText as noticeWords } from '@/core/wording/log-notice-text';
import type { LogState } from './use-log-worker';

/** What a step asks of a log, in a sentence or two. */
export function asksFor(feed: LogFeed): string {
  const { needs, uses, anyOf = [] } = feed;
  const named = (channels: readonly string[]) => channels.map((channel) => channelTitle(channel).toLowerCase());
  const all = (channels: readonly string[]) => named(channels).join(' and ');
  const alone = uses.filter((channel) => !anyOf.flat().includes(channel));
  const asked = [
    ...(needs.length > 0 ? [`needs ${all(needs)}`] : []),
    ...(anyOf.length > 0 ? [`needs ${anyOf.map(all).join(', or ')}`] : []),
    ...(alone.length > 0 ? [`uses ${named(alone).join(', ')} where there`] : []),
  ];
  return `This step ${asked.join(', and ')}.${howOften(feed)}`;
}

/** How often a log's sensors must have been asked; of a drive its own columns tell. */
function howOften({ neededRate = ordinaryRate, leastRate = 0, ownSensors }: LogFeed): string {
  const rate = Math.max(neededRate, leastRate);
  return ownSensors || rate === 0 ? '' : ` Log ${counted(rate, 'reading')} a second or more.`;
}

/** What is asked about a column of a log before it is kept. */
export const questionWords: Readonly<Record<MappingQuestion['why'], (header: string) => string>> = {
  'unit-unknown': (header) =>
    `“${header}” names a unit that is not known here. Choose it below; as it stands the usual one is taken.`,
  'scale-questioned': (header) => `“${header}” shows more than anything here has. Is its unit right?`,
  'unit-open': (header) => `“${header}” names no unit. Which is it? As it stands the usual one is taken.`,
  'unit-misfits': (header) => `“${header}” fits its unit badly: a brake’s pressures lie elsewhere. Is the unit right?`,
  'time-unit-open': (header) =>
    `“${header}” is in whole numbers without a unit: seconds, or thousandths or millionths of them?`,
  'reference-open': (header) => `“${header}” makes sense as it is called, and as an absolute pressure. Which is it?`,
  'remembered-misfits': (header) =>
    `“${header}” looks otherwise in this file than in the last one: its unit, sign or reference has changed.`,
};

/** How much of a log was read, and what of it does not count. */
export function sizeOf(state: LogState): string {
  if (state.kind !== 'mapped') return '';
  const { rows, headers, repeatedHeaders, noticed } = state.opened;
  const again = repeatedHeaders > 0 ? `, its header ${repeatedHeaders} times more (left out)` : '';
  const repeated =
    state.judged && state.judged.repeatedTimes > 0 ? `, ${state.judged.repeatedTimes} repeat a time` : '';
  const left = state.judged && state.judged.leftOut.length > 0 ? `, ${state.judged.leftOut.length} left out` : '';
  const read = noticed.map(({ column, what, times }) => `, ${noticeWords[what](headers[column]?.trim() ?? '', times)}`);
  return `${rows.toLocaleString('en')} rows, ${headers.length} columns${again}${repeated}${left}${read.join('')}`;
}
